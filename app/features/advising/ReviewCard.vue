<script setup lang="ts">
import type { SignOffCondition } from '#core/findings'
import { rangeOf, sinceText } from '#shared/advising/signOff'
import { conditionText, signOffTerms } from '#shared/advising/texts'
import { ago, shortDay } from '#shared/when'

/** The review of the term at work: asked for by the student, answered by the program advisor. */
const student = useStudent()
const standing = useStanding()
const changes = useChanges()
const college = useCollege()
const clock = useClock()

const term = computed(() => standing.term)
const signOff = computed(() => standing.signOff)
const review = computed(() => standing.review)
const isOpen = computed(() => standing.openReview !== undefined)
const mayAnswer = computed(() => student.picture?.relation === 'programAdvisor')
const needsAnswer = computed(() => !signOff.value || standing.changedSince || isOpen.value)
/** Other terms that can be reviewed, and whether that is asked for. */
const others = computed(() =>
  student.alive
    .filter((one) => one.adding !== 'ended' && one.term.code !== term.value?.code)
    .map((one) => ({
      term: one.term,
      isAsked: student.picture!.reviews.some((review) => review.term === one.term.code && !review.answer)
    }))
)
const when = (at: number) => ago(at, clock.minute, college.zone)

const note = ref('')
const missing = ref('')
const open = ref<'ask' | 'notYet'>()
const { busy, once } = useOnce()
async function settle(work: () => Promise<boolean>) {
  if (!(await once(work))) return
  open.value = undefined
  note.value = missing.value = ''
}
const ask = () => settle(() => changes.askForReview(term.value!.code, note.value.trim() || null))
const sayNotYet = () => settle(() => changes.notYet(term.value!.code, missing.value.trim()))

/** What is signed off unless the advisor says otherwise; what they say stays while they look at the student. */
const usual = computed(() => rangeOf(standing.planned, term.value?.loadMost ?? 0))
const least = ref<string>()
const most = ref<string>()
const conditions = ref<SignOffCondition[]>([])
const until = ref('')
watch(
  () => [student.picture?.student.id, term.value?.code],
  () => {
    least.value = most.value = undefined
    conditions.value = [...(signOff.value?.conditions ?? [])]
    until.value = ''
  },
  { immediate: true }
)
const range = computed(() => ({
  least: Number(least.value ?? usual.value.least),
  most: Number(most.value ?? usual.value.most)
}))
const rangeProblem = computed(() => {
  if (range.value.most > term.value!.loadMost)
    return `${term.value!.name} takes ${term.value!.loadMost} at most.`
  return range.value.least > range.value.most ? 'It ends below where it begins.' : ''
})
const sign = () =>
  settle(() =>
    changes.signOff({
      term: term.value!.code,
      creditsLeast: range.value.least,
      creditsMost: range.value.most,
      conditions: conditions.value,
      until: until.value || null
    })
  )
</script>

<template>
  <section v-if="term" class="card review" aria-labelledby="review-title">
    <h2 id="review-title">
      Review of {{ term.name }}
      <span class="quiet">courses and a range of credits, not sections</span>
    </h2>
    <p v-if="others.length">
      <v-text-btn v-for="one in others" :key="one.term.code" @click="student.chooseTerm(one.term.code)"
        >go to {{ one.term.name }}{{ one.isAsked ? ', review asked' : '' }}</v-text-btn
      >
    </p>
    <p v-if="signOff" class="state" :class="{ changed: standing.changedSince }">
      Signed off by {{ signOff.by }} on {{ shortDay(signOff.at, college.zone) }},
      {{ signOffTerms(signOff, college.zone) }}.
      <strong v-if="standing.changedSince">Changed since: {{ sinceText(standing.since!) }}.</strong>
    </p>
    <p v-if="isOpen" class="state">
      Review asked {{ when(review!.askedAt) }}<template v-if="review!.note">: “{{ review!.note }}”</template>
      <v-text-btn
        v-if="student.own"
        :disabled="busy"
        @click="settle(() => changes.withdrawReview(term!.code))"
        >Withdraw it</v-text-btn
      >
    </p>
    <p v-else-if="review?.answer?.missing" class="state changed">
      <strong>Not yet</strong>, {{ review.answer.by }} {{ when(review.answer.at) }}: “{{
        review.answer.missing
      }}”
    </p>

    <template v-if="student.own">
      <form v-if="open === 'ask'" @submit.prevent="ask" @keydown.esc.stop="open = undefined">
        <v-textarea
          v-model="note"
          label="what they should look at, if you like"
          rows="2"
          auto-grow
          maxlength="1000"
          @vue:mounted="focusIn"
        />
        <v-btn type="submit" variant="flat" color="primary" :disabled="busy">Ask for it</v-btn>
        <v-text-btn type="button" @click="open = undefined">Cancel</v-text-btn>
      </form>
      <v-btn
        v-else-if="!isOpen && needsAnswer"
        variant="flat"
        color="primary"
        :disabled="busy || !standing.planned.length"
        @click="open = 'ask'"
        >{{ review?.answer ? 'Ask again' : 'Ask for review' }}</v-btn
      >
      <p v-if="!standing.planned.length" class="quiet">Nothing is planned for {{ term.name }} yet.</p>
    </template>

    <template v-else-if="mayAnswer">
      <p v-if="!standing.planned.length" class="quiet">
        Nothing is planned for {{ term.name }}, so there is nothing to sign off yet.
      </p>
      <template v-else-if="needsAnswer">
        <div class="terms">
          <span class="courses">{{ standing.planned.map((one) => one.course).join(' · ') }}</span>
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
        <form v-if="open === 'notYet'" @submit.prevent="sayNotYet" @keydown.esc.stop="open = undefined">
          <v-textarea
            v-model="missing"
            label="what is missing"
            rows="2"
            auto-grow
            maxlength="1000"
            @vue:mounted="focusIn"
          />
          <v-btn type="submit" :disabled="busy || missing.trim().length < 5">Say not yet</v-btn>
          <v-text-btn type="button" @click="open = undefined">Cancel</v-text-btn>
        </form>
        <div v-else class="acts">
          <v-btn v-if="isOpen" :disabled="busy" @click="open = 'notYet'">Not yet, say why</v-btn>
          <v-btn variant="flat" color="primary" :disabled="busy || Boolean(rangeProblem)" @click="sign"
            >Sign off {{ term.name }}</v-btn
          >
        </div>
      </template>
      <v-btn v-if="signOff" :disabled="busy" @click="settle(() => changes.withdrawSignOff(term!.code))"
        >Withdraw sign-off</v-btn
      >
    </template>
  </section>
</template>

<style scoped>
.review {
  padding: 10px 13px;
}
h2 .quiet {
  font-size: 13px;
  font-weight: 400;
  margin-left: 6px;
}
.state.changed strong {
  color: var(--ember);
}
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
.courses {
  font-weight: 700;
}
.range {
  display: inline-flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}
.conditions {
  margin: 0;
  padding-left: 18px;
}
</style>
