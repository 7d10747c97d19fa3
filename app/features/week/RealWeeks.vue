<script setup lang="ts">
import { dayNumber, isoDate, WEEKDAYS, weekdayOf, type Weekday } from '#core/time'
import { classesBetween, weeksOfTerm, weekToOpen, type Section } from '#core/week'
import { clockTime, dayMonth, hours, LONG_DAY_NAMES } from '#shared/when'
import { KIND_WORDS } from '#shared/words'

/** The real weeks of the term, one at a time, and their classes as a list. */
const props = defineProps<{
  held: Section[]
  picked: Section[]
  hueOf: (course: string) => { hue: number }
  scale: { from: number; to: number }
}>()
const standing = useStanding()
const college = useCollege()
const term = computed(() => standing.term!)
const mondays = computed(() => weeksOfTerm(term.value))
const monday = ref(weekToOpen(term.value, dayNumber(college.today)))
watch(
  () => term.value.code,
  () => (monday.value = weekToOpen(term.value, dayNumber(college.today)))
)
const number = computed(() => mondays.value.indexOf(monday.value) + 1)
const days = computed(() => WEEKDAYS.map((day) => monday.value + day - 1))
const whyFree = (day: number): string | undefined => {
  const date = isoDate(day)
  const holiday = term.value.holidays.find((one) => one.date === date)
  if (holiday) return holiday.name
  if (date < term.value.start) return `${term.value.name} begins on ${dayMonth(term.value.start)}`
  return date > term.value.end ? `${term.value.name} is over` : undefined
}
const dated = computed(
  () =>
    new Map(days.value.map((day) => [weekdayOf(day), { date: isoDate(day), free: whyFree(day) }] as const))
)
/** Sections with only what meets in the week, at full height: within one week halves do not overlap. */
function inWeek(list: readonly Section[]): Section[] {
  return list.flatMap((section) => {
    const classes = classesBetween([section], days.value[0]!, days.value[6]!, standing.holidays)
    if (!classes.length) return []
    const meetings = classes.map(({ day, meeting }) => ({
      ...meeting,
      days: [weekdayOf(day)] as Weekday[]
    }))
    return [{ ...section, half: 'full' as const, meetings }]
  })
}
const appointmentsOn = useAppointmentsOn()
const agenda = computed(() => {
  const classes = classesBetween(
    [...props.held, ...props.picked],
    days.value[0]!,
    days.value[6]!,
    standing.holidays
  )
  return days.value
    .map((day) => ({
      day,
      classes: classes.filter((one) => one.day === day),
      appointments: appointmentsOn(isoDate(day)),
      free: whyFree(day)
    }))
    .filter((one) => one.classes.length || one.appointments.length || (one.free && weekdayOf(one.day) <= 5))
})
const move = (by: number) => (monday.value = mondays.value[number.value - 1 + by] ?? monday.value)
</script>

<template>
  <div class="walk">
    <v-text-btn :disabled="number <= 1" @click="move(-1)">Week before</v-text-btn>
    <label
      ><span class="visually-hidden">Week</span>
      <v-select
        v-model="monday"
        :items="
          mondays.map((value, i) => ({ value, title: `Week ${i + 1}, from ${dayMonth(isoDate(value))}` }))
        "
      />
    </label>
    <v-text-btn :disabled="number >= mondays.length" @click="move(1)">Week after</v-text-btn>
    <span class="quiet">of {{ mondays.length }}</span>
  </div>
  <WeekRibbon :held="inWeek(held)" :picked="inWeek(picked)" :hue-of="hueOf" :scale="scale" :dated="dated" />
  <ol class="card agenda" aria-label="Classes of the week">
    <li v-for="one in agenda" :key="one.day">
      <strong>{{ LONG_DAY_NAMES[weekdayOf(one.day)] }} {{ dayMonth(isoDate(one.day)) }}</strong>
      <span v-if="one.free" class="quiet">{{ one.free }}, no classes</span>
      <ul v-if="one.classes.length">
        <li v-for="{ section, meeting } in one.classes" :key="`${section.code} ${meeting.start}`">
          <span class="when">{{ hours(meeting.start, meeting.end) }}</span>
          <span :class="`hue-${hueOf(section.course).hue}`" class="what"
            >{{ section.course }} {{ section.kind === 'lecture' ? '' : KIND_WORDS[section.kind] }}</span
          >
          <span class="quiet">{{ meeting.room ?? college.campusName(meeting.campus) }}</span>
        </li>
      </ul>
      <p v-for="meeting in one.appointments" :key="meeting.id" class="meets">
        <span class="when">{{ meeting.time }}</span> {{ meeting.advisor.name }}
        <span class="quiet">{{ meeting.place }}</span>
      </p>
    </li>
    <li v-if="!agenda.length" class="quiet">No classes in this week.</li>
  </ol>
  <p class="visually-hidden" role="status">
    Week {{ number }}, from {{ dayMonth(isoDate(monday)) }}; the first class at
    {{ agenda[0]?.classes[0] ? clockTime(agenda[0].classes[0].meeting.start) : 'no hour' }}
  </p>
</template>

<style scoped>
.walk {
  display: flex;
  gap: 12px;
  align-items: center;
  margin-bottom: 6px;
}
.walk [disabled] {
  opacity: 0.4;
  cursor: default;
}
.agenda {
  list-style: none;
  margin: 10px 0 0;
  padding: 8px 14px;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(250px, 1fr));
  gap: 8px 20px;
}
.agenda ul {
  list-style: none;
  padding: 0;
}
.agenda ul li {
  display: flex;
  gap: 10px;
}
.meets {
  display: flex;
  gap: 10px;
  margin: 0;
}
.when {
  flex: 0 0 92px;
}
.what {
  border-left: 4px solid var(--hue);
  padding-left: 6px;
}
</style>
