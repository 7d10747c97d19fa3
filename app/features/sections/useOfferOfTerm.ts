/** The term that a search is about, and its sections, read when it is first looked at; `anew` where it is known too. */
export function useOfferOfTerm(asked: () => string | null, anew = false) {
  const college = useCollege()
  const finder = useFinder()
  const offers = useOffers()
  const term = computed(() =>
    college.catalogContext?.terms.find((one) => one.code === (asked() ?? finder.usual))
  )
  watch(term, (now) => now && finder.loadOffer(now.code, anew), { immediate: true })
  const offer = computed(() => (term.value ? offers.byTerm.get(term.value.code) : undefined))
  return { term, offer }
}
