<script setup lang="ts">
import { reviewRulesOf } from '#shared/advising/review'
import { unplacedText } from '#shared/degree/figures'

/** The student asks for a review of the term at work, with what their programs want to have answered before. */
const emit = defineEmits<{ done: [] }>()
const student = useStudent()
const standing = useStanding()
const advisingChanges = useAdvisingChanges()
const { busy, once } = useOnce()

const rules = computed(() => reviewRulesOf(student.view!.programs))
/** What has no place, where the whole way has to be planned. */
const unplaced = computed(() =>
  rules.value.covers === 'degree' && standing.figures ? unplacedText(standing.figures) : ''
)
const note = ref('')
/** By question; asked again, it begins from what was answered last. */
const answers = ref<Record<string, string>>(
  Object.fromEntries((standing.review?.answers ?? []).map((one) => [one.question, one.answer]))
)
const answered = computed(() =>
  rules.value.questions.map((question) => ({ question, answer: (answers.value[question] ?? '').trim() }))
)
const isReady = computed(() => !unplaced.value && answered.value.every((one) => one.answer))
async function ask() {
  const { code } = standing.term!
  const { value } = answered
  if (await once(() => advisingChanges.askForReview(code, note.value.trim() || null, value))) emit('done')
}
</script>

<template>
  <form @submit.prevent="ask" @keydown.esc.stop="emit('done')">
    <p v-if="unplaced" class="lacks">
      Your program is reviewed with the whole way to the degree. Without a place on the route yet:
      <strong>{{ unplaced }}</strong>.
    </p>
    <div v-for="(question, i) in rules.questions" :key="question" class="question">
      <p aria-hidden="true">{{ question }}</p>
      <v-textarea
        v-model="answers[question]"
        :aria-label="question"
        rows="1"
        auto-grow
        maxlength="500"
        @vue:mounted="i === 0 && focusIn($event)"
      />
    </div>
    <v-textarea
      v-model="note"
      label="what they should look at, if you like"
      rows="2"
      auto-grow
      maxlength="1000"
      @vue:mounted="!rules.questions.length && focusIn($event)"
    />
    <v-btn type="submit" variant="flat" color="primary" :disabled="busy || !isReady">Ask for it</v-btn>
    <v-text-btn type="button" @click="emit('done')">Cancel</v-text-btn>
  </form>
</template>

<style scoped>
form {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 12px;
  margin: 6px 0;
}
.question,
.v-textarea,
.lacks {
  flex: 1 1 100%;
}
.question p {
  margin: 0 0 2px;
}
.lacks strong {
  color: var(--ember);
}
</style>
