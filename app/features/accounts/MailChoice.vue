<script setup lang="ts">
import type { MailChoice, MailChoices, MailTopic } from '#shared/mail/choices'

/** What whoever is signed in wants to be mailed, and when. */
const notice = useNotice()
const choices = ref<MailChoices>()
const failure = ref<string>()
const { busy, once } = useOnce()

const TOPICS: { topic: MailTopic; title: string }[] = [
  { topic: 'advising', title: 'reviews, sign-offs, suggestions, words, requests' },
  { topic: 'appointments', title: 'appointments' }
]
const ITEMS: { value: MailChoice; title: string }[] = [
  { value: 'atOnce', title: 'at once' },
  { value: 'daily', title: 'together, once a day' },
  { value: 'never', title: 'not by mail' }
]
async function attempt(work: () => Promise<void>): Promise<boolean> {
  try {
    await work()
    failure.value = undefined
    return true
  } catch (error) {
    if (!(error instanceof Failure)) throw error
    failure.value = error.message
    return false
  }
}
const read = () =>
  attempt(async () => void (choices.value = await api<MailChoices>('/api/account/mail-choices')))
onMounted(read)
const choose = (topic: MailTopic, choice: MailChoice) =>
  once(async () => {
    const body = { ...choices.value!, [topic]: choice }
    if (!(await attempt(() => api('/api/account/mail-choices', { method: 'POST', body })))) return false
    choices.value = body
    notice.say('Kept. It holds for what comes from now on.')
    return true
  })
</script>

<template>
  <section class="card choice" aria-labelledby="choice-title">
    <h2 id="choice-title">What is mailed to you</h2>
    <p class="quiet">
      What has to do with seats, money, holds and openings is always mailed at once: it runs out.
    </p>
    <p v-if="failure" class="stops" role="alert">
      {{ failure }} <v-text-btn v-if="!choices" @click="read">Try again</v-text-btn>
    </p>
    <div v-if="choices" class="topics">
      <v-select
        v-for="{ topic, title } in TOPICS"
        :key="topic"
        :model-value="choices[topic]"
        :label="title"
        :items="ITEMS"
        :disabled="busy"
        @update:model-value="(choice: MailChoice) => choose(topic, choice)"
      />
    </div>
  </section>
</template>

<style scoped>
.choice {
  margin-top: 12px;
  padding: 12px 15px;
}
p {
  margin: 2px 0 8px;
}
.topics {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
}
.topics .v-select {
  flex: 0 1 360px;
}
</style>
