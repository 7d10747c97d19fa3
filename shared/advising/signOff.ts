/** A term as it was signed off, and as it is now. */
import type { SignOffCondition } from '#core/findings'
import type { CourseCode, TermCode } from '#core/ids'
import { isStanding } from '#core/registration'
import type { Instant, IsoDate } from '#core/time'
import type { SignOffView } from './responses'
import type { StudentRecord } from '#shared/record/responses'

/** What an advisor says of a sign-off. */
export interface SignOffSaid {
  term: TermCode
  creditsLeast: number
  creditsMost: number
  conditions: SignOffCondition[]
  /** The last day on which it stands; null for no end. */
  until: IsoDate | null
}

export interface SinceSignOff {
  signOff: SignOffView
  added: CourseCode[]
  removed: CourseCode[]
}

/** What has changed in a term since it was signed off: planned and registered courses together; undefined where it is not, or no more. */
export function sinceSignOff(
  { signOffs, route, held }: Pick<StudentRecord, 'signOffs' | 'route' | 'held'>,
  term: TermCode | undefined,
  at: Instant
): SinceSignOff | undefined {
  const signOff = signOffs.find((one) => one.term === term && isStanding(one, at))
  if (!signOff) return undefined
  const now = new Set([...route.courses, ...held].filter((one) => one.term === term).map((one) => one.course))
  const then = new Set(signOff.courses)
  return {
    signOff,
    added: [...now].filter((course) => !then.has(course)),
    removed: [...then].filter((course) => !now.has(course))
  }
}

/** The range of credits that a sign-off has unless the advisor says another one: what is planned, a course less or more. */
export function rangeOf(
  planned: readonly { credits: number }[],
  most: number
): { least: number; most: number } {
  const sum = planned.reduce((total, one) => total + one.credits, 0)
  const course = Math.max(0, ...planned.map((one) => one.credits))
  return { least: Math.max(0, sum - course), most: Math.min(most, sum + course) }
}

/** Whether anything has. */
export function hasChanged(since: SinceSignOff | undefined): boolean {
  return since !== undefined && since.added.length + since.removed.length > 0
}

/** `STAT 250 added, MATH 231 taken out`; empty where nothing has changed. */
export function sinceText({ added, removed }: SinceSignOff): string {
  return [...added.map((one) => `${one} added`), ...removed.map((one) => `${one} taken out`)].join(', ')
}
