<script setup lang="ts">
import { ribbonOf } from '#core/week'
import { maybeCourseCode, type CourseCode } from '#core/ids'
import type { Wish } from '#core/find'
import type { Must } from '#shared/week/finding'
import { clockTime, duration } from '#shared/when'
import { conflictText, daysAndHours, sectionName } from '#shared/week/texts'
import { count } from '#shared/words'
import type { FoundCard } from '~/features/week/finding'

useHead({ title: 'Find weeks · Ridgeway' })
const student = useStudent()
const standing = useStanding()
const college = useCollege()
const weeks = useWeeks()
const finding = useFinding()
const { hueOf } = useHues()
const hue = (course: string) => hueOf(course).hue

const wanted = computed<string[]>(() => finding.courses)
const { sections, failure, loaded, refresh } = useOffer(wanted)
watch(sections, (list) => (finding.sections = list), { immediate: true })
watch([() => finding.call, loaded], () => loaded.value && finding.ask(), { immediate: true })
finding.hold()

function rewish(wishes: Wish[]) {
  void weeks.setHabits({ wishes })
  finding.rank()
}

const pointed = ref<number>()
const chosen = ref(1)
watch(
  () => finding.found,
  () => (chosen.value = Math.min(chosen.value, Math.max(1, finding.cards.length)))
)
const scale = computed(() => {
  const { from, to } = ribbonOf(finding.sections.filter((one) => !one.officeOnly))
  return { from, to }
})

type Part = 'take' | 'either' | 'leave'
const PARTS: { value: Part; title: string }[] = [
  { value: 'take', title: 'take it' },
  { value: 'either', title: 'one to choose from' },
  { value: 'leave', title: 'leave it out' }
]
const partOf = (course: CourseCode): Part =>
  finding.left.has(course) ? 'leave' : finding.either.has(course) ? 'either' : 'take'
function setPart(course: CourseCode, part: Part) {
  const left = new Set(finding.left)
  const either = new Set(finding.either)
  left.delete(course)
  either.delete(course)
  if (part === 'leave') left.add(course)
  if (part === 'either') either.add(course)
  finding.left = left
  finding.either = either
}
const isPlaced = (course: CourseCode) =>
  standing.held.some((one) => one.course === course && one.placedByOffice)
const pickedOf = (course: CourseCode) => weeks.picked.filter((one) => one.course === course)
function setStays(course: CourseCode, on: boolean) {
  const next = new Set(finding.stays)
  if (on) next.add(course)
  else next.delete(course)
  finding.stays = next
}
const extra = ref('')
const extraSays = ref('')
function addCourse() {
  const code = maybeCourseCode(extra.value)
  const runs = code && college.shelf?.running.get(standing.term?.code ?? '')?.has(code)
  extraSays.value = !code
    ? 'Type a course code such as ENVI 310.'
    : runs
      ? ''
      : `${code} has no section in ${standing.term?.name}.`
  if (!code || !runs) return
  finding.added = [...finding.added, code]
  extra.value = ''
}

const withoutOf = (must: Must) =>
  finding.counted?.without.find((one) => JSON.stringify(one.must) === JSON.stringify(must))
function mustText(must: Must): string {
  if (must.kind === 'kept') {
    const one = finding.hard[must.number]
    return one ? `${one.name}, ${daysAndHours(one)} kept free` : ''
  }
  if (must.kind === 'fixed') {
    const one = finding.sections.find((other) => other.code === must.section)
    return one ? `${one.course} stays ${one.number}` : must.section
  }
  if (must.kind === 'travel') return 'Time to get from campus to campus'
  if (must.kind === 'seats') return 'A seat left in every section'
  const group = finding.groups[must.number]
  return !group
    ? ''
    : group.courses.length === 1
      ? group.courses[0]!
      : `${group.take} of ${group.courses.join(', ')}`
}
const isHeld = (must: Must) =>
  must.kind === 'fixed' && standing.heldSections.some((one) => one.code === must.section)
