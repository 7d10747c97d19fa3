/**
 * What published terms offer to one student: which of their courses have a section for them, and whether
 * courses of a term leave a week without a clash. Seats are left aside: they come and go.
 *
 * Answers are kept, since the same is asked again and again while a route is changed.
 */
import { conflictOf, findQuestion, type KeptHours } from '../find'
import type { CourseCode, SectionCode, TermCode } from '../ids'
import { optionsAmong, optionsFor, sectionsOf, type Holidays, type Section, type SectionTaker } from '../week'

/** A published term: all its sections. */
export interface TermOffer {
  sections: readonly Section[]
  holidays: Holidays
}

export interface OfferedTo extends SectionTaker {
  /** Hours that have to stay free. */
  kept: readonly KeptHours[]
  /** Sections of which a seat is held, with their components, in any term. */
  held: ReadonlySet<SectionCode>
}

/** Why none of a course's sections can be had; undefined where one can. */
export type NoSection = 'notForYou' | 'permissionFirst'

/** What cannot hold together in a term: courses, and hours kept free by name. */
export interface NoWeek {
  courses: CourseCode[]
  hours: string[]
}

export class Offered {
  private readonly byCourse = new Map<string, ReadonlyMap<CourseCode, Section[]>>()
  private readonly sections = new Map<string, NoSection | undefined>()
  private readonly weeks = new Map<string, NoWeek | undefined>()

  /** `offers` by the code of their term. */
  constructor(
    private readonly offers: ReadonlyMap<string, TermOffer>,
    private readonly to: OfferedTo
  ) {
    for (const [term, { sections }] of offers) {
      const found = new Map<CourseCode, Section[]>()
      for (const one of sections) found.set(one.course, [...(found.get(one.course) ?? []), one])
      this.byCourse.set(term, found)
    }
  }

  /** Whether a term's sections are known here. */
  knows(term: TermCode): boolean {
    return this.offers.has(term)
  }

  /** Why the student can have no section of a course in a term; undefined too where the term or the course has none. */
  noSection(course: CourseCode, term: TermCode): NoSection | undefined {
    const key = `${term} ${course}`
    if (!this.sections.has(key)) this.sections.set(key, this.findNoSection(course, term))
    return this.sections.get(key)
  }

  private findNoSection(course: CourseCode, term: TermCode): NoSection | undefined {
    const own = this.byCourse.get(term)?.get(course) ?? []
    if (!own.length || own.some((one) => this.to.held.has(one.code))) return undefined
    const { holidays } = this.offers.get(term)!
    if (optionsFor(own, this.to, holidays).length) return undefined
    const permissions = new Map(own.map((one) => [one.code, new Set(['consent'] as const)]))
    return optionsFor(own, { ...this.to, permissions }, holidays).length ? 'permissionFirst' : 'notForYou'
  }

  /**
   * The smallest set of these courses and of the hours kept free that cannot hold together in a term, up to
   * three members, else one with nothing to spare; undefined when a week fits, or nothing is known. Courses
   * without a section for the student are left out.
   */
  noWeek(courses: readonly CourseCode[], term: TermCode): NoWeek | undefined {
    const key = `${term} ${[...courses].sort().join()}`
    if (!this.weeks.has(key)) this.weeks.set(key, this.findNoWeek([...courses].sort(), term))
    return this.weeks.get(key)
  }

  private findNoWeek(courses: readonly CourseCode[], term: TermCode): NoWeek | undefined {
    const offer = this.offers.get(term)
    if (!offer) return undefined
    const asked: { course: CourseCode; sections: Section[] }[] = []
    for (const course of courses) {
      const own = this.byCourse.get(term)!.get(course) ?? []
      const held = own.filter((one) => this.to.held.has(one.code))
      const options = held.length
        ? optionsAmong(held, offer.holidays)
        : optionsFor(own, this.to, offer.holidays)
      if (options.length) asked.push({ course, sections: [...new Set(options.flatMap(sectionsOf))] })
    }
    const { problem } = findQuestion(
      asked.flatMap((one) => one.sections),
      {
        groups: asked.map(({ course }) => ({ courses: [course], take: 1 })),
        fixed: this.to.held,
        kept: this.to.kept,
        wishes: []
      },
      offer.holidays
    )
    const conflict = conflictOf(problem)
    return (
      conflict && {
        courses: conflict.groups.map((number) => asked[number]!.course),
        hours: conflict.kept.map((number) => this.to.kept[number]!.name)
      }
    )
  }
}
