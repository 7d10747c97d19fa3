<script setup lang="ts">
import {
  clashesWith,
  figuresOf,
  optionsAmong,
  ribbonOf,
  sectionsOf,
  seatsLeft,
  studyHours,
  type Option,
  type Section
} from '#core/week'
import type { CourseCode } from '#core/ids'
import { clockTime, dayMonth, DAY_NAMES } from '#wire/when'
import { count, creditsText } from '#wire/words'

useHead({ title: 'Week · Ridgeway' })
const student = useStudent()
const college = useCollege()
const standing = useStanding()
const panel = useCoursePanel()
const { hueOf } = useHues()

const wanted = computed<string[]>(() => standing.courses)
const { sections, failure, loaded, refresh } = useOffer(wanted)
const preview = ref<Option>()
const busy = ref(false)

const held = computed(() => standing.heldSections)
const picked = computed(() => standing.pickedSections)
const week = computed(() => [...held.value, ...picked.value])
const shownPreview = computed(() => {
  const option = preview.value
  return option && !isPicked(option) && !standing.heldCourses.has(option.course) ? sectionsOf(option) : []
})
/** While an option is previewed, the pick it would replace steps aside. */
const shownPicked = computed(() =>
  shownPreview.value.length ? picked.value.filter((s) => s.course !== preview.value!.course) : picked.value
)
const clashing = computed(() => {
  const shown = [...held.value, ...shownPicked.value, ...shownPreview.value]
  const hit = shown.flatMap((s) => clashesWith({ course: s.course, sections: [s] }, shown, standing.holidays))
  return new Set<string>(hit.map((c) => c.own.code))
})
/** One scale of hours for the ribbon and every option, so that they line up. */
const scale = computed(() => {
  const { from, to } = ribbonOf([...week.value, ...sections.value])
  return { from, to }
})
const figures = computed(() => figuresOf(week.value))
const mains = computed(() => week.value.filter((s) => s.parent === null))
const summary = computed(() => {
  const { days, firstStart, between } = figures.value
  const credits = mains.value.reduce((sum, s) => sum + s.credits, 0)
  const parts = [creditsText(credits), count(days, 'day')]
  if (firstStart !== null) parts.push(`first class ${clockTime(firstStart)}`)
  parts.push(`${Math.floor(between / 60)} h ${String(between % 60).padStart(2, '0')} between classes`)
  parts.push(`${studyHours(mains.value)} h study`)
  return parts.join(' · ')
})
const note = computed(() => {
  const holidays = standing.term?.holidays ?? []
  const halves = week.value.some((s) => s.half === 'first' || s.half === 'second')
    ? 'upper lane first half · lower lane second half · '
    : ''
  return `${halves}no classes ${holidays.map((h) => dayMonth(h.date)).join(', ')}`
})

const isPicked = (option: Option) =>
  sectionsOf(option).every((s) => picked.value.some((p) => p.code === s.code))
const rows = computed(() =>
  standing.courses.map((course) => {
    const mine = sections.value.filter((s) => s.course === course)
    const others = week.value.filter((s) => s.course !== course)
    const options = optionsAmong(mine).map((option) => ({
      option,
      picked: isPicked(option),
      clashes: clashesWith({ course, sections: sectionsOf(option) }, others, standing.holidays),
      office: option.main.officeOnly
    }))
    const home = student.picture?.student.campus
    options.sort(
      (a, b) =>
        Number(b.picked) - Number(a.picked) ||
        Number(a.clashes.length > 0) - Number(b.clashes.length > 0) ||
        Number(seatsLeft(b.option) > 0) - Number(seatsLeft(a.option) > 0) ||
        Number(b.option.main.campus === home) - Number(a.option.main.campus === home) ||
        (a.option.main.number < b.option.main.number ? -1 : 1)
    )
    const seat = held.value.filter((s) => s.course === course)
    const waiting = student.picture?.waiting.find(
      (w) => w.course === course && w.term === standing.term?.code
    )
    return {
      course,
      title: college.shelf?.catalog.maybeCourse(course)?.title ?? '',
      credits: college.shelf?.catalog.maybeCourse(course)?.credits ?? 0,
      open: options.filter((o) => !o.office),
      office: options.filter((o) => o.office),
      seat,
      placed:
        student.picture?.held.find((h) => h.course === course && h.term === standing.term?.code)
          ?.placedByOffice ?? false,
      waiting,
      settled: seat.length > 0 || options.some((o) => o.picked)
    }
  })
)
const why = computed(() => (student.own ? undefined : 'Only the student picks sections.'))

