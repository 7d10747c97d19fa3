<script setup lang="ts">
import type { Climb } from '#core/route'

/** The ridge profile: credits climbing term by term, solid where earned, dashed where planned. */
const props = defineProps<{ climb: Climb; goal: number; finish: string | undefined }>()
const student = useStudent()

const narrow = useNarrow()
/** Drawn smaller on a phone, so that its words stay readable. */
const W = computed(() => (narrow.value ? 380 : 820))
const H = 190
const LEFT = 40
const BOTTOM = 26
const TOP = 26

const most = computed(() => Math.max(props.goal, props.climb.points.at(-1)?.reached ?? 0))
const x = (i: number) => LEFT + ((W.value - LEFT - 24) * i) / Math.max(1, props.climb.points.length)
const y = (credits: number) => H - BOTTOM - ((H - BOTTOM - TOP) * credits) / most.value
const spots = computed(() => [
  { x: x(0), y: y(props.climb.start) },
  ...props.climb.points.map((p, i) => ({ x: x(i + 1), y: y(p.reached) }))
])
/** How many points are earned, and how many earned or under way. */
const earned = computed(() => props.climb.points.filter((p) => p.status === 'earned').length)
const sure = computed(() => props.climb.points.filter((p) => p.status !== 'ahead').length)

function area(from: number, to: number): string {
  const part = spots.value.slice(from, to + 1)
  if (part.length < 2) return ''
  const base = H - BOTTOM
  return `M${part[0]!.x} ${base} ${part.map((p) => `L${p.x} ${p.y}`).join(' ')} L${part.at(-1)!.x} ${base} Z`
}
const dashed = computed(() =>
  spots.value
    .slice(sure.value)
    .map((p, i) => `${i ? 'L' : 'M'}${p.x} ${p.y}`)
    .join(' ')
)
const here = computed(() => spots.value[sure.value]!)
const lines = computed(() => [0.25, 0.5, 0.75].map((part) => Math.round((props.goal * part) / 5) * 5))
const short = (name: string) =>
  name.replace(/^(\w)\w*?(\w*) \d\d(\d\d)$/, (_, a, __, year) => `${a}${name.slice(1, 3)} ${year}`)
const spoken = computed(
  () =>
    `Credits by term: ${props.climb.points.map((p) => `${p.term.name} ${p.reached}${p.status === 'ahead' ? ' planned' : ''}`).join(', ')}. The degree asks for ${props.goal}.`
)
</script>

<template>
  <svg v-if="climb.points.length" class="climb" :viewBox="`0 0 ${W} ${H}`" role="img" :aria-label="spoken">
    <g v-for="line in lines" :key="line">
      <line :x1="LEFT" :x2="W" :y1="y(line)" :y2="y(line)" class="grid" />
      <text :x="LEFT - 8" :y="y(line) + 4" class="axis" text-anchor="end">{{ line }}</text>
    </g>
    <path :d="area(sure, climb.points.length)" class="ahead" />
    <path :d="area(earned, sure)" class="under" />
    <path :d="area(0, earned)" class="earned" />
    <path :d="dashed" class="way" />
    <line :x1="LEFT" :x2="W" :y1="y(goal)" :y2="y(goal)" class="goal" />
    <text :x="LEFT - 8" :y="y(goal) + 4" class="axis goaltext" text-anchor="end">{{ goal }}</text>
    <circle :cx="here.x" :cy="here.y" r="5" class="here" />
    <!-- At the end of the view there is no room to both sides. -->
    <text
      :x="here.x > W - 60 ? W : here.x"
      :y="here.y - 11"
      class="label"
      :text-anchor="here.x > W - 60 ? 'end' : 'middle'"
    >
      {{ student.own ? 'you are here' : 'today' }}
    </text>
    <text v-if="finish" :x="spots.at(-1)!.x" :y="spots.at(-1)!.y - 11" class="label" text-anchor="end">
      {{ finish }}
    </text>
    <text
      v-for="(p, i) in climb.points"
      :key="p.term.code"
      :x="(x(i) + x(i + 1)) / 2"
      :y="H - 8"
      class="axis"
      text-anchor="middle"
    >
      {{ narrow && i % 2 ? '' : short(p.term.name) }}
    </text>
  </svg>
  <p v-else class="quiet">Nothing is earned or planned yet. The climb begins with the first course.</p>
</template>

<style scoped>
.climb {
  display: block;
  width: 100%;
  height: auto;
}
.grid {
  stroke: var(--rule);
}
.goal {
  stroke: var(--ember);
  stroke-dasharray: 2 4;
}
.axis {
  fill: var(--quiet);
  font-size: 12px;
}
.goaltext {
  fill: var(--ember);
  font-weight: 650;
}
.earned {
  fill: var(--dusk);
}
.under {
  fill: var(--dusk);
  opacity: 0.6;
}
.ahead {
  fill: var(--dusk-tint);
}
.way {
  fill: none;
  stroke: var(--dusk);
  stroke-width: 2;
  stroke-dasharray: 5 4;
}
.here {
  fill: var(--card);
  stroke: var(--dusk);
  stroke-width: 3;
}
.label {
  fill: var(--ink);
  font-size: 12.5px;
  font-weight: 650;
}
</style>
