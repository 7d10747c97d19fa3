/** The numbers that rows get: the position of each in its list, counted from 1. */
import type { Database } from '#server/db/connect'
import { courses, programs } from '../catalog'
import { BLOCKS, campuses, CATEGORIES, rooms, sessionsOf, SUBJECTS, terms } from '../college'
import { advisors } from '../staff'

/** Adds rows to a table. */
export type Put = (table: Parameters<Database['insert']>[0], rows: object[]) => Promise<void>

function ids<T>(list: readonly T[], key: (item: T) => string): Map<string, number> {
  return new Map(list.map((item, i) => [key(item), i + 1]))
}

export function numbersOf(accounts: readonly { signIn: string }[]) {
  const buildings = [...new Map(rooms.map((r) => [`${r.campus} ${r.building}`, r])).values()]
  const subjects = Object.entries(SUBJECTS)
  const sessions = terms.flatMap((term) =>
    sessionsOf(term).map((session) => ({ ...session, term: term.code }))
  )
  return {
    buildings,
    subjects,
    sessions,
    campusId: ids(campuses, (c) => c.code),
    buildingId: ids(buildings, (b) => `${b.campus} ${b.building}`),
    termId: ids(terms, (x) => x.code),
    sessionId: ids(sessions, (s) => `${s.term} ${s.code}`),
    subjectId: ids(subjects, ([code]) => code),
    courseId: ids(courses, (c) => c.code),
    categoryId: ids(CATEGORIES, (c) => c.code),
    programId: ids(programs, (p) => p.code),
    blockId: ids(BLOCKS, (b) => b.code),
    accountId: ids(accounts, (a) => a.signIn),
    advisorId: ids(advisors, (a) => a.signIn)
  }
}
export type Numbers = ReturnType<typeof numbersOf>
