<script setup lang="ts">
import type { Course } from '#core/catalog'
import { explain, needsServedBy, type Elsewhere } from '#core/degree'

/** Where a course counts for this student, or would; and what moving it would cost. */
const props = defineProps<{ course: Course }>()
const college = useCollege()
const student = useStudent()

const there = computed(() => student.reading?.takings.counted.find((t) => t.course === props.course.code))
const needs = computed(() => needsServedBy(props.course, student.reading?.audits ?? []))
const explained = computed(() =>
  there.value && student.reading && college.shelf
    ? explain(there.value.key, student.reading.audits, student.reading.takings, college.shelf.catalog)
    : undefined
)
const titles = (needs: readonly { title: string }[]) => needs.map((need) => need.title).join(', ')
function costText({ counts, opens, closes, leaves, joins }: Elsewhere): string {
  if (!counts) return 'would not get it there: that need is met first by firmer courses, or cannot be met.'
  const parts = [
    ...(opens.length ? [`would open ${titles(opens)}`] : []),
    ...(closes.length ? [`would meet ${titles(closes)}`] : []),
    ...(leaves.length ? [`would put ${leaves.map((t) => t.course).join(', ')} outside`] : []),
    ...(joins.length ? [`would let ${joins.map((t) => t.course).join(', ')} count`] : [])
  ]
  return parts.length ? `${parts.join('; ')}.` : 'would lose nothing: another course takes its place.'
}
const FIRMNESS = { planned: 'On your route', registered: 'Registered', underWay: 'Under way' } as const
const state = computed(() => {
  if (!there.value) return undefined
  const { firmness, grade, term } = there.value
  const what = firmness === 'earned' ? `Earned with ${grade}` : FIRMNESS[firmness]
  return `${what}${term ? `, ${college.termName(term)}` : ''}.`
})
</script>

<template>
  <h3>{{ explained ? 'Where it counts' : 'Where it would count' }}</h3>
  <template v-if="explained">
    <p v-for="{ result } in explained.here" :key="result.need.id">
      Counts toward <strong>{{ result.need.title }}</strong>.
    </p>
    <p v-if="!explained.here.length && !explained.elsewhere.length">
      Nowhere: no requirement of yours accepts it{{ there?.grade ? ' with this grade' : '' }}.
    </p>
    <ul v-if="explained.elsewhere.length">
      <li v-for="other in explained.elsewhere" :key="`${other.program.spec.code} ${other.need.id}`">
        Moving it to {{ other.need.title }}
        <span class="quiet">{{ costText(other) }}</span>
      </li>
    </ul>
  </template>
  <ul v-else-if="needs.length">
    <li v-for="need in needs" :key="need.need.id">
      {{ need.need.title }}
      <span class="quiet">{{ need.state === 'needed' ? 'still needed' : 'full already' }}</span>
    </li>
  </ul>
  <p v-else>Nowhere: no requirement of yours accepts it.</p>
  <p v-if="state" class="state">{{ state }}</p>
</template>

<style scoped>
ul {
  margin: 0;
  padding-left: 18px;
}
.state {
  margin-top: 8px;
  font-weight: 650;
}
</style>
