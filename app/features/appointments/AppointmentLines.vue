<script setup lang="ts">
import type { OfferedSlot } from '#core/appointments'
import { isActive } from '#shared/appointments/appointments'
import type { AppointmentSaid } from '#shared/appointments/requests'

/** When student and advisor meet next; booked by one, or asked for by the other. */
const student = useStudent()
const advisingChanges = useAdvisingChanges()
const clock = useClock()
const adding = ref(false)
const advisors = computed(() => student.view?.advisors ?? [])
const chosen = ref<number>()
const advisor = computed(() => chosen.value ?? advisors.value[0]?.id)
const ahead = computed(() =>
  (student.view?.appointments ?? []).filter((one) => isActive(one) && one.endsAt > clock.minute)
)
const book = ({ date, start }: OfferedSlot, about: string | null) =>
  advisingChanges.makeAppointment({
    ...{ advisor: advisor.value!, date, start, about },
    ...{ length: null, place: null, bring: null }
  })
const invite = (said: AppointmentSaid) => advisingChanges.makeAppointment(said)
</script>

<template>
  <TalkPart id="meet" title="Appointments">
    <template #act>
      <v-text-btn v-if="!adding && advisors.length" @click="adding = true">{{
        student.own ? 'Book a time' : 'Invite'
      }}</v-text-btn>
    </template>
    <template v-if="adding">
      <template v-if="student.own">
        <v-select
          v-if="advisors.length > 1"
          class="with"
          :model-value="advisor"
          label="with"
          :items="advisors.map((one) => ({ value: one.id, title: `${one.name}, ${one.purpose} advisor` }))"
          @update:model-value="chosen = $event"
        />
        <LazyBookTime :advisor="advisor!" :book="book" act="Book it" @close="adding = false" />
      </template>
      <LazyInviteTime v-else :send="invite" act="Invite" @close="adding = false" />
    </template>
    <ul v-if="ahead.length">
      <AppointmentLine v-for="one in ahead" :key="`${one.id} ${one.startsAt}`" :appointment="one" />
    </ul>
    <p v-else-if="!adding" class="quiet small">None ahead.</p>
  </TalkPart>
</template>

<style scoped>
/* Room for the label that stands on its upper edge. */
.with {
  margin-top: 10px;
}
ul {
  list-style: none;
  margin: 4px 0 0;
  padding: 0;
}
p {
  margin: 2px 0 0;
}
</style>
