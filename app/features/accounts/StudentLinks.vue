<script setup lang="ts">
import type { LinksMailed, StudentSignIns } from '#shared/accounts/responses'
import { count } from '#shared/words'

/** Students who cannot sign in yet, as those that files bring: each is mailed a link. */
const props = defineProps<{ signIns: StudentSignIns }>()
const emit = defineEmits<{ mailed: [] }>()
const notice = useNotice()
const { busy, problem, attempt } = useAttempt()
const done = ref(0)
const mail = () =>
  attempt(async () => {
    done.value = 0
    for (;;) {
      const { mailed, left } = await api<LinksMailed>('/api/accounts/links', { method: 'POST' })
      done.value += mailed
      if (!left || !mailed) break
    }
    notice.say(`${count(done.value, 'link')} to be mailed.`)
    emit('mailed')
  })
const about = computed(() => {
  const { without, unmailed, mailless } = props.signIns
  return [
    `${count(without, 'student')} cannot sign in yet: they have no password.`,
    ...(mailless ? [`${mailless} of them have no mail address.`] : []),
    ...(without - mailless - unmailed > 0
      ? [`${without - mailless - unmailed} have a link that still holds.`]
      : [])
  ].join(' ')
})
</script>

<template>
  <section v-if="signIns.without" class="card students" aria-labelledby="student-links-title">
    <h2 id="student-links-title">Students</h2>
    <p>{{ about }}</p>
    <template v-if="signIns.canMail">
      <v-btn v-if="signIns.unmailed" :disabled="busy" @click="mail"
        >Mail {{ count(signIns.unmailed, 'student') }} a link</v-btn
      >
    </template>
    <p v-else class="quiet">
      Links are not mailed from here. One by one they are made under Students, and told there once.
    </p>
    <p v-if="busy" role="status">{{ count(done, 'link') }} so far</p>
    <p v-if="problem" class="stops" role="alert">{{ problem }}</p>
  </section>
</template>

<style scoped>
.students {
  display: grid;
  gap: 8px;
  justify-items: start;
  padding: 12px 14px;
  margin-bottom: 12px;
}
.students p {
  margin: 0;
}
</style>