async function pick(course: CourseCode, option: Option) {
  if (busy.value || !standing.term) return
  busy.value = true
  const codes = isPicked(option) ? [] : sectionsOf(option).map((s) => s.code)
  await student.pick(standing.term.code, course, codes)
  preview.value = undefined
  await refresh()
  busy.value = false
}
function clashText(own: Section): string {
  const found = standing.clashes.find((c) => c.own.code === own.code)
  return found
    ? `${own.course} meets ${found.with.course} on ${found.clash.days.map((d) => DAY_NAMES[d]).join(' and ')} at ${clockTime(found.clash.start)}, ${count(found.clash.dates, 'date')}.`
    : ''
}
const clashTexts = computed(() => [
  ...new Set(standing.clashes.filter((c) => c.own.code < c.with.code).map((c) => clashText(c.own)))
])

function onArrow(event: KeyboardEvent) {
  const side = { ArrowRight: 1, ArrowLeft: -1 }[event.key]
  const down = { ArrowDown: 1, ArrowUp: -1 }[event.key]
  if (!side && !down) return
  const here = (event.target as HTMLElement).closest<HTMLElement>('.option')
  if (!here) return
  const cards = [...(here.parentElement?.querySelectorAll<HTMLElement>('.option') ?? [])]
  const lists = [...document.querySelectorAll<HTMLElement>('.options')]
  const next = side
    ? cards[cards.indexOf(here) + side]
    : lists[lists.indexOf(here.parentElement!) + down!]?.querySelector<HTMLElement>('.option')
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
      <span class="pill">{{ standing.draft?.name ?? 'First draft' }}</span>
      <span class="push quiet">{{ summary }}</span>
    </div>
    <template v-if="standing.courses.length">
      <WeekRibbon
        :held="held"
        :picked="shownPicked"
        :preview="shownPreview"
        :clashing="clashing"
        :hue-of="hueOf"
        :note="note"
        :scale="scale"
      />
      <p v-for="text in clashTexts" :key="text" class="clashnote" role="status">
        {{ text }} Pick another option of one of them.
      </p>
      <ViewState :failure="failure" :ready="loaded" @retry="refresh">
        <div class="card courses" @keydown="onArrow">
          <section
            v-for="row in rows"
            :key="row.course"
            class="course"
            :class="`hue-${hueOf(row.course).hue}`"
          >
            <header>
              <button class="name" @click="panel.open(row.course)">
                <strong class="display">{{ row.course }}</strong><span>{{ row.title }}</span>
              </button>
              <span class="quiet"
                >{{ row.credits }} cr ·
                {{
                  row.seat.length
                    ? row.placed
                      ? 'placed by an office'
                      : 'registered'
                    : count(row.open.length, 'option')
                }}</span
              >
              <span v-if="!row.settled && row.open.length" class="unsettled">no section yet</span>
              <span v-if="row.waiting" class="unsettled"
                >number {{ row.waiting.place }} in line for {{ row.waiting.section }}</span
              >
            </header>
            <div class="options">
              <template v-if="row.seat.length">
                <p class="seat">
                  <span v-for="s in row.seat" :key="s.code"
                    ><strong>{{ s.code }}</strong> {{ s.kind === 'lecture' ? '' : s.kind }}
                    {{
                      s.meetings
                        .map((m) => `${m.days.map((d) => DAY_NAMES[d]).join(' ')} ${clockTime(m.start)}`)
                        .join(', ') || 'online, any time'
                    }}<br
                  /></span>
                  <span class="quiet">You hold this seat.</span>
                </p>
              </template>
              <OptionCard
                v-for="o in row.seat.length ? [] : row.open"
                :key="o.option.key"
                :option="o.option"
                :hue="hueOf(row.course).hue"
                :picked="o.picked"
                :clashes="o.clashes"
                :scale="scale"
                :disabled="!student.own"
                :why="why"
                @pick="pick(row.course, o.option)"
                @preview="preview = $event ? o.option : undefined"
              />
              <p v-if="!row.seat.length && !row.open.length && loaded" class="quiet none">
                {{ row.course }} has no section in {{ standing.term?.name }}.
                <NuxtLink class="textlink" :to="`/students/${student.picture?.student.id}/route`"
                  >Settle it on the route</NuxtLink
                >
              </p>
              <details v-if="!row.seat.length && row.office.length" class="quiet">
                <summary>{{ count(row.office.length, 'section') }} only an office places</summary>
              </details>
            </div>
          </section>
        </div>
      </ViewState>
    </template>
    <div v-else class="card empty">
      <h2>Nothing is planned for {{ standing.term?.name }}</h2>
      <p>Put courses on your route first; their sections appear here beside your week.</p>
      <v-btn variant="flat" color="primary" :to="`/students/${student.picture?.student.id}/degree`"
        >See what your degree needs</v-btn
      >
    </div>
  </div>
</template>

<style scoped>
.clashnote {
  margin: 8px 0 0;
  color: var(--rowan);
  font-weight: 650;
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
