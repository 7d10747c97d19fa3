/** A term as it was signed off, and as it is now. */
import type { SignOffCondition } from '#core/findings'
import type { CourseCode, TermCode } from '#core/ids'
import { isStanding } from '#core/registration'
import type { Instant, IsoDate } from '#core/time'
import type { Section } from '#core/week'
import type { SignOffView } from './responses'
import type { StudentRecord } from '#shared/record/responses'

/** What an advisor says of a sign-off. */
export interface SignOffSaid {
  term: TermCode
  alternatives: CourseCode[]
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
  /** Taken in place of one that was signed off, as the advisor allowed. */
  inPlace: CourseCode[]
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
  const others = new Set(signOff.alternatives)
  const added = [...now].filter((course) => !then.has(course))
  const removed = [...then].filter((course) => !now.has(course))
  const inPlace = added.filter((course) => others.has(course))
  return {
    signOff,
    added: added.filter((course) => !others.has(course)),
    // Each alternative stands for one that is gone.
    removed: removed.slice(Math.min(removed.length, inPlace.length)),
    inPlace
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

export interface ComparedCourse {
  course: CourseCode
  signed: 'yes' | 'inPlace' | 'no'
  planned: boolean
  /** Numbers of sections, main ones first; empty where there are none. */
  picked: string
  held: string
}

/** A term course by course: signed off, planned, picked, registered. */
export function comparedTerm({
  signOff,
  planned,
  picked,
  held
}: {
  signOff: Pick<SignOffView, 'courses' | 'alternatives'> | undefined
  planned: readonly CourseCode[]
  picked: readonly Pick<Section, 'course' | 'number'>[]
  held: readonly Pick<Section, 'course' | 'number'>[]
}): ComparedCourse[] {
  const numbersOf = (sections: readonly Pick<Section, 'course' | 'number'>[], course: CourseCode) =>
    sections
      .filter((one) => one.course === course)
      .map((one) => one.number)
      .join(', ')
  const sections = [...picked, ...held].map((one) => one.course)
  const courses = new Set([...(signOff?.courses ?? []), ...planned, ...sections])
  return [...courses].sort().map((course) => ({
    course,
    signed: signOff?.courses.includes(course)
      ? 'yes'
      : signOff?.alternatives.includes(course)
        ? 'inPlace'
        : 'no',
    planned: planned.includes(course),
    picked: numbersOf(picked, course),
    held: numbersOf(held, course)
  }))
}
