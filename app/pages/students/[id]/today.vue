<script setup lang="ts">
import { phaseOf } from '#core/catalog'
import { weekdayOf, dayNumber, type Weekday } from '#core/time'
import { clockTime, campusDate, dayMonth, DAY_NAMES, LONG_DAY_NAMES, shortInstant } from '#wire/when'
import { creditsText } from '#wire/words'

useHead({ title: 'Today · Ridgeway' })
const student = useStudent()
const college = useCollege()
const clock = useClock()
const standing = useStanding()
const todo = storeToRefs(useTodo()).list

const picture = computed(() => student.picture!)
const reading = computed(() => student.reading!)
const title = computed(() => {
  const day = weekdayOf(dayNumber(college.today))
  return `${LONG_DAY_NAMES[day]} ${dayMonth(college.today)}`
})
const current = computed(() => college.shelf?.terms.find((t) => phaseOf(t, college.today) === 'current'))
const weekOf = computed(() => {
  if (!current.value) return ''
  const week = Math.floor((dayNumber(college.today) - dayNumber(current.value.start)) / 7) + 1
  const weeks = Math.ceil((dayNumber(current.value.end) - dayNumber(current.value.start) + 1) / 7)
  return `${current.value.name}, week ${week} of ${weeks}`
})
/** The week of the term that is running: day by day, what begins when. */
const week = computed(() => {
  const sections = picture.value.sections.filter(
    (s) =>
      s.term === current.value?.code &&
      picture.value.held.some((h) => h.section === s.code || h.section === s.parent)
  )
  return ([1, 2, 3, 4, 5, 6, 7] as Weekday[])
    .map((day) => ({
      day,
      meetings: sections
        .flatMap((s) =>
          s.meetings
            .filter((m) => m.days.includes(day) && m.from <= college.today && m.to >= college.today)
            .map((m) => ({ ...m, what: `${s.course}${s.kind === 'lab' ? ' lab' : ''}` }))
        )
        .sort((a, b) => a.start - b.start)
    }))
    .filter((row) => row.day <= 5 || row.meetings.length)
})
const dates = computed(() => {
  const zone = college.zone
  const rows = picture.value.openings.map((o) => ({
    at: o.opens,
    what: `${college.termName(o.term)} opens for you, ${shortInstant(o.opens, zone).split(', ')[1]}`
  }))
  for (const term of college.shelf?.terms ?? []) {
    if (!term.published) continue
    if (picture.value.held.some((h) => h.term === term.code))
      rows.push({ at: term.dropEndsAt - 1, what: `last day to drop a ${term.name} course` })
    if (phaseOf(term, college.today) === 'future' && term.code === standing.term?.code) {
      rows.push({ at: Date.parse(`${term.paymentDueOn}T16:00:00Z`), what: `${term.name} payment due` })
      rows.push({ at: Date.parse(`${term.start}T16:00:00Z`), what: `${term.name} begins` })
    }
  }
  return rows
    .filter((r) => r.at >= clock.now)
    .sort((a, b) => a.at - b.at)
    .slice(0, 6)
})
const advisors = computed(() => picture.value.advisors)
const sure = computed(() => {
  const amounts = standing.main?.amounts
  return amounts ? amounts.earned + amounts.underWay : 0
})
const ahead = computed(() => {
  const amounts = standing.main?.amounts
  return amounts ? amounts.registered + amounts.planned : 0
})
const URGENCY = { stops: 'stops you', attention: 'needs attention', plain: '', later: 'later' }
function act(to: string) {
  if (to.startsWith('#')) document.getElementById(to.slice(1))?.scrollIntoView({ block: 'center' })
  else void navigateTo(to)
}
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ title }}</h1>
    </div>
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
                :variant="item.urgency === 'stops' ? 'flat' : 'outlined'"
                :color="item.urgency === 'stops' ? 'primary' : undefined"
                @click="act(item.action.to)"
                >{{ item.action.label }}</v-btn
              >
            </li>
          </ul>
          <p v-else class="none">Nothing waits for you. The coming term is settled.</p>
        </section>
        <section class="card climb" aria-labelledby="climb-title">
          <p class="climb-head">
            <span id="climb-title" class="display" role="heading" aria-level="2">The climb</span>
            <span class="quiet">
              {{ creditsText(sure) }} earned and under way · {{ ahead }} ahead on the route ·
              {{
                standing.finish
                  ? `finish ${standing.finish.name}`
                  : `${standing.main?.amounts.needed ?? 0} not planned yet`
              }}
            </span>
          </p>
          <TheClimb :climb="reading.climb" :goal="standing.total" :finish="standing.finish?.name" />
        </section>
      </div>
      <div class="side">
        <ProgramAnswer />
        <section class="card box">
          <h2>{{ current ? 'This week' : 'Between terms' }}</h2>
          <p class="quiet small">{{ weekOf }}</p>
          <dl v-if="current" class="week">
            <template v-for="row in week" :key="row.day">
              <dt>{{ DAY_NAMES[row.day] }}</dt>
              <dd>
                <span v-if="!row.meetings.length" class="quiet">free</span>
                {{ row.meetings.map((m) => `${clockTime(m.start)} ${m.what}`).join(' · ') }}
              </dd>
            </template>
          </dl>
        </section>
        <section v-for="advisor in advisors" :key="advisor.mail" class="card box">
          <h2>
            {{ advisor.name }}
            <span class="quiet role">{{
              advisor.kind === 'office' ? 'office' : `${advisor.purpose} advisor`
            }}</span>
          </h2>
          <p v-if="standing.signOff && advisor.name === standing.signOff.by">
            Signed off {{ college.termName(standing.signOff.term) }} on
            {{ dayMonth(campusDate(standing.signOff.at, college.zone)) }}.
          </p>
          <p
            v-for="message in picture.messages.filter((m) => m.from === advisor.name).slice(0, 1)"
            :key="message.at"
          >
            “{{ message.text }}”
          </p>
          <p>{{ advisor.office }}, {{ advisor.hours }}.</p>
          <p>
            <a class="textlink" :href="`mailto:${advisor.mail}`">{{ advisor.mail }}</a> · {{ advisor.phone }}
          </p>
        </section>
        <section v-if="!advisors.length" class="card box">
          <h2>No advisor yet</h2>
          <p>Ask the Advising Office, Larch House, ground floor, 555 0100.</p>
        </section>
        <section class="card box">
          <h2>Dates</h2>
          <dl class="dates">
            <template v-for="row in dates" :key="row.what">
              <dt>{{ dayMonth(campusDate(row.at, college.zone)) }}</dt>
              <dd>{{ row.what }}</dd>
            </template>
          </dl>
        </section>
      </div>
    </div>
  </div>
</template>

<style scoped>
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
.role {
  font-family: var(--body);
  font-weight: 400;
  font-size: 13.5px;
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