/** What would open more weeks, the most first; seats that are held are not let go here. */
const openers = computed(() => {
  const fit = finding.counted?.fit ?? 0
  return (finding.counted?.without ?? [])
    .filter((one) => !isHeld(one.must) && (one.fit === undefined || one.fit > fit))
    .sort((a, b) => (b.fit ?? Infinity) - (a.fit ?? Infinity))
})
const takesAway = (must: Must): string => {
  const fit = finding.counted?.fit
  const without = withoutOf(must)
  if (!without || fit === undefined) return ''
  return without.fit === undefined
    ? 'takes away more than can be counted'
    : `takes away ${count(without.fit - fit, 'week')}`
}
/** What cannot hold together, one by one. */
const inConflict = computed((): Must[] => {
  const { kept = [], groups = [] } = finding.counted?.conflict ?? {}
  return [
    ...kept.map((number): Must => ({ kind: 'kept', number })),
    ...groups
      .filter((number) => !finding.groups[number]?.courses.some((course) => standing.heldCourses.has(course)))
      .map((number): Must => ({ kind: 'group', number }))
  ]
})
const conflict = computed(() => {
  const found = finding.counted?.conflict
  return (
    found &&
    conflictText({
      courses: found.groups.map((number) => mustText({ kind: 'group', number })),
      hours: found.kept.map((number) => finding.hard[number]?.name ?? '')
    })
  )
})
const ended = computed(() => {
  const { found, counted } = finding
  if (!found) return ''
  const some = counted
    ? counted.fit === undefined
      ? `more fit than can be counted exactly, of ${counted.combinations.toLocaleString('en')} combinations`
      : `of ${counted.combinations.toLocaleString('en')} ${counted.combinations === 1 ? 'combination' : 'combinations'} ${counted.fit === 1 ? 'fits' : 'fit'}`
    : 'counting …'
  if (finding.steps !== undefined) return `${some} · searching, ${finding.steps} steps`
  if (found.ms === undefined) return `${some} · stopped after ${found.steps} steps, there may be better ones`
  if (!found.weeks.length) return some
  return `${some} · best ${found.weeks.length} ${found.proved ? 'proved' : 'so far'} in ${(found.ms / 1000).toFixed(2)} s`
})

const figuresText = ({ figures, risky }: FoundCard) =>
  [
    count(figures.days, 'day'),
    figures.firstStart === null ? 'no hours' : `from ${clockTime(figures.firstStart)}`,
    `${duration(figures.between)} between`,
    risky ? `${risky} at risk` : 'safe'
  ].join(' · ')
const unscheduled = ({ sections: list }: FoundCard) =>
  list
    .filter((one) => !one.meetings.length)
    .map((one) => `${one.course} at any time`)
    .join(', ')
const named = ({ sections: list }: FoundCard) =>
  list
    .filter((one) => one.parent === null)
    .map(sectionName)
    .join(', ')

