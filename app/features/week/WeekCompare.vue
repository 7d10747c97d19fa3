<script setup lang="ts">
import { SAFE_SEATS } from '#core/find'
import { clashesWith, figuresOf, studyHours, type Section } from '#core/week'
import { clockTime, duration } from '#shared/when'
import { count, creditsText } from '#shared/words'

/** The draft weeks of the term side by side. */
const props = defineProps<{
  /** Sections as the seats stand now. */
  fresh: (list: readonly Section[]) => Section[]
  scale: { from: number; to: number }
}>()
const emit = defineEmits<{ close: [] }>()
const weeks = useWeeks()
const standing = useStanding()
const student = useStudent()
const { hueOf } = useHues()

const columns = computed(() =>
  weeks.drafts.map((week) => {
    const inWeek = weeks.weekOf(week)
    const sections = props.fresh([...inWeek.staying, ...inWeek.picked])
    const risky = props.fresh(inWeek.wanted).filter((one) => one.capacity - one.taken < SAFE_SEATS).length
    const mains = sections.filter((one) => one.parent === null)
    const figures = figuresOf(sections, standing.holidays)
    const clashes = sections.flatMap((one) =>
      clashesWith({ course: one.course, sections: [one] }, sections, standing.holidays)
    ).length
    const there = new Set(mains.map((one) => one.course))
    return {
      week,
      sections,
      mains,
      without: standing.courses.filter((course) => !there.has(course)),
      rows: [
        ['Credits', creditsText(mains.reduce((sum, one) => sum + one.credits, 0))],
        ['Days', count(figures.days, 'day')],
        ['First class', figures.firstStart === null ? 'none' : clockTime(figures.firstStart)],
        ['Last end', figures.lastEnd === null ? 'none' : clockTime(figures.lastEnd)],
        ['Between classes', duration(figures.between)],
        ['Study', `${studyHours(mains)} h a week`],
        ['Campus changes', String(figures.campusChanges)],
        ['Clashes', String(clashes / 2)],
        ['At risk', count(risky, 'section')]
      ] as const
    }
  })
)
const look = (week: (typeof columns.value)[number]['week']) => {
  weeks.look(week)
  emit('close')
}
</script>

<template>
  <div class="columns">
    <section v-for="one in columns" :key="one.week.id" class="card column" :aria-label="one.week.name">
      <h2>{{ one.week.name }}</h2>
      <p class="quiet small">{{ one.week.goingWith ? 'going with this one' : '' }}&nbsp;</p>
      <SmallWeek :sections="one.sections" :hue-of="(course) => hueOf(course).hue" :scale="scale" alone />
      <dl>
        <template v-for="[title, value] in one.rows" :key="title">
          <dt class="quiet">{{ title }}</dt>
          <dd>{{ value }}</dd>
        </template>
      </dl>
      <p class="small">
        <span v-for="main in one.mains" :key="main.code" class="line"
          >{{ main.course }}-{{ main.number }}</span
        >
        <span v-for="course in one.without" :key="course" class="line quiet">{{ course }}: no section</span>
      </p>
      <p class="line">
        <v-text-btn @click="look(one.week)">
          Look at it<span class="visually-hidden">: {{ one.week.name }}</span>
        </v-text-btn>
        <v-text-btn
          v-if="student.own && !one.week.goingWith"
          @click="weeks.change(one.week, { goingWith: true })"
        >
          Go with this one
        </v-text-btn>
      </p>
    </section>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(240px, 1fr));
  gap: 10px;
}
.column {
  padding: 10px 14px;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 1px 12px;
  margin: 8px 0;
}
dd {
  text-align: right;
}
.line {
  display: inline-block;
  margin-right: 12px;
}
</style>
