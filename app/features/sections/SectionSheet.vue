<script setup lang="ts">
import { decide } from '#core/registration'
import { figuresOf, keptForOthers, optionsAmong, sectionsOf, studyHours, type Section } from '#core/week'
import { clockTime, dayMonth, duration, shortInstant } from '#shared/when'
import { count, creditsText, KIND_WORDS, MODE_WORDS, moneyText, STANDING_WORDS } from '#shared/words'
import { refusalText } from '#shared/registration/texts'
import { seatsText, sectionHours, sectionName } from '#shared/week/texts'
import { servingText } from '#shared/degree/texts'

/** Everything about a section, and what taking it would do. */
const props = defineProps<{
  section: Section
  /** Sections among which its components are. */
  among: readonly Section[]
  readAt?: number
}>()
const emit = defineEmits<{ close: [] }>()
const student = useStudent()
const session = useWho()
const college = useCollege()
const standing = useStanding()
const weeks = useWeeks()
const panel = useCoursePanel()
const heading = ref<HTMLElement>()
watch(
  () => props.section,
  async () => {
    await nextTick()
    heading.value?.focus()
  },
  { immediate: true }
)

const course = computed(() => college.catalogContext?.catalog.maybeCourse(props.section.course))
const term = computed(() => college.catalogContext?.terms.find((one) => one.code === props.section.term))
const sessionOf = computed(() => term.value?.sessions.find((one) => one.code === props.section.session))
const parts = computed(() => props.among.filter((one) => one.parent === props.section.code))
const facts = useTermFacts(term, () => props.among)
const mine = computed(() =>
  optionsAmong(
    props.among.filter((one) => one.course === props.section.course),
    facts.value?.holidays
  ).filter((option) => sectionsOf(option).some((one) => one.code === props.section.code))
)
/** Everything that would be said of it at the opening, for the choice of its parts of which least is. */
const decision = computed(() => {
  if (!facts.value || !mine.value.length) return undefined
  const all = mine.value.map((option) => decide(facts.value!, [option])[0]!)
  return all.reduce((a, b) => (b.refusals.length < a.refusals.length ? b : a))
})
const kept = computed(() => {
  const { view } = student
  if (!view) return 0
  return keptForOthers(props.section, {
    programs: view.programs.map((one) => one.spec.code),
    block: view.student.block
  })
})
const served = useServing()
const serves = computed(
  () => course.value && student.say(servingText(served.value(course.value, props.section).serving))
)
/** What the week would come to with it, against what it is. */
const would = computed(() => {
  const option = mine.value[0]
  if (!option || props.section.term !== standing.term?.code) return undefined
  const rest = weeks.all.filter((one) => one.course !== option.course)
  const [before, after] = [weeks.all, [...rest, ...sectionsOf(option)]]
  const mains = (list: readonly Section[]) => list.filter((one) => one.parent === null)
  const credits = (list: readonly Section[]) => mains(list).reduce((sum, one) => sum + one.credits, 0)
  const figures = (list: readonly Section[]) => {
    const { days, firstStart, between } = figuresOf(list, standing.holidays)
    return { days, firstStart, between, credits: credits(list), study: studyHours(mains(list)) }
  }
  return { before: figures(before), after: figures(after) }
})
const needsBefore = computed(() => props.section.prerequisite ?? course.value?.prerequisite)
const onlyFor = computed(() => {
  const { onlyFor } = props.section
  if (!onlyFor) return undefined
  return [
    ...onlyFor.programs.map((one) => `program ${one}`),
    ...onlyFor.standings.map((one) => `${STANDING_WORDS[one]} students`)
  ].join(' and ')
})
const weekChange = computed(() => {
  const { before, after } = would.value!
  const parts = [
    change(count(before.days, 'day'), count(after.days, 'day')),
    change(duration(before.between), `${duration(after.between)} between classes`)
  ]
  if (after.firstStart !== null) parts.push(`first class ${clockTime(after.firstStart)}`)
  return parts.join('; ')
})
const change = (before: string, after: string) =>
  after.startsWith(before) ? after : `${after}, now ${before}`
</script>

