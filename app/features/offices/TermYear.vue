<script setup lang="ts">
import { daysLater } from '#core/calendar'
import { dayNumber } from '#core/time'
import type { TermRow } from '#shared/offices/terms'
import { dayMonth, MONTHS } from '#shared/when'
import { count } from '#shared/words'

/** A year of study: its terms on one line of months, and what is in each. */
const props = defineProps<{ terms: readonly TermRow[] }>()
const college = useCollege()

/** From August, or the month in which the first term begins, a year on. */
const from = computed(() => {
  const [year, month] = [props.terms[0]!.start.slice(0, 4), props.terms[0]!.start.slice(5, 7)]
  return `${year}-${month > '08' ? '08' : month}-01`
})
const length = computed(() => {
  const [year, month] = [Number(from.value.slice(0, 4)), from.value.slice(4)]
  return dayNumber(`${year + 1}${month}`) - dayNumber(from.value)
})
const across = (date: string) => (100 * (dayNumber(date) - dayNumber(from.value))) / length.value
const months = computed(() =>
  Array.from({ length: 12 }, (_, i) => {
    const first = Number(from.value.slice(5, 7)) - 1 + i
    const date = `${Number(from.value.slice(0, 4)) + Math.floor(first / 12)}-${String((first % 12) + 1).padStart(2, '0')}-01`
    return { name: MONTHS[first % 12]!, left: across(date) }
  })
)
const today = computed(() => across(college.today))
const stateOf = ({ start, end, published }: TermRow) =>
  end < college.today
    ? 'over'
    : start <= college.today
      ? 'in progress'
      : published
        ? 'published'
        : 'not published'
function figuresOf({ sections, courses, openings, planned, held, end }: TermRow): string {
  const isOver = end < college.today
  return [
    sections ? `${count(sections, 'section')} of ${count(courses, 'course')}` : 'no sections',
    ...(isOver ? [] : [openings ? count(openings, 'opening') : 'no opening']),
    ...(planned ? [`planned for by ${count(planned, 'student')}`] : []),
    ...(held ? [`seats held by ${count(held, 'student')}`] : [])
  ].join(' · ')
}
</script>

<template>
  <div class="card year">
    <div class="line" aria-hidden="true">
      <span v-for="month in months" :key="month.name" class="month" :style="{ left: `${month.left}%` }">{{
        month.name
      }}</span>
      <span
        v-for="one in terms"
        :key="one.code"
        class="bar"
        :class="stateOf(one).replace(' ', '-')"
        :style="{
          left: `${across(one.start)}%`,
          width: `${across(daysLater(one.end, 1)) - across(one.start)}%`
        }"
        >{{ one.name }}</span
      >
      <span v-if="today > 0 && today < 100" class="today" :style="{ left: `${today}%` }" />
    </div>
    <ul>
      <li v-for="one in terms" :key="one.code">
        <NuxtLink class="textlink name" :to="`/terms/${one.code}`">{{ one.name }}</NuxtLink>
        <span>{{ stateOf(one) }}</span>
        <span class="quiet">{{ dayMonth(one.start) }} to {{ dayMonth(one.end) }}</span>
        <span class="quiet">{{ figuresOf(one) }}</span>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.year {
  padding: 10px 15px 8px;
  margin-bottom: 12px;
}
.line {
  position: relative;
  height: 46px;
  overflow: hidden;
  border-bottom: 1px solid var(--rule);
}
.month {
  position: absolute;
  top: 0;
  font-size: 12px;
  color: var(--quiet);
  padding-left: 4px;
  border-left: 1px solid var(--rule);
  height: 100%;
}
.bar {
  position: absolute;
  top: 18px;
  height: 22px;
  padding: 1px 8px;
  border: 1px solid var(--dusk);
  border-radius: 4px;
  font-size: 12.5px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  background: var(--card);
}
.bar.not-published {
  border-style: dashed;
}
.bar.published {
  background: var(--dusk-tint);
}
.bar.in-progress {
  background: var(--dusk);
  color: var(--on-dusk);
}
.bar.over {
  border-color: var(--rule);
  color: var(--quiet);
}
.today {
  position: absolute;
  top: 14px;
  bottom: 0;
  width: 2px;
  background: var(--ember);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 150px 110px 150px minmax(0, 1fr);
  gap: 0 14px;
  padding: 5px 0;
}
li + li {
  border-top: 1px solid var(--rule);
}
.name {
  font-weight: 600;
}
@media (max-width: 900px) {
  li {
    grid-template-columns: auto auto;
    justify-content: start;
  }
  li > :last-child {
    grid-column: 1 / -1;
  }
}
</style>
