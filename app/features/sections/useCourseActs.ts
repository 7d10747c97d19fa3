import { decideCourse } from '#core/registration'
import type { Course } from '#core/catalog'
import { optionsAmong, type Section } from '#core/week'
import { fitsInto, type ActedSection } from './useSectionActs'

/** The sections of one course in the term that is worked with, as the decision judges them. */
export function useCourseActs(course: () => Course) {
  const standing = useStanding()
  const offers = useOffers()
  const weeks = useWeeks()

  const term = computed(() => standing.term)
  const sections = computed(() =>
    (offers.byTerm.get(term.value?.code ?? '')?.sections ?? []).filter((one) => one.course === course().code)
  )
  const facts = useTermFacts(term, () => sections.value)
  const byCode = computed(() => {
    const { holidays } = standing
    const week = { week: weeks.all, hard: weeks.keepFree.filter((one) => one.hard), holidays }
    const mains = sections.value.filter((one) => one.parent === null)
    return new Map(
      mains.map((main): [string, ActedSection] => {
        const own = sections.value.filter((one) => one.code === main.code || one.parent === main.code)
        const options = optionsAmong(own, holidays)
        const refusals = facts.value ? decideCourse(facts.value, course().code, options).refusals : []
        const fits = options.some((option) => fitsInto(option, week))
        return [main.code, { main, course: course(), options, refusals, fits }]
      })
    )
  })
  /** A section as it can be acted upon; none in every other term. */
  function actedOf(main: Section, inTerm: string): ActedSection[] {
    const found = inTerm === term.value?.code ? byCode.value.get(main.code) : undefined
    return found ? [found] : []
  }
  return { actedOf, ...useSectionActs(term) }
}
