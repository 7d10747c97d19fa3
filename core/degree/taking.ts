/**
 * Takings: every course a student has taken, is taking, holds a seat in or plans, each once, with
 * how firm it is. Everything that counts courses starts from this one list.
 */
import type { Catalog, Term } from '../catalog'
import type { CourseCode, SectionCode, TermCode } from '../ids'
import { gradeMeaning } from './grades'

/** From the firmest to the softest. A picked or waitlisted course is planned, with a detail. */
export const FIRMNESS = ['earned', 'underWay', 'registered', 'planned'] as const
export type Firmness = (typeof FIRMNESS)[number]

export interface RecordEntry {
  course: CourseCode
  term: TermCode | null
  credits: number
  /** Null while the course is under way. */
  grade: string | null
  origin: 'here' | 'transfer' | 'test'
  /** For a course under way: the term in which it runs. */
  title?: string
}

export interface PlannedCourse {
  course: CourseCode
  term: TermCode
  credits: number
  note: string | null
  locked: boolean
}

export interface HeldSeat {
  course: CourseCode
  term: TermCode
  section: SectionCode
  credits: number
  /** Placed by an office, not chosen by the student. */
  placedByOffice: boolean
}

export interface Taking {
  /** Unique within one list. */
  key: string
  course: CourseCode
  credits: number
  firmness: Firmness
  term: TermCode | null
  grade: string | null
  origin: RecordEntry['origin']
  detail: 'plain' | 'picked' | 'waitlisted'
  placedByOffice: boolean
}

/** An attempt that gives no credits: failed, withdrawn, or replaced by a better one. */
export interface IdleAttempt {
  entry: RecordEntry
  why: 'failed' | 'withdrawn' | 'repeated'
}

export interface TakingInput {
  catalog: Catalog
  record: readonly RecordEntry[]
  held: readonly HeldSeat[]
  planned: readonly PlannedCourse[]
  picked?: ReadonlySet<string>
  waitlisted?: ReadonlySet<string>
}

export interface Takings {
  counted: Taking[]
  idle: IdleAttempt[]
  /** Planned although it, or a course that counts as it, is already there. */
  repeats: PlannedCourse[]
}

/**
 * The list, firmest first, then in order of term as given, then by course. Of several attempts the
 * best one counts; a planned course that is held, under way or earned already is not counted again,
 * unless it may be repeated for credit.
 */
export function takingsOf(input: TakingInput, terms: readonly Pick<Term, 'code'>[]): Takings {
  const { catalog } = input
  const counted: Taking[] = []
  const idle: IdleAttempt[] = []
  const repeats: PlannedCourse[] = []
  const there = new Map<string, Taking>()
  const key = (code: CourseCode) => [...catalog.sameAs(code)].sort().join('=')
  const mayRepeat = (code: CourseCode) => catalog.maybeCourse(code)?.repeatable ?? false

  const add = (taking: Omit<Taking, 'key'>) => {
    const full = { ...taking, key: `${taking.course}@${taking.term ?? taking.origin}` }
    counted.push(full)
    there.set(key(taking.course), full)
  }

  const attempts = [...input.record].sort((a, b) => rankOf(b) - rankOf(a))
  for (const entry of attempts) {
    const { course, credits, term, grade, origin } = entry
    if (grade !== null && !gradeMeaning(grade).earns) {
      idle.push({ entry, why: grade === 'W' ? 'withdrawn' : 'failed' })
    } else if (there.has(key(course)) && !mayRepeat(course)) {
      idle.push({ entry, why: 'repeated' })
    } else {
      const firmness = grade === null ? 'underWay' : 'earned'
      add({ course, credits, firmness, term, grade, origin, detail: 'plain', placedByOffice: false })
    }
  }
  for (const { course, credits, term, placedByOffice } of input.held) {
    if (there.get(key(course))?.term === term) continue
    add({
      course,
      credits,
      firmness: 'registered',
      term,
      grade: null,
      origin: 'here',
      detail: 'plain',
      placedByOffice
    })
  }
  for (const plan of input.planned) {
    const before = there.get(key(plan.course))
    if (before?.firmness === 'registered' && before.term === plan.term) continue
    if (before && !mayRepeat(plan.course)) {
      repeats.push(plan)
      continue
    }
    const mark = `${plan.term} ${plan.course}`
    const detail = input.waitlisted?.has(mark) ? 'waitlisted' : input.picked?.has(mark) ? 'picked' : 'plain'
    const { course, credits, term } = plan
    add({
      course,
      credits,
      firmness: 'planned',
      term,
      grade: null,
      origin: 'here',
      detail,
      placedByOffice: false
    })
  }
  const order = new Map<string, number>(terms.map((term, i) => [term.code, i]))
  const place = (t: Taking) => (t.term === null ? -1 : (order.get(t.term) ?? terms.length))
  counted.sort(
    (a, b) =>
      FIRMNESS.indexOf(a.firmness) - FIRMNESS.indexOf(b.firmness) ||
      place(a) - place(b) ||
      (a.course < b.course ? -1 : a.course > b.course ? 1 : 0)
  )
  return { counted, idle, repeats }
}

/** A finished attempt before one under way, a better grade before a worse one. */
function rankOf(entry: RecordEntry): number {
  return entry.grade === null
    ? 0.5
    : gradeMeaning(entry.grade).rank + (gradeMeaning(entry.grade).earns ? 1 : 0)
}
