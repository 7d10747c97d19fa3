<script setup lang="ts">
import type { LeftCourse } from '#shared/offices/placing'
import { count } from '#shared/words'

/** What stands in the way of the courses that are left, the most frequent first. */
defineProps<{ courses: readonly LeftCourse[]; term: string }>()
</script>

<template>
  <ShortList
    v-slot="{ row }"
    title="Courses that are left"
    :rows="courses"
    :first="8"
    none="None: everybody gets all that they want."
  >
    <li :key="`${row.course} ${row.why}`">
      <NuxtLink class="textlink code" :to="offerPage(term, row.course)">{{ row.course }}</NuxtLink>
      <span>{{ row.why }}</span>
      <span class="quiet small">{{ count(row.students, 'student') }}</span>
    </li>
  </ShortList>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 84px minmax(0, 1fr) auto;
  gap: 10px;
  align-items: center;
  min-height: 26px;
}
</style>
