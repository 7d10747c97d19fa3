/** What texts of guidance may be about, in words: for whoever writes them. */
import type { Finding, Refusal } from '#core/findings'
import type { GuidanceAbout } from './guidance'

/** Where each kind is read. */
export const ABOUT_WORDS: Record<GuidanceAbout, string> = {
  everybody: 'everybody, on Today',
  program: 'a program, on Degree',
  term: 'a term, on Register',
  course: 'a course, on its page',
  finding: 'what is found wrong, beside it'
}

type Found = Finding['code'] | Refusal['code']
/** What checks of a route and of a run find, as far as there is something to do about it. */
export const FOUND_WORDS = {
  prerequisite: 'a prerequisite that is missing',
  corequisite: 'a corequisite that is missing',
  notOffered: 'a course that does not run then',
  noWeek: 'courses that fit into no week',
  load: 'more credits than a term takes',
  lightLoad: 'fewer credits than are wanted',
  late: 'a finish after the aim',
  away: 'a course in a term spent elsewhere',
  needLeft: 'needs that nothing is planned for',
  hold: 'a hold',
  signOff: 'a sign-off that is missing',
  outsideSignOff: 'a course that was not signed off',
  clash: 'two courses at the same hours',
  full: 'a section that is full',
  reserved: 'seats that are kept for others',
  permission: 'a section that needs permission',
  notForYou: 'a section that is for others'
} as const satisfies Partial<Record<Found, string>>
export type FoundKind = keyof typeof FOUND_WORDS
