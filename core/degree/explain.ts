/**
 * Why a course counts where it does: where else it could, and what moving it would cost.
 *
 * Each other need that accepts the course is tried: the best reading in which the course counts there
 * is found anew and compared with the present one, so what is told is what would happen.
 */
import type { Catalog } from '../catalog'
import { auditAll, type Audit } from './audit'
import type { NeedResult } from './needResult'
import { fit } from './fit'
import type { Need, Program } from './program'
import type { Attempt, Attempts } from './attempt'

export interface Elsewhere {
  program: Program
  need: Need
  /** Needs met now that would be open, and open ones that would be met. */
  opens: Need[]
  closes: Need[]
  /** Needs that no course left could complete then, and could now. */
  beyond: Need[]
  /** Other courses that would count nowhere, and such as would count then. */
  leaves: Attempt[]
  joins: Attempt[]
  /** The course cannot be made to count there: the need is out of reach even with it. */
  counts: boolean
}

export interface Explanation {
  attempt: Attempt
  here: { program: Program; result: NeedResult }[]
  elsewhere: Elsewhere[]
}

/** @throws RangeError when no attempt has that key. */
export function explain(
  key: string,
  audits: readonly Audit[],
  attempts: Attempts,
  catalog: Catalog
): Explanation {
  const attempt = attempts.counted.find((one) => one.key === key)
  if (!attempt) throw new RangeError(`no course is taken under ${key}`)
  const programs = audits.map((audit) => audit.program)
  const here = audits.flatMap((audit) =>
    needsOf(audit)
      .filter((result) => counts(result, key))
      .map((result) => ({ program: audit.program, result }))
  )
  const elsewhere = programs.flatMap((program) =>
    program.needs
      .filter((need) => fit(need, attempt, catalog) === 'fits')
      .filter((need) => !here.some((one) => one.program === program && one.result.need.id === need.id))
      .map((need): Elsewhere => {
        const pin = { attempt: key, program: program.spec.code, need: need.id }
        const other = auditAll(programs, attempts, catalog, { pin })
        const there = other.find((audit) => audit.program === program)!
        return {
          program,
          need,
          opens: changed(audits, other),
          closes: changed(other, audits),
          beyond: beyondReach(audits, other),
          leaves: missing(audits, other, attempt),
          joins: missing(other, audits, attempt),
          counts: needsOf(there).some((result) => result.need.id === need.id && counts(result, key))
        }
      })
  )
  return { attempt, here, elsewhere }
}

const needsOf = (audit: Audit) => audit.areas.flatMap((area) => area.needs)
/** By key: a part of an earlier reading may stand for one that says the same. */
const counts = (result: NeedResult, key: string) => result.evidence.some((one) => one.key === key)

/** Needs that are met in one reading and open, or not asked for, in the other. */
function changed(one: readonly Audit[], other: readonly Audit[]): Need[] {
  return one.flatMap((audit, i) => {
    const met = new Set(
      needsOf(other[i]!).flatMap((result) => (result.state === 'needed' ? [] : [result.need.id]))
    )
    return needsOf(audit)
      .filter((result) => result.state !== 'needed' && !met.has(result.need.id))
      .map((result) => result.need)
  })
}

/** Needs beyond reach in the other reading that are not so in the first. */
function beyondReach(one: readonly Audit[], other: readonly Audit[]): Need[] {
  return other.flatMap((audit, i) => {
    const already = new Set(needsOf(one[i]!).flatMap((result) => (result.beyond ? [result.need.id] : [])))
    return needsOf(audit)
      .filter((result) => result.beyond && !already.has(result.need.id))
      .map((result) => result.need)
  })
}

/** Courses that count in one reading and nowhere in the other. */
function missing(one: readonly Audit[], other: readonly Audit[], apart: Attempt): Attempt[] {
  const counting = (audits: readonly Audit[]) => {
    const all = audits.flatMap((audit) => needsOf(audit).flatMap((result) => result.evidence))
    return new Map(all.map((attempt) => [attempt.key, attempt]))
  }
  const then = counting(other)
  return [...counting(one).values()].filter(({ key }) => key !== apart.key && !then.has(key))
}
