<script setup lang="ts">
import type { Refusal } from '#core/findings'
import type { CourseCode } from '#core/ids'
import type { Receipt, RunSheet, SheetLine } from '#shared/registration/responses'
import { deadlineText, ago, countdown, dayMonth, instantText, shortDay, shortInstant } from '#shared/when'
import { count, KIND_WORDS } from '#shared/words'
import { leavesText } from '#shared/catalog/texts'
import { refusalText, wayOut } from '#shared/registration/texts'
import { sectionHours, sectionName } from '#shared/week/texts'

useHead({ title: 'Register · Ridgeway' })
const student = useStudent()
const college = useCollege()
const clock = useClock()
const standing = useStanding()
const { hueOf } = useHues()

const sheet = shallowRef<RunSheet>()
const failure = ref<string>()
const running = ref(false)
const left = ref(new Set<CourseCode>())
const receipt = shallowRef<Receipt>()
const message = ref<string>()

const term = computed(() => standing.term)
const newest = newestAnswer()
async function load() {
  if (!term.value) return
  const turn = newest.ask()
  try {
    const found = await api<RunSheet>(`/api/students/${student.picture!.student.id}/sheet`, {
      query: { term: term.value.code }
    })
    if (!newest.take(turn)) return
    sheet.value = found
    failure.value = undefined
  } catch (error) {
    if (!(error instanceof Failure)) throw error
    failure.value = error.message
  }
}
const opened = computed(
  () =>
    sheet.value?.opens !== null && sheet.value !== undefined && clock.now >= (sheet.value.opens ?? Infinity)
)
watch([() => term.value?.code, () => student.picture, opened], load, { immediate: true })
/** The seats of what stands on the sheet, as they are told. */
const offers = useOffers()
const seatsNow = computed(() => {
  const wanted = new Set(
    (sheet.value?.lines ?? []).flatMap((line) => (line.sections ?? []).map((one) => one.code))
  )
  return (offers.byTerm.get(term.value?.code ?? '')?.sections ?? [])
    .filter((one) => wanted.has(one.code))
    .map(({ code, capacity, taken, waiting, reserved }) =>
      [code, capacity, taken, waiting, ...reserved.map(({ left: kept }) => kept)].join(' ')
    )
    .join()
})
watch(seatsNow, (_, before) => before && !running.value && load())

const zone = computed(() => college.zone)
const general = computed(() => sheet.value?.general ?? [])
/** Everything but the time itself stands in the way; the clock on the button says the time. */
const blocking = computed(() => general.value.filter((r) => !(r.code === 'notOpen' && opened.value)))
const ready = computed(() => sheet.value?.lines.filter((l) => l.state === 'ready') ?? [])
const chosen = computed(() => ready.value.filter((l) => !left.value.has(l.course)))
const credits = computed(() => {
  const registered = sheet.value?.credits.registered ?? 0
  return closed.value ? registered : chosen.value.reduce((sum, l) => sum + l.credits, registered)
})
const closed = computed(() => sheet.value !== undefined && clock.now >= sheet.value.closes)
const isOver = computed(() => standing.work?.state === 'gradesDue' || standing.work?.state === 'over')
/** What is still to come of a term to which nothing can be added any more. */
const afterText = computed(() => {
  const { work } = standing
  if (work?.state === 'gradesDue')
    return `${count(work.ungraded, 'grade')} ${work.ungraded === 1 ? 'is' : 'are'} due.`
  return work?.dropping && work.taken
    ? `Courses can be dropped until ${deadlineText(work.term.dropEndsAt, zone.value)}.`
    : ''
})
const disabledWhy = computed(() => {
  if (!student.own) return 'Only the student registers here.'
  if (closed.value) return standing.closedWhy
  const first = blocking.value[0]
  if (first) return student.say(refusalText(first, zone.value))
  if (!ready.value.length) return 'No line is ready: pick sections on the Week first.'
  return chosen.value.length ? undefined : 'No line is chosen.'
})
const signOff = computed(() => standing.signOff)
const asked = computed(() => student.picture?.route.reviewAskedAt)
const registered = computed(
  () => sheet.value?.lines.filter((l) => l.state === 'registered' || l.givesBack.length) ?? []
)
/** What the button does, in so many words. */
const act = computed(() => {
  const exchanges = chosen.value.filter((l) => l.givesBack.length).length
  const news = chosen.value.length - exchanges
  if (!exchanges) return `Register ${news}`
  return news ? `Register ${news}, exchange ${exchanges}` : `Exchange ${exchanges}`
})
const shownReceipt = computed(() => receipt.value ?? sheet.value?.receipts[0])

