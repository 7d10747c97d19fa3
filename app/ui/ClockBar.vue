<script setup lang="ts">
import { instantText } from '#shared/when'

/** The stand-in for time: the demo and the registrar move the campus clock here. */
const clock = useClock()
const college = useCollege()
const student = useStudent()
const session = useWho()
const demo = useRuntimeConfig().public.demo
const open = ref(false)
const typed = ref('')
const problem = ref<string>()

const may = computed(() => Boolean(session.who) && (demo || session.who?.role === 'registrar'))
const opens = computed(() => {
  const mine = student.view?.openings.find((o) => o.term === student.coming?.code)
  return mine && mine.opens > clock.now ? mine.opens : undefined
})

watch(open, async (isOpen) => {
  if (!isOpen) return
  const { DateTime } = await import('luxon')
  typed.value = DateTime.fromMillis(clock.now, { zone: college.zone }).toFormat("yyyy-MM-dd'T'HH:mm")
})

async function set(body: Parameters<typeof clock.set>[0]) {
  problem.value = undefined
  try {
    await clock.set(body)
    await student.reload()
  } catch (error) {
    if (!(error instanceof Failure)) throw error
    problem.value = error.message
  }
}
const iso = (at: number) => new Date(at).toISOString()
async function setTyped() {
  const { DateTime } = await import('luxon')
  const at = DateTime.fromISO(typed.value, { zone: college.zone })
  if (at.isValid) void set({ mode: 'standing', at: iso(at.toMillis()) })
  else problem.value = 'Give a date and a time.'
}
</script>

<template>
  <aside v-if="may" class="clock no-print" aria-label="Campus clock">
    <v-bare-btn class="now" :aria-expanded="open" @click="open = !open">
      Campus clock <strong>{{ instantText(clock.now, college.zone) }}</strong>
      <span>{{
        clock.mode === 'standing' ? 'standing' : clock.mode === 'running' ? 'running' : 'real time'
      }}</span>
    </v-bare-btn>
    <template v-if="open">
      <v-text-btn v-if="opens" @click="set({ mode: 'running', at: iso(opens - 10_000) })">
        10 seconds before the opening
      </v-text-btn>
      <v-text-btn v-if="opens" @click="set({ mode: 'running', at: iso(opens) })">
        Jump to the opening
      </v-text-btn>
      <v-text-btn v-if="clock.mode !== 'running'" @click="set({ mode: 'running' })"> Let it run </v-text-btn>
      <v-text-btn v-else @click="set({ mode: 'standing', at: iso(clock.now) })">Stop it</v-text-btn>
      <form @submit.prevent="setTyped">
        <label>Campus time <v-text-field v-model="typed" type="datetime-local" /></label>
        <v-text-btn type="submit">Set</v-text-btn>
      </form>
      <OpeningMorning v-if="demo" />
      <span v-if="problem" class="stops" role="alert">{{ problem }}</span>
    </template>
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
form {
  display: flex;
  gap: 8px;
  align-items: center;
}
@media (max-width: 720px) {
  .clock {
    margin-bottom: 64px;
    padding: 5px 12px;
  }
}
</style>
