<script setup lang="ts">
import { SAFE_SEATS } from '#core/find'
import {
  clashesWith,
  figuresOf,
  ribbonOf,
  sectionsOf,
  shortWays,
  studyHours,
  changesSince,
  type Option,
  type Section
} from '#core/week'
import type { CourseCode } from '#core/ids'
import type { Weekday } from '#core/time'
import { clockTime, dayMonth, duration, shortInstant } from '#shared/when'
import { clashText, sectionHours, SINCE_WORDS, wayText, sectionName } from '#shared/week/texts'
import { count, KIND_WORDS, creditsText, moneyText } from '#shared/words'
import type { JudgedOption } from '~/features/week/useWeekOptions'

useHead({ title: 'Week · Ridgeway' })
const student = useStudent()
const notice = useNotice()
const college = useCollege()
const standing = useStanding()
const weeks = useWeeks()
const panel = useCoursePanel()
const place = usePlacing()
const { hueOf } = useHues()

const wanted = computed<string[]>(() => standing.courses)
const { sections, failure, loaded, readAt, refresh } = useOffer(wanted)
const { rows, alongWith, travel } = useWeekOptions(sections)
const finding = useFinding()
watch(sections, (list) => (finding.sections = list), { immediate: true })
// How many weeks fit stands on the way to them.
watch([() => finding.call, loaded], () => loaded.value && finding.ask(), { immediate: true })
finding.hold()
const preview = ref<Option>()
const about = shallowRef<Section>()
const shown = ref<'typical' | 'dated' | 'compare'>('typical')
const keeping = ref(false)
const painted = shallowRef<{ days: Weekday[]; start: number; end: number }>()

/** Sections as the seats stand now, where they are read; picked ones that are not among them as they came. */
const fresh = computed(() => new Map(sections.value.map((one) => [one.code, one])))
const now = (list: readonly Section[]) => list.map((one) => fresh.value.get(one.code) ?? one)
const held = computed(() => now(weeks.week.staying))
const picked = computed(() => now(weeks.picked))
const week = computed(() => [...held.value, ...picked.value])
const isThere = (option: Option) => sectionsOf(option).every((s) => week.value.some((p) => p.code === s.code))
const shownPreview = computed(() => {
  const option = preview.value
  return option && !isThere(option) && !weeks.isFixed(option.course) ? sectionsOf(option) : []
})
/** While an option is previewed, what it would replace steps aside. */
const beside = (list: Section[]) =>
  shownPreview.value.length ? list.filter((s) => s.course !== preview.value!.course) : list
const shownPicked = computed(() => beside(picked.value))
const shownHeld = computed(() => beside(held.value))
const clashesAmong = (list: readonly Section[]) =>
  list.flatMap((s) => clashesWith({ course: s.course, sections: [s] }, list, standing.holidays))
