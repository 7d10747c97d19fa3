<script setup lang="ts">
import type { Section } from '#core/week'
import { sectionHours, sectionName } from '#shared/week/texts'

/** The week as a list, for print alone. */
defineProps<{ week: readonly Section[]; held: readonly Section[]; summary: string }>()
const student = useStudent()
const college = useCollege()
const standing = useStanding()
</script>

<template>
  <div class="print-only">
    <p>
      {{ student.view?.student.name }}, {{ student.view?.student.number }} · {{ standing.term?.name }} ·
      {{ summary }}
    </p>
    <table>
      <tbody>
        <tr v-for="one in week" :key="one.code">
          <td>{{ sectionName(one) }}</td>
          <td>{{ one.code }}</td>
          <td>{{ one.topic ?? college.catalogContext?.catalog.maybeCourse(one.course)?.title }}</td>
          <td>{{ sectionHours(one) }}</td>
          <td>{{ one.meetings[0]?.room }}</td>
          <td>{{ one.instructors.join(', ') }}</td>
          <td>{{ held.includes(one) ? 'registered' : 'picked' }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
table {
  width: 100%;
  margin-top: 12px;
  border-collapse: collapse;
}
td {
  border-top: 1px solid var(--rule);
  padding: 4px 8px 4px 0;
}
</style>
