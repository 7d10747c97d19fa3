/** Sections of the coming term's courses, as their seats stand; the seats follow the news. */
export function useOffer(courses: Ref<readonly string[]>) {
  const student = useStudent()
  const college = useCollege()
  const offers = useOffers()
  const failure = ref<string>()

  const offer = computed(() => offers.byTerm.get(student.coming?.code ?? ''))
  const wanted = computed(() => new Set(courses.value))
  const sections = computed(() => (offer.value?.sections ?? []).filter((one) => wanted.value.has(one.course)))
  const loaded = computed(() => offer.value !== undefined || !student.coming)
  const readAt = computed(() => offer.value?.readAt ?? 0)

  /** Reads the term where it is not known; `anew` its seats as well where it is. */
  async function refresh(anew = true): Promise<void> {
    if (!student.coming) return
    try {
      await offers.load(student.coming, college.zone, anew)
      failure.value = undefined
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      failure.value = error.message
    }
  }
  watch(
    () => student.coming?.code,
    () => refresh(false),
    { immediate: true }
  )
  return { sections, failure, loaded, readAt, refresh }
}