const clashing = computed(
  () =>
    new Set<string>(
      clashesAmong([...shownHeld.value, ...shownPicked.value, ...shownPreview.value]).map((c) => c.own.code)
    )
)
/** One scale of hours for the ribbon and every option, so that they line up. */
const scale = computed(() => {
  const { from, to } = ribbonOf([...week.value, ...sections.value.filter((one) => !one.officeOnly)])
  return { from, to }
})
const ways = computed(() => shortWays(week.value, travel, standing.holidays))
const since = computed(() => {
  const then = weeks.draft?.asPicked ?? {}
  return new Map(
    now(weeks.week.wanted).map((one) => [one.code as string, changesSince(one, then[one.code] ?? null)])
  )
})
const mains = computed(() => week.value.filter((s) => s.parent === null))
const summary = computed(() => {
  const { days, firstStart, lastEnd, between, campusChanges } = figuresOf(week.value, standing.holidays)
  const credits = mains.value.reduce((sum, s) => sum + s.credits, 0)
  const fees = week.value.reduce((sum, one) => sum + one.fee, 0)
  const risky = now(weeks.week.wanted).filter((one) => one.capacity - one.taken < SAFE_SEATS).length
  const parts = [creditsText(credits), count(days, 'day')]
  if (firstStart !== null) parts.push(`${clockTime(firstStart)} to ${clockTime(lastEnd!)}`)
  parts.push(`${duration(between)} between classes`)
  parts.push(`${studyHours(mains.value)} h study`)
  if (campusChanges) parts.push(count(campusChanges, 'campus change'))
  if (fees) parts.push(`fees ${moneyText(fees)}`)
  if (risky) parts.push(`${risky} at risk`)
  return parts.join(' · ')
})
const note = computed(() => {
  const holidays = standing.term?.holidays ?? []
  const halves = week.value.some((s) => s.half !== 'full')
    ? 'upper lane first half · lower lane second half · '
    : ''
  return `${halves}no classes ${holidays.map((h) => dayMonth(h.date)).join(', ')}`
})
/** Picks beside a block that has a section of their course as well. */
const leftBlocks = computed(() => {
  const blocks = new Set(picked.value.flatMap((one) => one.block ?? []))
  return picked.value.flatMap(({ course, block: own, parent }) =>
    parent !== null
      ? []
      : [...blocks]
          .filter(
            (block) =>
              block !== own && sections.value.some((one) => one.course === course && one.block === block)
          )
          .map((block) => ({ course, block }))
  )
})
/** What the student should know of the week on screen: one sentence each, with its way out where there is one. */
const remarks = computed(() => {
  const list: { key: string; text: string; grave: boolean }[] = []
  const seen = new Set<string>()
  for (const clash of clashesAmong(week.value)) {
    const pair = [clash.own.code, clash.with.code].sort().join()
    if (seen.has(pair)) continue
    seen.add(pair)
    list.push({ key: pair, text: `${clash.own.course} ${clashText(clash)}.`, grave: true })
  }
  for (const one of now(weeks.week.wanted))
    for (const what of since.value.get(one.code) ?? [])
      list.push({
        key: `${one.code} ${what}`,
        text: `${sectionName(one)} ${SINCE_WORDS[what]}${what === 'moved' ? `: now ${sectionHours(one)}` : ''}. Pick again, or another one.`,
        grave: what !== 'moved'
      })
  for (const course of weeks.week.exchanged)
    list.push({
      key: `exchange ${course}`,
      text: `${course}: you hold ${namesOf(standing.heldSections, course)} until ${namesOf(picked.value, course)} is registered instead.`,
      grave: false
    })
  for (const { course, block } of leftBlocks.value)
    list.push({
      key: `block ${course}`,
      text: `${course} is apart from the rest of block ${block}.`,
      grave: false
    })
  for (const way of ways.value)
    list.push({
      key: `${way.from.code} ${way.to.code} ${way.day}`,
      text: `${wayText(way)}.`,
      grave: weeks.habits.travelHolds
    })
  return list
})
const why = computed(() => (student.own ? standing.closedWhy : 'Only the student picks sections.'))
const mayPick = computed(() => student.own && !standing.closedWhy)
/** How many options each of the hours kept free holds out of the week. */
const removes = computed(() =>
  weeks.keepFree.map(
    (hours) => rows.value.flatMap((row) => row.open).filter((one) => one.kept.includes(hours)).length
  )
)

/** The sections of a course that are not in the other list, by number: what an exchange is about. */
function namesOf(list: readonly Section[], course: CourseCode): string {
  const other = list === picked.value ? standing.heldSections : picked.value
  const own = list.filter((one) => one.course === course && !other.some((there) => there.code === one.code))
  return own
    .map((one) => `${one.kind === 'lecture' ? '' : `${KIND_WORDS[one.kind]} `}${one.number}`)
    .join(' and ')
}