<template>
  <SidePanel :label="`Section ${sectionName(section)}`" @close="emit('close')">
    <h2 ref="heading" tabindex="-1">
      {{ section.course }}-{{ section.number }} {{ section.topic ?? course?.title }}
    </h2>
    <p class="quiet">
      {{ term?.name }} · code {{ section.code }} ·
      {{ section.parent ? KIND_WORDS[section.kind] : creditsText(section.credits) }}
      <v-text-btn @click="panel.open(section.course)">About the course</v-text-btn>
    </p>
    <dl>
      <dt>Hours</dt>
      <dd>{{ sectionHours(section) }}</dd>
      <dt>Session</dt>
      <dd v-if="sessionOf">
        {{ sessionOf.name }}, {{ dayMonth(sessionOf.start) }} to {{ dayMonth(sessionOf.end) }}
      </dd>
      <dt>Place</dt>
      <dd>
        {{ college.placeName(section)
        }}<template v-if="section.meetings[0]?.room">, {{ section.meetings[0].room }}</template
        ><template v-else-if="section.mode === 'inPerson'">, room not set yet</template>
      </dd>
      <dt>Mode</dt>
      <dd>{{ MODE_WORDS[section.mode] }}</dd>
      <dt>Instructor</dt>
      <dd>{{ section.instructors.join(', ') || 'to be named' }}</dd>
      <dt>Seats</dt>
      <dd>
        {{ seatsText(section) }}<template v-if="kept">; {{ kept }} of them kept for others</template>;
        {{ section.waiting }} of {{ section.waitCapacity }} places in line taken
        <span v-if="readAt" class="quiet"> · read {{ shortInstant(readAt, college.zone) }}</span>
      </dd>
      <template v-if="section.reserved.length">
        <dt>Kept seats</dt>
        <dd>
          <span v-for="one in section.reserved" :key="`${one.program} ${one.block}`" class="row"
            >{{ one.left }} left for {{ one.program ? `program ${one.program}` : `block ${one.block}` }}</span
          >
        </dd>
      </template>
      <template v-if="onlyFor">
        <dt>Only for</dt>
        <dd>{{ onlyFor }}</dd>
      </template>
      <template v-if="section.block">
        <dt>Block</dt>
        <dd>{{ section.block }}: taken whole</dd>
      </template>
      <template v-if="section.permissionNeeded">
        <dt>Permission</dt>
        <dd>of the instructor or the department</dd>
      </template>
      <template v-if="needsBefore">
        <dt>Needs before</dt>
        <dd>
          {{ needsBefore }}
          <span v-if="section.prerequisite !== null" class="quiet"
            >for this section; others of the course: {{ course?.prerequisite || 'nothing' }}</span
          >
        </dd>
      </template>
      <template v-if="section.categories">
        <dt>Counts as</dt>
        <dd>{{ college.categoryTitles(section.categories) }} <span class="quiet">this section only</span></dd>
      </template>
      <dt>Fee</dt>
      <dd>{{ section.fee ? moneyText(section.fee) : 'none' }}</dd>
      <template v-if="parts.length">
        <dt>Belongs to it</dt>
        <dd>
          <span v-for="one in parts" :key="one.code" class="row"
            >{{ KIND_WORDS[one.kind] }} {{ one.number }} · {{ one.code }} · {{ sectionHours(one) }} ·
            {{ seatsText(one) }}</span
          >
        </dd>
      </template>
    </dl>
    <LazySectionOffice
      v-if="session.who?.role === 'registrar' && !section.cancelled"
      :section="section"
      @done="emit('close')"
    />
    <template v-if="student.view">
      <h3>{{ student.say('If you take it') }}</h3>
      <dl>
        <dt>Degree</dt>
        <dd>{{ serves }}</dd>
        <template v-if="would">
          <dt>Week</dt>
          <dd>
            {{ weekChange }}
          </dd>
          <dt>Load</dt>
          <dd>
            {{ change(creditsText(would.before.credits), creditsText(would.after.credits)) }};
            {{ count(would.after.study, 'hour') }} of study a week
          </dd>
        </template>
        <dt>Registering</dt>
        <dd v-if="section.officeOnly">Only an office places students in it.</dd>
        <dd v-else-if="decision?.refusals.length">
          <span v-for="(one, i) in decision.refusals" :key="i" class="row">{{
            student.say(refusalText(one, college.zone))
          }}</span>
        </dd>
        <dd v-else>{{ student.say('Every check passes as of your opening.') }}</dd>
      </dl>
    </template>
  </SidePanel>
</template>

<style scoped>
h2:focus-visible {
  outline: none;
}
h3 {
  margin: 14px 0 4px;
}
dl {
  display: grid;
  grid-template-columns: 92px minmax(0, 1fr);
  gap: 3px 12px;
  margin-top: 8px;
}
dt {
  color: var(--quiet);
}
.row {
  display: block;
}
</style>
