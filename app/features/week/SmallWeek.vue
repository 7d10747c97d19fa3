<script setup lang="ts">
import { ribbonOf, type Section } from '#core/week'
import { DAY_NAMES } from '#shared/when'

/** A week in small, on the same scale as the big one. */
const props = withDefaults(
  defineProps<{
    sections: readonly Section[]
    hueOf: (course: string) => number
    clashing?: boolean
    /** Hours shown, the same as on the big ribbon. */
    scale: { from: number; to: number }
    /** Large enough to stand alone: with days and hours. */
    alone?: boolean
  }>(),
  { clashing: false, alone: false }
)
const W = computed(() => (props.alone ? 270 : 150))
const ROW = computed(() => (props.alone ? 17 : 8))
const LEFT = computed(() => (props.alone ? 22 : 0))
const ribbon = computed(() => ribbonOf(props.sections, props.scale))
const x = (at: number) =>
  LEFT.value + ((W.value - LEFT.value) * (at - ribbon.value.from)) / (ribbon.value.to - ribbon.value.from)
const noons = computed(() =>
  [12 * 60, 16 * 60].filter((at) => at > ribbon.value.from && at < ribbon.value.to)
)
const height = computed(() => ribbon.value.days.length * ROW.value)
</script>

<template>
  <svg
    :class="{ clashing, alone }"
    :viewBox="`0 0 ${W} ${height}`"
    :style="alone ? { width: '100%' } : { height: `${height}px`, width: `${W}px` }"
    aria-hidden="true"
  >
    <template v-for="(day, i) in ribbon.days" :key="day">
      <text v-if="alone" x="0" :y="i * ROW + ROW - 5" class="day">{{ DAY_NAMES[day][0] }}</text>
      <line
        :x1="LEFT"
        :x2="W"
        :y1="alone ? (i + 1) * ROW - 0.5 : i * ROW + ROW / 2"
        :y2="alone ? (i + 1) * ROW - 0.5 : i * ROW + ROW / 2"
        class="line"
      />
    </template>
    <template v-if="alone">
      <line v-for="at in noons" :key="at" :x1="x(at)" :x2="x(at)" y1="0" :y2="height" class="line" />
    </template>
    <rect
      v-for="bar in ribbon.bars"
      :key="`${bar.section.code} ${bar.day} ${bar.start} ${bar.from}`"
      :class="`hue-${hueOf(bar.section.course)}`"
      :x="x(bar.start)"
      :width="x(bar.end) - x(bar.start)"
      :y="ribbon.days.indexOf(bar.day) * ROW + 1 + bar.top * (ROW - 2)"
      :height="bar.height * (ROW - 2)"
      rx="1.5"
    />
  </svg>
</template>

<style scoped>
svg {
  display: block;
  max-width: 100%;
}
.line {
  stroke: var(--rule);
}
.day {
  font-size: 10px;
  fill: var(--quiet);
}
rect {
  fill: var(--hue);
}
.clashing rect {
  fill: var(--rowan);
}
</style>
