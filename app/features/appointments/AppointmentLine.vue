<script setup lang="ts">
import type { OfferedSlot } from '#core/appointments'
import type { AppointmentView } from '#shared/appointments/appointments'
import type { AppointmentSaid } from '#shared/appointments/requests'
import { appointmentTime } from '#shared/appointments/texts'
import { campusDate, campusMinute, timeField } from '#shared/when'

/** An appointment, and what may be done with it. */
const props = defineProps<{ appointment: AppointmentView }>()
const student = useStudent()
const advisingChanges = useAdvisingChanges()
const college = useCollege()
const moving = ref(false)
const cancelling = ref(false)
const words = ref('')
const { busy, once } = useOnce()
const time = computed(() => appointmentTime(props.appointment, college.zone))
const other = computed(() => (student.own ? props.appointment.advisor : props.appointment.student).name)
const asks = computed(() => props.appointment.state === 'invited')
const { id } = props.appointment

async function settle(act: () => Promise<boolean>) {
  if (await once(act)) cancelling.value = false
}
const cancel = () =>
  settle(() =>
    advisingChanges.changeAppointment(id, {
      act: student.own && asks.value ? 'decline' : 'cancel',
      words: words.value.trim() || null
    })
  )
const moveTo = ({ date, start }: OfferedSlot) =>
  advisingChanges.changeAppointment(id, { act: 'move', date, start, place: null })
const moveAnywhere = ({ date, start, place }: AppointmentSaid) =>
  advisingChanges.changeAppointment(id, { act: 'move', date, start, place })
const was = computed(() => ({
  date: campusDate(props.appointment.startsAt, college.zone),
  time: timeField(campusMinute(props.appointment.startsAt, college.zone)),
  place: props.appointment.place
}))
</script>

<template>
  <li :class="{ asks: asks && student.own }">
    <p>
      <strong>{{ time }}</strong> {{ other }}, {{ appointment.place }}
      <span v-if="asks" class="open">{{ student.own ? 'you are invited' : 'invited, not answered' }}</span>
    </p>
    <p v-if="appointment.about" class="small quiet">{{ appointment.about }}</p>
    <p v-if="appointment.bring" class="small">To bring: {{ appointment.bring }}</p>
    <template v-if="moving">
      <LazyBookTime
        v-if="student.own"
        :advisor="appointment.advisor.id"
        :book="moveTo"
        act="Move it there"
        is-moved
        @close="moving = false"
      />
      <LazyInviteTime
        v-else
        :send="moveAnywhere"
        act="Move it there"
        :start="was"
        is-moved
        @close="moving = false"
      />
    </template>
    <form v-else-if="cancelling" class="acts" @submit.prevent="cancel" @keydown.esc.stop="cancelling = false">
      <v-text-field
        v-model="words"
        label="a word with it (if you like)"
        maxlength="400"
        @vue:mounted="focusIn"
      />
      <v-btn type="submit" size="small" :disabled="busy">{{
        student.own && asks ? 'Decline it' : 'Cancel the appointment'
      }}</v-btn>
      <v-text-btn type="button" @click="cancelling = false">Keep it</v-text-btn>
    </form>
    <div v-else class="acts">
      <v-btn
        v-if="asks && student.own"
        size="small"
        :disabled="busy"
        :aria-label="`Accept: ${time}`"
        @click="settle(() => advisingChanges.changeAppointment(id, { act: 'accept' }))"
        >Accept</v-btn
      >
      <v-text-btn :aria-label="`Move: ${time}`" @click="moving = true">{{
        asks && student.own ? 'Another time' : 'Move'
      }}</v-text-btn>
      <v-text-btn
        :aria-label="`${asks && student.own ? 'Decline' : 'Cancel'}: ${time}`"
        @click="cancelling = true"
        >{{ asks && student.own ? 'Decline' : 'Cancel' }}</v-text-btn
      >
    </div>
  </li>
</template>

<style scoped>
li {
  padding: 4px 0;
}
.asks {
  border-left: 3px solid var(--ember);
  padding-left: 8px;
}
p {
  margin: 0;
}
.open {
  color: var(--ember);
  font-weight: 700;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 14px;
  margin-top: 3px;
}
.acts .v-input {
  flex: 1 1 180px;
}
</style>