const making = ref(false)
async function make(number: number) {
  const card = finding.cards[number - 1]
  if (!card || making.value) return
  making.value = true
  const held = new Set<string>(standing.heldSections.map((one) => one.code))
  // Of a seat that may be exchanged all sections are picked where one is another.
  const others = new Set(card.sections.filter((one) => !held.has(one.code)).map((one) => one.course))
  const codes = card.sections.filter((one) => others.has(one.course)).map((one) => one.code)
  const done = await weeks.make({
    name: weeks.freeName(`Found ${number}`),
    sections: codes,
    goingWith: true
  })
  making.value = false
  if (done) await navigateTo(`/students/${student.picture!.student.id}/week`)
}
function onArrow(event: KeyboardEvent) {
  const by = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: 2, ArrowUp: -2 }[event.key]
  const all = [...document.querySelectorAll<HTMLElement>('.gallery .week')]
  const at = all.indexOf(document.activeElement as HTMLElement)
  if (!by || at < 0) return
  event.preventDefault()
  all[Math.max(0, Math.min(all.length - 1, at + by))]?.focus()
}
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Find weeks · {{ standing.term?.name }}</h1>
      <p role="status">
        <strong v-if="finding.counted?.fit !== undefined">{{
          finding.counted.fit.toLocaleString('en')
        }}</strong>
        {{ ended }}
        <v-text-btn v-if="finding.steps" @click="finding.end()">Stop</v-text-btn>
      </p>
      <div class="push actions">
        <v-btn variant="outlined" size="small" :to="`/students/${student.picture?.student.id}/week`"
          >Back to the week</v-btn
        >
        <v-btn
          v-if="student.own && finding.cards.length"
          variant="flat"
          size="small"
          color="primary"
          @click="make(chosen)"
          >Make week {{ chosen }} a draft</v-btn
        >
      </div>
    </div>
    <ViewState :failure="failure ?? finding.failure" :ready="loaded" @retry="refresh">
      <div class="three">
        <div class="card asked">
          <h2>Wishes, in order</h2>
          <p class="quiet small">drag to reorder; a higher wish always wins</p>
          <HowAnswered answer="weeks" />
          <WishList
            :wishes="finding.wishes"
            :sections="finding.sections"
            :disabled="!student.own"
            @change="rewish"
          />
          <h2>Must hold</h2>
          <ul class="musts">
            <li v-for="(one, number) in finding.hard" :key="one.name">
              {{ mustText({ kind: 'kept', number }) }}
              <span class="quiet small">{{ takesAway({ kind: 'kept', number }) }}</span>
              <v-text-btn v-if="student.own" class="small" @click="finding.letGo({ kind: 'kept', number })">
                Only if possible
              </v-text-btn>
            </li>
            <li>
              <label><v-checkbox-btn v-model="finding.seatsLeft" /> A seat left in every section</label>
              <span v-if="finding.seatsLeft" class="quiet small">{{ takesAway({ kind: 'seats' }) }}</span>
            </li>
            <li>
              <label
                ><v-checkbox-btn
                  :model-value="weeks.habits.travelHolds"
                  @update:model-value="weeks.setHabits({ travelHolds: $event })"
                />
                Time to get from campus to campus</label
              >
              <span v-if="weeks.habits.travelHolds" class="quiet small">{{
                takesAway({ kind: 'travel' })
              }}</span>
            </li>
          </ul>
          <h2>Courses</h2>
          <ul class="musts">
            <li v-for="course in finding.courses" :key="course" :class="`hue-${hue(course)}`" class="course">
              <strong>{{ course }}</strong>
              <span v-if="standing.heldCourses.has(course)" class="quiet small"
                >{{ weeks.isFixed(course) ? 'registered, stays' : 'registered, to be exchanged' }}
                <v-text-btn
                  v-if="student.own && !isPlaced(course)"
                  @click="weeks.isFixed(course) ? weeks.unlock(course) : weeks.keepSeat(course)"
                >
                  {{ weeks.isFixed(course) ? 'Exchange it' : 'Keep the seat'
                  }}<span class="visually-hidden"> {{ course }}</span>
                </v-text-btn></span
              >
              <span v-else-if="!finding.hasOptions.has(course)" class="quiet small">no section to pick</span>
              <template v-else>
                <v-select
                  :aria-label="`What to do with ${course}`"
                  :model-value="partOf(course)"
                  :items="PARTS"
                  @update:model-value="setPart(course, $event as Part)"
                />
                <label v-if="pickedOf(course).length && partOf(course) !== 'leave'" class="small"
                  ><v-checkbox-btn
                    :model-value="finding.stays.has(course)"
                    @update:model-value="setStays(course, $event)"
                  />
                  stays {{ pickedOf(course)[0]!.number }}
                  <span v-if="finding.stays.has(course)" class="quiet">{{
                    takesAway({ kind: 'fixed', section: pickedOf(course)[0]!.code })
                  }}</span></label
                >
              </template>
            </li>
          </ul>
          <label v-if="finding.choice.length" class="take"
            >Take
            <v-select v-model="finding.take" :items="finding.choice.map((_, i) => i + 1)" />
            of {{ finding.choice.join(', ') }}</label
          >
          <form class="take" @submit.prevent="addCourse">
            <v-text-field
              v-model="extra"
              aria-label="Another course to choose from"
              placeholder="another course"
            />
            <v-text-btn type="submit">Add</v-text-btn>
            <span class="small stops" role="status">{{ extraSays }}</span>
          </form>
        </div>

        <div class="gallery" @keydown="onArrow" @mouseleave="pointed = undefined">
          <button
            v-for="card in finding.cards"
            :key="card.number"
            class="card week"
            :class="{ on: card.number === chosen, pointed: card.number === pointed }"
            :aria-pressed="card.number === chosen"
            :aria-label="`Week ${card.number}: ${figuresText(card)}. ${named(card)}`"
            @click="chosen = card.number"
            @dblclick="student.own && make(card.number)"
            @mouseenter="pointed = card.number"
            @focus="pointed = card.number"
          >
            <span class="top"
              ><strong class="display">{{ card.number }}</strong
              ><span class="small">{{ figuresText(card) }}</span></span
            >
            <SmallWeek :sections="card.sections" :hue-of="hue" :scale="scale" alone />
            <span v-if="unscheduled(card)" class="small quiet">{{ unscheduled(card) }}</span>
          </button>
          <div v-if="finding.counted && !finding.cards.length" class="card none">
            <p v-if="conflict">{{ conflict }}</p>
            <template v-if="conflict && !openers.length">
              <p>
                Letting go of one thing alone is not enough. Begin with one of these and see what is left in
                the way:
              </p>
              <ul v-if="student.own" class="musts">
                <li v-for="must in inConflict" :key="mustText(must)">
                  {{ must.kind === 'group' ? 'without ' : '' }}{{ mustText(must) }}
                  <v-text-btn @click="finding.letGo(must)">
                    Let go<span class="visually-hidden"> of {{ mustText(must) }}</span>
                  </v-text-btn>
                </li>
              </ul>
            </template>
            <p v-else-if="!finding.groups.length">Nothing is asked: take a course to find weeks.</p>
            <p v-else-if="!conflict">No week fits.</p>
          </div>
        </div>

        <div class="right">
          <LazyTradeOff
            v-if="finding.cards.length"
            :cards="finding.cards"
            :pointed="pointed"
            :chosen="chosen"
            @point="pointed = $event"
            @choose="chosen = $event"
          />
          <section v-if="openers.length" class="card openers" aria-labelledby="openers-title">
            <h2 id="openers-title">What would open more weeks</h2>
            <ul>
              <li v-for="one in openers" :key="mustText(one.must)">
                <span>{{ one.must.kind === 'group' ? 'without ' : '' }}{{ mustText(one.must) }}</span>
                <v-text-btn v-if="student.own" @click="finding.letGo(one.must)">
                  Let go<span class="visually-hidden"> of {{ mustText(one.must) }}</span>
                </v-text-btn>
                <strong>{{
                  one.fit === undefined ? 'many' : `+${one.fit - (finding.counted?.fit ?? 0)}`
                }}</strong>
              </li>
            </ul>
          </section>
        </div>
      </div>
    </ViewState>
  </div>
