<script setup lang="ts">
import { WEEKDAYS, minutes, type Weekday } from '#core/time'
import type { KeepFree } from '#shared/week/responses'
import { DAY_NAMES, LONG_DAY_NAMES, timeField } from '#shared/when'
import { count } from '#shared/words'
import { daysAndHours } from '#shared/week/texts'

/** Hours the student keeps free: painted on the ribbon or typed here; they hold for every term. */
const props = defineProps<{
  /** How many options each of the hours kept free holds out, in their order. */
  removes: readonly number[]
  /** Hours that were just painted and want a name. */
  painted: { days: Weekday[]; start: number; end: number } | undefined
}>()
const emit = defineEmits<{ close: []; done: [] }>()
const weeks = useWeeks()
const student = useStudent()
const heading = ref<HTMLElement>()
const nameField = ref<HTMLInputElement>()
onMounted(() => heading.value?.focus())

const draft = ref({ name: '', days: [] as Weekday[], start: '16:00', end: '20:00', hard: true })
const LAST = '23:59'
const fault = ref<string>()
watch(
  () => props.painted,
  async (hours) => {
    if (!hours) return
    draft.value = {
      name: draft.value.name,
      days: hours.days,
      start: timeField(hours.start),
      end: hours.end === 24 * 60 ? LAST : timeField(hours.end),
      hard: draft.value.hard
    }
    await nextTick()
    nameField.value?.focus()
  },
  { immediate: true }
)
function turn(day: Weekday, on: boolean) {
  const others = draft.value.days.filter((one) => one !== day)
  draft.value.days = (on ? [...others, day] : others).sort((a, b) => a - b)
}
async function add() {
  const { name, days, start, end, hard } = draft.value
  // The day's last minute stands for its end.
  const [from, to] = [minutes(start), end === LAST ? 24 * 60 : minutes(end)]
  fault.value = !days.length
    ? 'Choose a day.'
    : from >= to
      ? 'The end has to be later than the start.'
      : undefined
  if (fault.value) return
  const added: KeepFree = {
    name: name.trim() || daysAndHours({ days, start: from, end: to }),
    days,
    start: from,
    end: to,
    hard
  }
  draft.value = { name: '', days: [], start, end, hard }
  emit('done')
  await weeks.setKeepFree([...weeks.keepFree, added], `${added.name} is kept free.`)
}
const without = (gone: KeepFree) =>
  weeks.setKeepFree(
    weeks.keepFree.filter((one) => one !== gone),
    `${gone.name} is not kept free any more.`
  )
const harden = (changed: KeepFree) =>
  weeks.setKeepFree(
    weeks.keepFree.map((one) => (one === changed ? { ...one, hard: !one.hard } : one)),
    `${changed.name} ${changed.hard ? 'is kept free if possible' : 'must stay free'}.`
  )
</script>

<template>
  <section class="card panel" aria-labelledby="kept-title" @keydown.esc="emit('close')">
    <div class="line">
      <h2 id="kept-title" ref="heading" tabindex="-1">Keep-free hours</h2>
      <span class="quiet">{{
        student.own ? 'Paint them on the week above, or type them. They stay for every term.' : ''
      }}</span>
      <v-text-btn class="push" @click="emit('close')">Close</v-text-btn>
    </div>
    <ul v-if="weeks.keepFree.length">
      <li v-for="(one, i) in weeks.keepFree" :key="`${one.name} ${i}`" class="line">
        <strong>{{ one.name }}</strong>
        <span>{{ daysAndHours(one) }}</span>
        <span class="quiet">{{
          removes[i] ? `holds out ${count(removes[i], 'option')}` : 'holds out none'
        }}</span>
        <template v-if="student.own">
          <label>
            <v-checkbox-btn :model-value="one.hard" @update:model-value="harden(one)" />
            must stay free
          </label>
          <v-text-btn @click="without(one)">
            Let go<span class="visually-hidden"> of {{ one.name }}</span>
          </v-text-btn>
        </template>
        <span v-else class="quiet">{{ one.hard ? 'must stay free' : 'if possible' }}</span>
      </li>
    </ul>
    <p v-else class="quiet">Nothing is kept free.</p>
    <form v-if="student.own" class="line add" @submit.prevent="add">
      <label
        >What for
        <v-text-field ref="nameField" v-model="draft.name" maxlength="60" placeholder="Swim coaching"
      /></label>
      <fieldset class="days">
        <legend class="visually-hidden">Days</legend>
        <label v-for="day in WEEKDAYS" :key="day" :title="LONG_DAY_NAMES[day]"
          ><v-checkbox-btn
            :model-value="draft.days.includes(day)"
            @update:model-value="turn(day, $event)"
          />{{ DAY_NAMES[day] }}</label
        >
      </fieldset>
      <label>from <v-text-field v-model="draft.start" type="time" step="300" required /></label>
      <label>until <v-text-field v-model="draft.end" type="time" step="300" required /></label>
      <label><v-checkbox-btn v-model="draft.hard" /> must stay free</label>
      <v-btn type="submit" size="small">Keep free</v-btn>
      <span v-if="fault" class="stops" role="alert">{{ fault }}</span>
    </form>
  </section>
</template>

<style scoped>
.panel {
  padding: 10px 14px;
  margin-top: 10px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
}
.push {
  margin-left: auto;
}
ul {
  list-style: none;
  padding: 0;
  margin: 4px 0;
}
li {
  padding: 2px 0;
}
.add {
  border-top: 1px solid var(--rule);
  padding-top: 8px;
  margin-top: 6px;
}
.days {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 9px;
  border: 0;
  padding: 0;
}
label {
  display: inline-flex;
  gap: 5px;
  align-items: center;
}
</style>
