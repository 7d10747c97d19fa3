/** Exceptions an advisor has granted: a need or a condition that is not asked for, part of a need, or a course taken for one. */
import type { CourseCode } from '../ids'
import type { Instant } from '../time'
import type { Condition, Need, Program } from './program'

export interface ExceptionGrant {
  id: number
  kind: 'waiver' | 'substitution'
  program: string
  /** Of a need, or, for a waiver, of a condition. */
  need: string
  /** Of a waiver of part of a need: so many of its courses or credits; all of it without. */
  amount?: number | null
  /** The course of a substitution. */
  course: CourseCode | null
  reason: string
  by: string
  at: Instant
}

/**
 * The program as the exceptions leave it. A waived need takes no course and stands for no credits, one that is waived in
 * part asks for less and stands for as much less; a waived condition is met. What was granted for another program, or for
 * what is no longer there, changes nothing.
 */
export function withExceptions(program: Program, grants: readonly ExceptionGrant[]): Program {
  const own = grants.filter((grant) => grant.program === program.spec.code)
  if (!own.length) return program
  const needs = program.needs.map((need) => {
    const here = own.filter((grant) => grant.need === need.id)
    if (!here.length) return need
    const substituted = here.flatMap((grant) => (grant.course ? [{ course: grant.course, grant }] : []))
    return lessened(
      { ...need, substituted },
      here.filter(({ kind }) => kind === 'waiver')
    )
  })
  const conditions = program.conditions.map((condition): Condition => {
    const waived = own.find((grant) => grant.kind === 'waiver' && grant.need === condition.spec.id)
    return waived ? { ...condition, waived } : condition
  })
  return { ...program, needs, conditions }
}

/** A need without what is waived of it. */
function lessened(need: Need, waivers: readonly ExceptionGrant[]): Need {
  if (!waivers.length) return need
  const whole = waivers.find(({ amount }) => amount === null || amount === undefined)
  const amount = need.amount - waivers.reduce((sum, one) => sum + (one.amount ?? 0), 0)
  if (whole || amount <= 0) return { ...need, waived: whole ?? waivers.at(-1)! }
  return {
    ...need,
    amount,
    credits: need.measure === 'credits' ? amount : (need.credits * amount) / need.amount,
    including: need.including.map((part) => ({ ...part, amount: Math.min(part.amount, amount) })),
    ...(need.subjects !== undefined &&
      need.measure === 'courses' && { subjects: Math.min(need.subjects, amount) }),
    lessened: waivers
  }
}
