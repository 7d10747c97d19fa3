<script setup lang="ts">
import { WEEKDAYS, type Weekday } from '#core/time'
import type { OfferedCourse } from '#shared/sections/offering'
import { DAY_NAMES } from '#shared/when'

/** When, where and for how many a section or a component of it is held; which of them, the legend around it says. */
const part = defineModel<{ days: Weekday[]; start: string; end: string; seats: string; room: number | null }>(
  {
    required: true
  }
)
const { rooms, hasHours = true } = defineProps<{
  rooms: OfferedCourse['rooms']
  hasHours?: boolean
}>()
const days = WEEKDAYS.map((value) => ({ value, title: DAY_NAMES[value] }))
const items = computed(() =>
  rooms.map((one) => ({ value: one.id, title: `${one.name} · ${one.seats} places` }))
)
</script>

<template>
  <v-select v-if="hasHours" v-model="part.days" :items="days" label="Days" multiple />
  <div class="row">
    <template v-if="hasHours">
      <v-text-field v-model="part.start" type="time" label="From" required />
      <v-text-field v-model="part.end" type="time" label="To" required />
    </template>
    <v-text-field v-model="part.seats" inputmode="numeric" maxlength="4" label="Seats" required />
  </div>
  <v-autocomplete v-if="hasHours" v-model="part.room" :items="items" label="Room" clearable />
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 1fr 1fr 90px;
  gap: 8px;
  width: 100%;
}
.row .v-input {
  min-width: 0;
}
</style>
