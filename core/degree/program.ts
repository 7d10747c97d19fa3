/**
 * A program version: what a student has to meet, as a tree.
 *
 * Areas are the branches people talk about ("Data core"); each holds needs, the leaves that courses
 * count toward, and choices between branches of needs. A need is measured in courses or in credits.
 * Conditions stand beside the tree: they look at the whole record and compete for nothing.
 */
import type { Course } from '../catalog'
import type { CourseCode } from '../ids'
import type { ConditionSpec } from './conditions'
import type { CourseSet, HeldAs } from './courseSet'
import type { ExceptionGrant } from './exceptions'
import type { RepeatPolicy, Attempt } from './attempt'

export type ProgramKind = 'degree' | 'minor' | 'certificate'

/** At most so many credits, or at most so many courses: one of them is said. */
export interface MostSpec {
  credits?: number | undefined
  courses?: number | undefined
}

export interface NeedSpec {
  id: string
  title: string
  measure: 'courses' | 'credits'
  /** How many courses, or how many credits. */
  amount: number
  /** The credits the need stands for in totals; the amount itself when it is measured in credits. */
  credits: number
  /** A text of the course-set language. */
  from: string
  leastGrade?: string | undefined
  /** Its courses come from at least so many subjects. */
  subjects?: number | undefined
  /** Parts that have to come from narrower sets, in the need's own measure. */
  including?: { from: string; amount: number }[] | undefined
  /** At most so much may come from a narrower set. */
  atMost?: (MostSpec & { from: string })[] | undefined
  /** At most so many of its courses are of one subject. */
  perSubject?: number | undefined
  /** For people. */
  note?: string | undefined
}

/** So many of these branches are taken; all of them stand for the same credits. */
export interface ChoiceSpec {
  id: string
  title: string
  choose: number
  of: BranchSpec[]
  note?: string | undefined
}

export interface BranchSpec {
  id: string
  title: string
  needs: RequirementSpec[]
}

export type RequirementSpec = NeedSpec | ChoiceSpec

export interface AreaSpec {
  id: string
  title: string
  /** Free choice has a hue of its own and takes what nothing else wants. */
  free?: boolean | undefined
  /** Its courses may count in these areas as well, up to so many credits; it adds nothing to the total. */
  shares?: { with: string[]; credits: number } | undefined
  needs: RequirementSpec[]
  note?: string | undefined
}

/** At most so much of a set counts in these areas, or anywhere in the program. */
export interface LimitSpec extends MostSpec {
  title: string
  from: string
  areas?: string[] | undefined
  /** Only courses with one of these grades are limited. */
  grades?: string[] | undefined
}

/** What has to be met before a program may be declared. */
export interface EntrySpec {
  title: string
  needs: RequirementSpec[]
  conditions?: ConditionSpec[] | undefined
  note?: string | undefined
}

/** A slot of a suggested sequence: a course, or a need that is to be filled then. */
export type SlotSpec = string | { need: string }

export interface ProgramSpec {
  code: string
  title: string
  shortTitle: string
  kind: ProgramKind
  catalogYear: string
  /** Credits of the whole program; the sum of its areas without those that share. */
  credits: number
  areas: AreaSpec[]
  limits?: LimitSpec[] | undefined
  /** Credits that may count in the student's first program too; without it there is no limit. */
  mayShare?: number | undefined
  conditions?: ConditionSpec[] | undefined
  entry?: EntrySpec | undefined
  /** Which of several attempts at a course counts; the best without it. */
  repeats?: RepeatPolicy | undefined
  /** Term after term, as the program suggests. */
  suggested?: SlotSpec[][] | undefined
  note?: string | undefined
}

/** A need made ready: its sets read, its place in the program's own order known. */
export interface Need extends Omit<NeedSpec, 'including' | 'atMost'> {
  area: string
  order: number
  set: CourseSet
  including: readonly { set: CourseSet; amount: number }[]
  atMost: readonly (MostSpec & { set: CourseSet })[]
  /** The exception by which it is not asked for. */
  waived?: ExceptionGrant | undefined
  /** The exceptions by which it asks for less than the program says. */
  lessened?: readonly ExceptionGrant[] | undefined
  /** Courses taken for it by exception. */
  substituted: readonly { course: CourseCode; grant: ExceptionGrant }[]
}

export interface Limit extends Omit<LimitSpec, 'from' | 'areas'> {
  set: CourseSet
  areas: readonly string[]
}

export interface Condition {
  spec: ConditionSpec
  set: CourseSet
  /** The exception by which it is not asked for. */
  waived?: ExceptionGrant | undefined
}

export interface Program {
  spec: ProgramSpec
  needs: readonly Need[]
  limits: readonly Limit[]
  conditions: readonly Condition[]
  /** The entry set as a program of its own. */
  entry: Program | undefined
}

export function isChoice(requirement: RequirementSpec): requirement is ChoiceSpec {
  return 'choose' in requirement
}

/** The credits a requirement stands for; of a choice, of the branches that have to be taken. */
function creditsOf(requirement: RequirementSpec): number {
  if (!isChoice(requirement)) return requirement.credits
  return requirement.choose * creditsOfAll(requirement.of[0]?.needs ?? [])
}

export function creditsOfAll(needs: readonly RequirementSpec[]): number {
  return needs.reduce((total, one) => total + creditsOf(one), 0)
}

/** Credits of an area's own total. */
export function areaCredits(area: AreaSpec): number {
  return creditsOfAll(area.needs)
}

/**
 * Whether the need takes the course, whatever the grade: by its set, or by a substitution. A course without credits counts
 * for needs in courses alone.
 */
export function takes(need: Need, course: Course, as?: HeldAs): boolean {
  if (need.waived || (need.measure === 'credits' && course.creditsMost === 0)) return false
  return need.set.has(course, as) || need.substituted.some((one) => one.course === course.code)
}

/** Whether a limit counts this attempt. */
export function isLimited({ set, grades }: Limit, course: Course, attempt: Attempt): boolean {
  return set.has(course, attempt) && (!grades || grades.includes(attempt.grade ?? ''))
}

const takers = new WeakMap<Program, WeakMap<Course, readonly number[]>>()

/**
 * The needs that could take the course, by their place in the program; worked out once for each course whose section
 * has no categories of its own.
 */
export function couldTake(program: Program, course: Course, as?: HeldAs): readonly number[] {
  const takersOf = (held?: HeldAs) =>
    program.needs.flatMap((need, n) => (takes(need, course, held) ? [n] : []))
  if (as?.categories) return takersOf(as)
  let known = takers.get(program)
  if (!known) takers.set(program, (known = new WeakMap()))
  let found = known.get(course)
  if (!found) {
    found = takersOf()
    known.set(course, found)
  }
  return found
}
