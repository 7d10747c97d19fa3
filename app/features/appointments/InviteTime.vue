<script setup lang="ts">
import { minutes } from '#core/time'
import type { AppointmentSaid } from '#shared/appointments/requests'

/** An advisor says when and where: for an invitation, or an appointment that is moved. */
const props = defineProps<{
  send: (said: AppointmentSaid) => Promise<boolean>
  act: string
  start?: { date: string; time: string; place: string }
  isMoved?: boolean
}>()
const emit = defineEmits<{ close: [] }>()
const date = ref(props.start?.date ?? '')
const time = ref(props.start?.time ?? '')
const length = ref(30)
const place = ref(props.start?.place ?? '')
const about = ref('')
const bring = ref('')
const { busy, once } = useOnce()
const LENGTHS = [15, 20, 30, 45, 60].map((value) => ({ value, title: `${value} min` }))
const isFilled = computed(() => date.value && time.value && place.value.trim().length >= 2)

async function submit() {
  if (!isFilled.value) return
  const said: AppointmentSaid = {
    advisor: null,
    date: date.value,
    start: minutes(time.value),
    length: length.value,
    place: place.value.trim(),
    about: about.value.trim() || null,
    bring: bring.value.trim() || null
  }
  if (await once(() => props.send(said))) emit('close')
}
</script>

<template>
  <form class="invite" @submit.prevent="submit" @keydown.esc.stop="emit('close')">
    <v-text-field v-model="date" label="day" type="date" @vue:mounted="focusIn" />
    <v-text-field v-model="time" label="from" type="time" />
    <v-select v-if="!isMoved" v-model="length" label="how long" :items="LENGTHS" />
    <v-text-field v-model="place" class="wide" label="room or link" maxlength="160" />
    <template v-if="!isMoved">
      <v-text-field v-model="about" class="wide" label="what it is about" maxlength="400" />
      <v-text-field v-model="bring" class="wide" label="what to bring" maxlength="400" />
    </template>
    <v-btn type="submit" size="small" :disabled="busy || !isFilled">{{ act }}</v-btn>
    <v-text-btn type="button" @click="emit('close')">Cancel</v-text-btn>
  </form>
</template>

<style scoped>
.invite {
  display: flex;
  flex-wrap: wrap;
  gap: 7px 10px;
  align-items: center;
  margin: 6px 0;
}
.wide {
  flex: 1 1 220px;
}
</style>
