/** What the student would like of a filling, and what speaks for and against each course by it. */
import { numberOf, type Course, type StudyLevel, type Term } from '../catalog'
import type { CourseCode, TermCode } from '../ids'
import { coursesIn, isBranch, leastOf, ruleOf, type Rule } from '../requisites'
import { alignSequence, type RouteContext } from '../route'
import { orderIn } from './fillTerms'

/** What the student would like, beside what has to hold. */
export interface FillWish {
  /** Whether summers may be used. */
  summers: boolean
  /** Subjects taken rather than others. */
  subjects: ReadonlySet<string>
  /** Courses taken rather than others. */
  courses?: ReadonlySet<CourseCode> | undefined
  /** Whether a course can be had as the student would like it: online, in the evening, on a campus. */
  suits?: ((course: CourseCode) => boolean) | undefined
  /** Credits of a term that the student takes on at most, below what is allowed; that without it. */
  load?: ((term: Term) => number) | undefined
  /** Fewer credits than this are little in a regular term that others follow; 0 without it. */
  full?: number | undefined
  /** The last term to look at; all known terms without it. */
  until?: TermCode | undefined
  level: StudyLevel
}

/** What speaks against taking a course, and for it, beside what is wished: each with its weight in credits or so. */
const COST = { any: 3, credit: 0.3, level: 0.5, permission: 8, behind: 25, filler: 10, suggested: -2 }
/** Numbers below it are preparatory and support courses (common practice). */
const FIRST_LEVEL = 100
/** How well a course suits the student, against others. */
export class CourseTaste {
  /** By group, the number of the term in which the programs suggest it, from where the student stands. */
  readonly pull: ReadonlyMap<string, number>
  private readonly behind: ReadonlySet<string>

  constructor(
    private readonly context: RouteContext,
    private readonly wish: FillWish,
    terms: readonly Term[]
  ) {
    this.pull = suggestedTerms(context, terms)
    this.behind = leftBehind(context)
  }

  isLiked({ code }: Course): boolean {
    const { subjects, courses } = this.wish
    return subjects.has(code.split(' ')[0]!) || courses?.has(code) === true
  }

  /** What taking the course costs against another one; one that was never seen as it is wished costs most of what is wished. */
  costOf(course: Course): number {
    const { suits } = this.wish
    const group = this.context.catalog.groupOf(course.code)
    return (
      COST.any +
      COST.credit * course.credits +
      COST.level * Math.max(0, numberOf(course.code) / 100 - 1) +
      (this.isLiked(course) ? 0 : 1) +
      (suits && !suits(course.code) ? 2 : 0) +
      (needsPermission(course) ? COST.permission : 0) +
      (this.behind.has(group) || numberOf(course.code) < FIRST_LEVEL ? COST.behind : 0) +
      (this.pull.has(group) ? COST.suggested : 0)
    )
  }

  /** Lower levels before upper ones; what needs a permission is better late. */
  earlyOf(course: Course): number {
    return needsPermission(course) ? -3 : Math.max(0, 4 - numberOf(course.code) / 100)
  }
}

/** Terms in which the programs suggest their courses, from where the student stands. */
function suggestedTerms(context: RouteContext, terms: readonly Term[]): Map<string, number> {
  const found = new Map<string, number>()
  context.audits.forEach(({ program: { spec } }, index) => {
    if (!spec.suggested?.length) return
    for (const { planned } of alignSequence(context, spec.suggested, index).placed) {
      const at = orderIn(terms, planned.term)
      const group = context.catalog.groupOf(planned.course)
      if (at >= 0 && !found.has(group)) found.set(group, at)
    }
  })
  return found
}

/**
 * Preparatory courses that nothing asks of this student: what stands before a course on the record, or in
 * the place of a test that is met; with all that stands before it in turn.
 */
function leftBehind({ catalog, attempts, student }: RouteContext): Set<string> {
  const behind = new Set<string>()
  const all = new Set(attempts.counted.map((attempt) => catalog.groupOf(attempt.course)))
  const add = (rule: Rule | undefined) => {
    for (const code of coursesIn(rule)) {
      const group = catalog.groupOf(code)
      if (all.has(group) || behind.has(group)) continue
      behind.add(group)
      add(ruleOf(catalog.maybeCourse(code)?.prerequisite ?? ''))
    }
  }
  const passed = (rule: Rule): void => {
    if (!isBranch(rule)) return
    const byTest = rule.of.some(
      (one) => one.kind === 'test' && (student.tests[one.test] ?? -Infinity) >= one.least
    )
    if (rule.kind === 'any' && byTest) add(rule)
    else for (const one of rule.of) passed(one)
  }
  for (const attempt of attempts.counted)
    if (attempt.status !== 'planned') add(ruleOf(catalog.maybeCourse(attempt.course)?.prerequisite ?? ''))
  for (const course of catalog.courses) {
    const rule = ruleOf(course.prerequisite)
    if (rule) passed(rule)
  }
  return behind
}

/** Whether nothing but a permission leads to the course. */
function needsPermission({ prerequisite }: Course): boolean {
  const asks = (rule: Rule): boolean => {
    if (!isBranch(rule)) return rule.kind === 'permission'
    return rule.of.filter((one) => !asks(one)).length < leastOf(rule)
  }
  const rule = ruleOf(prerequisite)
  return rule !== undefined && asks(rule)
}