</template>

<style scoped>
.actions {
  display: flex;
  gap: 8px;
}
.three {
  display: grid;
  grid-template-columns: 258px minmax(0, 1fr) 330px;
  gap: 12px;
  align-items: start;
}
.asked {
  padding: 10px 14px;
}
.asked h2:not(:first-child) {
  margin-top: 12px;
}
.musts {
  list-style: none;
  padding: 0;
  margin-top: 5px;
}
.musts li {
  padding: 3px 0;
}
.musts label {
  display: flex;
  gap: 7px;
  align-items: center;
  min-height: 28px;
}
.musts .small {
  display: block;
}
.musts label.small {
  display: flex;
}
.course {
  border-left: 5px solid var(--hue);
  padding-left: 8px !important;
  margin-bottom: 3px;
}
.take {
  display: block;
  margin-top: 6px;
}
.gallery {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(258px, 1fr));
  gap: 10px;
}
.week {
  padding: 6px 10px 8px;
  display: block;
  border-width: 2px;
  text-align: left;
}
.week.pointed {
  border-color: var(--ember);
}
.week.on {
  border-color: var(--dusk);
}
.top {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 8px;
  padding-bottom: 3px;
}
.top .display {
  font-size: 15px;
}
.none {
  grid-column: 1 / -1;
  padding: 16px;
}
.right {
  display: grid;
  gap: 12px;
  position: sticky;
  top: 12px;
}
.openers {
  padding: 10px 14px;
}
.openers ul {
  list-style: none;
  padding: 0;
}
.openers li {
  display: flex;
  gap: 10px;
  align-items: baseline;
  padding: 3px 0;
}
.openers li span:first-child {
  flex: 1;
}
@media (max-width: 1100px) {
  .three {
    grid-template-columns: 258px minmax(0, 1fr);
  }
  .right {
    grid-column: 1 / -1;
    position: static;
    grid-row: 2;
  }
}
@media (max-width: 720px) {
  .three {
    grid-template-columns: minmax(0, 1fr);
  }
  .right {
    grid-row: auto;
  }
}
</style>
