<script setup lang="ts">
import { phaseOf } from '#core/catalog'
import { inTheWay, type SectionQuestion } from '#core/search'
import { clashesWith, sectionsOf, seatsLeft, type Option, type Section } from '#core/week'
import { FIRST_DRAFT } from '#shared/reading'
import {
  readSectionQuery,
  SECTION_SORTS,
  sectionAddress,
  type SectionQuery
} from '#shared/sections/sectionQuery'
import { deadlineText, dayMonth, shortInstant } from '#shared/when'
import { clashText, seatsText, sectionHours, sectionName } from '#shared/week/texts'
import { count } from '#shared/words'
import { refusalText } from '#shared/registration/texts'
import { servingText } from '#shared/degree/texts'
import type { SectionLine } from '~/features/sections/useFoundSections'

useHead({ title: 'Sections · Ridgeway' })
const route = useRoute()
const student = useStudent()
const notice = useNotice()
const college = useCollege()
const standing = useStanding()
const weeks = useWeeks()
const finder = useFinder()
const { hueOf } = useHues()

/** What is typed is searched at once; the address follows when the hand rests. */
const text = ref(readSectionQuery(route.query).text)
const asked = computed(() => readSectionQuery(route.query))
const query = computed(() => ({ ...asked.value, text: text.value }))
const { term, offer, sections, openNeeds, sieved, lines, office, occurring } = useFoundSections(query)
/** What the address was last told; when it says so, something newer may have been typed. */
let told = text.value.trim()
function change(next: SectionQuery) {
  told = next.text.trim()
  return navigateTo({ query: sectionAddress(next) }, { replace: true })
}
watch(
  () => asked.value.text,
  (now) => now.trim() !== told && (text.value = told = now.trim())
)
const REST_MS = 250
let rest: ReturnType<typeof setTimeout> | undefined
watch(text, () => {
  clearTimeout(rest)
  rest = setTimeout(() => change(query.value), REST_MS)
})
onUnmounted(() => clearTimeout(rest))

const terms = computed(() => (college.shelf?.terms ?? []).filter((one) => one.published))
const isPast = computed(() => term.value !== undefined && phaseOf(term.value, college.today) === 'past')
/** Nothing can be added to the term any more. */
const isClosed = computed(
  () => term.value !== undefined && college.termsAhead.every((one) => one.code !== term.value!.code)
)
const sessionChoices = computed(() =>
  (term.value?.sessions ?? []).map(({ code, name, start, end }) => ({
    code,
    name: `${name}, ${dayMonth(start)} to ${dayMonth(end)}`
  }))
)
const about = shallowRef<Section>()
const scale = { from: 8 * 60, to: 20 * 60 }
const SORT_WORDS: Record<(typeof SECTION_SORTS)[number], string> = {
  best: 'best first',
  course: 'by course',
  hour: 'by day and hour',
  seats: 'most seats left first',
  instructor: 'by instructor'
}
const COSTLY: Record<SectionQuestion, string> = {
  subjects: 'the subject',
  colleges: 'the college',
  campuses: 'the campus',
  buildings: 'the building',
  modes: 'the mode',
  sessions: 'the session',
  days: 'the days',
  after: 'the earliest start',
  before: 'the latest end',
  length: 'the length of class',
  patterns: 'the pattern of hours',
  seats: 'the seats',
  credits: 'the credits',
  categories: 'the category',
  blocks: 'the block',
  noFee: 'that it has no extra fee',
  noPermission: 'that it needs no permission',
  needs: 'the need',
  serves: 'that it counts toward two needs at once',
  takable: student.say('that you can take it'),
  fits: student.say('that it fits your week')
}
const dropCostliest = () =>
  change({
    ...query.value,
    filter: { ...query.value.filter, [sieved.value.costliest!]: undefined }
  })

const inDraft = (line: SectionLine) => weeks.picked.some((one) => one.code === line.main.code)
const isHeld = (line: SectionLine) => standing.heldSections.some((one) => one.code === line.main.code)
/** The choice of its parts that fits best: without a clash, then with seats. */
function choiceOf({ options, course }: SectionLine): Option | undefined {
  const week = weeks.all
  const rank = (option: Option) =>
    clashesWith({ course: course.code, sections: sectionsOf(option) }, week, standing.holidays).length * 2 +
    Number(seatsLeft(option) <= 0)
  return options.length ? options.reduce((a, b) => (rank(b) < rank(a) ? b : a)) : undefined
}
const isPlaced = ({ main }: SectionLine) =>
  standing.held.some((one) => one.course === main.course && one.placedByOffice)