function pick({ option, picked: there, yours }: JudgedOption) {
  if (yours) {
    preview.value = undefined
    void weeks.keepSeat(option.course)
    return
  }
  const along = alongWith(option)
  const all = [option, ...along]
  preview.value = undefined
  void weeks.pick(all.map((one) => ({ course: one.course, option: there ? undefined : one })))
}
function repair({ option, repair: found }: JudgedOption) {
  if (!found) return
  preview.value = undefined
  const before = found.moves.map(({ from }) => ({ course: from.course, option: from }))
  const old = rows.value.find((row) => row.course === option.course)?.open.find((one) => one.picked)?.option
  void weeks
    .pick([
      { course: option.course, option },
      ...found.moves.map(({ to }) => ({ course: to.course, option: to }))
    ])
    .then((done) => {
      if (done)
        notice.say(
          `${option.course} is picked; ${found.moves.map(({ to }) => to.course).join(' and ')} moved.`,
          {
            title: 'Undo',
            act: () => weeks.pick([{ course: option.course, option: old }, ...before])
          }
        )
    })
}
const plan = (course: string) => {
  const known = college.shelf?.catalog.maybeCourse(course)
  if (known && standing.term) void place.put([known], standing.term.code)
}
function paint(hours: { days: Weekday[]; start: number; end: number }) {
  painted.value = hours
}

function onArrow(event: KeyboardEvent) {
  const side = { ArrowRight: 1, ArrowLeft: -1 }[event.key]
  const down = { ArrowDown: 1, ArrowUp: -1 }[event.key]
  if (!side && !down) return
  const here = (event.target as HTMLElement).closest<HTMLElement>('.choose')
  if (!here) return
  const list = here.closest('.options')
  const cards = [...(list?.querySelectorAll<HTMLElement>('.choose') ?? [])]
  const lists = [...document.querySelectorAll<HTMLElement>('.options')].filter((one) =>
    one.querySelector('.choose')
  )
  const next = side
    ? cards[cards.indexOf(here) + side]
    : lists[lists.indexOf(list as HTMLElement) + down!]?.querySelector<HTMLElement>('.choose')
  if (next) {
    event.preventDefault()
    next.focus()
  }
}
</script>

