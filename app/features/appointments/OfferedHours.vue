<script setup lang="ts">
import type { OfferedTime } from '#core/appointments'
import { dayNumber, minutes, WEEKDAYS, weekdayOf, type Weekday } from '#core/time'
import type { AwayTime, HoursView } from '#shared/appointments/appointments'
import { campusDate, clockTime, dayText, LONG_DAY_NAMES } from '#shared/when'
import { count } from '#shared/words'

/** The hours that an advisor offers, every week or once, and the days away. */
const props = defineProps<{ hours: HoursView }>()
const staff = useStaff()
const { busy, once } = useOnce()

const times = computed(() => [...props.hours.times].sort((a, b) => orderOf(a).localeCompare(orderOf(b))))
/** Every week first, by day and hour; then what is offered once. */
const orderOf = (one: OfferedTime) => `${one.on ?? one.weekday} ${String(one.start).padStart(4, '0')}`
const dayOf = (one: OfferedTime) =>
  one.on === null ? `every ${LONG_DAY_NAMES[one.weekday]}` : dayText(one.on)
const hoursOf = ({ start, end }: OfferedTime) => `${clockTime(start)} to ${clockTime(end)}`
const slots = (one: OfferedTime) => Math.floor((one.end - one.start) / one.length)
const nameOf = (one: OfferedTime) => `${dayOf(one)}, ${hoursOf(one)}`
function spanOf({ from, until }: OfferedTime): string {
  const parts = [...(from ? [`from ${dayText(from)}`] : []), ...(until ? [`until ${dayText(until)}`] : [])]
  return parts.join(' ')
}

const save = (said: { times?: OfferedTime[]; away?: AwayTime[] }) =>
  once(() => staff.offer({ times: props.hours.times, away: props.hours.away, ...said }))

const EVERY = WEEKDAYS.map((day) => ({ value: day as Weekday | 0, title: `every ${LONG_DAY_NAMES[day]}` }))
const DAYS = [...EVERY, { value: 0 as const, title: 'once, on a date' }]
const LENGTHS = [15, 20, 30, 45, 60].map((value) => ({ value, title: `${value} min` }))
const draft = reactive({
  day: 1 as Weekday | 0,
  on: '',
  start: '10:00',
  end: '12:00',
  length: 30,
  place: '',
  from: '',
  until: ''
})
const fault = ref<string>()
function faultOf(): string | undefined {
  const { day, on, start, end, length, place, from, until } = draft
  if (day === 0 && !on) return 'Choose the date.'
  if (!start || !end || minutes(start) + length > minutes(end))
    return `The end has to be ${length} minutes or more after the start.`
  if (place.trim().length < 2) return 'Say the room, or a link.'
  return from && until && from > until ? 'The last day has to be the first or later.' : undefined
}
async function add() {
  fault.value = faultOf()
  if (fault.value) return
  const { day, on, start, end, length, place, from, until } = draft
  const hours = { start: minutes(start), end: minutes(end), length, place: place.trim() }
  const time: OfferedTime =
    day === 0
      ? { ...hours, weekday: null, on, from: null, until: null }
      : { ...hours, weekday: day, on: null, from: from || null, until: until || null }
  await save({ times: [...props.hours.times, time] })
}

const away = reactive({ from: '', to: '', standIn: null as number | null })
/** Those who may do what this advisor does. */
const { others, read } = useOtherAdvisors()
onMounted(read)
const standIns = computed(() => [
  { value: null, title: 'nobody' },
  ...others.value.map(({ id, name }) => ({ value: id, title: name }))
])
async function addAway() {
  if (!away.from) return
  const to = away.to || away.from
  if (to < away.from) return (fault.value = 'The last day away has to be the first or later.')
  fault.value = undefined
  const standIn = others.value.find((one) => one.id === away.standIn) ?? null
  if (await save({ away: [...props.hours.away, { from: away.from, to, standIn }] })) away.from = away.to = ''
}
const awayText = ({ from, to }: AwayTime) =>
  from === to ? dayText(from) : `${dayText(from)} to ${dayText(to)}`
