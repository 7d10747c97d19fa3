<script setup lang="ts">
import { TALKED_HOW } from '#shared/appointments/appointments'
import { HOW_WORDS } from '#shared/appointments/texts'
import { dayText } from '#shared/when'
import { count } from '#shared/words'

/** Talks that were held: when, how, and the advisor's summary, which the student reads too. */
const student = useStudent()
const advisingChanges = useAdvisingChanges()
const college = useCollege()
const adding = ref(false)
const on = ref('')
const how = ref<(typeof TALKED_HOW)[number]>('inPerson')
const summary = ref('')
const { busy, once } = useOnce()
const records = computed(() => student.view?.talkRecords ?? [])
const all = ref(false)
const SHOWN = 2
const shown = computed(() => (all.value ? records.value : records.value.slice(0, SHOWN)))

function begin() {
  on.value = college.today
  adding.value = true
}
async function send() {
  const text = summary.value.trim()
  if (text.length < 3 || !on.value) return
  const record = { on: on.value, how: how.value, summary: text }
  if (!(await once(() => advisingChanges.recordTalk(record)))) return
  summary.value = ''
  adding.value = false
}
</script>

<template>
  <TalkPart
    v-if="records.length || !student.own"
    id="held"
    title="Spoken"
    :hint="student.own ? 'as your advisors noted it' : 'the student reads it too'"
  >
    <template #act>
      <v-text-btn v-if="!student.own && !adding" @click="begin">Note a talk</v-text-btn>
    </template>
    <form v-if="adding" @submit.prevent="send" @keydown.esc.stop="adding = false">
      <v-text-field v-model="on" label="day" type="date" :max="college.today" />
      <v-select
        v-model="how"
        label="how"
        :items="TALKED_HOW.map((value) => ({ value, title: HOW_WORDS[value] }))"
      />
      <v-textarea
        v-model="summary"
        class="wide"
        label="what you spoke about"
        rows="2"
        auto-grow
        maxlength="2000"
        @vue:mounted="focusIn"
      />
      <v-btn type="submit" size="small" :disabled="busy || summary.trim().length < 3">Note it</v-btn>
      <v-text-btn type="button" @click="adding = false">Cancel</v-text-btn>
    </form>
    <p v-for="one in shown" :key="one.id">
      <strong>{{ dayText(one.on) }}</strong> <span class="quiet">{{ HOW_WORDS[one.how] }}, {{ one.by }}</span>
      <span class="said">{{ one.summary }}</span>
    </p>
    <v-text-btn v-if="!all && records.length > SHOWN" @click="all = true">{{
      count(records.length - SHOWN, 'earlier talk')
    }}</v-text-btn>
  </TalkPart>
</template>

<style scoped>
form {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  align-items: center;
  margin: 6px 0;
}
.wide {
  flex: 1 1 100%;
}
p {
  margin: 4px 0 0;
}
.said {
  display: block;
  white-space: pre-line;
  overflow-wrap: anywhere;
}
</style>
