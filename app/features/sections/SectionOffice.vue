<script setup lang="ts">
import { minutes, WEEKDAYS, type Weekday } from '#core/time'
import type { Section } from '#core/week'
import { sectionName } from '#shared/week/texts'
import { count, KIND_WORDS } from '#shared/words'
import { DAY_NAMES, timeField } from '#shared/when'

/** What the registrar does with a section: cancels it, or moves it to other hours. Everybody in it is told. */
const props = defineProps<{ section: Section }>()
const emit = defineEmits<{ done: [] }>()
const notice = useNotice()

const open = ref<'cancel' | 'move'>()
const reason = ref('')
const days = ref<Weekday[]>([])
const start = ref('')
const end = ref('')
const keepsRoom = ref(true)
const { busy, problem, attempt } = useAttempt()
const dayChoices = WEEKDAYS.map((value) => ({ value, title: DAY_NAMES[value] }))
function ask(what: 'cancel' | 'move') {
  open.value = open.value === what ? undefined : what
  problem.value = ''
  const [first] = props.section.meetings
  keepsRoom.value = true
  days.value = [...(first?.days ?? [])]
  start.value = timeField(first?.start ?? 540)
  end.value = timeField(first?.end ?? 615)
}
const told = computed(() => {
  const { taken, waiting } = props.section
  return `${count(taken, 'seat')} ${taken === 1 ? 'is' : 'are'} taken or offered, ${waiting} in line.`
})
const send = (what: 'cancel' | 'move', body: object, said: string) =>
  attempt(async () => {
    await api(`/api/sections/${props.section.code}/${what}`, { method: 'POST', body })
    open.value = undefined
    notice.say(said)
    emit('done')
  })
const isPart = computed(() => props.section.parent !== null)
const called = computed(() => (isPart.value ? KIND_WORDS[props.section.kind] : 'section'))
const cancel = () =>
  send(
    'cancel',
    { reason: reason.value },
    `${sectionName(props.section)} is cancelled, and its seats are given back.`
  )
const move = () =>
  send(
    'move',
    {
      ...{ days: days.value, start: minutes(start.value), end: minutes(end.value) },
      keepsRoom: keepsRoom.value
    },
    `${sectionName(props.section)} meets at other hours from now on.`
  )
</script>

<template>
  <div class="office">
    <div class="keys">
      <v-btn :aria-expanded="open === 'move'" @click="ask('move')">Move it …</v-btn>
      <v-btn :aria-expanded="open === 'cancel'" @click="ask('cancel')">Cancel the {{ called }} …</v-btn>
      <slot />
    </div>
    <form v-if="open === 'move'" aria-label="Move the section" @submit.prevent="move">
      <p class="quiet small">
        {{ told }} Those who hold a seat keep it, and are told by mail; where it clashes, with the nearest
        section that they could have.
      </p>
      <v-select v-model="days" :items="dayChoices" label="Days" multiple />
      <div class="hours">
        <v-text-field v-model="start" type="time" label="From" required />
        <v-text-field v-model="end" type="time" label="To" required />
      </div>
      <v-checkbox
        v-if="section.meetings[0]?.room"
        v-model="keepsRoom"
        :label="`stays in ${section.meetings[0].room}, which has to be free then`"
        hide-details
      />
      <v-btn type="submit" variant="flat" color="primary" :disabled="busy || !days.length">Move it</v-btn>
    </form>
    <form v-if="open === 'cancel'" :aria-label="`Cancel the ${called}`" @submit.prevent="cancel">
      <p class="quiet small">
        {{ told }} The seats are given back, with all that they cost, and those who held one or waited are
        told by mail, with the nearest that they could have instead.
        <template v-if="isPart">Who held one keeps the seat in the rest of the section.</template>
      </p>
      <v-text-field v-model="reason" label="Reason" maxlength="300" required />
      <v-btn type="submit" variant="flat" color="error" :disabled="busy || !reason.trim()">Cancel it</v-btn>
    </form>
    <p v-if="problem" class="stops" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.office {
  margin: 10px 0;
}
.keys,
.hours {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
form {
  display: grid;
  gap: 8px;
  justify-items: start;
  margin-top: 8px;
}
form p {
  margin: 0;
}
.v-select {
  min-width: 220px;
}
</style>
