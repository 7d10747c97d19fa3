import type { CourseCode } from '../ids'
import type { Season, Term } from './term'

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
  /** Courses that count as this one. */
  equivalents: CourseCode[]
  repeatable: boolean
}

export function subjectOf(code: CourseCode): string {
  return code.slice(0, code.indexOf(' '))
}

/** The digits of the number, without letters: 310 of `ENVI 310`, 15 of `CHEM 015L`. */
export function numberOf(code: CourseCode): number {
  return Number.parseInt(code.slice(code.indexOf(' ') + 1), 10)
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

/** Courses by code, with equivalents resolved. */
export class Catalog {
  private readonly byCode: ReadonlyMap<string, Course>

  constructor(readonly courses: readonly Course[]) {
    this.byCode = new Map(courses.map((course) => [course.code, course]))
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

  /** The course itself and the courses that count as it. */
  sameAs(code: CourseCode): CourseCode[] {
    return [code, ...(this.byCode.get(code)?.equivalents ?? [])]
  }
}
