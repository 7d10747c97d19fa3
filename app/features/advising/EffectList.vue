<script setup lang="ts">
import type { Effect } from '#shared/advising/effects'

/** What a change does to the figures: before and after. */
defineProps<{ effects: readonly Effect[] }>()
</script>

<template>
  <span class="effects">
    <span v-for="one in effects" :key="one.of" class="one"
      >{{ one.of }} {{ one.before }} <span aria-hidden="true">→</span><span class="visually-hidden">to</span>
      <strong :class="{ worse: one.isWorse }">{{ one.after }}</strong></span
    >
  </span>
</template>

<style scoped>
.effects {
  display: inline-flex;
  flex-wrap: wrap;
  gap: 0 12px;
}
.one {
  white-space: nowrap;
}
.worse {
  color: var(--ember);
}
</style>
