import type { SectionQuestion } from '#core/search'
import type { Weekday } from '#core/time'
import type { SECTION_SORTS } from '#shared/sections/sectionQuery'
import { DAY_NAMES, hours } from '#shared/when'

export const SORT_WORDS: Record<(typeof SECTION_SORTS)[number], string> = {
  best: 'best first',
  course: 'by course',
  hour: 'by day and hour',
  seats: 'most seats left first',
  instructor: 'by instructor'
}

/** What each question asks for, after "without"; as it is said to the student. */
export const QUESTION_WORDS: Record<SectionQuestion, string> = {
  subjects: 'the subject',
  colleges: 'the college',
  campuses: 'the campus',
  buildings: 'the building',
  modes: 'the mode',
  sessions: 'the session',
  days: 'the days',
  after: 'the earliest start',
  before: 'the latest end',
  length: 'the length of class',
  patterns: 'the pattern of hours',
  seats: 'the seats',
  credits: 'the credits',
  categories: 'the category',
  blocks: 'the block',
  noFee: 'that it has no extra fee',
  noPermission: 'that it needs no permission',
  needs: 'the need',
  serves: 'that it counts toward two needs at once',
  takable: 'that you can take it',
  fits: 'that it fits your week'
}

/** A pattern of hours, as `135 570-645`: Mon Wed Fri 9:30–10:45 am. */
export function patternText(pattern: string): string {
  const [days, span] = pattern.split(' ')
  const [start, end] = span!.split('-').map(Number)
  return `${[...days!].map((one) => DAY_NAMES[Number(one) as Weekday]).join(' ')} ${hours(start!, end!)}`
}
