/** Exceptions an advisor has granted: a need that is not asked for, or a course taken for one. */
import type { CourseCode } from '../ids'
import type { Instant } from '../time'
import type { Program } from './program'

export interface ExceptionGrant {
  id: number
  kind: 'waiver' | 'substitution'
  program: string
  need: string
  /** The course of a substitution. */
  course: CourseCode | null
  reason: string
  by: string
  at: Instant
}

/**
 * The program as the exceptions leave it. A waived need takes no course and stands for no credits; what
 * was granted for another program, or for a need that is no longer there, changes nothing.
 */
export function withExceptions(program: Program, grants: readonly ExceptionGrant[]): Program {
  const own = grants.filter((grant) => grant.program === program.spec.code)
  if (!own.length) return program
  const needs = program.needs.map((need) => {
    const here = own.filter((grant) => grant.need === need.id)
    if (!here.length) return need
    const waived = here.find((grant) => grant.kind === 'waiver')
    const substituted = here.flatMap((grant) => (grant.course ? [{ course: grant.course, grant }] : []))
    return { ...need, waived, substituted }
  })
  return { ...program, needs }
}
