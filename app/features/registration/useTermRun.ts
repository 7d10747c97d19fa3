import { phaseOf } from '#core/catalog'
import { dayNumber } from '#core/time'

/** How far the term that is running has come, 0 to 1. */
export function useTermRun() {
  const college = useCollege()
  return computed(() => {
    const term = college.catalogContext?.terms.find((t) => phaseOf(t, college.today) === 'current')
    if (!term) return 0
    return (dayNumber(college.today) - dayNumber(term.start)) / (dayNumber(term.end) - dayNumber(term.start))
  })
}
