import { subjectOf, type Catalog, type Course } from '../catalog'
import type { Attempt } from './attempt'
import type { CourseSet } from './courseSet'
import type { Need } from './program'

/** What a cap leaves, of the courses that it is about. */
export interface Room {
  has: (course: Course) => boolean
  left: number
  use: (course: Course) => number
}

export interface OpenNeed {
  need: Need
  program: number
  /** What counts toward it already. */
  evidence: readonly Attempt[]
}

/**
 * A choice of courses that completes a need beside what it has, made one course after another, never taken back. That it
 * finds none is no proof that there is none.
 */
export class PlainChoice {
  private readonly need: Need
  private missing: number
  private readonly subjects: Set<string>
  private readonly parts: { set: CourseSet; missing: number }[]
  private readonly found: Course[] = []

  /** `asked`: how many open needs a course could go to. */
  constructor(
    private readonly catalog: Catalog,
    { need, evidence }: OpenNeed,
    private readonly rooms: readonly Room[],
    private readonly asked: (course: Course) => number
  ) {
    this.need = need
    this.missing = need.amount - evidence.reduce((sum, one) => sum + this.worth(one), 0)
    this.subjects = new Set(evidence.map((one) => subjectOf(one.course)))
    this.parts = need.including.map(({ set, amount }) => ({
      set,
      missing:
        amount -
        evidence
          .filter((one) => set.has(catalog.course(one.course), one))
          .reduce((sum, one) => sum + this.worth(one), 0)
    }))
  }

  /** Undefined where no choice was found. */
  of(free: readonly Course[]): Course[] | undefined {
    const isPlain = !this.parts.length && !this.need.subjects && !this.rooms.length
    return isPlain ? this.byAmount(free) : this.byHelp(free)
  }

  private byAmount(free: readonly Course[]): Course[] | undefined {
    const inOrder = free.toSorted((a, b) => this.asked(a) - this.asked(b) || b.credits - a.credits)
    for (const course of inOrder) {
      if (this.missing <= 0) break
      if (!this.found.some((one) => this.isSame(course, one))) this.take(course)
    }
    return this.missing <= 0 || inOrder.some((course) => course.repeatable) ? this.found : undefined
  }

  private byHelp(free: readonly Course[]): Course[] | undefined {
    const rest = new Set(free.filter((course) => this.fits(course)))
    while (!this.isDone()) {
      if (this.need.measure === 'courses' && this.missing <= 0) return undefined
      const best = this.best(rest)
      if (!best || this.found.length > this.need.amount * 2 + 1) return undefined
      this.take(best)
      // An equivalent is the same course.
      for (const course of rest) if (this.isSame(course, best) || !this.fits(course)) rest.delete(course)
    }
    return this.found
  }

  private take(course: Course): void {
    this.found.push(course)
    this.missing -= this.worth(course)
    this.subjects.add(subjectOf(course.code))
    for (const part of this.parts) if (part.set.has(course)) part.missing -= this.worth(course)
    for (const room of this.rooms) if (room.has(course)) room.left -= room.use(course)
  }

  /** The course that helps most; of equal ones that which fewer needs ask for, and which is worth more. */
  private best(rest: Iterable<Course>): Course | undefined {
    let best: Course | undefined
    for (const course of rest) if (!best || this.isBetter(course, best)) best = course
    return best
  }

  private isBetter(course: Course, than: Course): boolean {
    const more = this.helps(course) - this.helps(than)
    return (
      more > 0 || (more === 0 && (this.asked(course) - this.asked(than) || than.credits - course.credits) < 0)
    )
  }

  /** How many parts and subjects that are still missing the course would bring. */
  private helps(course: Course): number {
    const { subjects = 0 } = this.need
    const isNew = this.subjects.size < subjects && !this.subjects.has(subjectOf(course.code))
    return this.parts.filter((part) => part.missing > 0 && part.set.has(course)).length * 2 + Number(isNew)
  }

  private fits(course: Course): boolean {
    return this.rooms.every((room) => !room.has(course) || room.left >= room.use(course))
  }

  private isDone(): boolean {
    const isWide = this.subjects.size >= (this.need.subjects ?? 0)
    return this.missing <= 0 && isWide && this.parts.every((part) => part.missing <= 0)
  }

  private isSame(course: Course, other: Course): boolean {
    return !course.repeatable && this.catalog.groupOf(course.code) === this.catalog.groupOf(other.code)
  }

  private worth({ credits }: { credits: number }): number {
    return this.need.measure === 'courses' ? 1 : credits
  }
}
