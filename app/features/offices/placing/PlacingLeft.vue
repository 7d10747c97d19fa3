<script setup lang="ts">
import type { LeftCourse } from '#shared/offices/placing'
import { count } from '#shared/words'

/** What stands in the way of the courses that are left, the most frequent first. */
const props = defineProps<{ courses: readonly LeftCourse[]; term: string }>()
const SHOWN = 8
const all = ref(false)
const shown = computed(() => (all.value ? props.courses : props.courses.slice(0, SHOWN)))
const address = ({ course }: LeftCourse) => `/offer/${props.term}/${course.replace(' ', '-')}`
</script>

<template>
  <section class="card" aria-labelledby="left-title">
    <h2 id="left-title">Courses that are left</h2>
    <p v-if="!courses.length" class="quiet">None: everybody gets all that they want.</p>
    <ul v-else>
      <li v-for="one in shown" :key="`${one.course} ${one.why}`">
        <NuxtLink class="textlink code" :to="address(one)">{{ one.course }}</NuxtLink>
        <span>{{ one.why }}</span>
        <span class="quiet small">{{ count(one.students, 'student') }}</span>
      </li>
    </ul>
    <v-text-btn v-if="courses.length > SHOWN" :aria-expanded="all" @click="all = !all">{{
      all ? 'Show fewer' : `Show all ${courses.length}`
    }}</v-text-btn>
  </section>
</template>

<style scoped>
section {
  padding: 12px 15px;
}
ul {
  list-style: none;
  margin: 6px 0 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 84px minmax(0, 1fr) auto;
  gap: 10px;
  min-height: 26px;
  align-items: center;
}
</style>