function toggle(course: CourseCode) {
  const next = new Set(left.value)
  if (!next.delete(course)) next.add(course)
  left.value = next
}
async function run() {
  if (disabledWhy.value || running.value) return
  running.value = true
  message.value = undefined
  try {
    receipt.value = await api<Receipt>(`/api/students/${student.picture!.student.id}/runs`, {
      method: 'POST',
      body: { term: term.value!.code, courses: chosen.value.map((l) => l.course) }
    })
    left.value = new Set()
    await student.reload()
    await load()
  } catch (error) {
    if (!(error instanceof Failure)) throw error
    message.value = error.message
  } finally {
    running.value = false
  }
}
const seats = (line: SheetLine) => {
  // Of an exchange the sections that stay are the student's already.
  const mine = new Set(line.state === 'ready' ? standing.heldSections.map((one) => one.code) : [])
  const scarce = (line.sections ?? [])
    .filter((one) => !mine.has(one.code))
    .sort((a, b) => a.capacity - a.taken - (b.capacity - b.taken))[0]!
  const free = scarce.capacity - scarce.taken
  return {
    part: scarce.taken / scarce.capacity,
    text:
      free > 0
        ? `${free} of ${scarce.capacity} left`
        : `0 of ${scarce.capacity} left${scarce.waiting ? ` · ${scarce.waiting} in line` : ''}`
  }
}
const place = (code: string) => `/students/${student.picture?.student.id}/${code}`
const wayTo = (refusal: Refusal) => place(wayOut(refusal) === 'Pick another section' ? 'week' : 'route')
</script>

