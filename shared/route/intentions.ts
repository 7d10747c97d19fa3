/** What a student means to take in a term, handed in before there are sections of it, and what became of it. */
import type { CourseCode, TermCode } from '#core/ids'
import type { Instant } from '#core/time'
import type { TermView } from '#shared/catalog/responses'
import type { StudentRecord } from '#shared/record/responses'

export interface Intentions {
  term: TermCode
  at: Instant
  courses: CourseCode[]
}

/** Whether they can be handed in at an instant. */
export const takesIntentions = (
  { intentionsDueAt, published }: Pick<TermView, 'intentionsDueAt' | 'published'>,
  now: Instant
): boolean => intentionsDueAt !== null && !published && now < intentionsDueAt

/** How what is planned for the term differs from what was handed in. */
export function sinceHandedIn(
  { courses }: Pick<Intentions, 'courses'>,
  planned: readonly CourseCode[]
): { added: CourseCode[]; removed: CourseCode[] } {
  return {
    added: planned.filter((one) => !courses.includes(one)),
    removed: courses.filter((one) => !planned.includes(one))
  }
}

/** `placed`: by an office. `unknown`: the sections are not published yet. */
export type Became = 'registered' | 'placed' | 'inLine' | 'offered' | 'notOffered' | 'unknown'

export const BECAME_WORDS: Record<Became, string> = {
  registered: 'you hold a seat',
  placed: 'an office placed you in it',
  inLine: 'you stand in line',
  offered: 'it is offered; no seat yet',
  notOffered: 'it is not offered in this term',
  unknown: 'sections are not published yet'
}

/** @param running courses with sections in the term */
export function whatBecame(
  course: CourseCode,
  { code, published }: Pick<TermView, 'code' | 'published'>,
  running: ReadonlySet<string>,
  { held, waiting }: Pick<StudentRecord, 'held' | 'waiting'>
): Became {
  const seat = held.find((one) => one.term === code && one.course === course)
  if (seat) return seat.placedByOffice ? 'placed' : 'registered'
  if (waiting.some((one) => one.term === code && one.course === course)) return 'inLine'
  if (!published) return 'unknown'
  return running.has(course) ? 'offered' : 'notOffered'
}
