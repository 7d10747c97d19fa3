<script setup lang="ts">
import { signOffPolicyOf } from '#shared/advising/review'
import { sinceText } from '#shared/advising/signOff'
import { signOffTerms } from '#shared/advising/texts'
import { ago, shortDay } from '#shared/when'

/** The review of the term at work: asked for by the student, answered by the program advisor. */
const student = useStudent()
const standing = useStanding()
const advisingChanges = useAdvisingChanges()
const college = useCollege()
const clock = useClock()

const term = computed(() => standing.term)
const signOff = computed(() => standing.signOff)
const review = computed(() => standing.review)
const isOpen = computed(() => standing.openReview !== undefined)
const policy = computed(() => term.value && signOffPolicyOf(student.view!, term.value))
const mayAnswer = computed(() => student.view?.relation === 'programAdvisor')
const needsAnswer = computed(() => !signOff.value || standing.changedSince || isOpen.value)
/** Other terms that can be reviewed, and whether that is asked for. */
const others = computed(() =>
  student.alive
    .filter((one) => one.adding !== 'ended' && one.term.code !== term.value?.code)
    .map((one) => ({
      term: one.term,
      isAsked: student.view!.reviews.some((review) => review.term === one.term.code && !review.answer)
    }))
)
const when = (at: number) => ago(at, clock.minute, college.zone)

const isAsking = ref(false)
const { busy, once } = useOnce()
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
      <template v-if="standing.changedSince && policy === 'anew'"
        >It has to be signed off anew before anything is registered.
      </template>
    </p>
    <p v-if="isOpen" class="state">
      Review asked {{ when(review!.askedAt) }}<template v-if="review!.note">: “{{ review!.note }}”</template>
      <v-text-btn
        v-if="student.own"
        :disabled="busy"
        @click="once(() => advisingChanges.withdrawReview(term!.code))"
        >Withdraw it</v-text-btn
      >
    </p>
    <p v-else-if="review?.answer?.missing" class="state changed">
      <strong>Not yet</strong>, {{ review.answer.by }} {{ when(review.answer.at) }}: “{{
        review.answer.missing
      }}”
    </p>

    <dl v-if="review?.answers.length && !review.answer" class="answers">
      <template v-for="one in review.answers" :key="one.question">
        <dt>{{ one.question }}</dt>
        <dd>{{ one.answer }}</dd>
      </template>
    </dl>
    <TermCompared />

    <template v-if="student.own">
      <LazyReviewAsk v-if="isAsking" @done="isAsking = false" />
      <v-btn
        v-else-if="!isOpen && needsAnswer"
        variant="flat"
        color="primary"
        :disabled="busy || !standing.planned.length"
        @click="isAsking = true"
        >{{ review?.answer ? 'Ask again' : 'Ask for review' }}</v-btn
      >
      <p v-if="!standing.planned.length" class="quiet">Nothing is planned for {{ term.name }} yet.</p>
    </template>

    <template v-else-if="mayAnswer">
      <p v-if="!standing.planned.length" class="quiet">
        Nothing is planned for {{ term.name }}, so there is nothing to sign off yet.
      </p>
      <LazySignOffForm v-else-if="needsAnswer" />
      <v-btn v-if="signOff" :disabled="busy" @click="once(() => advisingChanges.withdrawSignOff(term!.code))"
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
.answers {
  margin: 6px 0;
}
.answers dt {
  color: var(--ink-quiet);
}
.answers dd {
  margin: 0 0 4px;
}
</style>