<template>
  <ViewState :failure="failure" :ready="Boolean(sheet)" @retry="load">
    <div v-if="sheet" class="page">
      <div class="page-head"><TermSwitch /></div>
      <div class="top">
        <section class="opening" :aria-label="student.say('Your opening')">
          <p>{{ closed ? '' : student.say('Your opening · ') }}{{ term?.name }}</p>
          <p v-if="closed" class="big display">{{ isOver ? 'over' : 'adding ended' }}</p>
          <p v-else-if="sheet.opens === null" class="big display">no opening yet</p>
          <p v-else-if="opened" class="big display">open now</p>
          <p v-else class="big display" role="timer">{{ countdown(sheet.opens - clock.now) }}</p>
          <p v-if="closed">{{ standing.closedWhy }} {{ afterText }}</p>
          <p v-else-if="sheet.opens !== null">
            {{ instantText(sheet.opens, zone) }} campus time · {{ sheet.openingTitle }}
          </p>
          <p v-else>
            {{ student.say('No opening of this term is for you. The registrar decides on openings.') }}
          </p>
        </section>
        <section v-if="!closed" class="card" aria-labelledby="before-title">
          <h2 id="before-title">{{ student.say('Before you may register') }}</h2>
          <ul class="before">
            <li v-if="signOff" class="done">
              Advisor sign-off <span class="quiet">{{ signOff.by }}, {{ shortDay(signOff.at, zone) }}</span>
            </li>
            <li v-else-if="term?.signOffPolicy !== 'none'" class="open">
              Advisor sign-off <span class="stops">not given yet</span>
              <span v-if="asked" class="quiet">review asked {{ ago(asked, clock.now, zone) }}</span>
              <NuxtLink class="textlink" :to="place('route')">{{
                student.own && !asked ? 'Ask for review' : 'Read the route'
              }}</NuxtLink>
            </li>
            <li v-if="standing.toConfirm.length" class="open">
              Program on record <span class="quiet">not confirmed</span>
              <NuxtLink class="textlink" :to="place('today')">Look at it</NuxtLink>
            </li>
            <li v-else class="done">
              Program confirmed
              <span class="quiet">{{
                student.picture?.programs.map((p) => p.spec.shortTitle).join(', ')
              }}</span>
            </li>
            <li v-for="hold in standing.holds" :key="hold.title" class="open">
              <span class="stops">Hold: {{ hold.title.toLowerCase() }} {{ hold.amount?.toFixed(2) }}</span> ·
              {{ hold.howToLift }}
            </li>
            <li v-if="!standing.holds.length" class="done">No holds</li>
          </ul>
        </section>
        <section class="card figures" :aria-label="closed ? 'Registered' : 'This run'">
          <h2>{{ closed ? 'What it came to' : 'This run' }}</h2>
          <p>
            <strong class="display">{{ credits }}</strong>
            <span class="quiet">credits of {{ sheet.loadMost }}</span>
          </p>
          <p v-if="!closed">
            <strong class="display">{{ chosen.length }}</strong>
            <span class="quiet">{{ chosen.length === 1 ? 'course' : 'courses' }} to register</span>
          </p>
          <p>
            <strong class="display">{{ registered.length }}</strong> <span class="quiet">registered</span>
          </p>
        </section>
      </div>

      <div class="page-head sheet-head">
        <h2>{{ closed ? 'Registered' : 'Run sheet' }}</h2>
        <span v-if="!closed" class="pill"
          >checked for {{ opened ? 'now' : shortInstant(sheet.checkedFor, zone) }}</span
        >
        <div v-if="!closed" class="push go">
          <span v-if="disabledWhy" id="why" class="quiet">{{ disabledWhy }}</span>
          <v-btn
            variant="flat"
            color="primary"
            :aria-disabled="Boolean(disabledWhy) || running"
            :class="{ off: disabledWhy }"
            aria-describedby="why"
            @click="run"
          >
            {{ running ? 'Registering …' : opened || !ready.length ? act : `${act} at opening` }}
          </v-btn>
        </div>
      </div>
      <p v-if="message" class="stops" role="alert">{{ message }}</p>

      <RunReceipt
        v-if="shownReceipt"
        :receipt="shownReceipt"
        :earlier="sheet.receipts.filter((r) => r.id !== shownReceipt!.id)"
      />

      <div class="main">
        <v-table v-if="sheet.lines.length" class="card lines">
          <caption class="visually-hidden">
            Courses of
            {{
              term?.name
            }}
            with their sections, seats and what the checks say.
          </caption>
          <thead>
            <tr>
              <th scope="col"><span class="visually-hidden">Chosen</span></th>
              <th scope="col">Section</th>
              <th scope="col">{{ closed ? 'Seat' : 'Seats now' }}</th>
              <th scope="col">{{ closed || opened ? 'As things stand' : student.say('At your opening') }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(line, i) in sheet.lines" :key="line.course" :class="`hue-${hueOf(line.course).hue}`">
              <td class="pick">
                <v-checkbox-btn
                  v-if="line.state === 'ready' && !closed"
                  :model-value="!left.has(line.course)"
                  :aria-label="`Register ${line.course}`"
                  :disabled="!student.own"
                  @update:model-value="toggle(line.course)"
                />
                <span v-else class="quiet">{{ i + 1 }}</span>
              </td>
              <th scope="row">
                <span class="edge" aria-hidden="true" />
                <strong>{{ line.course }}</strong> <span class="quiet">{{ line.title }}</span>
                <span v-for="s in line.sections ?? []" :key="s.code" class="hours"
                  ><strong>{{ s.parent ? `${KIND_WORDS[s.kind]} ` : '' }}{{ s.number }}</strong>
                  {{ sectionHours(s) }} · {{ s.code }}</span
                >
                <span v-if="line.givesBack.length" class="hours quiet">{{
                  student.say(
                    `instead of ${line.givesBack.map(sectionName).join(' + ')}, which you hold until this one is yours`
                  )
                }}</span>
              </th>
              <td class="seats">
                <template v-if="line.sections">
                  <span class="track" aria-hidden="true"
                    ><span :style="{ width: `${100 * seats(line).part}%` }"
                  /></span>
                  <span class="small">{{
                    line.state === 'registered' ? student.say('yours') : seats(line).text
                  }}</span>
                </template>
              </td>
              <td>
                <span v-if="line.state === 'registered'" class="word registered">registered</span>
                <template v-else-if="closed"><span class="word stopped">not registered</span></template>
                <template v-else-if="line.state === 'unsettled'"
                  ><span class="word unsettled">unsettled</span> planned, no section picked.
                  <NuxtLink class="textlink" :to="place('week')">Pick one</NuxtLink></template
                >
                <template v-else-if="line.refusals.length">
                  <span v-for="(refusal, n) in line.refusals" :key="n" class="reason"
                    ><span class="word stopped">stopped</span> {{ student.say(refusalText(refusal, zone)) }}
                    <NuxtLink v-if="wayOut(refusal)" class="textlink" :to="wayTo(refusal)">{{
                      wayOut(refusal)
                    }}</NuxtLink>
                  </span>
                </template>
                <template v-else-if="line.assumed.length"
                  ><span class="word">clear</span> {{ student.say('if you finish') }}
                  {{ leavesText(line.assumed) }}</template
                >
                <template v-else><span class="word">clear</span> every check passes</template>
              </td>
            </tr>
          </tbody>
        </v-table>
        <div v-else class="card empty">
          <h2>{{ closed ? `Nothing of ${term?.name} is registered` : 'The run sheet is empty' }}</h2>
          <p v-if="!closed">It fills from the courses on your route and the sections picked for them.</p>
          <v-btn v-if="!closed && student.own" :to="place('degree')">See what your degree needs</v-btn>
        </div>
        <section class="side" :aria-label="closed ? 'The week' : 'The week as it will be'">
          <h3>{{ closed ? 'The week' : 'The week as it will be' }}</h3>
          <WeekRibbon
            :held="standing.week.staying"
            :picked="standing.pickedSections"
            :hue-of="hueOf"
            compact
          />
          <p class="quiet small">
            <template v-if="!closed">A plan or a picked section does not hold a seat. </template>Payment
            {{ term && term.paymentDueOn < college.today ? 'was' : 'is' }} due
            {{ term ? dayMonth(term.paymentDueOn) : '' }}.
          </p>
        </section>
      </div>
    </div>
  </ViewState>
</template>

<style scoped>
.top {
  display: grid;
  grid-template-columns: minmax(280px, 1.1fr) minmax(0, 1.3fr) minmax(200px, 0.8fr);
  gap: 12px;
}
.top > * {
  padding: 11px 15px;
}
.top p {
  margin: 0;
}
.opening {
  background: var(--band);
  color: #fff;
  border-radius: 11px;
}
.big {
  font-size: 31px;
  font-weight: 650;
}
.before {
  list-style: none;
  margin: 6px 0 0;
  padding: 0;
}
.before li {
  position: relative;
  padding: 2px 0 2px 20px;
}
.before li::before {
  content: '';
  position: absolute;
  left: 0;
  top: 7px;
  width: 9px;
  height: 9px;
  border-radius: 50%;
  border: 1.5px dotted var(--ink);
}
.before li.done::before {
  background: var(--dusk);
  border: 1.5px solid var(--dusk);
}
.figures {
  display: grid;
  grid-template-columns: repeat(3, auto);
  align-content: start;
  gap: 4px 14px;
}
.figures h2 {
  grid-column: 1 / -1;
}
.figures p {
  display: flex;
  flex-direction: column;
  line-height: 1.25;
}
.figures strong {
  font-size: 23px;
}
.sheet-head {
  margin: 14px 0 8px;
}
.sheet-head h2 {
  font-size: 21px;
}
.go {
  display: flex;
  align-items: center;
  gap: 12px;
}
.off {
  opacity: 0.55;
  cursor: default;
}
.word {
  display: inline-block;
  border-radius: 5px;
  padding: 0 7px;
  font-weight: 650;
  font-size: 12.5px;
  background: var(--dusk-tint);
  color: var(--dusk);
}
.word.registered {
  background: var(--dusk);
  color: var(--on-dusk);
}
.word.stopped {
  background: none;
  border: 1px solid var(--rowan);
  color: var(--rowan);
}
.word.unsettled {
  background: none;
  border: 1px dashed var(--ember);
  color: var(--ember);
}
.reason {
  display: block;
}
.main {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 372px;
  gap: 12px;
  align-items: start;
}
.lines {
  width: 100%;
  border-collapse: separate;
  border-spacing: 0;
  overflow: hidden;
}
.lines th,
.lines td {
  text-align: left;
  font-weight: 400;
  padding: 8px 10px;
  border-bottom: 1px solid var(--rule);
  vertical-align: top;
}
.lines thead th {
  color: var(--quiet);
  font-size: 12.5px;
  padding: 5px 10px;
}
.lines tbody tr:last-child > * {
  border-bottom: 0;
}
.lines tbody th {
  position: relative;
  padding-left: 20px;
}
.edge {
  position: absolute;
  left: 6px;
  top: 9px;
  bottom: 9px;
  width: 6px;
  background: var(--hue);
}
.pick {
  width: 40px;
}
.hours {
  display: block;
}
.seats {
  width: 124px;
}
.track {
  display: block;
  width: 86px;
  height: 8px;
  margin: 5px 0 2px;
  border-radius: 4px;
  background: var(--shade);
  overflow: hidden;
}
.track span {
  display: block;
  height: 100%;
  background: var(--quiet);
}
.side h3 {
  margin-bottom: 6px;
}
.empty {
  padding: 24px;
}
.empty p {
  margin: 6px 0 12px;
}
@media (max-width: 1080px) {
  .main,
  .top {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media (max-width: 720px) {
  .lines,
  .lines tbody,
  .lines tr,
  .lines td,
  .lines tbody th {
    display: block;
    width: auto;
  }
  .lines thead {
    display: none;
  }
  .lines td,
  .lines tbody th {
    border-bottom: 0;
    padding: 3px 12px 3px 20px;
  }
  .lines tr {
    border-bottom: 1px solid var(--rule);
    padding: 8px 0;
  }
}
</style>
