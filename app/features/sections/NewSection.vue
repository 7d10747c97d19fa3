<script setup lang="ts">
import { minutes, type Weekday } from '#core/time'
import { MODES, type Mode, type Section } from '#core/week'
import type { OfferedCourse } from '#shared/sections/offering'
import { newSectionBody, type SectionRules } from '#shared/sections/requests'
import { capital, KIND_WORDS, MODE_WORDS } from '#shared/words'

/** A section that is like no other: a first one, or one of another make. */
const props = defineProps<{ offered: OfferedCourse; term: string; course: string }>()
const emit = defineEmits<{ done: [] }>()
const college = useCollege()
const notice = useNotice()
const { busy, problem, fields, attempt } = useAttempt()

interface Part {
  kind: Section['kind']
  days: Weekday[]
  start: string
  end: string
  seats: string
  room: number | null
}
const firstPart = (kind: Section['kind']): Part => ({
  ...{ kind, days: [], start: '09:30', end: '10:45', seats: '30', room: null }
})
const noRules = (): SectionRules => ({
  ...{ topic: null, instructors: [], room: null, line: 10, fee: 0, permissionNeeded: false },
  ...{ officeOnly: false, block: null, onlyFor: null, reserved: [] }
})
const sessions = computed(() => college.view?.terms.find((one) => one.code === props.term)?.sessions ?? [])
const chosenSession = ref<string>()
const session = computed({
  get: () => chosenSession.value ?? sessions.value[0]?.code,
  set: (code) => (chosenSession.value = code)
})
const chosenCampus = ref<string>()
const campus = computed({
  get: () => chosenCampus.value ?? college.view?.campuses[0]?.code,
  set: (code) => (chosenCampus.value = code)
})
const mode = ref<Mode>('inPerson')
const parts = ref<Part[]>([firstPart('lecture')])
const rules = ref(noRules())

const hasHours = computed(() => mode.value !== 'online')
const body = computed(() => {
  const { room: _, ...said } = rules.value
  return newSectionBody.safeParse({
    ...{ session: session.value, campus: campus.value, mode: mode.value, rules: said },
    parts: parts.value.map(({ kind, days, start, end, seats, room }) => ({
      ...{ kind, seats: Number(seats), room: hasHours.value ? room : null },
      ...{ days: hasHours.value ? days : [], start: minutes(start), end: minutes(end) }
    }))
  })
})
const missing = computed(() =>
  body.value.success
    ? ''
    : parts.value.some((one) => hasHours.value && !one.days.length)
      ? 'Choose its days.'
      : 'Something is not filled in as it has to be.'
)
const kinds = Object.entries(KIND_WORDS).map(([value, title]) => ({ value, title: capital(title) }))
const modes = MODES.map((value) => ({ value, title: capital(MODE_WORDS[value]) }))
const add = () =>
  attempt(async () => {
    const { section } = await api<{ section: string }>(
      `/api/terms/${props.term}/courses/${props.course.replace(' ', '-')}/sections`,
      { method: 'POST', body: body.value.data }
    )
    notice.say(`Section ${section} is added.`)
    parts.value = [firstPart('lecture')]
    rules.value = noRules()
    emit('done')
  })
</script>

<template>
  <SectionForm @submit="add">
    <div class="three">
      <v-select
        v-model="session"
        label="Session"
        :items="sessions.map((one) => ({ value: one.code, title: one.name }))"
        :error-messages="fields.get('session')"
      />
      <v-select
        v-model="campus"
        label="Campus"
        :items="(college.view?.campuses ?? []).map((one) => ({ value: one.code, title: one.name }))"
        :error-messages="fields.get('campus')"
      />
      <v-select v-model="mode" label="Held" :items="modes" />
    </div>
    <fieldset v-for="(part, i) in parts" :key="i">
      <legend>{{ i ? `Component ${i}` : 'The section' }}</legend>
      <v-select v-model="part.kind" :items="kinds" label="Kind" />
      <PartFields v-model="parts[i]!" :rooms="offered.rooms" :has-hours="hasHours" />
      <v-text-btn v-if="i" @click="parts.splice(i, 1)">Without component {{ i }}</v-text-btn>
    </fieldset>
    <v-text-btn v-if="parts.length < 12" @click="parts.push(firstPart('lab'))"
      >With another component</v-text-btn
    >
    <p v-if="parts.length > 1" class="quiet small">A student takes one component of each kind.</p>
    <SectionRulesFields v-model="rules" :offered="offered" without-room :fields="fields" />
    <p v-if="problem" class="stops" role="alert">{{ problem }}</p>
    <v-btn type="submit" variant="flat" color="primary" :disabled="busy || !body.success">Add it</v-btn>
    <p class="quiet small">{{ missing || 'Where a room or an instructor is taken, it is not added.' }}</p>
  </SectionForm>
</template>

<style scoped>
.three {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
  width: 100%;
}
.three .v-input {
  min-width: 0;
}
</style>