/** What is booked on days away stays: it is told, for the advisor to move it. */
const college = useCollege()
const booked = ({ from, to }: AwayTime) =>
  props.hours.appointments.filter(({ startsAt }) => {
    const date = campusDate(startsAt, college.zone)
    return from <= date && date <= to
  }).length
const isWeekend = (date: string) => date !== '' && weekdayOf(dayNumber(date)) > 5
</script>

<template>
  <section class="card hours" aria-labelledby="offered-title">
    <h2 id="offered-title">What you offer</h2>
    <v-table v-if="times.length">
      <thead>
        <tr>
          <th scope="col">When</th>
          <th scope="col">Hours</th>
          <th scope="col">Slots</th>
          <th scope="col">Where</th>
          <th scope="col"><span class="visually-hidden">Actions</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in times" :key="nameOf(one)">
          <th scope="row">{{ dayOf(one) }} <span class="quiet small block">{{ spanOf(one) }}</span></th>
          <td>{{ hoursOf(one) }}</td>
          <td>{{ slots(one) }} of {{ one.length }} min</td>
          <td class="place">{{ one.place }}</td>
          <td>
            <v-text-btn
              :aria-label="`Take out: ${nameOf(one)}`"
              @click="save({ times: hours.times.filter((other) => other !== one) })"
              >take out</v-text-btn
            >
          </td>
        </tr>
      </tbody>
    </v-table>
    <p v-else class="quiet">You offer no hours yet; students cannot book a time with you.</p>
    <form @submit.prevent="add">
      <v-select v-model="draft.day" label="when" :items="DAYS" />
      <v-text-field v-if="draft.day === 0" v-model="draft.on" label="date" type="date" />
      <v-text-field v-model="draft.start" label="from" type="time" />
      <v-text-field v-model="draft.end" label="to" type="time" />
      <v-select v-model="draft.length" label="slots of" :items="LENGTHS" />
      <v-text-field v-model="draft.place" class="wide" label="room or link" maxlength="160" />
      <template v-if="draft.day !== 0">
        <v-text-field v-model="draft.from" label="first day, if any" type="date" />
        <v-text-field v-model="draft.until" label="last day, if any" type="date" />
      </template>
      <v-btn type="submit" size="small" :disabled="busy">Offer it</v-btn>
      <span v-if="isWeekend(draft.on)" class="small quiet">this is a weekend</span>
    </form>
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
    <h3>Away</h3>
    <ul v-if="hours.away.length">
      <li v-for="one in hours.away" :key="awayText(one)">
        {{ awayText(one) }}
        <span v-if="one.standIn" class="quiet">{{ one.standIn.name }} stands in</span>
        <span v-if="booked(one)" class="fault"
          >{{ count(booked(one), 'appointment') }} booked then; move them</span
        >
        <v-text-btn
          :aria-label="`Take out: away ${awayText(one)}`"
          @click="save({ away: hours.away.filter((other) => other !== one) })"
          >take out</v-text-btn
        >
      </li>
    </ul>
    <form @submit.prevent="addAway">
      <v-text-field v-model="away.from" label="first day away" type="date" />
      <v-text-field v-model="away.to" label="last day away" type="date" />
      <v-select v-model="away.standIn" label="who stands in" :items="standIns" class="wide" />
      <v-btn type="submit" size="small" :disabled="busy || !away.from">Add it</v-btn>
    </form>
  </section>
</template>

<style scoped>
.hours {
  padding: 12px 16px;
}
.v-table :deep(table) {
  width: 100%;
  border-collapse: collapse;
}
th,
td {
  text-align: left;
  vertical-align: top;
  font-weight: 400;
  padding: 5px 10px 5px 0;
  border-top: 1px solid var(--rule);
}
thead th {
  border: 0;
  font-weight: 600;
}
.place {
  overflow-wrap: anywhere;
}
.block {
  display: block;
}
form {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 10px;
  margin: 10px 0;
}
.wide {
  flex: 1 1 200px;
}
h3 {
  margin: 14px 0 0;
  font-size: 15px;
}
ul {
  list-style: none;
  padding: 0;
  margin: 4px 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
}
.fault {
  color: var(--ember);
  margin: 0;
}
</style>
