<script setup lang="ts">
import type { FilledSection } from '#shared/offices/placing'

/** The seats that a placing gives away, section by section: what is taken, what it adds, what is left. */
defineProps<{ sections: readonly FilledSection[]; term: string }>()
const leftOf = ({ capacity, taken, proposed }: FilledSection) => Math.max(0, capacity - taken - proposed)
const part = (seats: number, { capacity }: FilledSection) =>
  `${Math.min(100, (100 * seats) / Math.max(1, capacity))}%`
const then = (one: FilledSection) =>
  leftOf(one) ? `, ${leftOf(one)} left of ${one.capacity}` : ', then full'
</script>

<template>
  <ShortList v-slot="{ row }" title="Seats that it takes" :rows="sections" :first="12">
    <li :key="row.code">
      <NuxtLink class="textlink code" :to="offerPage(term, row.course)"
        >{{ row.course }}-{{ row.number }}</NuxtLink
      >
      <span class="bar" aria-hidden="true">
        <i class="taken" :style="{ width: part(row.taken, row) }" />
        <i class="adds" :style="{ width: part(row.proposed, row) }" />
      </span>
      <span class="small">+{{ row.proposed }}<span class="quiet">{{ then(row) }}</span></span>
    </li>
  </ShortList>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 112px minmax(60px, 1fr) 132px;
  gap: 10px;
  align-items: center;
  min-height: 26px;
}
.bar {
  display: flex;
  height: 10px;
  background: var(--shade);
  border-radius: 3px;
  overflow: hidden;
}
.taken {
  background: color-mix(in srgb, var(--quiet) 55%, transparent);
}
.adds {
  background: var(--dusk);
}
</style>
