import type { Section } from '#core/week'
import type { TermView } from '#shared/catalog/responses'
import { termWeek } from '#shared/week/termWeek'
import { registrationFacts } from '#shared/registration/registering'

/** What the registration decision asks about the student in a term, as of their opening: what only waits for it is not in the way. */
export function useTermFacts(term: Ref<TermView | undefined>, offer: () => readonly Section[]) {
  const student = useStudent()
  const college = useCollege()
  const clock = useClock()
  const weeks = useWeeks()
  // The second does not matter.
  return computed(() => {
    const { view } = student
    if (!view || !college.catalogContext || !term.value) return undefined
    const { code } = term.value
    const opens = view.openings.find((one) => one.term === code)?.opens ?? clock.minute
    return registrationFacts(view, college.catalogContext, {
      term: code,
      now: Math.max(clock.minute, opens),
      heldSections: termWeek(view, code, undefined).held,
      exchanging: weeks.exchanging,
      offer: offer()
    })
  })
}
