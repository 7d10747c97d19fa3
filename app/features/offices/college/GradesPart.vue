<script setup lang="ts">
import { gradesBody, type CollegePage } from '#shared/offices/college'

/** The grade scale; grades that somebody has stay as they are. */
const props = defineProps<{ page: CollegePage }>()
const emit = defineEmits<{ saved: [] }>()
const { draft, isChanged, busy, problem, errors, save, reset } = useCollegePart(
  () => props.page,
  gradesBody,
  ({ grades }) => ({ part: 'grades' as const, grades }),
  () => emit('saved')
)
const RESULTS = [
  { value: 'earned', title: 'earns the credits' },
  { value: 'failed', title: 'earns none' },
  { value: 'withdrawn', title: 'dropped late' },
  { value: 'audited', title: 'sat in on' },
  { value: 'open', title: 'not finished yet' }
]
const isGiven = (grade: string) => props.page.given.includes(grade)
const points = (text: string | null) => (text === null || text === '' ? null : Number(text))
/** A grade stands where its points are, as long as nothing else is said. */
function setPoints(i: number, text: string) {
  const one = draft.value.grades[i]!
  const isAlike = one.rank === (one.points ?? 0)
  one.points = points(text)
  if (isAlike) one.rank = one.points ?? 0
}
const add = () => draft.value.grades.push({ grade: '', points: null, result: 'earned', rank: 0 })
const isNarrow = useNarrow()
/** Beside one another its column says what a field is. */
const labelled = (text: string) => (isNarrow.value ? text : undefined)
</script>

<template>
  <CollegePart
    title="Grades"
    about="Points enter averages; without points a grade stays out of them. Its place is where a least grade is asked for."
    :is-changed="isChanged"
    :busy="busy"
    :problem="problem"
    @save="save"
    @reset="reset"
  >
    <div class="row grade heads small quiet" aria-hidden="true">
      <span>grade</span><span>points</span><span>what it does</span><span>place</span>
    </div>
    <div v-for="(one, i) in draft.grades" :key="i" class="row grade">
      <v-text-field
        v-model="one.grade"
        :label="labelled(`grade ${i + 1}`)"
        :aria-label="`grade ${i + 1}`"
        maxlength="3"
        :readonly="isGiven(one.grade)"
        :error-messages="errors(`grades.${i}.grade`)"
      />
      <v-text-field
        :model-value="one.points ?? ''"
        type="number"
        step="0.1"
        :label="labelled(`points of grade ${i + 1}`)"
        :aria-label="`points of grade ${i + 1}`"
        :readonly="isGiven(one.grade)"
        :error-messages="errors(`grades.${i}.points`)"
        @update:model-value="setPoints(i, $event)"
      />
      <v-select
        v-model="one.result"
        :label="labelled(`what grade ${i + 1} does`)"
        :aria-label="`what grade ${i + 1} does`"
        :items="RESULTS"
        :readonly="isGiven(one.grade)"
      />
      <v-text-field
        :model-value="one.rank"
        type="number"
        step="0.1"
        :label="labelled(`place of grade ${i + 1}`)"
        :aria-label="`place of grade ${i + 1}`"
        :readonly="isGiven(one.grade)"
        :error-messages="errors(`grades.${i}.rank`)"
        @update:model-value="one.rank = Number($event)"
      />
      <span v-if="isGiven(one.grade)" class="quiet small">somebody has it</span>
      <v-text-btn v-else :aria-label="`Take grade ${i + 1} out`" @click="draft.grades.splice(i, 1)"
        >Take it out</v-text-btn
      >
    </div>
    <p v-if="errors('grades')" class="stops" role="alert">{{ errors('grades') }}</p>
    <div><v-text-btn @click="add">Add a grade</v-text-btn></div>
  </CollegePart>
</template>

<style scoped>
.grade {
  grid-template-columns: 100px 110px 240px 110px minmax(0, 1fr);
}
@media (max-width: 720px) {
  .grade {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  }
}
</style>
