<script setup lang="ts">
import type { Amounts } from '#core/degree'

/** How far an area is: earned full, under way lighter, registered and mapped in stripes, needed empty. */
const props = defineProps<{ amounts: Amounts; credits: number; hue: number }>()
const total = computed(() => {
  const { earned, gradesDue, underWay, registered, planned, needed } = props.amounts
  // Courses without credits are told by their needs; a bar has nothing to show of them.
  return Math.max(props.credits || 1, earned + gradesDue + underWay + registered + planned + needed)
})
const part = (credits: number) => `${(100 * credits) / total.value}%`
</script>

<template>
  <span class="bar" :class="`hue-${hue}`" aria-hidden="true">
    <span class="earned" :style="{ width: part(amounts.earned) }" />
    <span class="due" :style="{ width: part(amounts.gradesDue) }" />
    <span class="under" :style="{ width: part(amounts.underWay) }" />
    <span class="held" :style="{ width: part(amounts.registered) }" />
    <span class="mapped" :style="{ width: part(amounts.planned) }" />
  </span>
</template>

<style scoped>
.bar {
  display: flex;
  height: 10px;
  border-radius: 5px;
  overflow: hidden;
  background: var(--shade);
}
.earned {
  background: var(--hue);
}
.due {
  background: color-mix(in srgb, var(--hue) 80%, var(--card));
}
.under {
  background: color-mix(in srgb, var(--hue) 62%, var(--card));
}
.held {
  background: color-mix(in srgb, var(--hue) 40%, var(--card));
}
.mapped {
  background: repeating-linear-gradient(90deg, var(--hue) 0 2px, transparent 2px 5px);
}
</style>
