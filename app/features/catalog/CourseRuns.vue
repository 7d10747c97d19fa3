<script setup lang="ts">
import { nextRun, phaseOf, type Course } from '#core/catalog'
import type { CoursePage } from '#shared/catalog/responses'
import { count } from '#shared/words'
import { patternText } from '#shared/catalog/texts'

/** When a course runs: next, and on what grounds; and the last six terms. */
const props = defineProps<{ course: Course; page?: CoursePage | undefined }>()
const college = useCollege()
const TERMS = 6

const next = computed(() => {
  const { catalogContext } = college
  return catalogContext && nextRun(props.course, catalogContext.terms, college.today, catalogContext.running)
})
const pattern = computed(() => patternText(props.course.offered))
const past = computed(() => {
  const begun = (college.catalogContext?.terms ?? []).filter(
    (one) => phaseOf(one, college.today) !== 'future'
  )
  return begun.slice(-TERMS).map((term) => ({
    term,
    ran: props.page?.history.find((one) => one.term === term.code),
    known: term.published
  }))
})
</script>

<template>
  <p v-if="!next">Not in any term known so far; usually: {{ pattern }}.</p>
  <p v-else-if="next.ground === 'sections'">
    Next offered in <strong>{{ next.term.name }}</strong>: its sections are published. Usually: {{ pattern }}.
  </p>
  <p v-else>
    Expected in <strong>{{ next.term.name }}</strong>, by its usual pattern ({{ pattern }}); sections are not
    published yet.
  </p>
  <ol v-if="page" class="past" :aria-label="`The last ${TERMS} terms`">
    <li v-for="{ term, ran, known } in past" :key="term.code" :class="{ idle: !ran }">
      <span class="quiet">{{ college.shortTerm(term.code) }}</span>
      <template v-if="ran">
        <span>{{ count(ran.sections, 'section') }}</span>
        <span class="seats" aria-hidden="true"
          ><span :style="{ width: `${(100 * ran.taken) / ran.seats}%` }"
        /></span>
        <span>{{ ran.taken }} of {{ ran.seats }} seats</span>
      </template>
      <span v-else>{{ known ? 'not offered' : 'not kept' }}</span>
    </li>
  </ol>
</template>

<style scoped>
.past {
  list-style: none;
  padding: 0;
  margin: 6px 0 0;
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 6px;
  font-size: 12px;
}
li {
  display: grid;
  align-content: start;
  border: 1px solid var(--rule);
  border-radius: 8px;
  padding: 4px 8px;
}
.idle {
  border-style: dotted;
}
.seats {
  height: 5px;
  margin: 3px 0;
  border-radius: 3px;
  background: var(--shade);
  overflow: hidden;
}
.seats span {
  display: block;
  height: 100%;
  background: var(--quiet);
}
</style>
