<script setup lang="ts">
import { fullestMinute, HOUR_MINUTES, runsText, type OpeningHour } from '#shared/offices/openings'
import { campusMinute, clockTime } from '#shared/when'

/** Runs in each minute of the first hour of openings, each as wide as its step above; expected ones are dashed. */
const props = defineProps<{ steps: readonly { opens: number; hour: OpeningHour | null }[] }>()
const college = useCollege()
const [WIDTH, HEIGHT, FOOT] = [1000, 74, 8]
const width = computed(() => WIDTH / Math.max(1, props.steps.length))
const hours = computed(() =>
  props.steps.flatMap(({ opens, hour }, i) =>
    hour && hour.runs.some(Boolean)
      ? [{ opens, hour, x: i * width.value, top: fullestMinute(hour.runs) }]
      : []
  )
)
const most = computed(() => Math.max(1, ...hours.value.map((one) => one.top.runs)))
const y = (runs: number) => HEIGHT - FOOT - (runs / most.value) * (HEIGHT - FOOT - 22)
/** The hour takes the column, but for a gap. */
const minute = computed(() => (width.value * 0.94) / HOUR_MINUTES)
function area(runs: readonly number[], x: number): string {
  const steps = runs.map((n, i) => `L${x + i * minute.value} ${y(n)} L${x + (i + 1) * minute.value} ${y(n)}`)
  return `M${x} ${y(0)} ${steps.join(' ')} L${x + HOUR_MINUTES * minute.value} ${y(0)} Z`
}
const topText = ({ opens, hour, top }: (typeof hours.value)[number]) => {
  const at = clockTime(campusMinute(opens + top.minute * 60_000, college.zone))
  return hour.isMeasured ? `${runsText(top.runs)} runs at ${at}` : `${runsText(top.runs)} expected at ${at}`
}
const said = computed(() => `Runs a minute: ${hours.value.map(topText).join('; ')}`)
</script>

<template>
  <svg v-if="hours.length" class="minutes" :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" role="img" :aria-label="said">
    <g v-for="one in hours" :key="one.opens" :class="{ expected: !one.hour.isMeasured }">
      <path :d="area(one.hour.runs, one.x)" />
      <text :x="one.x + 6" y="14">{{ topText(one) }}</text>
    </g>
    <line x1="0" :x2="WIDTH" :y1="y(0)" :y2="y(0)" />
  </svg>
  <p v-else class="quiet small none">
    How many run in each minute is shown once an opening of the term has been measured.
  </p>
</template>

<style scoped>
.minutes {
  display: block;
  width: 100%;
  height: auto;
  margin: 0 0 10px;
}
path {
  fill: var(--dusk);
  stroke: var(--dusk);
}
.expected path {
  fill: var(--dusk-tint);
  stroke-dasharray: 4 3;
}
text {
  font-size: 13px;
  fill: var(--ink);
}
.expected text {
  fill: var(--quiet);
}
line {
  stroke: var(--rule);
}
.none {
  margin: 0 0 10px;
}
@media (max-width: 900px) {
  .minutes,
  .none {
    display: none;
  }
}
</style>
