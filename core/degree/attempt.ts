/**
 * Attempts: every course a student has taken, is taking, holds a seat in or plans, each once, with
 * how firm it is. Everything that counts courses starts from this one list.
 */
import type { Catalog, TermPhase } from '../catalog'
import type { CourseCode, SectionCode, TermCode } from '../ids'
import type { HeldAs } from './courseSet'

/** From the firmest to the softest. A picked or waitlisted course is planned, with a detail. */
export const STATUS_ORDER = ['earned', 'underWay', 'registered', 'planned'] as const
export type AttemptStatus = (typeof STATUS_ORDER)[number]

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
  /** There is another one ahead of the same course: it counts nowhere, and is carried by its term alone. */
  twice?: boolean
}

/** Two attempts of which only one counts: of one course in each layer of needs, of courses that exclude each other at all. */
export interface Apart {
  keys: readonly [string, string]
  why: 'again' | 'exclusive'
}

/** An attempt that gives no credits: failed, withdrawn, audited, replaced by another, or excluded by another course. */
export interface IdleAttempt {
  entry: RecordEntry
  why: 'failed' | 'withdrawn' | 'audited' | 'repeated' | 'exclusive'
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
  /** Idle only for credit that is brought in: what was taken here stays in averages all the same. */
  stillAveraged: ReadonlySet<RecordEntry>
  /** Planned although it, a course that counts as it, or one that excludes it is already there. */
  repeats: PlannedCourse[]
  policy: RepeatPolicy
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
