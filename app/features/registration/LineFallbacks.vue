<script setup lang="ts">
import type { CourseCode } from '#core/ids'
import { optionsAmong, seatsLeft, sectionsOf, type Option } from '#core/week'
import type { SheetLine } from '#shared/registration/responses'
import { MOST_FALLBACKS, type Fallback, type LineFallbacks } from '#shared/registration/fallbacks'
import { refusalText } from '#shared/registration/texts'
import { sectionHours } from '#shared/week/texts'
import { KIND_WORDS } from '#shared/words'

/** What is tried where a line does not go through, in order; what may be added is one click. */
const props = defineProps<{ line: SheetLine; others: readonly CourseCode[] }>()
const student = useStudent()
const college = useCollege()
const standing = useStanding()
const offers = useOffers()

const term = computed(() => standing.term?.code)
const lineSaid = useLineSaid()
const said = computed(() => lineSaid.said(props.line.course))
const list = computed(() => said.value.list)
const onlyWith = computed(() => said.value.onlyWith)
const givingUp = computed(() => said.value.givingUp)
const keyOf = (one: Fallback) => (one.kind === 'line' ? 'line' : [...one.sections].sort().join())
const picked = computed(() => new Set<string>((props.line.sections ?? []).map((one) => one.code)))
const named = ({ course, main, components }: Option) => {
  const numbers = [main.number, ...components.map((one) => `${KIND_WORDS[one.kind]} ${one.number}`)]
  return `${course === props.line.course ? '' : `${course} `}${numbers.join(' + ')}`
}
const options = computed(() => {
  const own = (offers.byTerm.get(term.value ?? '')?.sections ?? []).filter(
    (one) => one.course === props.line.course
  )
  return optionsAmong(own, standing.holidays).filter((option) =>
    sectionsOf(option).every((one) => !one.officeOnly)
  )
})
const choice = useChoice()
const otherCourses = useOtherCourses(() => props.line)
const textOf = (one: Fallback) => {
  if (one.kind === 'line') return 'stand in line'
  const option = choice(one.sections)
  return option ? `${named(option)} · ${sectionHours(option.main)}` : one.sections.join(' + ')
}
/** What would stand in the way of one as things stand. */
const againstOf = (one: Fallback) => {
  const judged = props.line.fallbacks.find((other) => keyOf(other.fallback) === keyOf(one))
  const first = judged?.refusals[0]
  return first && student.say(refusalText(first, college.zone))
}
/** Not picked and not chosen yet: those with seats first, then other courses for the same need. */
const more = computed(() => {
  const chosen = new Set(list.value.map(keyOf))
  const sections = options.value
    .filter((option) => sectionsOf(option).some((one) => !picked.value.has(one.code)))
    .sort((a, b) => Number(seatsLeft(b) > 0) - Number(seatsLeft(a) > 0))
    .concat(otherCourses.value)
    .map((option): { fallback: Fallback; title: string } => {
      const fallback: Fallback = { kind: 'sections', sections: sectionsOf(option).map((one) => one.code) }
      const left = Math.max(0, seatsLeft(option))
      return { fallback, title: `${textOf(fallback)} · ${left} left` }
    })
  const line = { fallback: { kind: 'line' } as Fallback, title: 'Stand in line' }
  return [line, ...sections].filter((one) => !chosen.has(keyOf(one.fallback)))
})
const write = (next: Partial<LineFallbacks>) => lineSaid.say(props.line.course, next)
/** Held courses that may be given up for it, those that meet at the same time first. */
const mayGo = computed(() => {
  const against = new Set(props.line.refusals.flatMap((one) => (one.code === 'clash' ? [one.with] : [])))
  return [...standing.heldCourses]
    .filter((course) => course !== props.line.course)
    .sort((a, b) => Number(against.has(b)) - Number(against.has(a)))
})
/** Courses of the sheet without which this one may not be wanted. */
const others = computed(() => props.others.filter((course) => course !== props.line.course))
const without = (one: Fallback) => list.value.filter((other) => keyOf(other) !== keyOf(one))
</script>

<template>
  <ol class="fallbacks">
    <li v-for="one in list" :key="keyOf(one)">
      {{ textOf(one) }}
      <v-text-btn
        v-if="student.own"
        :aria-label="`Take off: ${textOf(one)}`"
        @click="write({ list: without(one) })"
        >take off</v-text-btn
      >
      <span v-if="againstOf(one)" class="quiet small against">{{ againstOf(one) }}</span>
    </li>
  </ol>
  <p v-if="onlyWith" class="company">
    only together with {{ onlyWith }}
    <v-text-btn
      v-if="student.own"
      :aria-label="`${line.course} also without ${onlyWith}`"
      @click="write({ onlyWith: null })"
      >take off</v-text-btn
    >
  </p>
  <p v-if="givingUp" class="company">
    {{ givingUp }} is given up for it
    <v-text-btn
      v-if="student.own"
      :aria-label="`Keep ${givingUp} beside ${line.course}`"
      @click="write({ givingUp: null })"
      >take off</v-text-btn
    >
  </p>
  <v-menu v-if="student.own && (list.length < MOST_FALLBACKS || !onlyWith || !givingUp)">
    <template #activator="{ props: menu }">
      <v-text-btn v-bind="menu" :aria-label="`Add a fallback for ${line.course}`">{{
        list.length || onlyWith || givingUp ? 'add another' : 'nothing set, add'
      }}</v-text-btn>
    </template>
    <v-list>
      <template v-if="list.length < MOST_FALLBACKS">
        <v-list-item
          v-for="one in more"
          :key="keyOf(one.fallback)"
          @click="write({ list: [...list, one.fallback] })"
          >{{ one.title }}</v-list-item
        >
      </template>
      <template v-if="!onlyWith">
        <v-list-item v-for="course in others" :key="course" @click="write({ onlyWith: course })"
          >Only together with {{ course }}</v-list-item
        >
      </template>
      <template v-if="!givingUp">
        <v-list-item v-for="course in mayGo" :key="course" @click="write({ givingUp: course })"
          >Give up {{ course }} for it, once it is yours</v-list-item
        >
      </template>
    </v-list>
  </v-menu>
  <span v-else-if="!list.length && !onlyWith && !givingUp" class="quiet">nothing set</span>
</template>

<style scoped>
.fallbacks {
  margin: 0;
  padding-left: 18px;
}
.company {
  margin: 0;
}
.against {
  display: block;
}
</style>
