import type { Course } from '#core/catalog'
import { takes, type Audit, type HeldAs, type NeedResult } from '#core/degree'

export interface FoundNeed {
  key: string
  title: string
  audit: Audit
  area: string
  /** Of a free choice, which takes what nothing else wants. */
  free: boolean
  result: NeedResult
}

/** Needs that are still open, of every program. */
export function useOpenNeeds() {
  const student = useStudent()
  return computed((): FoundNeed[] =>
    (student.reading?.audits ?? []).flatMap((audit) =>
      audit.areas.flatMap(({ area, needs }) =>
        needs
          .filter((result) => result.state === 'needed')
          .map((result) => ({
            key: `${audit.program.spec.code} ${result.need.id}`,
            title: result.need.title,
            audit,
            area: area.id,
            free: area.free ?? false,
            result
          }))
      )
    )
  )
}

/** The open needs that a course would serve. */
export function needsServed(needs: readonly FoundNeed[], course: Course, as?: HeldAs): FoundNeed[] {
  const every = needs.filter(({ result }) => takes(result.need, course, as))
  // Nearly everything may be chosen freely; that is worth saying only where nothing else is.
  const particular = every.filter((need) => !need.free)
  return particular.length ? particular : every
}
