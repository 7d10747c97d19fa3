import type { TermCode } from '#core/ids'
import { officeTerm } from '#core/calendar'
import type { CourseSearch } from '#shared/catalog/courseSearch'
import { momentOf } from '#shared/catalog/context'

/** The index of words, made anew with descriptions and with the sections of a term once they are there. */
function useIndex(
  isWanted: Ref<boolean>,
  descriptions: Ref<Record<string, string> | undefined>,
  usual: Ref<TermCode | undefined>
) {
  const college = useCollege()
  const offers = useOffers()
  const index = shallowRef<CourseSearch>()
  const offered = computed(() => usual.value && offers.byTerm.get(usual.value)?.what)
  let making = 0
  watch(
    [() => college.catalogContext, descriptions, offered, isWanted],
    async ([catalogContext, described, sections, wanted]) => {
      if (!catalogContext || !wanted) return
      const mine = ++making
      const { CourseSearch, wordsOfOffer } = await import('#shared/catalog/courseSearch')
      const subjects = new Map(college.view?.subjects.map((one) => [one.code, one.name]))
      const words = wordsOfOffer(sections ?? [])
      const made = await CourseSearch.make(
        catalogContext.catalog.courses,
        ({ code }) => ({
          ...words.get(code),
          subject: subjects.get(code.split(' ')[0]!),
          description: described?.[code]
        }),
        () => new Promise((resolve) => setTimeout(resolve))
      )
      if (mine === making) index.value = made
    },
    { immediate: true }
  )
  return index
}

/** Finding courses: the index of words, and what is offered in a term, read when first asked for. */
export const useFinder = defineStore('finder', () => {
  const college = useCollege()
  const student = useStudent()
  const offers = useOffers()

  const descriptions = shallowRef<Record<string, string>>()
  const failure = ref<string>()

  /** The term that a search is about when none is named. */
  const usual = computed(
    () =>
      student.coming?.code ??
      officeTerm(college.catalogContext?.terms ?? [], momentOf(college.stage.at, college.zone))?.code
  )

  async function loadDescriptions(): Promise<void> {
    if (descriptions.value) return
    await attempt(async () => {
      descriptions.value = await api<Record<string, string>>('/api/catalog/descriptions')
    })
  }

  /** Reads a term's sections. */
  async function loadOffer(term: TermCode, anew = false): Promise<void> {
    const known = college.catalogContext?.terms.find((one) => one.code === term)
    if (known?.published) await attempt(() => offers.load(known, college.zone, anew))
  }

  async function attempt(work: () => Promise<void>): Promise<void> {
    try {
      await work()
      failure.value = undefined
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      failure.value = error.message
    }
  }

  /** Somebody is about to search: until then nothing is made ready. */
  const isWanted = ref(false)
  /** Makes searching ready, and then for descriptions, topics and instructors as well. */
  async function warm(): Promise<void> {
    isWanted.value = true
    const term = usual.value
    await Promise.all([loadDescriptions(), term && loadOffer(term)])
  }

  return { index: useIndex(isWanted, descriptions, usual), usual, failure, warm, loadOffer }
})
