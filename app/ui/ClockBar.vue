<script setup lang="ts">
import { DateTime } from 'luxon'
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
  const mine = student.picture?.openings.find((o) => o.term === student.coming?.code)
  return mine && mine.opens > clock.now ? mine.opens : undefined
})

watch(open, (isOpen) => {
  if (isOpen)
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
function setTyped() {
  const at = DateTime.fromISO(typed.value, { zone: college.zone })
  if (at.isValid) void set({ mode: 'standing', at: iso(at.toMillis()) })
  else problem.value = 'Give a date and a time.'
}
</script>

<template>
  <aside v-if="may" class="clock no-print" aria-label="Campus clock">
    <button class="now" :aria-expanded="open" @click="open = !open">
      Campus clock <strong>{{ instantText(clock.now, college.zone) }}</strong>
      <span>{{
        clock.mode === 'standing' ? 'standing' : clock.mode === 'running' ? 'running' : 'real time'
      }}</span>
    </button>
    <template v-if="open">
      <button v-if="opens" class="textlink" @click="set({ mode: 'running', at: iso(opens - 10_000) })">
        10 seconds before the opening
      </button>
      <button v-if="opens" class="textlink" @click="set({ mode: 'running', at: iso(opens) })">
        Jump to the opening
      </button>
      <button v-if="clock.mode !== 'running'" class="textlink" @click="set({ mode: 'running' })">
        Let it run
      </button>
      <button v-else class="textlink" @click="set({ mode: 'standing', at: iso(clock.now) })">Stop it</button>
      <form @submit.prevent="setTyped">
        <label>Campus time <input v-model="typed" type="datetime-local" /></label>
        <button class="textlink">Set</button>
      </form>
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
input {
  background: var(--card);
  color: var(--ink);
  border: 1px solid var(--rule);
  border-radius: 6px;
  padding: 2px 6px;
}
@media (max-width: 720px) {
  .clock {
    margin-bottom: 58px;
    padding: 5px 12px;
  }
}
</style>
