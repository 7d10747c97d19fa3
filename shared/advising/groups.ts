/** Planning with a group: the same is offered to several students, and each takes it into their own route, or not. */
import type { CourseCode, StudentId, TermCode } from '#core/ids'
import type { Instant, IsoDate } from '#core/time'
import type { SUGGESTION_STATES } from './suggestions'

type SuggestionState = (typeof SUGGESTION_STATES)[number]

export interface GroupMember {
  id: StudentId
  name: string
  /** How the offered courses stand; null where none were offered to them. */
  courses: SuggestionState | null
  /** Whether the task is done; null without one, or where it was taken out. */
  done: boolean | null
  /** Courses they have or plan already. */
  without: string[]
}

export interface GroupSession {
  id: number
  title: string
  term: TermCode
  courses: CourseCode[]
  /** What the program of each suggests for the term is offered too. */
  sequence: boolean
  task: { what: string; due: IsoDate | null } | null
  madeAt: Instant
  /** By name; those who are not the advisor's any more are left out. */
  members: GroupMember[]
}

/** How many have answered, and have done what was asked. */
export function standOf({ members }: Pick<GroupSession, 'members'>): {
  offered: number
  accepted: number
  declined: number
  asked: number
  done: number
} {
  const of = (state: SuggestionState) => members.filter((one) => one.courses === state).length
  return {
    offered: members.filter((one) => one.courses !== null).length,
    accepted: of('accepted'),
    declined: of('declined'),
    asked: members.filter((one) => one.done !== null).length,
    done: members.filter((one) => one.done).length
  }
}
