import type { Section } from '#core/week'

/** Sections of the coming term's courses, as the seats stood when they were read. */
export function useOffer(courses: Ref<string[]>) {
  const student = useStudent()
  const clock = useClock()
  const sections = shallowRef<Section[]>([])
  const failure = ref<string>()
  const loaded = ref(false)
  const readAt = ref(0)

  let asked = 0
  async function refresh(): Promise<void> {
    const term = student.coming?.code
    if (!term || !courses.value.length) {
      sections.value = []
      loaded.value = true
      return
    }
    const mine = ++asked
    try {
      const found = await api<Section[]>(`/api/terms/${term}/offer`, {
        query: { courses: courses.value.join() }
      })
      // A later question may have been answered before this one.
      if (mine !== asked) return
      sections.value = found
      failure.value = undefined
      loaded.value = true
      readAt.value = clock.now
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      failure.value = error.message
    }
  }
  watch([() => student.coming?.code, () => courses.value.join()], refresh, { immediate: true })
  return { sections, failure, loaded, readAt, refresh }
}
