import { useDebounceFn, useEventListener } from '@vueuse/core'
import type { DraftPage } from '#shared/degree/drafts'

/** The text of a draft as it is written: kept on the server a moment after the last letter, one sending at a time. */
export function useDraftText(draft: DraftPage) {
  const text = ref(draft.text)
  const version = ref(draft.version)
  const kept = ref(draft.text)
  const problem = ref('')
  /** Somebody else has changed it: what is on screen is not sent over it. */
  const isBehind = ref(false)
  const isKept = computed(() => kept.value === text.value)

  const keep = joinedKeeping(async () => {
    if (isKept.value || isBehind.value) return
    const sent = text.value
    try {
      const answer = await api<{ version: number }>(`/api/programs/drafts/${draft.id}`, {
        method: 'POST',
        body: { text: sent, version: version.value }
      })
      version.value = answer.version
      kept.value = sent
      problem.value = ''
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      problem.value = error.message
      isBehind.value = error.problem.code === 'changedMeanwhile'
    }
  })
  const soon = useDebounceFn(keep, 1200)
  watch(text, () => void soon())
  useEventListener(window, 'beforeunload', (event) => {
    if (!isKept.value) event.preventDefault()
  })
  return { text, version, isKept, isBehind, problem, keep }
}

/** One after another; what is asked for meanwhile is done once more after it. */
function joinedKeeping(work: () => Promise<void>): () => Promise<void> {
  let last = Promise.resolve()
  return () => (last = last.then(work))
}
