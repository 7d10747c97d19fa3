/**
 * Takings: every course a student has taken, is taking, holds a seat in or plans, each once, with
 * how firm it is. Everything that counts courses starts from this one list.
 */
import type { Catalog, Term, TermPhase } from '../catalog'
import type { CourseCode, SectionCode, TermCode } from '../ids'
import type { HeldAs } from './courseSet'

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
  /** Where and how the section was held; null or absent when it is not known. */
  campus?: string | null
  mode?: string | null
  /** The categories it counts in, where they were others than its course's. */
  categories?: readonly string[] | null
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
  campus?: string | null
  mode?: string | null
  /** The section's categories, where they are others than its course's. */
  categories?: readonly string[] | null
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
  /** `gradeDue`: it is over, and there is no grade yet. */
  detail: 'plain' | 'picked' | 'waitlisted' | 'incomplete' | 'gradeDue'
  placedByOffice: boolean
  /** The section's campus and mode; undefined while none is picked, null when they are not known. */
  campus?: string | null
  mode?: string | null
  categories?: readonly string[] | null
  /** While no section is picked: the campuses at which the course is usually held. */
  campuses?: readonly string[] | undefined
}

/** An attempt that gives no credits: failed, withdrawn, replaced by another, or excluded by another course. */
export interface IdleAttempt {
  entry: RecordEntry
  why: 'failed' | 'withdrawn' | 'repeated' | 'exclusive'
  /** The course that counts instead. */
  by?: CourseCode
}

/** Which of several attempts counts: the best, or the last; with `all`, every grade enters the average. */
export type RepeatPolicy = 'best' | 'last' | 'all'

export interface TakingInput {
  catalog: Catalog
  record: readonly RecordEntry[]
  held: readonly HeldSeat[]
  planned: readonly PlannedCourse[]
  picked?: ReadonlySet<string>
  waitlisted?: ReadonlySet<string>
  repeats?: RepeatPolicy
  /**
   * Where the days of a course in its term lie today. Without it a course without a grade is under way, and a
   * seat is one to come.
   */
  phaseIn?: (course: CourseCode, term: TermCode) => TermPhase
  /** How a planned course is held: as the section picked for it, or where it usually is. */
  heldAs?: (course: CourseCode, term: TermCode) => HeldAs | undefined
  /** Of courses that exclude each other, those that go first; else the better grade does. */
  first?: ReadonlySet<string>
}

export interface Takings {
  counted: Taking[]
  idle: IdleAttempt[]
  /** Planned although it, a course that counts as it, or one that excludes it is already there. */
  repeats: PlannedCourse[]
  policy: RepeatPolicy
}

/**
 * The list, firmest first, then in order of term as given, then by course. Of several attempts, and of
 * courses that exclude each other, one counts: by the policy the best or the last. A planned course that
 * is held, under way or earned already is not counted again, unless it may be repeated for credit.
 */
export function takingsOf(input: TakingInput, terms: readonly Pick<Term, 'code'>[]): Takings {
  const { catalog, repeats: policy = 'best', phaseIn, heldAs } = input
  const isOver = (course: CourseCode, term: TermCode | null) =>
    term !== null && phaseIn?.(course, term) === 'past'
  const { scale } = catalog
  const order = new Map<string, number>(terms.map((term, i) => [term.code, i]))
  const placeOf = (term: TermCode | null) => (term === null ? -1 : (order.get(term) ?? terms.length))
  const counted: Taking[] = []
  const idle: IdleAttempt[] = []
  const repeats: PlannedCourse[] = []
  const there = new Map<string, Taking>()
  const key = (code: CourseCode) => catalog.groupOf(code)
  const mayRepeat = (code: CourseCode) => catalog.maybeCourse(code)?.repeatable ?? false
  const excluding = (code: CourseCode) => {
    for (const other of catalog.exclusiveWith(code)) if (there.has(key(other))) return other
    return undefined
  }
  const add = (taking: Omit<Taking, 'key'>) => {
    const full = { ...taking, key: `${taking.course}@${taking.term ?? taking.origin}` }
    counted.push(full)
    there.set(key(taking.course), full)
  }
  const ahead = { grade: null, origin: 'here', detail: 'plain', placedByOffice: false } as const

  const rank = ({ grade }: RecordEntry): number => {
    if (grade === null) return 0.5
    const { result, rank: own } = scale.meaning(grade)
    return result === 'earned' ? own + 1 : result === 'open' ? 0.4 : own
  }
  const standing = new Set(input.record)
  if (policy === 'last')
    for (const entry of input.record) {
      const later = input.record.some(
        (other) =>
          key(other.course) === key(entry.course) &&
          placeOf(other.term) > placeOf(entry.term) &&
          other.grade !== null &&
          !['withdrawn', 'open'].includes(scale.meaning(other.grade).result)
      )
      if (later && !mayRepeat(entry.course)) standing.delete(entry)
    }
  const goesFirst = (entry: RecordEntry) => Number(input.first?.has(entry.course) ?? false)
  const attempts = [...input.record].sort(
    (a, b) => goesFirst(b) - goesFirst(a) || rank(b) - rank(a) || placeOf(a.term) - placeOf(b.term)
  )
  for (const entry of attempts) {
    const { course, credits, term, grade, origin, campus = null, mode = null, categories = null } = entry
    const result = grade === null ? 'open' : scale.meaning(grade).result
    const excluded = excluding(course)
    if (result === 'failed' || result === 'withdrawn') idle.push({ entry, why: result })
    else if (!standing.has(entry) || (there.has(key(course)) && !mayRepeat(course)))
      idle.push({ entry, why: 'repeated' })
    else if (excluded) idle.push({ entry, why: 'exclusive', by: excluded })
    else {
      const taking = { course, credits, term, origin, campus, mode, categories, placedByOffice: false }
      if (result === 'earned') add({ ...taking, grade, firmness: 'earned', detail: 'plain' })
      else
        add({
          ...taking,
          grade: null,
          firmness: 'underWay',
          detail: grade !== null ? 'incomplete' : isOver(course, term) ? 'gradeDue' : 'plain'
        })
    }
  }
  for (const seat of input.held) {
    const { course, credits, term, placedByOffice, campus = null, mode = null, categories = null } = seat
    if (there.get(key(course))?.term === term) continue
    const hasBegun = (phaseIn?.(course, term) ?? 'future') !== 'future'
    add({
      ...ahead,
      course,
      credits,
      term,
      firmness: hasBegun ? 'underWay' : 'registered',
      detail: isOver(course, term) ? 'gradeDue' : 'plain',
      placedByOffice,
      campus,
      mode,
      categories
    })
  }
  for (const plan of input.planned) {
    const before = there.get(key(plan.course))
    if (before && before.firmness !== 'planned' && before.term === plan.term) continue
    if ((before && !mayRepeat(plan.course)) || excluding(plan.course)) {
      repeats.push(plan)
      continue
    }
    const mark = `${plan.term} ${plan.course}`
    const detail = input.waitlisted?.has(mark) ? 'waitlisted' : input.picked?.has(mark) ? 'picked' : 'plain'
    const { course, credits, term } = plan
    add({ ...ahead, course, credits, term, firmness: 'planned', detail, ...heldAs?.(course, term) })
  }
  counted.sort(
    (a, b) =>
      FIRMNESS.indexOf(a.firmness) - FIRMNESS.indexOf(b.firmness) ||
      placeOf(a.term) - placeOf(b.term) ||
      (a.course < b.course ? -1 : a.course > b.course ? 1 : 0)
  )
  return { counted, idle, repeats, policy }
}
