<script setup lang="ts">
/** Moves the campus clock: to a time, to the opening, or on by itself. */
const clock = useClock()
const college = useCollege()
const student = useStudent()
const demo = useRuntimeConfig().public.demo
const typed = ref('')
const problem = ref<string>()

const opens = computed(() => {
  const mine = student.view?.openings.find((o) => o.term === student.coming?.code)
  return mine && mine.opens > clock.now ? mine.opens : undefined
})

onMounted(async () => {
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

<style scoped>
form {
  display: flex;
  gap: 8px;
  align-items: center;
}
</style>
