<script setup lang="ts">
import type { FilledSection } from '#shared/offices/placing'

/** The seats that a placing gives away, section by section: what is taken, what it adds, what is left. */
const props = defineProps<{ sections: readonly FilledSection[]; term: string }>()
const SHOWN = 12
const all = ref(false)
const shown = computed(() => (all.value ? props.sections : props.sections.slice(0, SHOWN)))
const leftOf = ({ capacity, taken, proposed }: FilledSection) => Math.max(0, capacity - taken - proposed)
const part = (seats: number, { capacity }: FilledSection) =>
  `${Math.min(100, (100 * seats) / Math.max(1, capacity))}%`
const address = ({ course }: FilledSection) => `/offer/${props.term}/${course.replace(' ', '-')}`
</script>

<template>
  <section class="card" aria-labelledby="seats-title">
    <h2 id="seats-title">Seats that it takes</h2>
    <ul>
      <li v-for="one in shown" :key="one.code">
        <NuxtLink class="textlink code" :to="address(one)">{{ one.course }}-{{ one.number }}</NuxtLink>
        <span class="bar" aria-hidden="true">
          <i class="taken" :style="{ width: part(one.taken, one) }" />
          <i class="adds" :style="{ width: part(one.proposed, one) }" />
        </span>
        <span class="small"
          >+{{ one.proposed
          }}<span class="quiet">{{
            leftOf(one) ? `, ${leftOf(one)} left of ${one.capacity}` : ', then full'
          }}</span></span
        >
      </li>
    </ul>
    <v-text-btn v-if="sections.length > SHOWN" :aria-expanded="all" @click="all = !all">{{
      all ? 'Show fewer' : `Show all ${sections.length}`
    }}</v-text-btn>
  </section>
</template>

<style scoped>
section {
  padding: 12px 15px;
}
ul {
  list-style: none;
  margin: 6px 0 0;
  padding: 0;
}
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
