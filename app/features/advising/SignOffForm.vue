<script setup lang="ts">
import type { SignOffCondition } from '#core/findings'
import type { CourseCode } from '#core/ids'
import { rangeOf } from '#shared/advising/signOff'
import { conditionText } from '#shared/advising/texts'

/** The program advisor answers: signed off, within what and on which conditions, or not yet and why. */
const student = useStudent()
const standing = useStanding()
const advisingChanges = useAdvisingChanges()
const college = useCollege()
const { busy, once } = useOnce()

const term = computed(() => standing.term!)
const isAsked = computed(() => standing.openReview !== undefined)
/** What is signed off unless the advisor says otherwise; what they say stays while they look at the student. */
const usual = computed(() => rangeOf(standing.planned, term.value.loadMost))
const least = ref<string>()
const most = ref<string>()
const conditions = ref<SignOffCondition[]>([])
const alternatives = ref<CourseCode[]>([])
const until = ref('')
watch(
  () => [student.view?.student.id, term.value.code],
  () => {
    least.value = most.value = undefined
    conditions.value = [...(standing.signOff?.conditions ?? [])]
    alternatives.value = [...(standing.signOff?.alternatives ?? [])]
    until.value = ''
  },
  { immediate: true }
)
const range = computed(() => ({
  least: Number(least.value ?? usual.value.least),
  most: Number(most.value ?? usual.value.most)
}))
const rangeProblem = computed(() => {
  if (range.value.most > term.value.loadMost)
    return `${term.value.name} takes ${term.value.loadMost} at most.`
  return range.value.least > range.value.most ? 'It ends below where it begins.' : ''
})
const others = computed(() => {
  const planned = new Set(standing.planned.map((one) => one.course))
  return (college.catalogContext?.catalog.courses ?? [])
    .filter((one) => !planned.has(one.code))
    .map((one) => ({ value: one.code, title: `${one.code} ${one.title}` }))
})
const sign = () =>
  once(() =>
    advisingChanges.signOff({
      term: term.value.code,
      creditsLeast: range.value.least,
      creditsMost: range.value.most,
      alternatives: alternatives.value,
      conditions: conditions.value,
      until: until.value || null
    })
  )

const isNotYet = ref(false)
const missing = ref('')
async function sayNotYet() {
  if (!(await once(() => advisingChanges.notYet(term.value.code, missing.value.trim())))) return
  isNotYet.value = false
  missing.value = ''
}
</script>

<template>
  <div class="terms">
    <span class="range"
      >credits
      <v-text-field
        :model-value="range.least"
        type="number"
        aria-label="Credits at least"
        min="0"
        @update:model-value="least = $event"
      />
      to
      <v-text-field
        :model-value="range.most"
        type="number"
        aria-label="Credits at most"
        :max="term.loadMost"
        @update:model-value="most = $event"
      />
      <span v-if="rangeProblem" class="stops" role="alert">{{ rangeProblem }}</span></span
    >
    <v-text-field v-model="until" type="date" label="stands until" clearable />
    <v-autocomplete
      v-model="alternatives"
      class="others"
      label="in place of one also"
      :items="others"
      multiple
      chips
      closable-chips
    />
  </div>
  <ul v-if="conditions.length" class="conditions">
    <li v-for="(one, i) in conditions" :key="i">
      {{ conditionText(one) }}
      <v-text-btn :aria-label="`Take out: ${conditionText(one)}`" @click="conditions.splice(i, 1)"
        >take out</v-text-btn
      >
    </li>
  </ul>
  <ConditionForm @add="conditions.push($event)" />
  <form v-if="isNotYet" @submit.prevent="sayNotYet" @keydown.esc.stop="isNotYet = false">
    <v-textarea
      v-model="missing"
      label="what is missing"
      rows="2"
      auto-grow
      maxlength="1000"
      @vue:mounted="focusIn"
    />
    <v-btn type="submit" :disabled="busy || missing.trim().length < 5">Say not yet</v-btn>
    <v-text-btn type="button" @click="isNotYet = false">Cancel</v-text-btn>
  </form>
  <div v-else class="acts">
    <v-btn v-if="isAsked" :disabled="busy" @click="isNotYet = true">Not yet, say why</v-btn>
    <v-btn variant="flat" color="primary" :disabled="busy || Boolean(rangeProblem)" @click="sign"
      >Sign off {{ term.name }}</v-btn
    >
  </div>
</template>

<style scoped>
form,
.terms,
.acts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 12px;
  margin: 6px 0;
}
form .v-textarea {
  flex: 1 1 100%;
}
.range {
  display: inline-flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}
.others {
  flex: 1 1 220px;
}
.conditions {
  margin: 0;
  padding-left: 18px;
}
</style>
