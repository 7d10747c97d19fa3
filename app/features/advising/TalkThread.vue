<script setup lang="ts">
import { useElementVisibility } from '@vueuse/core'
import type { Named, Thread } from '#shared/advising/talk'
import { ago } from '#shared/when'
import { count } from '#shared/words'

/** A matter that is talked about: what was said, and the answer. */
const props = defineProps<{ thread: Thread }>()
const talk = useTalk()
const advisingChanges = useAdvisingChanges()
const college = useCollege()
const clock = useClock()
const answering = ref(false)
/** A settled matter is folded to a line. */
const open = ref(false)
const subject = computed(() => talk.titleOf(props.thread.about))
const isFolded = computed(() => props.thread.settled !== null && !open.value)
const last = computed(() => props.thread.remarks.at(-1)!)
const when = (at: number) => ago(at, clock.minute, college.zone)

async function answer(text: string, named: Named[]): Promise<boolean> {
  const isMade = await advisingChanges.remark({ to: 'thread', thread: props.thread.id, text, named })
  if (isMade) answering.value = false
  return isMade
}
/** What is in view for a moment counts as read. */
const place = useTemplateRef<HTMLElement>('place')
const isInView = useElementVisibility(place, { threshold: 0.6 })
let timer: ReturnType<typeof setTimeout> | undefined
watch(
  () => isInView.value && !isFolded.value && props.thread.unread > 0 && last.value.id,
  (id) => {
    clearTimeout(timer)
    if (id) timer = setTimeout(() => void advisingChanges.readThread(props.thread.id, id), 2000)
  },
  { immediate: true }
)
onUnmounted(() => clearTimeout(timer))
</script>

<template>
  <article
    :id="`thread-${thread.id}`"
    ref="place"
    class="thread"
    :aria-label="`About ${subject}`"
    tabindex="-1"
  >
    <header>
      <span v-if="thread.number" class="pin" aria-hidden="true">{{ thread.number }}</span>
      <strong>{{ subject }}</strong>
      <span v-if="thread.unread" class="fresh">{{ thread.unread }} new</span>
      <v-text-btn
        v-if="thread.settled"
        class="push"
        :aria-expanded="open"
        :aria-label="`${open ? 'Fold' : 'Unfold'} what was said about ${subject}`"
        @click="open = !open"
        >settled by {{ thread.settled.by }}, {{ count(thread.remarks.length, 'remark') }}</v-text-btn
      >
    </header>
    <template v-if="!isFolded">
      <p v-for="one in thread.remarks" :key="one.id">
        <strong class="by">{{ one.own ? 'You' : one.by }}</strong>
        <span class="quiet small">{{ when(one.at) }}</span>
        <span v-if="one.to.length" class="small" :class="one.to.some((to) => to.you) ? 'fresh' : 'quiet'"
          >for {{ one.to.map((to) => (to.you ? 'you' : to.name)).join(', ') }}</span
        >
        <span class="said">{{ one.text }}</span>
      </p>
      <RemarkForm
        v-if="answering"
        :label="`Answer about ${subject}`"
        :say="answer"
        :advisors-only="thread.advisorsOnly"
        @cancel="answering = false"
      />
      <div v-else class="acts">
        <v-text-btn :aria-label="`Answer about ${subject}`" @click="answering = true">Answer</v-text-btn>
        <v-text-btn
          :aria-label="`${thread.settled ? 'Open again' : 'Settle'}: ${subject}`"
          @click="advisingChanges.settleThread(thread.id, !thread.settled)"
          >{{ thread.settled ? 'Open again' : 'Settled' }}</v-text-btn
        >
      </div>
    </template>
  </article>
</template>

<style scoped>
.thread {
  padding: 8px 0;
  border-top: 1px solid var(--rule);
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 8px;
}
.push {
  margin-left: auto;
}
.pin {
  display: inline-grid;
  place-items: center;
  min-width: 20px;
  height: 20px;
  border: 1.5px solid currentcolor;
  border-radius: 5px;
  color: var(--dusk-text, var(--dusk));
  font-weight: 700;
  font-size: 12px;
}
.fresh {
  color: var(--ember);
  font-weight: 700;
  font-size: 12.5px;
}
p {
  margin: 4px 0 0;
}
.by {
  margin-right: 6px;
}
.said {
  display: block;
  white-space: pre-line;
  overflow-wrap: anywhere;
}
.acts {
  display: flex;
  gap: 14px;
  margin-top: 4px;
}
</style>
