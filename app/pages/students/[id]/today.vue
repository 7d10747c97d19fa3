<script setup lang="ts">
import { dayNumber, isoDate, weekdayOf, WEEKDAYS } from '#core/time'
import { classesBetween, mondayOf } from '#core/week'
import { datesAhead } from '#shared/route/datesAhead'
import { programText } from '#shared/degree/figures'
import { clockTime, dayMonth, DAY_NAMES, LONG_DAY_NAMES } from '#shared/when'
import { KIND_WORDS } from '#shared/words'

useHead({ title: 'Today · Ridgeway' })
const student = useStudent()
const college = useCollege()
const clock = useClock()
const standing = useStanding()
const { list: todo, nothing } = storeToRefs(useTodo())

const view = computed(() => student.view!)
const reading = computed(() => student.reading!)
const title = computed(() => {
  const day = weekdayOf(dayNumber(college.today))
  return `${LONG_DAY_NAMES[day]} ${dayMonth(college.today)}`
})
const current = computed(() => reading.value.standings.find((one) => one.state === 'underWay')?.term)
const weekOf = computed(() => {
  if (!current.value) return ''
  const week = Math.floor((dayNumber(college.today) - dayNumber(current.value.start)) / 7) + 1
  const weeks = Math.ceil((dayNumber(current.value.end) - dayNumber(current.value.start) + 1) / 7)
  return `${current.value.name}, week ${week} of ${weeks}`
})
const appointmentsOn = useAppointmentsOn()
/** This week's classes of the term that is running, day by day; what is free says why. */
const week = computed(() => {
  const term = current.value
  if (!term) return []
  const mine = new Set<string>(
    view.value.held.filter((one) => one.term === term.code).flatMap((one) => [one.section, ...one.components])
  )
  const sections = view.value.sections.filter((one) => mine.has(one.code))
  const monday = mondayOf(dayNumber(college.today))
  const holidays = new Map(term.holidays.map((one) => [dayNumber(one.date), one.name]))
  const classes = classesBetween(sections, monday, monday + 6, new Set(holidays.keys()))
  return WEEKDAYS.map((day) => {
    const date = monday + day - 1
    return {
      day,
      date: isoDate(date),
      free:
        holidays.get(date) ??
        (isoDate(date) < term.start ? 'not begun' : isoDate(date) > term.end ? 'over' : 'free'),
      classes: classes.filter((one) => one.day === date)
    }
  }).filter((row) => row.day <= 5 || row.classes.length || appointmentsOn(row.date).length)
})
const DATES = 6
const dates = computed(() =>
  datesAhead(view.value, reading.value, {
    work: standing.term?.code,
    zone: college.zone,
    now: clock.now,
    most: DATES
  })
)
const advisors = computed(() => view.value.advisors)
const URGENCY = {
  runsOut: 'runs out',
  stops: 'stops you',
  attention: 'needs attention',
  plain: '',
  later: 'later'
}
const isFirst = (urgency: string) => urgency === 'runsOut' || urgency === 'stops'
function act(to: string) {
  if (to.startsWith('#')) document.getElementById(to.slice(1))?.scrollIntoView({ block: 'center' })
  else void navigateTo(`/students/${view.value.student.id}/${to}`)
}
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ title }}</h1>
    </div>
    <FirstVisit />
    <LazyGuidanceNotes
      v-if="college.view?.guidance.some((one) => one.about === 'everybody')"
      about="everybody"
    />
    <div class="columns">
      <div>
        <section class="card list" aria-label="What to do next">
          <ul v-if="todo.length">
            <li v-for="item in todo" :key="item.id">
              <span class="edge" :class="item.urgency" aria-hidden="true" />
              <div class="what">
                <strong>{{ item.title }}</strong>
                <span v-if="URGENCY[item.urgency]" class="visually-hidden"
                  >({{ URGENCY[item.urgency] }})</span
                >
                <span class="quiet">{{ item.text }}</span>
              </div>
              <span class="when quiet">{{ item.when }}</span>
              <v-btn
                v-if="item.action"
                :variant="isFirst(item.urgency) ? 'flat' : 'outlined'"
                :color="isFirst(item.urgency) ? 'primary' : undefined"
                @click="act(item.action.to)"
                >{{ item.action.label }}</v-btn
              >
            </li>
          </ul>
          <p v-else class="none">{{ nothing }}</p>
        </section>
        <section class="card climb" aria-labelledby="climb-title">
          <p class="climb-head">
            <span id="climb-title" class="display" role="heading" aria-level="2">The climb</span>
            <span v-for="program in standing.figures?.programs" :key="program.code" class="quiet">
              {{ program.shortTitle }}: {{ programText(program) }}
            </span>
            <strong v-if="standing.finish">finish {{ standing.finish.name }}</strong>
          </p>
          <TheClimb
            :climb="reading.climb"
            :goal="standing.figures?.programs[0]?.credits ?? 0"
            :finish="standing.finish?.name"
          />
        </section>
      </div>
      <div class="side">
        <LazyProgramAnswer v-if="student.own && standing.toConfirm.length" />
        <section class="card box">
          <h2>{{ current ? 'This week' : 'Between terms' }}</h2>
          <p class="quiet small">{{ weekOf }}</p>
          <dl v-if="current" class="week">
            <template v-for="row in week" :key="row.day">
              <dt>{{ DAY_NAMES[row.day] }}</dt>
              <dd>
                <span v-if="!row.classes.length" class="quiet">{{ row.free }}</span>
                {{
                  row.classes
                    .map(
                      ({ section, meeting }) =>
                        `${clockTime(meeting.start)} ${section.course}${section.kind === 'lecture' ? '' : ` ${KIND_WORDS[section.kind]}`}`
                    )
                    .join(' · ')
                }}
                <span v-for="one in appointmentsOn(row.date)" :key="one.id" class="meets"
                  >{{ one.time }} {{ one.advisor.name }}</span
                >
              </dd>
            </template>
          </dl>
        </section>
        <AdvisorBox v-for="advisor in advisors" :key="advisor.id" :advisor="advisor" />
        <section v-if="!advisors.length" class="card box">
          <h2>No advisor yet</h2>
          <p>
            {{
              student.say('Nobody is named here who advises you; the registrar’s office can name somebody.')
            }}
          </p>
        </section>
        <section class="card box">
          <h2>Dates</h2>
          <p v-if="!dates.length" class="quiet">No dates are known for the time ahead.</p>
          <dl class="dates">
            <template v-for="row in dates" :key="row.what">
              <dt>{{ dayMonth(row.on) }}</dt>
              <dd>{{ student.say(row.what) }}</dd>
            </template>
          </dl>
        </section>
      </div>
    </div>
  </div>