<template>
  <div class="page">
    <div class="page-head">
      <TermSwitch />
      <DraftWeeks @compare="shown = 'compare'" />
      <p v-if="standing.closedWhy && standing.courses.length" class="quiet">{{ standing.closedWhy }}</p>
      <div v-if="standing.courses.length" class="push actions no-print">
        <v-btn variant="outlined" size="small" :aria-expanded="keeping" @click="keeping = !keeping">
          Keep-free hours
        </v-btn>
        <WeekTake :held="held" :picked="picked" />
        <v-btn
          v-if="!standing.closedWhy"
          variant="flat"
          size="small"
          color="primary"
          :to="`/students/${student.picture?.student.id}/week/find`"
          >Find weeks<span v-if="finding.counted?.fit !== undefined" class="fit"
            >{{ finding.counted.fit.toLocaleString('en') }} fit</span
          ></v-btn
        >
      </div>
    </div>
    <div v-if="standing.courses.length" class="views">
      <span role="group" aria-label="How the week is shown" class="no-print">
        <v-bare-btn :aria-pressed="shown === 'typical'" @click="shown = 'typical'">Typical week</v-bare-btn>
        <v-bare-btn :aria-pressed="shown === 'dated'" @click="shown = 'dated'">Real weeks</v-bare-btn>
        <v-bare-btn
          v-if="weeks.drafts.length > 1"
          :aria-pressed="shown === 'compare'"
          @click="shown = 'compare'"
        >
          Drafts side by side
        </v-bare-btn>
      </span>
      <span class="quiet">{{ summary }}</span>
    </div>
    <template v-if="standing.courses.length">
      <WeekRibbon
        v-if="shown === 'typical'"
        :held="shownHeld"
        :picked="shownPicked"
        :preview="shownPreview"
        :clashing="clashing"
        :since="since"
        :keep-free="weeks.keepFree"
        :ways="shownPreview.length ? [] : ways"
        :hue-of="hueOf"
        :note="note"
        :scale="scale"
        :term="standing.term"
        :paints="keeping && student.own"
        @paint="paint"
      />
      <RealWeeks v-else-if="shown === 'dated'" :held="held" :picked="picked" :hue-of="hueOf" :scale="scale" />
      <WeekCompare v-else :fresh="now" :scale="scale" @close="shown = 'typical'" />
      <KeepFreePanel
        v-if="keeping"
        :removes="removes"
        :painted="painted"
        @done="painted = undefined"
        @close="keeping = false"
      />
      <div role="status">
        <ul v-if="remarks.length" class="remarks">
          <li v-for="one in remarks" :key="one.key" :class="one.grave ? 'stops' : 'warns'">{{ one.text }}</li>
        </ul>
      </div>
      <p class="print-only">
        {{ student.picture?.student.name }}, {{ student.picture?.student.number }} ·
        {{ standing.term?.name }} ·
        {{ summary }}
      </p>
      <table class="print-only paper">
        <tbody>
          <tr v-for="one in week" :key="one.code">
            <td>{{ sectionName(one) }}</td>
            <td>{{ one.code }}</td>
            <td>{{ one.topic ?? college.shelf?.catalog.maybeCourse(one.course)?.title }}</td>
            <td>{{ sectionHours(one) }}</td>
            <td>{{ one.meetings[0]?.room }}</td>
            <td>{{ one.instructors.join(', ') }}</td>
            <td>{{ held.includes(one) ? 'registered' : 'picked' }}</td>
          </tr>
        </tbody>
      </table>
      <ViewState :failure="failure" :ready="loaded" @retry="refresh">
        <div class="card courses" @keydown="onArrow">
          <section
            v-for="row in rows"
            :key="row.course"
            class="course"
            :class="`hue-${hueOf(row.course).hue}`"
          >
            <header>
              <v-bare-btn class="name" @click="panel.open(row.course)">
                <strong class="display">{{ row.course }}</strong><span>{{ row.about?.title }}</span>
              </v-bare-btn>
              <span class="quiet"
                >{{ row.about?.credits }} cr ·
                {{
                  row.isFixed
                    ? row.placed
                      ? 'placed by an office'
                      : 'registered'
                    : count(row.open.length, 'option')
                }}</span
              >
              <span v-if="row.seat.length && !row.isFixed" class="unsettled"
                >registered, to be exchanged
                <v-text-btn v-if="student.own" @click="weeks.keepSeat(row.course)">
                  Keep the seat
                </v-text-btn>
              </span>
              <span v-if="!row.isFixed && row.open.length" class="quiet"
                >{{ row.fitting }} fit<template v-if="row.repairable"
                  >, {{ row.repairable }} more if others move</template
                ><template v-if="row.fullFitting"
                  >, {{ row.fullFitting }} would but {{ row.fullFitting === 1 ? 'is' : 'are' }} full</template
                ></span
              >
              <span v-if="!row.settled && row.open.length" class="unsettled">no section yet</span>
              <span v-if="row.waiting" class="unsettled"
                >number {{ row.waiting.place }} in line for {{ row.waiting.section }}</span
              >
              <span v-if="!row.planned && !row.seat.length" class="unsettled"
                >not on the route
                <v-text-btn v-if="mayPick && student.mayEditRoute" @click="plan(row.course)">
                  Put it there
                </v-text-btn>
              </span>
            </header>
            <div class="options">
              <p v-if="row.isFixed" class="seat">
                <span v-for="s in row.seat" :key="s.code"
                  ><strong>{{ sectionName(s) }}</strong> {{ s.kind === 'lecture' ? '' : KIND_WORDS[s.kind] }}
                  {{ sectionHours(s) }} · {{ s.code }}<br
                /></span>
                <span class="quiet">{{ student.own ? 'You hold this seat.' : 'This seat is held.' }}</span>
                <v-text-btn
                  v-if="mayPick && !row.placed && row.open.length > 1"
                  @click="weeks.unlock(row.course)"
                >
                  Exchange it<span class="visually-hidden"> for another section of {{ row.course }}</span>
                </v-text-btn>
              </p>
              <template v-else>
                <OptionCard
                  v-for="group in row.groups"
                  :key="group.key"
                  :group="group"
                  :hue="hueOf(row.course).hue"
                  :scale="scale"
                  :disabled="!mayPick"
                  :why="why"
                  :travel-holds="weeks.habits.travelHolds"
                  :along="alongWith(group.options[0]!.option).map((one) => one.course)"
                  @pick="pick"
                  @repair="repair"
                  @preview="preview = $event?.option"
                  @about="about = $event"
                />
              </template>
              <p v-if="!row.isFixed && !row.open.length && loaded" class="quiet none">
                {{ row.course }} has no section to pick in {{ standing.term?.name }}.
                <NuxtLink class="textlink" :to="`/students/${student.picture?.student.id}/route`"
                  >Settle it on the route</NuxtLink
                >
              </p>
              <details v-if="!row.isFixed && row.office.length" class="quiet office">
                <summary>{{ count(row.office.length, 'section') }} only an office places</summary>
                <span v-for="{ option } in row.office" :key="option.key"
                  >{{ option.main.number }} · {{ sectionHours(option.main) }}</span
                >
              </details>
            </div>
          </section>
        </div>
        <TermSpan v-if="week.length" class="span" :sections="week" :hue-of="hueOf" />
        <p class="quiet small foot">
          <template v-if="readAt">Seats as read {{ shortInstant(readAt, college.zone) }}.</template>
          A picked section holds no seat.
          <NuxtLink class="textlink" :to="`/students/${student.picture?.student.id}/week/sections`"
            >Search all sections of {{ standing.term?.name }}</NuxtLink
          >
        </p>
      </ViewState>
    </template>
    <div v-else class="card empty">
      <h2>Nothing is {{ standing.closedWhy ? 'registered' : 'planned' }} for {{ standing.term?.name }}</h2>
      <p v-if="standing.closedWhy">{{ standing.closedWhy }}</p>
      <template v-else>
        <p>
          {{
            student.own ? 'Put courses on your route first; their' : 'Once courses are on the route, their'
          }}
          sections appear here beside the week.
        </p>
        <v-btn
          v-if="student.own"
          variant="flat"
          color="primary"
          :to="`/students/${student.picture?.student.id}/degree`"
          >See what your degree needs</v-btn
        >
      </template>
      <NuxtLink class="textlink" :to="`/students/${student.picture?.student.id}/week/sections`"
        >Search all sections</NuxtLink
      >
    </div>
    <SectionSheet v-if="about" :section="about" :among="sections" @close="about = undefined" />
  </div>
