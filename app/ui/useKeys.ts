/** Keys that work everywhere: `g` then a letter goes to a place, `/` searches, `?` shows the keys. */
export function useKeys(
  places: () => { to: string; key: string }[],
  open: { search: () => void; help: () => void }
) {
  let going = false
  let timer: ReturnType<typeof setTimeout> | undefined

  function typing(event: KeyboardEvent): boolean {
    const target = event.target as HTMLElement
    return target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName)
  }

  function onKey(event: KeyboardEvent): void {
    if (typing(event) || event.ctrlKey || event.metaKey || event.altKey) return
    if (going) {
      going = false
      clearTimeout(timer)
      const place = places().find((p) => p.key === event.key)
      if (place) {
        event.preventDefault()
        void navigateTo(place.to)
      }
      return
    }
    if (event.key === '/') {
      event.preventDefault()
      open.search()
    } else if (event.key === '?') open.help()
    else if (event.key === 'g') {
      going = true
      timer = setTimeout(() => (going = false), 1500)
    }
  }

  onMounted(() => addEventListener('keydown', onKey))
  onUnmounted(() => removeEventListener('keydown', onKey))
}
