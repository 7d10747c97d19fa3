<script setup lang="ts">
import { instantText } from '#shared/when'

/** The stand-in for time: the demo and the registrar move the campus clock here. */
const clock = useClock()
const college = useCollege()
const session = useWho()
const demo = useRuntimeConfig().public.demo
const open = ref(false)

const may = computed(() => Boolean(session.who) && (demo || session.who?.role === 'registrar'))
</script>

<template>
  <aside v-if="may" class="clock no-print" aria-label="Campus clock">
    <v-bare-btn class="now" :aria-expanded="open" @click="open = !open">
      Campus clock <strong>{{ instantText(clock.now, college.zone) }}</strong>
      <span>{{
        clock.mode === 'standing' ? 'standing' : clock.mode === 'running' ? 'running' : 'real time'
      }}</span>
    </v-bare-btn>
    <LazyClockForm v-if="open" />
  </aside>
</template>

<style scoped>
.clock {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 16px;
  padding: 5px 20px;
  border-top: 1px solid var(--rule);
  background: var(--shade);
  color: var(--ink);
  font-size: 12.5px;
}
.now span {
  color: var(--quiet);
  margin-left: 6px;
}
@media (max-width: 720px) {
  .clock {
    margin-bottom: 64px;
    padding: 5px 12px;
  }
}
</style>
