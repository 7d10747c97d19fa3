<script setup lang="ts">
import { dayNumber, isoDate } from '#core/time'
import { loadByWeek, type Section } from '#core/week'
import { dayMonth } from '#shared/when'
import { count } from '#shared/words'

/** From when to when each course runs in the term, and what each week asks. */
const props = defineProps<{ sections: readonly Section[]; hueOf: (course: string) => { hue: number } }>()
const standing = useStanding()
const student = useStudent()
const term = computed(() => standing.term!)
const runOf = (section: Section) =>
  term.value.sessions.find((one) => one.code === section.session) ?? term.value
const weeks = computed(() =>
  loadByWeek(
    props.sections,
    { start: term.value.start, end: term.value.end, holidays: standing.holidays },
    runOf
  )
)
const first = computed(() => weeks.value[0]!.monday)
const days = computed(() => weeks.value.length * 7)
const at = (date: string) => `${(100 * (dayNumber(date) - first.value)) / days.value}%`
const long = (from: string, to: string) => `${(100 * (dayNumber(to) - dayNumber(from) + 1)) / days.value}%`
const mains = computed(() => props.sections.filter((one) => one.parent === null))
const once = (section: Section) =>
  props.sections
    .filter((one) => one.course === section.course)
    .flatMap((one) => one.meetings)
    .filter((one) => one.from === one.to)
const hoursOf = (one: { classMinutes: number; studyHours: number }) =>
  Math.round(one.classMinutes / 60 + one.studyHours)
const most = computed(() => Math.max(1, ...weeks.value.map(hoursOf)))
const outside = computed(() => student.view?.carry.outside ?? 0)
const busiest = computed(() => weeks.value.reduce((a, b) => (hoursOf(b) > hoursOf(a) ? b : a)))
</script>

<template>
  <section class="card span" aria-labelledby="span-title">
    <h2 id="span-title">Through the term</h2>
    <ul>
      <li v-for="section in mains" :key="section.code" :class="`hue-${hueOf(section.course).hue}`">
        <span class="name">{{ section.course }}</span>
        <span class="track">
          <span
            class="run"
            :style="{ left: at(runOf(section).start), width: long(runOf(section).start, runOf(section).end) }"
            >{{ dayMonth(runOf(section).start) }} to {{ dayMonth(runOf(section).end) }}</span
          >
          <span
            v-for="meeting in once(section)"
            :key="meeting.from"
            class="once"
            :style="{ left: at(meeting.from) }"
            :title="`only on ${dayMonth(meeting.from)}`"
          />
        </span>
      </li>
      <li>
        <span class="name quiet">hours a week</span>
        <span class="track loads">
          <span
            v-for="one in weeks"
            :key="one.monday"
            class="load"
            :title="`week of ${dayMonth(isoDate(one.monday))}: ${Math.round(one.classMinutes / 60)} in class, ${Math.round(one.studyHours)} of study`"
          >
            <span class="small">{{ hoursOf(one) }}</span>
            <span class="column" :style="{ height: `${(26 * hoursOf(one)) / most}px` }"
              ><span class="class" :style="{ height: `${(26 * one.classMinutes) / 60 / most}px` }"
            /></span>
          </span>
        </span>
      </li>
    </ul>
    <p class="quiet small">
      Class and study together, two hours of study for each credit; in half a term twice as much a week. The
      busiest is the week of {{ dayMonth(isoDate(busiest.monday)) }} with {{ count(hoursOf(busiest), 'hour')
      }}<template v-if="outside">, beside {{ outside }} hours outside college</template>.
    </p>
  </section>
</template>

<style scoped>
.span {
  margin-top: 10px;
  padding: 10px 14px;
}
ul {
  list-style: none;
  padding: 0;
  margin: 6px 0;
}
li {
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 2px 0;
}
.name {
  flex: 0 0 92px;
}
.track {
  position: relative;
  flex: 1;
  height: 19px;
}
.run {
  position: absolute;
  inset-block: 0;
  border: 1px solid var(--hue);
  border-left-width: 4px;
  border-radius: 5px;
  background: color-mix(in srgb, var(--hue) 12%, var(--card));
  font-size: 11.5px;
  line-height: 17px;
  padding: 0 6px;
  overflow: hidden;
  white-space: nowrap;
}
.once {
  position: absolute;
  inset-block: 2px;
  width: 5px;
  border: 2px solid var(--hue);
  background: var(--card);
}
.loads {
  display: flex;
  height: 44px;
}
.load {
  flex: 1;
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: end;
}
.column {
  display: flex;
  align-items: end;
  width: 70%;
  background: var(--shade);
  border: 1px solid var(--rule);
}
.class {
  width: 100%;
  background: var(--quiet);
}
@media (max-width: 720px) {
  .name {
    flex-basis: 74px;
  }
  .load .small {
    font-size: 9.5px;
  }
}
</style>
