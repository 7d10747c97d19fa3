/**
 * Attempts: every course a student has taken, is taking, holds a seat in or plans, each once, with
 * how firm it is. Everything that counts courses starts from this one list.
 */
import type { Catalog, Term, TermPhase } from '../catalog'
import type { CourseCode, SectionCode, TermCode } from '../ids'
import { leavesOf, ruleOf } from '../requisites'
import type { HeldAs } from './courseSet'

/** From the firmest to the softest. A picked or waitlisted course is planned, with a detail. */
export const FIRMNESS = ['earned', 'underWay', 'registered', 'planned'] as const
export type AttemptStatus = (typeof FIRMNESS)[number]

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

export interface Attempt {
  /** Unique within one list. */
  key: string
  course: CourseCode
  credits: number
  status: AttemptStatus
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
  /** Repeats one that is earned, or is excluded by one: it adds no credits, and counts only in its place. */
  again?: boolean
}

/** Two attempts of which only one counts: of one course in each layer of needs, of courses that exclude each other at all. */
export interface Apart {
  keys: readonly [string, string]
  why: 'again' | 'exclusive'
}

/** An attempt that gives no credits: failed, withdrawn, replaced by another, or excluded by another course. */
export interface IdleAttempt {
  entry: RecordEntry
  why: 'failed' | 'withdrawn' | 'repeated' | 'exclusive'
  /** The course that counts instead; of what was failed, itself or an equivalent, once it is passed. */
  by?: CourseCode
}

/** Which of several attempts counts: the best, or the last; with `all`, every grade enters the average. */
export type RepeatPolicy = 'best' | 'last' | 'all'

export interface AttemptInput {
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
}

export interface Attempts {
  counted: Attempt[]
  /** Earned and excluded: what could count in place of another, where a reading is better for it. */
  spare: readonly Attempt[]
  apart: readonly Apart[]
  /** The place of each in the order of the list, those to spare included; by key. */
  order: ReadonlyMap<string, number>
  idle: IdleAttempt[]
  /** Planned although it, a course that counts as it, or one that excludes it is already there. */
  repeats: PlannedCourse[]
  policy: RepeatPolicy
}

/**
 * The list, firmest first, then in order of term as given, then by course. Of several attempts with a grade one
 * counts, by the policy the best or the last; of courses that exclude each other the better grade, then the
 * firmer one. What is ahead of a course that is earned repeats it: it stands in where the grade is not enough.
 * A course planned twice, or planned while it is under way or held, is not counted again, unless it may be
 * repeated for credit. `settled` says which of those that stand in a reading has made use of.
 */
