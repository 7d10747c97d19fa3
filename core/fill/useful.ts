import type { Course } from '../catalog'
import { allAttempts, questionOf, type Attempt, type Program } from '../degree'
import { coursesIn, leavesOf, ruleOf } from '../requisites'
import type { RouteContext } from '../route'
import type { FillTerms } from './fillTerms'
import type { CoursesThere } from './there'
import type { CourseTaste, FillWish } from './wish'

/** Courses of a kind that are kept beyond what could be needed of them, should their weeks not fit. */
const SPARE = 6
/** Fillers that are looked at. */
const FILLERS = 20

/** The courses that could be of use: those that a need which is not met yet could take. */
export class UsefulCourses {
  private readonly programs: readonly Program[]

  constructor(
    private readonly context: RouteContext,
    private readonly wish: FillWish,
    private readonly terms: FillTerms,
    private readonly there: CoursesThere,
    private readonly taste: CourseTaste
  ) {
    this.programs = context.audits.map((audit) => audit.program)
  }

  /** Courses that a want could take, without those that so many others could stand for that they are never needed. */
  list(): Course[] {
    const { catalog } = this.context
    const asked = this.asked()
    if (!asked.size) return []
    const named = new Set(catalog.courses.flatMap(({ prerequisite }) => coursesIn(ruleOf(prerequisite))))
    const open = catalog.courses.filter(
      (course) =>
        course.level === this.wish.level &&
        (!this.there.isTaken(course) || this.there.isTooLow(course)) &&
        this.terms.of(course)
    )
    const { problem, all } = questionOf(this.programs, open.map(attemptOf), catalog)
    const piecesOf = open.map((): number[] => [])
    problem.pieces.forEach((piece, p) => piecesOf[piece.course]!.push(p))
    const bySubject = problem.wants.some((want) => want.subjects > 0)
    const fitting = open.flatMap((course, i) => {
      const pieces = piecesOf[i]!
      const wants = pieces
        .flatMap((p) => problem.pieces[p]!.wants)
        .filter(
          (w) => asked.has(w) && (!this.there.isTaken(course) || this.there.isTooLow(course, all[w]!.need))
        )
      if (!wants.length) return []
      const within = (sets: readonly { pieces: ReadonlySet<number> }[]) =>
        sets.map((set) => Number(pieces.some((p) => set.pieces.has(p)))).join('')
      const kind = [
        course.credits,
        wants.join(),
        within(problem.wants.flatMap((want) => want.including)),
        within(problem.caps),
        bySubject ? problem.pieces[pieces[0]!]!.subject : ''
      ].join(' ')
      const enough = wants.reduce((sum, w) => {
        const { need } = all[w]!
        return (
          sum +
          (need.measure === 'courses' ? need.amount : Math.ceil(need.amount / Math.max(1, course.credits)))
        )
      }, SPARE)
      const plain = course.prerequisite === '' && !catalog.exclusiveWith(course.code).size
      return [{ course, kind, enough, plain, terms: this.terms.of(course), cost: this.taste.costOf(course) }]
    })
    fitting.sort((a, b) => a.cost - b.cost || (a.course.code < b.course.code ? -1 : 1))
    return fitting
      .filter((one, i) => {
        const { code } = one.course
        if (named.has(code) || this.taste.pull.has(catalog.groupOf(code)) || this.taste.isLiked(one.course))
          return true
        const better = fitting.filter(
          (other, k) =>
            k < i && other.plain && other.kind === one.kind && (other.terms & one.terms) === one.terms
        )
        return better.length < one.enough
      })
      .map((one) => one.course)
      .concat(problem.wants.some((want, w) => want.leftover && asked.has(w)) ? [] : this.fillers(open))
  }

  /**
   * Wants that could be met by something more: those open now with all others of their choices, and in turn those
   * that hold an attempt which one of these could have.
   */
  private asked(): Set<number> {
    const { attempts, catalog, audits } = this.context
    const there = allAttempts(attempts)
    const { problem, root, all } = questionOf(this.programs, there, catalog, { attempts })
    const found = new Set<number>()
    const openIn = audits.map(
      (audit) =>
        new Set(
          audit.areas.flatMap((area) =>
            area.needs.filter((one) => one.state === 'needed').map((one) => one.need.id)
          )
        )
    )
    all.forEach(({ need, program }, w) => {
      if (openIn[program]!.has(need.id)) found.add(w)
    })
    const under = (one: typeof root): number[] => [
      ...one.wants,
      ...one.choices.flatMap((c) => c.of.flatMap(under))
    ]
    const numberOf = new Map(all.map(({ need, program }, w) => [`${program} ${need.id}`, w]))
    /** The wants where each attempt counts now. */
    const placed = audits.flatMap((audit, program) =>
      audit.areas.flatMap((area) =>
        area.needs.flatMap((result) =>
          result.evidence.map((attempt) => ({
            key: attempt.key,
            w: numberOf.get(`${program} ${result.need.id}`)!
          }))
        )
      )
    )
    const byKey = new Map<string, number[]>()
    for (const { key, w } of placed) byKey.set(key, [...(byKey.get(key) ?? []), w])
    for (let size = -1; size < found.size;) {
      size = found.size
      const choices = (one: typeof root): void => {
        for (const choice of one.choices) {
          const inside = choice.of.flatMap(under)
          if (inside.some((w) => found.has(w))) for (const w of inside) found.add(w)
          for (const branch of choice.of) choices(branch)
        }
      }
      choices(root)
      for (const piece of problem.pieces)
        if (piece.wants.some((w) => found.has(w)))
          for (const w of byKey.get(there[piece.course]!.key) ?? []) found.add(w)
    }
    return found
  }

  /** Where credits are asked for before a course and no area takes any course: courses for their credits alone, plain ones first. */
  private fillers(open: readonly Course[]): Course[] {
    const credits = this.context.catalog.courses.some(({ prerequisite }) =>
      leavesOf(ruleOf(prerequisite)).some((leaf) => ['credits', 'standing', 'average'].includes(leaf.kind))
    )
    if (!credits) return []
    const isPlain = (course: Course) => Number(course.prerequisite === '')
    return open
      .filter((course) => !this.there.isTaken(course))
      .toSorted((a, b) => isPlain(b) - isPlain(a) || b.credits - a.credits || (a.code < b.code ? -1 : 1))
      .slice(0, FILLERS)
  }
}

/** A course as it would be planned. */
export function attemptOf(course: Course): Attempt {
  return {
    key: `${course.code}@`,
    course: course.code,
    credits: course.credits,
    status: 'planned',
    term: null,
    grade: null,
    origin: 'here',
    detail: 'plain',
    placedByOffice: false
  }
}
