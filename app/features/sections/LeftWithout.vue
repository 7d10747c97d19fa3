<script setup lang="ts">
import type { CourseNeeds } from '#shared/sections/demand'
import { instantText } from '#shared/when'

/** Who cannot wait for a course and finds no seat in it, if all register when they may. */
const props = defineProps<{ needs: readonly CourseNeeds[]; term: string }>()
const college = useCollege()
const list = useId()
const isOpen = ref(false)
const courses = computed(() => props.needs.filter((one) => one.left || one.mayBeLeft))
/** The courses in which it is sure, and those in which it depends on who is faster. */
const told = computed(() =>
  (['left', 'mayBeLeft'] as const).flatMap((key) => {
    const some = courses.value.filter((one) => one[key])
    const list = some.map((one) => ({ course: one.course, students: one[key] }))
    return list.length ? [{ key, list }] : []
  })
)
const KINDS = { left: 'surely in', mayBeLeft: 'or, where others are faster, in' }
const isNamed = computed(() => courses.value.some((one) => one.students.length))
const opensText = (opens: number | null) =>
  opens === null ? 'no opening yet' : `from ${instantText(opens, college.zone)}`
</script>

<template>
  <section class="card" aria-labelledby="left-title">
    <div class="head">
      <div>
        <h2 id="left-title">Left without a seat</h2>
        <p>
          If all register when they may, students who cannot wait find none,
          <template v-for="{ key, list: some } in told" :key="key"
            >{{ KINDS[key] }}
            <template v-for="(one, i) in some" :key="one.course"
              ><template v-if="i">, </template
              ><NuxtLink class="textlink" :to="offerPage(term, one.course)">{{ one.course }}</NuxtLink
              >&nbsp;({{ one.students }})</template
            >{{ key === told.at(-1)!.key ? '.' : '; ' }}</template
          >
        </p>
      </div>
      <v-text-btn v-if="isNamed" :aria-expanded="isOpen" :aria-controls="list" @click="isOpen = !isOpen">{{
        isOpen ? 'Hide who' : 'Who they are'
      }}</v-text-btn>
    </div>
    <v-table v-if="isOpen" :id="list" height="360" fixed-header>
      <thead>
        <tr>
          <th scope="col">Course</th>
          <th scope="col">Student</th>
          <th scope="col">Registers</th>
          <th scope="col">Finds</th>
        </tr>
      </thead>
      <tbody>
        <template v-for="one in courses" :key="one.course">
          <tr v-for="who in one.students" :key="who.student">
            <td>{{ one.course }}</td>
            <td>
              <NuxtLink class="textlink" :to="`/students/${who.student}/degree`">{{ who.name }}</NuxtLink>
              <span class="quiet small number">{{ who.number }}</span>
            </td>
            <td>{{ opensText(who.opens) }}</td>
            <td>{{ who.surely ? 'no seat' : 'perhaps no seat' }}</td>
          </tr>
        </template>
      </tbody>
    </v-table>
  </section>
</template>

<style scoped>
section {
  padding: 12px 14px;
  margin-bottom: 12px;
}
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 16px;
  align-items: start;
  justify-content: space-between;
}
.head > div {
  flex: 1 1 320px;
}
h2,
p {
  margin: 0;
}
.number {
  margin-left: 8px;
}
</style>
