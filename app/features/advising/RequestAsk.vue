<script setup lang="ts">
import { DECIDER_WORDS, KIND_SENTENCES } from '#shared/advising/asking'
import type { RequestAsked } from '#shared/advising/requests'
import { ago, deadlineText } from '#shared/when'

type Unexplained<T> = T extends unknown ? Omit<T, 'reason'> : never

/** A request from what it would settle: asked for in place, what came of it, and the answer of whoever may give it. */
const props = defineProps<{ said: Unexplained<RequestAsked> }>()
const student = useStudent()
const advisingChanges = useAdvisingChanges()
const staff = useStaff()
const college = useCollege()
const clock = useClock()
const asking = ref(false)
const reason = ref('')
const { busy, once } = useOnce()

const request = computed(() =>
  student.view?.requests.findLast(
    (one) =>
      one.kind === props.said.kind &&
      one.section === ('section' in props.said ? props.said.section : null) &&
      one.program === ('program' in props.said ? props.said.program : null) &&
      one.need === ('need' in props.said ? props.said.need : null) &&
      ('course' in props.said ? one.course === props.said.course : true)
  )
)
/** What it is about, in the names of buttons: several requests may stand on a page. */
const subject = computed(() => {
  const { said } = props
  return 'course' in said ? said.course : 'need' in said ? said.need : said.section
})
const sentence = computed(() => KIND_SENTENCES[props.said.kind])
const when = (at: number) => ago(at, clock.minute, college.zone)
const told = computed(() => {
  const { value } = request
  if (!value) return ''
  if (value.answer) {
    const { by, at, words, until } = value.answer
    const end = until === null ? '' : `, until ${deadlineText(until, college.zone)}`
    return `Asked ${sentence.value}: ${value.state} by ${by}, ${when(at)}${end}${words ? `: “${words}”` : '.'}`
  }
  return `Asked ${when(value.askedAt)} ${sentence.value}: “${value.reason}” Waits for ${DECIDER_WORDS[value.waitsFor]}.`
})
const mayAnswer = computed(
  () => request.value?.state === 'asked' && request.value.waitsFor === student.view?.relation
)
/** What was given here can be taken back here; a permission is by those who answer requests. */
const mayTakeBack = computed(
  () => props.said.kind === 'waiver' && request.value?.state === 'given' && student.mayGrant
)
const answer = (given: 'given' | 'declined') =>
  once(() => staff.answer([request.value!.id], { answer: given, until: null, words: null }))

async function settle(work: () => Promise<boolean>) {
  if (!(await once(work))) return
  asking.value = false
  reason.value = ''
}
const ask = () =>
  settle(() => advisingChanges.askFor({ ...props.said, reason: reason.value.trim() } as RequestAsked))
</script>

<template>
  <span v-if="told" class="said"
    >{{ told }}
    <v-text-btn
      v-if="student.own && request!.state === 'asked'"
      :disabled="busy"
      @click="settle(() => advisingChanges.withdrawRequest(request!.id))"
      >withdraw it</v-text-btn
    >
    <template v-if="mayAnswer">
      <v-btn size="small" :disabled="busy" :aria-label="`Grant it: ${subject}`" @click="answer('given')"
        >Grant it</v-btn
      >
      <v-btn size="small" :disabled="busy" :aria-label="`Decline: ${subject}`" @click="answer('declined')"
        >Decline</v-btn
      >
    </template>
    <v-btn
      v-if="mayTakeBack"
      size="small"
      :disabled="busy"
      :aria-label="`Take it back: ${subject}`"
      @click="answer('declined')"
      >Take it back</v-btn
    >
  </span>
  <template v-if="student.own && (!request || request.state === 'declined')">
    <form v-if="asking" class="said" @submit.prevent="ask" @keydown.esc.stop="asking = false">
      <v-text-field
        v-model="reason"
        :label="`why you ask ${sentence}`"
        minlength="5"
        maxlength="400"
        @vue:mounted="focusIn"
      />
      <v-btn type="submit" size="small" :disabled="busy || reason.trim().length < 5">Ask</v-btn>
      <v-text-btn type="button" @click="asking = false">Cancel</v-text-btn>
    </form>
    <v-text-btn v-else :aria-label="`Ask ${sentence}: ${subject}`" @click="asking = true"
      >ask {{ sentence }}</v-text-btn
    >
  </template>
</template>

<style scoped>
.said {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 10px;
}
</style>
