<script setup lang="ts">
import type { SectionCode } from '#core/ids'
import type { PermissionKind } from '#core/week'
import { KIND_SENTENCES } from '#shared/advising/permissions'
import { ago, deadlineText } from '#shared/when'

/** The permission that would settle a refusal: asked for in place, and what came of it. */
const props = defineProps<{ section: SectionCode; kind: PermissionKind }>()
const student = useStudent()
const changes = useChanges()
const college = useCollege()
const clock = useClock()
const asking = ref(false)
const reason = ref('')
const { busy, once } = useOnce()
const request = computed(() =>
  student.picture?.requests.findLast((one) => one.section === props.section && one.kind === props.kind)
)
const sentence = computed(() => KIND_SENTENCES[props.kind])
const when = (at: number) => ago(at, clock.minute, college.zone)
const said = computed(() => {
  const { value } = request
  if (!value) return ''
  if (value.answer) {
    const { by, at, words, until } = value.answer
    const end = until === null ? '' : `, until ${deadlineText(until, college.zone)}`
    return `Permission ${value.state} by ${by}, ${when(at)}${end}${words ? `: “${words}”` : '.'}`
  }
  const handed = value.forwarded ? `, handed on by ${value.forwarded.by}` : ''
  return `Permission asked ${when(value.askedAt)}${handed}: “${value.reason}”`
})

async function settle(work: () => Promise<boolean>) {
  if (!(await once(work))) return
  asking.value = false
  reason.value = ''
}
const ask = () =>
  settle(() =>
    changes.askPermission({ section: props.section, kind: props.kind, reason: reason.value.trim() })
  )
</script>

<template>
  <span v-if="said" class="said"
    >{{ said }}
    <v-text-btn
      v-if="student.own && request!.state === 'asked'"
      :disabled="busy"
      @click="settle(() => changes.withdrawPermission(request!.id))"
      >withdraw it</v-text-btn
    ></span
  >
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
    <v-text-btn v-else @click="asking = true">ask {{ sentence }}</v-text-btn>
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
