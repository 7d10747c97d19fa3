import type { Course } from '#core/catalog'
import { servingOf, type HeldAs, type Serving } from '#core/degree'
import type { FoundNeed } from './useOpenNeeds'

/** What a course would do for the student, and the open needs that it would serve or could. */
export interface Served {
  serving: Serving
  needs: FoundNeed[]
  /** How many of them at once. */
  atOnce: number
}

/** Answers for courses, each once; a section may be held in ways that count elsewhere. */
export function useServing() {
  const student = useStudent()
  const college = useCollege()
  const open = useOpenNeeds()
  return computed(() => {
    const { reading } = student
    const { catalogContext } = college
    const byResult = new Map(open.value.map((one) => [one.result, one]))
    const known = new Map<string, Served>()
    return (course: Course, as?: HeldAs): Served => {
      const key = [course.code, as?.campus, as?.mode, ...(as?.categories ?? [])].join()
      let found = known.get(key)
      if (!found) known.set(key, (found = ask(course, as)))
      return found
    }
    function ask(course: Course, as?: HeldAs): Served {
      if (!reading || !catalogContext) return { serving: { kind: 'nothing' }, needs: [], atOnce: 0 }
      const serving = servingOf(
        course,
        { audits: reading.audits, attempts: reading.attempts, catalog: catalogContext.catalog },
        as
      )
      const places = serving.kind === 'counts' ? serving.places : []
      return {
        serving,
        needs: places.flat().flatMap((one) => byResult.get(one) ?? []),
        atOnce: places.length
      }
    }
  })
}
