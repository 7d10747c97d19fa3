<script setup lang="ts">
import type { SectionCode } from '#core/ids'
import { minutes, type Weekday } from '#core/time'
import type { Section } from '#core/week'
import type { FreeHours, OfferedCourse } from '#shared/sections/offering'
import { sectionName } from '#shared/week/texts'
import { DAY_NAMES, hours, timeField } from '#shared/when'

/** Another section like one that is there, at hours at which most of those who want it are free. */
const props = defineProps<{ offered: OfferedCourse }>()
const emit = defineEmits<{ done: [] }>()
const notice = useNotice()
const { busy, problem, attempt } = useAttempt()

interface Part {
  of: SectionCode
  title: string
  days: Weekday[]
  start: string
  end: string
  seats: string
  room: number | null
}
const mains = computed(() => props.offered.sections.filter((one) => one.parent === null))
const chosen = ref<SectionCode>()
const like = computed({
  get: () => mains.value.find((one) => one.code === chosen.value)?.code ?? mains.value[0]!.code,
  set: (code) => (chosen.value = code)
})
const parts = ref<Part[]>([])
const instructor = ref<number | null>(null)

const partOf = (section: Section): Part => ({
  of: section.code,
  title: sectionName(section),
  days: [...(section.meetings[0]?.days ?? [])],
  start: timeField(section.meetings[0]?.start ?? 540),
  end: timeField(section.meetings[0]?.end ?? 615),
  seats: String(section.capacity),
  room: null
})
/** The section, and the first component of each kind that it has. */
function begin() {
  const main = props.offered.sections.find((one) => one.code === like.value)!
  const components = props.offered.sections.filter((one) => one.parent === main.code)
  const firsts = components.filter((one, i) => components.findIndex((other) => other.kind === one.kind) === i)
  parts.value = [main, ...firsts].map(partOf)
}
watch(like, begin, { immediate: true })

const hoursText = ({ days, start, end }: FreeHours) =>
  `${days.map((day) => DAY_NAMES[day]).join(' ')}, ${hours(start, end)}`
function take({ days, start, end }: FreeHours) {
  Object.assign(parts.value[0]!, { days: [...days], start: timeField(start), end: timeField(end) })
}
const people = computed(() => props.offered.instructors.map((one) => ({ value: one.id, title: one.name })))
const add = () =>
  attempt(async () => {
    const body = {
      parts: parts.value.map(({ of, days, start, end, seats, room }) => ({
        ...{ of, days, room, seats: Number(seats) },
        ...{ start: minutes(start), end: minutes(end) }
      })),
      instructor: instructor.value
    }
    const { section } = await api<{ section: string }>(`/api/sections/${like.value}/like`, {
      method: 'POST',
      body
    })
    notice.say(`Section ${section} is added.`)
    begin()
    emit('done')
  })
</script>

<template>
  <div class="like">
    <v-select
      v-model="like"
      label="Like"
      :items="mains.map((one) => ({ value: one.code, title: sectionName(one) }))"
    />
    <template v-if="offered.hours.length">
      <p class="quiet">Usual hours at which most of the {{ offered.wanting }} who want it are free:</p>
      <ul>
        <li v-for="one in offered.hours" :key="hoursText(one)">
          <v-text-btn @click="take(one)">{{ hoursText(one) }}</v-text-btn>
          <strong>{{ one.free }}</strong>
        </li>
      </ul>
    </template>
    <SectionForm @submit="add">
      <fieldset v-for="(part, i) in parts" :key="part.of">
        <legend>like {{ part.title }}</legend>
        <PartFields v-model="parts[i]!" :rooms="offered.rooms" />
      </fieldset>
      <v-autocomplete v-model="instructor" :items="people" label="Instructor" clearable />
      <p v-if="problem" class="stops" role="alert">{{ problem }}</p>
      <v-btn type="submit" variant="flat" color="primary" :disabled="busy">Add it</v-btn>
      <p class="quiet small">
        It is offered at once; where a room or an instructor is taken, it is not added.
      </p>
    </SectionForm>
  </div>
</template>

<style scoped>
p {
  margin: 0 0 6px;
}
ul {
  list-style: none;
  margin: 0 0 8px;
  padding: 0;
}
li {
  display: flex;
  justify-content: space-between;
  padding: 3px 0;
  border-top: 1px solid var(--rule);
}
.like > .v-input {
  width: 100%;
  max-width: none;
}
</style>