const mayPick = (line: SectionLine) =>
  student.own &&
  isComing.value &&
  !standing.closedWhy &&
  !line.main.officeOnly &&
  line.options.length > 0 &&
  !isPlaced(line)
const isComing = computed(() => term.value?.code === standing.term?.code)
/** What is found is registered at once, as long as nothing but the press is missing. */
const mayRegister = (line: SectionLine) =>
  standing.work?.adding === 'open' &&
  mayPick(line) &&
  !against(line) &&
  !standing.heldCourses.has(line.main.course) &&
  seatsLeft(choiceOf(line)!) > 0 &&
  weeks.draft?.goingWith !== false
const runFromHere = useRunFromElsewhere()
async function register(line: SectionLine) {
  const option = choiceOf(line)!
  const { course } = line.main
  if (inDraft(line) || (await weeks.pick([{ course, option }]))) await runFromHere([course])
}
async function pick(line: SectionLine) {
  const option = choiceOf(line)
  if (!option) return
  const there = inDraft(line)
  if (!(await weeks.pick([{ course: line.main.course, option: there ? undefined : option }]))) return
  const { course } = line.main
  const draft = weeks.draft?.name ?? FIRST_DRAFT
  if (there) notice.say(`${course} has no section in “${draft}” any more.`)
  else
    notice.say(
      standing.heldCourses.has(course)
        ? `${sectionName(line.main)} is picked instead of your seat, which you hold until it is registered.`
        : `${sectionName(line.main)} is in “${draft}”.`,
      { title: 'Undo', act: () => weeks.pick([{ course, option: undefined }]) }
    )
}
/** The one thing in the way, or what it would clash with. */
function against(line: SectionLine): string | undefined {
  if (line.main.officeOnly) return 'only an office places students in it'
  const refusal = inTheWay(line.refusals.filter((one) => one.code !== 'clash' && one.code !== 'full'))
  if (refusal) return student.say(refusalText(refusal, college.zone))
  if (line.fits || !isComing.value || !line.options.length || inDraft(line)) return undefined
  const week = weeks.all
  const option = choiceOf(line)!
  const [clash] = clashesWith(
    { course: line.course.code, sections: sectionsOf(option) },
    week,
    standing.holidays
  )
  return clash ? clashText(clash) : student.say('in hours that you keep free')
}
const room = ({ main }: SectionLine) => main.meetings.find((one) => one.room)?.room ?? college.placeName(main)
const session = ({ main }: SectionLine) =>
  main.session === 'FULL' ? '' : (term.value?.sessions.find((one) => one.code === main.session)?.name ?? '')
