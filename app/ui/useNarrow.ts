/** Whether the screen is a phone's. */
export function useNarrow() {
  const query = matchMedia('(max-width: 720px)')
  const narrow = ref(query.matches)
  const update = () => (narrow.value = query.matches)
  onMounted(() => query.addEventListener('change', update))
  onUnmounted(() => query.removeEventListener('change', update))
  return narrow
}
