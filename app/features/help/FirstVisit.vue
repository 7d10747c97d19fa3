<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'

/** Said once to somebody who is here for the first time; dismissed for good. */
const FIRST_VISIT = [
  'Degree shows what you have and what is still needed; Route puts it into terms; Week picks the hours; Register takes the seats.',
  'Colour says what a course is for, its form how certain it is.',
  'Press ? on any page for how to read it.'
]
const session = useWho()
const seen = useLocalStorage<number[]>('ridgeway-first-visit', [])
const shown = computed(() => session.who?.student !== null && !seen.value.includes(session.who?.id ?? 0))
const dismiss = () => (seen.value = [...seen.value, session.who!.id])
</script>

<template>
  <aside v-if="shown" class="card first no-print" aria-label="How this works">
    <p v-for="sentence in FIRST_VISIT" :key="sentence">{{ sentence }}</p>
    <v-btn size="small" @click="dismiss">I see</v-btn>
  </aside>
</template>

<style scoped>
.first {
  display: grid;
  grid-template-columns: repeat(3, 1fr) auto;
  align-items: center;
  gap: 6px 22px;
  padding: 10px 15px;
  margin-bottom: 12px;
  border-left: 6px solid var(--dusk);
}
@media (max-width: 720px) {
  .first {
    grid-template-columns: 1fr;
  }
  .first .v-btn {
    justify-self: start;
  }
}
</style>