onMounted(() => finder.warm())
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Sections of</h1>
      <label class="term"
        ><span class="visually-hidden">Term</span>
        <v-select
          :model-value="term?.code"
          :items="terms"
          item-value="code"
          item-title="name"
          @update:model-value="change({ ...query, term: $event as string })"
      /></label>
      <v-text-field
        v-model="text"
        type="search"
        class="question"
        aria-label="Course, section, words, instructor, days and hours"
        placeholder="ENVI 310-02, a name, words, or TR 9-12"
        autocomplete="off"
      />
      <label
        ><span class="visually-hidden">Order</span>
        <v-select
          :model-value="query.sort"
          :items="SECTION_SORTS"
          :item-title="(sort) => SORT_WORDS[sort as SectionQuery['sort']]"
          @update:model-value="change({ ...query, sort: $event as SectionQuery['sort'] })"
      /></label>
      <v-btn
        class="push"
        variant="outlined"
        size="small"
        :to="`/students/${student.picture?.student.id}/week`"
        >Back to the week</v-btn
      >
    </div>
    <p v-if="isClosed" class="past">
      {{
        isPast
          ? `${term?.name} is over. Shown is what was offered and how full it was`
          : `Adding to ${term?.name} was possible until ${deadlineText(term!.addEndsAt, college.zone)}. Shown is what is offered and how full it is`
      }}; nothing can be picked.
    </p>
    <SectionFilters
      :query="query"
      :hides="sieved.hides"
      :needs="openNeeds"
      :occurring="occurring"
      :sessions="sessionChoices"
      :past="isClosed"
      @change="change"
    />
    <ViewState
      :failure="finder.failure"
      :ready="Boolean(offer)"
      @retry="term && finder.loadOffer(term.code, true)"
    >
      <p class="found" role="status">
        <strong>{{ count(lines.length, 'section') }}</strong>
        <span v-if="offer" class="quiet small">
          · seats as read {{ shortInstant(offer.readAt, college.zone) }}</span
        >
        <v-text-btn v-if="office" @click="change({ ...query, office: !query.office })">
          {{ query.office ? 'fold away' : 'show' }} {{ count(office, 'section') }} only an office places
        </v-text-btn>
      </p>
      <v-virtual-scroll
        v-if="lines.length"
        class="card list"
        :items="lines"
        :item-height="70"
        role="list"
        aria-label="Sections found"
      >
        <template #default="{ item: line }">
          <div class="row" role="listitem" :class="`hue-${hueOf(line.main.course).hue}`">
            <div class="what">
              <v-bare-btn class="name" @click="about = line.main">
                <strong class="display">{{ line.main.course }}-{{ line.main.number }}</strong>
                {{ line.main.topic ?? line.course.title }}
              </v-bare-btn>
              <span class="quiet small"
                >{{ line.main.code }} · {{ line.main.credits }} cr ·
                {{ line.main.instructors.join(', ') || 'instructor to be named' }}</span
              >
              <span
                v-if="line.serving.kind !== 'full' && line.serving.kind !== 'nothing'"
                class="small needs"
                >{{ student.say(servingText(line.serving)) }}</span
              >
            </div>
            <SmallWeek
              :sections="[line.main, ...line.parts]"
              :hue-of="() => hueOf(line.main.course).hue"
              :scale="scale"
            />
            <div class="when">
              <span>{{ sectionHours(line.main) }}</span>
              <span class="quiet small">{{
                [
                  room(line),
                  session(line),
                  line.parts.length ? `with ${line.parts[0]!.kind}` : '',
                  line.main.block && `block ${line.main.block}`
                ]
                  .filter(Boolean)
                  .join(' · ')
              }}</span>
            </div>
            <div class="seats">
              <span>{{ seatsText(line.main) }}</span>
              <span v-if="!isClosed && against(line)" class="small stops">{{ against(line) }}</span>
            </div>
            <div class="act">
              <span v-if="isHeld(line)" class="quiet">registered</span>
              <v-text-btn v-else-if="mayPick(line)" :aria-pressed="inDraft(line)" @click="pick(line)">
                {{
                  inDraft(line) ? 'Unpick' : standing.heldCourses.has(line.main.course) ? 'Exchange' : 'Pick'
                }}<span class="visually-hidden"> {{ line.main.course }}-{{ line.main.number }}</span>
              </v-text-btn>
              <v-text-btn v-if="mayRegister(line)" @click="register(line)"
                >Register<span class="visually-hidden">
                  {{ line.main.course }}-{{ line.main.number }}</span
                ></v-text-btn
              >
            </div>
          </div>
        </template>
      </v-virtual-scroll>
      <div v-else class="card none">
        <p>
          No section of {{ term?.name }} fits all of this.
          <template v-if="sieved.costliest">
            Without {{ COSTLY[sieved.costliest] }} there
            {{
              sieved.hides.get(sieved.costliest) === 1
                ? 'would be 1.'
                : `would be ${sieved.hides.get(sieved.costliest)}.`
            }}
            <v-text-btn @click="dropCostliest">Ask without it</v-text-btn>
          </template>
          <template v-else>Try a course such as ENVI 310, or fewer words.</template>
        </p>
      </div>
    </ViewState>
    <SectionSheet
      v-if="about"
      :section="about"
      :among="sections"
      v-bind="offer ? { readAt: offer.readAt } : {}"
      @close="about = undefined"
    />
  </div>
</template>

<style scoped>
.term .v-select {
  font-family: var(--display);
  font-size: 18px;
  font-weight: 650;
}
.question {
  flex: 1 1 260px;
}
.past {
  margin-bottom: 8px;
  color: var(--ember);
  font-weight: 650;
}
.found {
  display: flex;
  gap: 12px;
  align-items: baseline;
  margin-bottom: 6px;
}
.list {
  height: calc(100vh - 252px);
  min-height: 320px;
}
.row {
  display: grid;
  grid-template-columns: minmax(220px, 1.5fr) 150px minmax(150px, 1fr) minmax(150px, 1fr) 72px;
  gap: 14px;
  align-items: center;
  min-height: 70px;
  padding: 5px 12px;
  border-bottom: 1px solid var(--rule);
}
.what,
.when,
.seats {
  display: flex;
  flex-direction: column;
  min-width: 0;
}
.what {
  border-left: 5px solid var(--hue);
  padding-left: 9px;
}
.name {
  text-align: left;
}
.name:hover {
  text-decoration: underline;
}
.needs {
  color: var(--dusk);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.act {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
}
.none {
  padding: 16px;
}
@media (max-width: 820px) {
  .row {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  .row svg {
    display: none;
  }
  .list {
    height: calc(100vh - 330px);
  }
}
</style>
