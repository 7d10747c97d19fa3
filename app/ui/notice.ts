/** What was just done or has happened, said once at the foot of the page, with what can be done about it. */
export const useNotice = defineStore('notice', () => {
  const shown = shallowRef<{ text: string; actions: readonly NoticeAction[] }>()
  /** What can be done about it now: an offer is gone once it would act on something else than it speaks of. */
  const offers = computed(() => shown.value?.actions.filter(({ holds }) => holds?.() ?? true) ?? [])

  function say(text: string, ...actions: readonly NoticeAction[]): void {
    shown.value = { text, actions }
  }
  function close(): void {
    shown.value = undefined
  }
  return { shown, offers, say, close }
})

export interface NoticeAction {
  title: string
  act: () => unknown
  /** Whether what it speaks of still stands as it was then; always, where it says nothing. */
  holds?: () => boolean
}