</template>

<style scoped>
.meets {
  display: block;
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 372px;
  gap: 14px;
  align-items: start;
}
.list ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 11px 14px;
}
li + li {
  border-top: 1px solid var(--rule);
}
.edge {
  align-self: stretch;
  flex: 0 0 6px;
  min-height: 34px;
  border-radius: 3px;
  background: var(--dusk);
}
.edge.stops {
  background: var(--rowan);
}
.edge.runsOut,
.edge.attention {
  background: var(--ember);
}
.edge.later {
  background: var(--quiet);
}
.what {
  flex: 1;
  min-width: 0;
}
.what > .quiet {
  display: block;
}
.when {
  white-space: nowrap;
}
.none {
  padding: 20px;
  margin: 0;
}
.climb {
  margin-top: 12px;
  padding: 12px 14px 4px;
}
.climb-head {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: baseline;
  margin: 0 0 4px;
}
.climb-head .display {
  font-size: 16px;
}
.side {
  display: grid;
  gap: 12px;
}
.box {
  padding: 12px 14px;
}
.box p {
  margin: 4px 0 0;
}
dl {
  display: grid;
  margin: 8px 0 0;
}
dl.week {
  grid-template-columns: 50px 1fr;
}
dl.dates {
  grid-template-columns: 64px 1fr;
  gap: 4px 0;
}
dt {
  font-weight: 650;
}
.week dt,
.week dd {
  border-top: 1px solid var(--rule);
  padding: 5px 0;
}
@media (max-width: 980px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media (max-width: 720px) {
  li {
    flex-wrap: wrap;
  }
  .what {
    flex-basis: calc(100% - 20px);
  }
  .when {
    margin-left: 18px;
    flex: 1;
  }
}
</style>
