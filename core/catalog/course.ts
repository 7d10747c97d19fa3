import { COMMON_SCALE, type GradeScale } from '../grades'
import type { CourseCode } from '../ids'
import type { IsoDate } from '../time'
import { phaseOf, type Season, type Term } from './term'

export type StudyLevel = 'undergraduate' | 'graduate'

/** When a course usually runs. No season at all: it is not planned to run again. */
export interface OfferingPattern {
  seasons: Season[]
  years: 'every' | 'odd' | 'even'
}

export interface Course {
  code: CourseCode
  title: string
  /** The credits counted when nothing else is said: the least of a range. */
  credits: number
  creditsMost: number
  level: StudyLevel
  /** 1 to 4 for undergraduates; data, since the first digit of the number is only the default. */
  yearLevel: number
  offered: OfferingPattern
  /** A rule of the prerequisite language; empty when there is none. */
  prerequisite: string
  categories: string[]
  /** Courses as which it counts. Two that count as each other name each other, and are one course in every count. */
  equivalents: CourseCode[]
  /** Courses that give no credit beside this one: only one of them counts. */
  exclusive: CourseCode[]
  repeatable: boolean
}

export function subjectOf(code: CourseCode): string {
  return code.slice(0, code.indexOf(' '))
}

/** A course number in its parts. */
export interface CourseNumber {
  /** The letter before the digits; empty where there is none. */
  letter: string
  first: number
  /** The digits after a point. */
  second: number | undefined
}

/** `F21A` is 21 with the letter F, `10.101` is 10 and 101; letters behind say nothing here. */
export function readCourseNumber(number: string): CourseNumber {
  const [, letter, first, second] = /^([A-Z]?)(\d+)(?:\.(\d+))?/.exec(number.toUpperCase())!
  return { letter: letter!, first: Number(first), second: second === undefined ? undefined : Number(second) }
}

/** Where a number stands among those with its letter: the part after the point is a number of its own, below 1000. */
export const placeOfNumber = ({ first, second = 0 }: CourseNumber): number => first + second / 1000

const numberIn = (code: CourseCode): CourseNumber => readCourseNumber(code.slice(code.indexOf(' ') + 1))
export const letterOf = (code: CourseCode): string => numberIn(code).letter

/** The digits of the number, without letters: 310 of `ENVI 310`, 15 of `CHEM 015L`; 10.101 comes after 10.99. */
export const numberOf = (code: CourseCode): number => placeOfNumber(numberIn(code))

/** The year of which a course is where nothing else says so: the first digit of a three-digit number (common practice). */
export function usualYearLevel(code: CourseCode): number {
  const { first, second } = numberIn(code)
  return Math.min(9, Math.floor((second ?? first) / 100))
}

/** Whether the pattern says that the course runs in that season of that year. */
export function usuallyRuns(pattern: OfferingPattern, term: Pick<Term, 'season' | 'year'>): boolean {
  if (!pattern.seasons.includes(term.season)) return false
  return pattern.years === 'every' || (pattern.years === 'odd') === (term.year % 2 === 1)
}

/**
 * Whether the course runs in the term: by its sections once they are published, before that by its
 * pattern. `running` names, for each published term, the courses that have sections.
 */
export function runsIn(
  course: Course,
  term: Term,
  running: ReadonlyMap<string, ReadonlySet<string>>
): boolean {
  const published = term.published ? running.get(term.code) : undefined
  return published ? published.has(course.code) : usuallyRuns(course.offered, term)
}

/** How we know that a course runs: its sections can be seen, or its pattern says so. */
export type RunGround = 'sections' | 'pattern'

/**
 * The next term after `today` in which the course runs, and on what grounds; undefined when none of the
 * terms known will have it. Terms are in order.
 */
export function nextRun(
  course: Course,
  terms: readonly Term[],
  today: IsoDate,
  running: ReadonlyMap<string, ReadonlySet<string>>
): { term: Term; ground: RunGround } | undefined {
  const term = terms.find((one) => phaseOf(one, today) === 'future' && runsIn(course, one, running))
  if (!term) return undefined
  return { term, ground: term.published && running.has(term.code) ? 'sections' : 'pattern' }
}

const NO_COURSES: ReadonlySet<CourseCode> = new Set()

/** Courses by code, with equivalents resolved, and the grade scale they are graded by. */
export class Catalog {
  private readonly byCode: ReadonlyMap<string, Course>

  private readonly groups = new Map<string, string>()
  /** By code, the courses that count as it; made when first asked for. */
  private counting: Map<string, Course[]> | undefined
  /** By code, courses that exclude each other, whichever of them says so; courses that are one exclude the same ones. */
  private readonly excludes = new Map<string, Set<CourseCode>>()

  constructor(
    readonly courses: readonly Course[],
    readonly scale: GradeScale = COMMON_SCALE
  ) {
    this.byCode = new Map(courses.map((course) => [course.code, course]))
    for (const { code, exclusive } of courses)
      for (const other of exclusive)
        for (const one of this.oneWith(code))
          for (const excluded of this.oneWith(other)) {
            this.excludes.set(one, (this.excludes.get(one) ?? new Set()).add(excluded))
            this.excludes.set(excluded, (this.excludes.get(excluded) ?? new Set()).add(one))
          }
  }

  /** The course and those that are one course with it: each counts as the other. */
  private oneWith(code: CourseCode): CourseCode[] {
    return this.sameAs(code).filter((one) => this.groupOf(one) === this.groupOf(code))
  }

  /** The same catalog with a course that is new, or written anew. */
  with(course: Course): Catalog {
    const others = this.courses.filter((one) => one.code !== course.code)
    return new Catalog(
      [...others, course].toSorted((a, b) => (a.code < b.code ? -1 : 1)),
      this.scale
    )
  }

  maybeCourse(code: string): Course | undefined {
    return this.byCode.get(code)
  }

  /** @throws RangeError when the catalog has no such course. */
  course(code: string): Course {
    const course = this.byCode.get(code)
    if (!course) throw new RangeError(`the catalog has no course ${code}`)
    return course
  }

  /** One text for a course and all that count as it: courses that name each other are one, and one of them counts. */
  groupOf(code: CourseCode): string {
    const known = this.groups.get(code)
    if (known !== undefined) return known
    const group = this.sameAs(code).sort().join('=')
    this.groups.set(code, group)
    return group
  }

  /** Courses of which only one counts beside this one. */
  exclusiveWith(code: CourseCode): ReadonlySet<CourseCode> {
    return this.excludes.get(code) ?? NO_COURSES
  }

  /** The course itself and the courses that count as it. */
  sameAs(code: CourseCode): CourseCode[] {
    return [code, ...(this.byCode.get(code)?.equivalents ?? [])]
  }

  /** The courses that count as this one, the course itself where it is known. */
  countingAs(code: CourseCode): readonly Course[] {
    if (!this.counting) {
      this.counting = new Map()
      for (const course of this.courses)
        for (const same of this.sameAs(course.code))
          this.counting.set(same, [...(this.counting.get(same) ?? []), course])
    }
    return this.counting.get(code) ?? []
  }
}
