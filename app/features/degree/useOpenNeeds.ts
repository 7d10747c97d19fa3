import type { Audit, NeedResult } from '#core/degree'

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
