/** What was just done or has happened, said once at the foot of the page, with what can be done about it. */
export const useNotice = defineStore('notice', () => {
  const shown = shallowRef<{ text: string; actions: readonly NoticeAction[] }>()

  function say(text: string, ...actions: readonly NoticeAction[]): void {
    shown.value = { text, actions }
  }
  function close(): void {
    shown.value = undefined
  }
  return { shown, say, close }
})

interface NoticeAction {
  title: string
  act: () => unknown
}
