<script setup lang="ts">
import type { OpeningFigures, OpeningHour } from '#shared/offices/openings'
import { shortInstant } from '#shared/when'

/** The openings of a term as steps: how many may register from each on, and who of them is not ready. */
const props = defineProps<{ openings: readonly OpeningFigures[] }>()
const college = useCollege()
const clock = useClock()

const [WIDTH, HEIGHT, TOP, FOOT] = [1000, 190, 34, 24]
/** One for all that open at the same instant. */
const steps = computed(() => {
  const all = new Map<
    number,
    { opens: number; titles: string[]; students: number; unready: number; hour: OpeningHour | null }
  >()
  for (const { opens, title, students, unready, hour } of props.openings) {
    const known = all.get(opens)
    all.set(opens, {
      opens,
      titles: [...(known?.titles ?? []), title],
      students: (known?.students ?? 0) + students,
      unready: (known?.unready ?? 0) + unready,
      // Of several at one instant the first stands for all.
      hour: known?.hour ?? hour
    })
  }
  let sum = 0
  return [...all.values()].map((one) => ({ ...one, before: sum, after: (sum += one.students) }))
})
const most = computed(() => Math.max(1, steps.value.at(-1)?.after ?? 0))
const width = computed(() => WIDTH / Math.max(1, steps.value.length))
const y = (students: number) => HEIGHT - FOOT - (students / most.value) * (HEIGHT - FOOT - TOP)
/** Where now lies among the openings, each as wide as any other. */
const now = computed(() => steps.value.filter((one) => one.opens <= clock.minute).length * width.value)
const said = computed(() =>
  steps.value
    .map((one) => `${shortInstant(one.opens, college.zone)}: ${one.students}, ${one.unready} not ready`)
    .join('; ')
)
</script>

<template>
  <svg
    v-if="steps.length > 1"
    class="steps"
    :viewBox="`0 0 ${WIDTH} ${HEIGHT}`"
    role="img"
    :aria-label="said"
  >
    <defs>
      <pattern id="unready" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect width="7" height="7" class="ground" />
        <rect width="3" height="7" class="stripe" />
      </pattern>
    </defs>
    <g v-for="(one, i) in steps" :key="one.opens" :class="{ open: one.opens <= clock.minute }">
      <rect
        class="below"
        :x="i * width"
        :y="y(one.after)"
        :width="width"
        :height="Math.max(0, y(0) - y(one.after))"
      />
      <rect
        class="fresh"
        :x="i * width"
        :y="y(one.after)"
        :width="26"
        :height="Math.max(0, y(one.before) - y(one.after))"
      />
      <rect
        v-if="one.unready"
        fill="url(#unready)"
        class="unready"
        :x="i * width"
        :y="y(one.after)"
        :width="26"
        :height="Math.max(2, y(one.after - one.unready) - y(one.after))"
      />
      <text :x="i * width + 32" :y="Math.max(14, y(one.after) - 8)">
        <tspan class="number">{{ one.students }}</tspan>
        <tspan v-if="one.unready" class="lacking" dx="6">{{ one.unready }} not ready</tspan>
      </text>
      <text class="when" :x="i * width" :y="HEIGHT - 6">{{ shortInstant(one.opens, college.zone) }}</text>
    </g>
    <line class="foot" x1="0" :x2="WIDTH" :y1="y(0)" :y2="y(0)" />
    <line class="now" :x1="now" :x2="now" :y1="8" :y2="y(0)" />
    <text :x="now < WIDTH ? now + 6 : now - 6" y="18" :text-anchor="now < WIDTH ? 'start' : 'end'">now</text>
  </svg>
  <OpeningMinutes v-if="steps.length > 1" :steps="steps" />
</template>

<style scoped>
.steps {
  display: block;
  width: 100%;
  height: auto;
  margin: 6px 0 10px;
}
text {
  font-size: 13px;
  fill: var(--ink);
}
.number {
  font-weight: 700;
}
.lacking {
  fill: var(--ember);
}
.when {
  fill: var(--quiet);
}
.below {
  fill: var(--dusk-tint);
}
.fresh {
  fill: var(--card);
  stroke: var(--dusk);
  stroke-dasharray: 4 3;
}
.open .fresh {
  fill: var(--dusk);
  stroke-dasharray: none;
}
.ground {
  fill: var(--card);
}
.stripe {
  fill: var(--ember);
}
.unready {
  stroke: var(--ember);
}
.foot {
  stroke: var(--ink);
}
.now {
  stroke: var(--ink);
  stroke-width: 2;
}
@media (max-width: 900px) {
  .steps {
    display: none;
  }
}
</style>
