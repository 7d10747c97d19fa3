<script setup lang="ts">
import type { MailView } from '#shared/mail/responses'
import { instantText } from '#shared/when'

/** What was mailed to whoever is signed in. */
const college = useCollege()
const { known: mails, failure, read } = useRead(() => api<MailView[]>('/api/account/mails'))
onMounted(read)
const STATES: Record<NonNullable<MailView['state']>, string> = {
  waiting: 'not sent yet',
  sent: 'sent',
  failed: 'could not be sent',
  gathered: 'waits for the mail of the day',
  told: 'in the mail of the day'
}
</script>

<template>
  <section class="card mails" aria-labelledby="mails-title">
    <h2 id="mails-title">Mails to you</h2>
    <p v-if="failure" class="stops" role="alert">
      {{ failure }} <v-text-btn @click="read">Try again</v-text-btn>
    </p>
    <p v-else-if="mails?.length === 0" class="quiet">Nothing was mailed to you so far.</p>
    <ul v-else>
      <li v-for="mail in mails ?? []" :key="mail.id">
        <p>
          <strong>{{ mail.subject }}</strong>
          <span class="quiet small">
            {{ instantText(mail.at, college.zone) }} campus time{{
              mail.state ? ` · ${STATES[mail.state]}` : ''
            }}</span
          >
        </p>
        <p>{{ mail.text }}</p>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.mails {
  margin-top: 12px;
  padding: 12px 15px;
}
.mails p {
  margin: 0;
}
.mails ul {
  list-style: none;
  margin: 6px 0 0;
  padding: 0;
}
.mails li {
  padding: 7px 0;
  border-top: 1px solid var(--rule);
}
</style>
