<script setup lang="ts">
import type { Suggestion } from '#shared/advising/suggestions'

/** The number of a suggestion, in the form of a leaf: full while it waits, struck when it was declined. */
defineProps<{ number: number; state: Suggestion['state'] }>()
</script>

<template>
  <span class="leaf" :class="state" aria-hidden="true">{{ number }}</span>
</template>

<style scoped>
.leaf {
  display: inline-grid;
  place-items: center;
  flex: none;
  min-width: 22px;
  height: 22px;
  padding: 0 4px;
  border: 1.5px solid var(--ember);
  border-radius: 50% 50% 50% 3px;
  background: var(--card);
  color: var(--ember);
  font-weight: 700;
  font-size: 12px;
}
.waiting {
  background: var(--ember);
  color: var(--card);
}
.declined {
  border-color: var(--quiet);
  color: var(--quiet);
  text-decoration: line-through;
}
</style>
