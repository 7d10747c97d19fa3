<script setup lang="ts">
import type { Course } from '#core/catalog'
import { explain, type Elsewhere } from '#core/degree'
import { capital, count } from '#shared/words'
import { servingText } from '#shared/degree/texts'

/** Where a course counts for this student, or would; and what moving it would cost. */
const props = defineProps<{ course: Course }>()
const college = useCollege()
const student = useStudent()

const there = computed(() => student.reading?.attempts.counted.find((t) => t.course === props.course.code))
const served = useServing()
const would = computed(() => student.say(servingText(served.value(props.course).serving)))
const explained = computed(() =>
  there.value && student.reading && college.catalogContext
    ? explain(
        there.value.key,
        student.reading.audits,
        student.reading.attempts,
        college.catalogContext.catalog
      )
    : undefined
)
const titles = (needs: readonly { title: string }[]) =>
  [...new Set(needs.map((need) => need.title))].join(', ')
const SOME = 3
/** `ENVI 310, STAT 212 and 4 more courses` */
function named(attempts: readonly { course: string }[]): string {
  const shown = attempts.slice(0, SOME).map((one) => one.course)
  const more = attempts.length - shown.length
  return more ? `${shown.join(', ')} and ${count(more, 'more course')}` : shown.join(', ')
}
/** What is lost and what is gained by moving it, by need; what a need loses and gets again is neither. */
function costText({ counts, opens, closes, beyond, leaves, joins }: Elsewhere): string {
  if (!counts) return 'would not get it there: that need is met first by firmer courses, or cannot be met.'
  const gone = titles(opens.filter((need) => !closes.includes(need)))
  const won = titles(closes.filter((need) => !opens.includes(need)))
  const parts = [
    ...(gone ? [`would open ${gone}`] : []),
    ...(won ? [`would meet ${won}`] : []),
    ...(beyond.length ? [`would leave ${titles(beyond)} open whatever is still taken`] : []),
    ...(leaves.length ? [`would put ${named(leaves)} outside`] : []),
    ...(joins.length ? [`would let ${named(joins)} count`] : [])
  ]
  return parts.length ? `${parts.join('; ')}.` : 'would lose nothing: another course takes its place.'
}
const WORDS = { planned: 'On the route', registered: 'Registered', underWay: 'Under way' } as const
const state = computed(() => {
  if (!there.value) return undefined
  const { status, detail, grade, term } = there.value
  const what =
    status === 'earned'
      ? grade === 'TR'
        ? 'Transferred'
        : `Earned with ${grade}`
      : detail === 'gradeDue'
        ? 'Over, grade due'
        : WORDS[status]
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
      Nowhere: {{ student.say('no requirement of yours') }} accepts it{{
        there?.grade ? ' with this grade' : ''
      }}.
    </p>
    <ul v-if="explained.elsewhere.length">
      <li v-for="other in explained.elsewhere" :key="`${other.program.spec.code} ${other.need.id}`">
        Moving it to {{ other.need.title }}
        <span class="quiet">{{ costText(other) }}</span>
      </li>
    </ul>
  </template>
  <p v-else>{{ capital(would) }}.</p>
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
