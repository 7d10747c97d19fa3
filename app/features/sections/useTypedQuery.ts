import { readSectionQuery, sectionAddress, type SectionQuery } from '#shared/sections/sectionQuery'

const REST_MS = 250

/** What is asked of the sections of a term: what is typed is searched at once; the address follows when the hand rests. */
export function useTypedQuery() {
  const route = useRoute()
  const text = ref(readSectionQuery(route.query).text)
  const asked = computed(() => readSectionQuery(route.query))
  const query = computed(() => ({ ...asked.value, text: text.value }))
  /** What the address was last told; when it says so, something newer may have been typed. */
  let told = text.value.trim()
  function change(next: SectionQuery) {
    told = next.text.trim()
    return navigateTo({ query: sectionAddress(next) }, { replace: true })
  }
  watch(
    () => asked.value.text,
    (now) => now.trim() !== told && (text.value = told = now.trim())
  )
  let rest: ReturnType<typeof setTimeout> | undefined
  watch(text, () => {
    clearTimeout(rest)
    rest = setTimeout(() => change(query.value), REST_MS)
  })
  onUnmounted(() => clearTimeout(rest))

  return { text, query, change }
}
