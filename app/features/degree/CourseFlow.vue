<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import type { Audit, OutsideCourse, Attempt } from '#core/degree'
import { areaKey } from '~/ui/useHues'
import { FREE_HUE, OUTSIDE_HUE } from '#shared/tokens'
import { bandPath, flowShapes } from './flowShapes'

/** Where each course counts: bands from courses to areas, as wide as their credits. A table says the same. */
const props = defineProps<{ audit: Audit; outside: readonly OutsideCourse[]; pointed?: string | undefined }>()
const emit = defineEmits<{ open: [course: string]; point: [what: string | undefined] }>()

const college = useCollege()
const { hues } = useHues()
const place = ref<HTMLElement>()
const { width } = useElementSize(place)

const FIRM_WORDS = {
  earned: 'completed',
  underWay: 'under way',
  registered: 'registered',
  planned: 'planned'
}
const OUTSIDE = 'Outside the degree'

interface Counted {
  attempt: Attempt
  area: string
  hue: number
}
const counted = computed((): Counted[] => [
  ...props.audit.areas.flatMap(({ area, needs }) =>
    needs.flatMap(({ evidence }) =>
      evidence.map((attempt) => ({
        attempt,
        area: area.title,
        hue: hues.value.get(areaKey(props.audit, area.id))?.hue ?? FREE_HUE
      }))
    )
  ),
  ...props.outside.map(({ attempt }) => ({ attempt, area: OUTSIDE, hue: OUTSIDE_HUE }))
])
const label = (attempt: Attempt) =>
  attempt.status === 'earned'
    ? `${attempt.course} ${attempt.origin === 'transfer' ? 'tr.' : (attempt.grade ?? '')}`
    : `${attempt.course} ${attempt.status === 'underWay' ? 'now' : college.shortTerm(attempt.term ?? '')}`

/** Pixels: beside the columns for their labels, of a column, between two ends, and of a course with its gap. */
const BESIDE = { left: 128, right: 118 }
const COLUMN = 8
const GAP = 5
const EACH = 17
const LEAST = 320

const drawn = computed(() => counted.value.filter(({ attempt }) => attempt.credits > 0))
const height = computed(() => Math.max(LEAST, drawn.value.length * EACH + 20))
const columns = computed(() => ({ left: BESIDE.left, right: Math.max(260, width.value) - BESIDE.right }))
const shapes = computed(() =>
  flowShapes(
    drawn.value.map(({ attempt, area }) => ({ from: attempt.key, to: area, amount: attempt.credits })),
    height.value - 8,
    GAP
  )
)
const bands = computed(() =>
  drawn.value.map((one, i) => ({
    ...one,
    path: bandPath(shapes.value.bands[i]!, columns.value.left + COLUMN, columns.value.right - COLUMN)
  }))
)
const ends = computed(() => ({
  courses: shapes.value.left.map((end) => ({
    ...end,
    ...drawn.value.find((one) => one.attempt.key === end.key)!
  })),
  areas: shapes.value.right.map((end) => ({
    ...end,
    hue: drawn.value.find((one) => one.area === end.key)!.hue,
    lines: linesOf(end.key)
  }))
}))

/** A name in lines of about the width beside the column. */
function linesOf(name: string): string[] {
  const MOST = 17
  const lines: string[] = []
  for (const word of name.split(' ')) {
    const last = lines.at(-1)
    if (last !== undefined && `${last} ${word}`.length <= MOST) lines[lines.length - 1] = `${last} ${word}`
    else lines.push(word)
  }
  return lines
}

/** What is pointed at here, or in the list beside it. */
const under = ref<string>()
const pointed = computed(() => under.value ?? props.pointed)
function point(what: string | undefined) {
  under.value = what
  emit('point', what)
}
const isFaint = (course: string, area: string) =>
  pointed.value !== undefined && pointed.value !== course && pointed.value !== area
/** Of ends, which stay where one of their bands does. */
const isLit = (is: (one: Counted) => boolean) =>
  drawn.value.some((one) => is(one) && !isFaint(one.attempt.course, one.area))
</script>

<template>
  <section class="card flow" aria-labelledby="flow-title">
    <h2 id="flow-title">Where each course counts</h2>
    <div ref="place" aria-hidden="true">
      <svg :width="columns.right + BESIDE.right" :height="height" @mouseleave="point(undefined)">
        <g transform="translate(0 4)">
          <path
            v-for="{ attempt, area, hue, path } in bands"
            :key="`${attempt.key} ${area}`"
            :d="path"
            :class="[`hue-${hue}`, attempt.status, { faint: isFaint(attempt.course, area) }]"
            @mouseenter="point(attempt.course)"
            @click="emit('open', attempt.course)"
          />
          <g
            v-for="{ key, top, bottom, attempt, hue } in ends.courses"
            :key="key"
            class="course"
            :class="[
              `hue-${hue}`,
              attempt.status,
              { faint: !isLit((one) => one.attempt.course === attempt.course) }
            ]"
            @mouseenter="point(attempt.course)"
            @click="emit('open', attempt.course)"
          >
            <rect :x="columns.left" :y="top" :width="COLUMN" :height="bottom - top" />
            <text :x="columns.left - 6" :y="(top + bottom) / 2" text-anchor="end">{{ label(attempt) }}</text>
          </g>
          <g
            v-for="{ key, top, bottom, hue, lines } in ends.areas"
            :key="key"
            :class="[`hue-${hue}`, { faint: !isLit((one) => one.area === key) }]"
            @mouseenter="point(key)"
          >
            <rect :x="columns.right - COLUMN" :y="top" :width="COLUMN" :height="bottom - top" />
            <text :y="(top + bottom) / 2 - (lines.length - 1) * 7">
              <tspan v-for="(line, i) in lines" :key="line" :x="columns.right + 6" :dy="i && 14">
                {{ line }}
              </tspan>
            </text>
          </g>
        </g>
      </svg>
    </div>
    <table class="visually-hidden">
      <caption>
        Where each course counts
      </caption>
      <thead>
        <tr>
          <th scope="col">Course</th>
          <th scope="col">Credits</th>
          <th scope="col">How firm</th>
          <th scope="col">Area</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="{ attempt, area } in counted" :key="`${attempt.key} ${area}`">
          <th scope="row">{{ attempt.course }}</th>
          <td>{{ attempt.credits }}</td>
          <td>{{ FIRM_WORDS[attempt.status] }}</td>
          <td>{{ area }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
.flow {
  padding: 10px 12px;
  overflow: hidden;
}
h2 {
  margin: 0 0 6px;
  font-size: 15px;
}
svg {
  display: block;
}
path,
rect {
  fill: var(--hue);
}
/* The firmer, the stronger. */
path.earned {
  fill-opacity: 62%;
}
path.underWay {
  fill-opacity: 42%;
}
path.registered {
  fill-opacity: 34%;
}
path.planned {
  fill-opacity: 20%;
}
.course.earned rect {
  fill-opacity: 80%;
}
.course.planned rect {
  fill-opacity: 35%;
}
path,
.course {
  cursor: pointer;
}
path.faint {
  fill-opacity: 6%;
}
g.faint {
  opacity: 0.35;
}
text {
  fill: var(--ink);
  font-size: 11.5px;
  dominant-baseline: central;
}
</style>