</template>

<style scoped>
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.fit {
  margin-left: 6px;
  font-weight: 400;
}
.views {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  justify-content: space-between;
  align-items: baseline;
  margin-bottom: 6px;
}
.views button {
  padding: 2px 2px;
  margin-right: 14px;
  border-bottom: 2px solid transparent;
  color: var(--quiet);
}
.views button[aria-pressed='true'] {
  border-color: var(--dusk);
  color: var(--ink);
  font-weight: 650;
}
.remarks {
  list-style: none;
  padding: 0;
  margin: 8px 0 0;
  font-weight: 650;
}
.warns {
  color: var(--ember);
}
@media print {
  .courses,
  .span,
  .foot {
    display: none;
  }
  .paper {
    display: table;
    width: 100%;
    margin-top: 12px;
    border-collapse: collapse;
  }
  .paper td {
    border-top: 1px solid var(--rule);
    padding: 4px 8px 4px 0;
  }
}
.office {
  align-self: center;
}
.office span {
  display: block;
}
.foot {
  margin-top: 8px;
}
.courses {
  margin-top: 10px;
}
.course {
  display: flex;
  gap: 14px;
  padding: 9px 12px;
}
.course + .course {
  border-top: 1px solid var(--rule);
}
header {
  flex: 0 0 150px;
  border-left: 6px solid var(--hue);
  padding-left: 9px;
  align-self: flex-start;
  display: flex;
  flex-direction: column;
  min-height: 58px;
}
.name {
  text-align: left;
}
.name:hover strong {
  text-decoration: underline;
}
.name span {
  display: block;
}
.name .display {
  font-size: 15px;
}
.unsettled {
  color: var(--ember);
  font-weight: 650;
  font-size: 12px;
}
.options {
  flex: 1;
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  min-width: 0;
}
.seat,
.none {
  margin: 0;
  align-self: center;
}
.empty {
  padding: 28px;
}
.empty p {
  margin: 6px 0 14px;
}
.empty .textlink {
  margin-left: 14px;
}
@media (max-width: 720px) {
  .course {
    flex-direction: column;
    gap: 8px;
  }
  header {
    flex-basis: auto;
    min-height: 0;
  }
  .options {
    flex-wrap: nowrap;
    overflow-x: auto;
    padding-bottom: 6px;
  }
}
</style>
