<script setup lang="ts">
import { ribbonOf, type Section } from '#core/week'

/** One option as the same week in small, on the same scale as the big one. */
const props = defineProps<{
  sections: readonly Section[]
  hue: number
  clashing: boolean
  /** Hours shown, the same as on the big ribbon. */
  scale: { from: number; to: number }
}>()
const W = 150
const ROW = 8
const ribbon = computed(() => ribbonOf(props.sections, props.scale))
const x = (at: number) => (W * (at - ribbon.value.from)) / (ribbon.value.to - ribbon.value.from)
</script>

<template>
  <svg
    :class="[`hue-${hue}`, { clashing }]"
    :viewBox="`0 0 ${W} ${ribbon.days.length * ROW}`"
    :style="{ height: `${ribbon.days.length * ROW}px` }"
    aria-hidden="true"
  >
    <line
      v-for="(day, i) in ribbon.days"
      :key="day"
      x1="0"
      :x2="W"
      :y1="i * ROW + ROW / 2"
      :y2="i * ROW + ROW / 2"
      class="line"
    />
    <rect
      v-for="bar in ribbon.bars"
      :key="`${bar.section.code} ${bar.day} ${bar.start}`"
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
  width: 150px;
}
.line {
  stroke: var(--rule);
}
rect {
  fill: var(--hue);
}
.clashing rect {
  fill: var(--rowan);
}
</style>
