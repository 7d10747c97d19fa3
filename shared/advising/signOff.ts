/** A term as it was signed off, and as it is now. */
import type { CourseCode, TermCode } from '#core/ids'
import type { SignOffView } from './responses'
import type { StudentRecord } from '#shared/record/responses'

export interface SinceSignOff {
  signOff: SignOffView
  added: CourseCode[]
  removed: CourseCode[]
}

/** What has changed in a term since it was signed off: planned and registered courses together; undefined where it is not. */
export function sinceSignOff(
  { signOffs, route, held }: Pick<StudentRecord, 'signOffs' | 'route' | 'held'>,
  term: TermCode | undefined
): SinceSignOff | undefined {
  const signOff = signOffs.find((one) => one.term === term)
  if (!signOff) return undefined
  const now = new Set([...route.courses, ...held].filter((one) => one.term === term).map((one) => one.course))
  const then = new Set(signOff.courses)
  return {
    signOff,
    added: [...now].filter((course) => !then.has(course)),
    removed: [...then].filter((course) => !now.has(course))
  }
}

/** Whether anything has. */
export function hasChanged(since: SinceSignOff | undefined): boolean {
  return since !== undefined && since.added.length + since.removed.length > 0
}

/** `STAT 250 added, MATH 231 taken out`; empty where nothing has changed. */
export function sinceText({ added, removed }: SinceSignOff): string {
  return [...added.map((one) => `${one} added`), ...removed.map((one) => `${one} taken out`)].join(', ')
}
