<script setup lang="ts">
import type { TermView } from '#shared/catalog/responses'
import { instantText, shortDay } from '#shared/when'

/** What a term asks to accept once, and that it was: among what comes before registering. */
const props = defineProps<{ term: TermView }>()
const student = useStudent()
const college = useCollege()
const sheetChanges = useSheetChanges()
const reading = ref(false)

const accepted = computed(() => student.view?.agreements.find((one) => one.term === props.term.code))
const paragraphs = computed(() => (props.term.agreement ?? '').split('\n').filter(Boolean))
async function accept() {
  const done = await sheetChanges.agree(props.term.code, props.term.agreement!)
  if (done) reading.value = false
}
</script>

<template>
  <li v-if="term.agreement" :class="accepted ? 'done' : 'open'">
    Terms of registration
    <span v-if="accepted" class="quiet">accepted {{ shortDay(accepted.at, college.zone) }}</span>
    <span v-else class="stops">not accepted yet</span>
    {{ ' ' }}
    <v-text-btn @click="reading = true">{{
      accepted || !student.own ? 'Read them' : 'Read and accept'
    }}</v-text-btn>
    <v-dialog v-model="reading" max-width="560" aria-labelledby="terms-title">
      <section class="card terms">
        <h2 id="terms-title">Terms of registration, {{ term.name }}</h2>
        <p v-for="text in paragraphs" :key="text">{{ text }}</p>
        <p v-if="accepted" class="quiet small">
          Accepted on {{ instantText(accepted.at, college.zone) }}, as they read here.
        </p>
        <p v-else-if="student.own" class="quiet small">
          Once for this term. The text and the time are kept with your record.
        </p>
        <div class="keys">
          <v-btn v-if="student.own && !accepted" variant="flat" color="primary" @click="accept"
            >Accept these terms</v-btn
          >
          <v-btn @click="reading = false">Close</v-btn>
        </div>
      </section>
    </v-dialog>
  </li>
</template>

<style scoped>
.terms {
  padding: 18px 20px;
}
.terms p {
  margin: 8px 0;
}
.keys {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 12px;
}
</style>
