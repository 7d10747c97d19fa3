<script setup lang="ts">
import { shortDay } from '#shared/when'

/** The transcript: to take along, and to be sent to somebody outside. */
const student = useStudent()
const college = useCollege()
const changes = useChanges()
const { transcript, save, saveCsv } = useTranscript()

const view = computed(() => student.view!)
const stopping = computed(() => view.value.holds.filter((hold) => hold.stopsTranscript))
/** The last term in which a grade is still to come. */
const dueIn = computed(
  () => transcript.value.terms.findLast((one) => one.courses.some((course) => course.grade === null))?.term
)
const asking = ref(false)
const stateOf = ({ sentAt, after }: { sentAt: number | null; after: string | null }) =>
  sentAt !== null
    ? `sent ${shortDay(sentAt, college.zone)}`
    : stopping.value.length
      ? 'waits: a hold stops it'
      : after && after === dueIn.value
        ? `waits for the grades of ${college.termName(after)}`
        : 'waits to be sent'
</script>

<template>
  <section class="card transcript" aria-labelledby="transcript-title">
    <h2 id="transcript-title">Transcript</h2>
    <p class="keys">
      <v-btn :to="`/students/${view.student.id}/degree/transcript`">Read or print</v-btn>
      <v-btn @click="save">Save as JSON</v-btn>
      <v-btn @click="saveCsv">Save as CSV</v-btn>
      <span class="quiet">unofficial, says so</span>
    </p>
    <template v-if="student.own">
      <h3>Have one sent</h3>
      <p v-for="hold in stopping" :key="hold.title" class="held-up">
        <strong>{{ hold.title }}</strong> ({{ hold.office }}) stops transcripts: none is sent while it stands.
        {{ hold.howToLift }}
      </p>
      <v-btn v-if="!asking" @click="asking = true">Name somebody</v-btn>
      <LazyTranscriptAsk v-else :due-in="dueIn" @done="asking = false" />
      <ul v-if="view.transcripts.length">
        <li v-for="one in view.transcripts" :key="one.id">
          <div>
            <strong>{{ one.to }}</strong>
            <span class="quiet">{{ stateOf(one) }}</span>
          </div>
          <v-text-btn v-if="one.sentAt === null && one.id" @click="changes.withdrawTranscript(one.id)"
            >take it back</v-text-btn
          >
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
.transcript {
  padding: 10px 14px;
}
h2,
h3,
p {
  margin: 0 0 6px;
}
h3 {
  font-size: 14px;
  padding-top: 8px;
  border-top: 1px solid var(--rule);
}
.keys {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
.held-up strong {
  color: var(--ember);
}
ul {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
}
li {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 8px;
  padding: 4px 0;
  border-top: 1px solid var(--rule);
}
li div {
  display: flex;
  flex-direction: column;
}
</style>