export function attemptsOf(input: AttemptInput, terms: readonly Pick<Term, 'code'>[]): Attempts {
  const { catalog, repeats: policy = 'best', phaseIn, heldAs } = input
  const isOver = (course: CourseCode, term: TermCode | null) =>
    term !== null && phaseIn?.(course, term) === 'past'
  const { scale } = catalog
  const ofTerm = new Map<string, number>(terms.map((term, i) => [term.code, i]))
  const placeOf = (term: TermCode | null) => (term === null ? -1 : (ofTerm.get(term) ?? terms.length))
  const counted: Attempt[] = []
  const spare: Attempt[] = []
  const idle: IdleAttempt[] = []
  const repeats: PlannedCourse[] = []
  const there = new Map<string, Attempt>()
  const repeated = new Set<string>()
  const key = (code: CourseCode) => catalog.groupOf(code)
  const mayRepeat = (code: CourseCode) => catalog.maybeCourse(code)?.repeatable ?? false
  const excluding = (code: CourseCode) => {
    for (const other of catalog.exclusiveWith(code)) if (there.has(key(other))) return other
    return undefined
  }
  const keyed = (attempt: Omit<Attempt, 'key'>): Attempt => ({
    ...attempt,
    key: `${attempt.course}@${attempt.term ?? attempt.origin}`
  })
  const add = (attempt: Omit<Attempt, 'key'>) => {
    const full = keyed(attempt)
    counted.push(full)
    there.set(key(attempt.course), full)
  }
  /**
   * What is ahead: counted; a repeat of what is earned, kept out by another, or there twice. Whatever it comes to, its
   * term carries it.
   */
  const addAhead = (attempt: Omit<Attempt, 'key'>): 'counted' | 'again' | 'exclusive' | 'twice' => {
    const group = key(attempt.course)
    const before = there.get(group)
    const isSame = before !== undefined && !mayRepeat(attempt.course)
    if (!isSame && !excluding(attempt.course)) {
      add(attempt)
      return 'counted'
    }
    counted.push(keyed({ ...attempt, again: true }))
    if (!isSame) return 'exclusive'
    const isFirst = before.status === 'earned' && !repeated.has(group)
    repeated.add(group)
    return isFirst ? 'again' : 'twice'
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
  const attempts = [...input.record].sort((a, b) => rank(b) - rank(a) || placeOf(a.term) - placeOf(b.term))
  for (const entry of attempts) {
    const { course, credits, term, grade, origin, campus = null, mode = null, categories = null } = entry
    const result = grade === null ? 'open' : scale.meaning(grade).result
    const attempt = { course, credits, term, origin, campus, mode, categories, placedByOffice: false }
    // Those that are earned come before, by their rank.
    const passed = there.get(key(course))
    if (result === 'withdrawn') idle.push({ entry, why: result })
    else if (result === 'failed')
      idle.push({ entry, why: result, ...(passed?.status === 'earned' && { by: passed.course }) })
    else if (!standing.has(entry)) idle.push({ entry, why: 'repeated' })
    else if (result === 'earned') {
      const excluded = excluding(course)
      if (there.has(key(course)) && !mayRepeat(course)) idle.push({ entry, why: 'repeated' })
      else if (excluded) {
        spare.push(keyed({ ...attempt, grade, status: 'earned', detail: 'plain', again: true }))
        idle.push({ entry, why: 'exclusive', by: excluded })
      } else add({ ...attempt, grade, status: 'earned', detail: 'plain' })
    } else {
      const detail = grade !== null ? 'incomplete' : isOver(course, term) ? 'gradeDue' : 'plain'
      const excluded = excluding(course)
      const done = addAhead({ ...attempt, grade: null, status: 'underWay', detail })
      if (done === 'twice') idle.push({ entry, why: 'repeated' })
      else if (done === 'exclusive') idle.push({ entry, why: 'exclusive', by: excluded! })
    }
  }
  for (const seat of input.held) {
    const { course, credits, term, placedByOffice, campus = null, mode = null, categories = null } = seat
    if (there.get(key(course))?.term === term) continue
    const hasBegun = (phaseIn?.(course, term) ?? 'future') !== 'future'
    const attempt: Omit<Attempt, 'key'> = {
      ...ahead,
      course,
      credits,
      term,
      status: hasBegun ? 'underWay' : 'registered',
      detail: isOver(course, term) ? 'gradeDue' : 'plain',
      placedByOffice,
      campus,
      mode,
      categories
    }
    addAhead(attempt)
  }
  for (const plan of input.planned) {
    const before = there.get(key(plan.course))
    if (before && before.status !== 'planned' && before.term === plan.term) continue
    if (counted.some((one) => one.again && one.course === plan.course && one.term === plan.term)) continue
    const mark = `${plan.term} ${plan.course}`
    const detail = input.waitlisted?.has(mark) ? 'waitlisted' : input.picked?.has(mark) ? 'picked' : 'plain'
    const { course, credits, term } = plan
    const attempt = { ...ahead, course, credits, term, status: 'planned', detail } as const
    if (addAhead({ ...attempt, ...heldAs?.(course, term) }) !== 'counted') repeats.push(plan)
  }
  const order = new Map(inOrder([...counted, ...spare]).map((one, i) => [one.key, i]))
  const all: Attempts = {
    counted: inOrder(counted),
    spare: inOrder(spare),
    apart: apartAmong([...counted, ...spare]),
    order,
    idle,
    repeats,
    policy
  }
  // A repeat that no reading asks for may still be what a later course asks for.
  return settled(all, new Set(counted.filter((one) => one.again && isAskedFor(one)).map((one) => one.key)))

  /** Whether a course ahead asks for a better grade of this one than there is. */
  function isAskedFor({ course, status }: Attempt): boolean {
    const before = there.get(key(course))
    if (status !== 'planned' || before?.status !== 'earned') return false
    const asks = (code: CourseCode) =>
      leavesOf(ruleOf(catalog.maybeCourse(code)?.prerequisite ?? '')).some(
        (leaf) =>
          leaf.kind === 'course' &&
          leaf.leastGrade !== undefined &&
          catalog.sameAs(course).includes(leaf.course) &&
          (before.grade === null || !scale.atLeast(before.grade, leaf.leastGrade))
      )
    return [...input.planned, ...input.held].some((one) => asks(one.course))
  }

  function inOrder(list: readonly Attempt[]): Attempt[] {
    return [...list].sort(
      (a, b) =>
        FIRMNESS.indexOf(a.status) - FIRMNESS.indexOf(b.status) ||
        placeOf(a.term) - placeOf(b.term) ||
        (a.course < b.course ? -1 : a.course > b.course ? 1 : 0)
    )
  }

  function apartAmong(some: readonly Attempt[]): Apart[] {
    const found: Apart[] = []
    const standing = new Set([...spare, ...some.filter((one) => one.again)])
    if (!standing.size) return found
    some.forEach((one, i) => {
      for (const other of some.slice(i + 1)) {
        if (!standing.has(one) && !standing.has(other)) continue
        const keys = [one.key, other.key] as const
        if (key(one.course) === key(other.course)) {
          if (!mayRepeat(one.course)) found.push({ keys, why: 'again' })
        } else if (catalog.exclusiveWith(one.course).has(other.course)) found.push({ keys, why: 'exclusive' })
      }
    })
    return found
  }
}

/** All that is passed or ahead, whether it gives credit or not: what a prerequisite looks at. */
export function allAttempts({ counted, spare }: Pick<Attempts, 'counted' | 'spare'>): Attempt[] {
  return [...counted, ...spare]
}

/**
 * The list as a reading has it that makes use of these: of courses that exclude each other those that are used give
 * credit, and what they exclude gives none; a planned repeat that is used is counted beside what it repeats.
 */
export function settled(attempts: Attempts, used: ReadonlySet<string>): Attempts {
  const byKey = new Map([...attempts.counted, ...attempts.spare].map((one) => [one.key, one]))
  const stands = (key: string) => attempts.spare.some((one) => one.key === key) || byKey.get(key)!.again
  if (![...used].some((key) => byKey.has(key) && stands(key))) return attempts
  /** What is excluded by one that is used, and by which. */
  const by = new Map<string, Attempt>()
  const repeats = new Set<string>()
  for (const { keys, why } of attempts.apart)
    for (const [one, other] of [keys, [keys[1], keys[0]] as const]) {
      if (why === 'again') repeats.add(one).add(other)
      else if (used.has(one) && stands(one) && !used.has(other)) by.set(other, byKey.get(one)!)
    }
  const all = [...byKey.values()].sort((a, b) => attempts.order.get(a.key)! - attempts.order.get(b.key)!)
  const wasThere = new Set(attempts.counted.map((one) => one.key))
  const counted: Attempt[] = []
  const spare: Attempt[] = []
  for (const one of all) {
    const excluded = by.has(one.key)
    if (!excluded && (wasThere.has(one.key) || used.has(one.key))) {
      const again = repeats.has(one.key)
        ? one.again === true || !wasThere.has(one.key)
        : one.again && !used.has(one.key)
      const { again: _, ...plain } = one
      counted.push(again ? { ...plain, again } : plain)
    } else if (excluded && one.status !== 'earned') counted.push({ ...one, again: true })
    else spare.push({ ...one, again: true })
  }
  const isUsed = ({ course, term }: { course: CourseCode; term: TermCode | null }) =>
    all.some((one) => used.has(one.key) && one.course === course && one.term === term)
  const excluded = all.filter((one) => by.has(one.key) && wasThere.has(one.key))
  return {
    ...attempts,
    counted,
    spare,
    idle: [
      ...attempts.idle.filter(({ entry, why }) => why !== 'exclusive' || !isUsed(entry)),
      ...excluded.flatMap((one): IdleAttempt[] =>
        one.status === 'earned' || one.status === 'underWay'
          ? [{ entry: entryOf(one), why: 'exclusive', by: by.get(one.key)!.course }]
          : []
      )
    ],
    repeats: [
      ...attempts.repeats.filter((one) => !isUsed(one)),
      ...excluded.flatMap((one) => (one.status === 'planned' ? [planOf(one)] : []))
    ]
  }
}

function entryOf({ course, term, credits, grade, origin }: Attempt): RecordEntry {
  return { course, term, credits, grade, origin }
}

function planOf({ course, term, credits }: Attempt): PlannedCourse {
  return { course, term: term!, credits, note: null, locked: false }
}
