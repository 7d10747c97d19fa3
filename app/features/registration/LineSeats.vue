<script setup lang="ts">
import type { SheetLine } from '#shared/registration/responses'

/** The seats of a line: of the section of which the fewest are left. */
const props = defineProps<{ line: SheetLine }>()
const student = useStudent()
const standing = useStanding()

const seats = computed(() => {
  const { sections, state } = props.line
  // Of an exchange the sections that stay are the student's already.
  const mine = new Set(state === 'ready' ? standing.heldSections.map((one) => one.code) : [])
  const [scarce] = (sections ?? [])
    .filter((one) => !mine.has(one.code))
    .sort((a, b) => a.capacity - a.taken - (b.capacity - b.taken))
  if (!scarce) return undefined
  const free = scarce.capacity - scarce.taken
  const waiting = free <= 0 && scarce.waiting ? ` · ${scarce.waiting} in line` : ''
  return {
    part: scarce.taken / scarce.capacity,
    text: `${Math.max(0, free)} of ${scarce.capacity} left${waiting}`
  }
})
const text = computed(() => {
  const { state, waiting } = props.line
  if (state === 'registered') return student.say('yours')
  return state === 'waiting' ? `number ${waiting!.place} of ${waiting!.of} in line` : seats.value!.text
})
</script>

<template>
  <template v-if="seats">
    <span class="track" aria-hidden="true"><span :style="{ width: `${100 * seats.part}%` }" /></span>
    <span class="small">{{ text }}</span>
  </template>
</template>

<style scoped>
.track {
  display: block;
  width: 86px;
  height: 8px;
  margin: 5px 0 2px;
  border-radius: 4px;
  background: var(--shade);
  overflow: hidden;
}
.track span {
  display: block;
  height: 100%;
  background: var(--quiet);
}
</style>
