import type { TermCode } from '#core/ids'
import { phaseOf } from '#core/catalog'
import type { Section } from '#core/week'
import { CourseSearch, wordsOfOffer } from '#wire/courseSearch'

/** Finding courses: the index of words, and what is offered in a term, read when first asked for. */
export const useFinder = defineStore('finder', () => {
  const college = useCollege()
  const student = useStudent()
  const clock = useClock()

  const descriptions = shallowRef<Record<string, string>>()
  const offers = shallowRef<ReadonlyMap<string, { sections: readonly Section[]; readAt: number }>>(new Map())
  const failure = ref<string>()

  /** The term that a search is about when none is named. */
  const usual = computed(
    () => student.coming?.code ?? college.openTerms.at(-1)?.code ?? college.shelf?.terms.at(-1)?.code
  )

  async function loadDescriptions(): Promise<void> {
    if (descriptions.value) return
    await attempt(async () => {
      descriptions.value = await api<Record<string, string>>('/api/catalog/descriptions')
    })
  }

  /** Reads a term's sections; those of a term that is over do not change any more. */
  async function loadOffer(term: TermCode, anew = false): Promise<void> {
    const known = college.shelf?.terms.find((one) => one.code === term)
    if (!known?.published) return
    if (offers.value.has(term) && (!anew || phaseOf(known, college.today) === 'past')) return
    await attempt(async () => {
      const sections = await api<Section[]>(`/api/terms/${term}/offer`)
      offers.value = new Map(offers.value).set(term, { sections, readAt: clock.now })
    })
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

  /** Makes searching ready for descriptions, topics and instructors. */
  async function warm(): Promise<void> {
    const term = usual.value
    await Promise.all([loadDescriptions(), term && loadOffer(term)])
  }

  const index = shallowRef<CourseSearch>()
  const offered = computed(() => usual.value && offers.value.get(usual.value)?.sections)
  let making = 0
  watch(
    [() => college.shelf, descriptions, offered],
    async ([shelf, described, sections]) => {
      if (!shelf) return
      const mine = ++making
      const subjects = new Map(college.picture?.subjects.map((one) => [one.code, one.name]))
      const words = wordsOfOffer(sections ?? [])
      const made = await CourseSearch.make(
        shelf.catalog.courses,
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

  return { index, usual, offers, failure, warm, loadOffer }
})
