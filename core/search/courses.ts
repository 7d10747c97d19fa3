/** What can be asked of courses when looking for some, as tests that facets count. */
import { subjectOf, type Course, type Season, type StudyLevel } from '../catalog'
import type { Refusal } from '../findings'
import { GENERAL_REFUSALS } from '../registration'
import type { Mode } from '../week'

/** A course with what is known of it for one student in one term. */
export interface FoundCourse {
  course: Course
  /** The college its subject belongs to. */
  college: string
  /** Open needs of the student that it would serve, as `program need`. */
  serves: readonly string[]
  /** How many needs it would meet at once. */
  atOnce: number
  /** Runs in the term, by its sections or by its pattern. */
  runs: boolean
  /** How and where its sections of the term are held; empty while there are none. */
  held: readonly { mode: Mode; campus: string }[]
  /** Done, under way or on the route, itself or as one that counts as it. */
  there: boolean
  /** Why it cannot be taken in the term, in the order of the decision. */
  refusals: readonly Refusal[]
}

/** Absent: not asked. Of a list, one has to apply. Credits include both ends. */
export interface CourseFilter {
  study?: StudyLevel | undefined
  colleges?: readonly string[] | undefined
  subjects?: readonly string[] | undefined
  years?: readonly number[] | undefined
  /** Categories by family: of each family named, one has to apply. */
  categories?: Readonly<Record<string, readonly string[]>> | undefined
  credits?: { least: number; most: number } | undefined
  seasons?: readonly Season[] | undefined
  runs?: true | undefined
  needs?: readonly string[] | undefined
  /** Meets at least so many open needs at once. */
  serves?: number | undefined
  takable?: true | undefined
  fresh?: true | undefined
  modes?: readonly Mode[] | undefined
  campuses?: readonly string[] | undefined
}

export type CourseQuestion = keyof CourseFilter

type Test = (found: FoundCourse) => boolean
const TESTS: { [K in CourseQuestion]-?: (asked: NonNullable<CourseFilter[K]>) => Test } = {
  study: (level) => (found) => found.course.level === level,
  colleges: (list) => (found) => list.includes(found.college),
  subjects: (list) => (found) => list.includes(subjectOf(found.course.code)),
  years: (list) => (found) => list.includes(found.course.yearLevel),
  categories: (families) => (found) =>
    Object.values(families).every(
      (list) => !list.length || list.some((one) => found.course.categories.includes(one))
    ),
  // A course of 1 to 4 credits can be taken for any of them.
  credits:
    ({ least, most }) =>
    ({ course }) =>
      course.creditsMost >= least && course.credits <= most,
  seasons: (list) => (found) => list.some((season) => found.course.offered.seasons.includes(season)),
  runs: () => (found) => found.runs,
  needs: (list) => (found) => list.some((need) => found.serves.includes(need)),
  serves: (least) => (found) => found.atOnce >= least,
  takable: () => (found) => found.runs && inTheWay(found.refusals) === undefined,
  fresh: () => (found) => !found.there,
  modes: (list) => (found) => found.held.some((one) => list.includes(one.mode)),
  campuses: (list) => (found) => found.held.some((one) => list.includes(one.campus))
}

/** The tests that a filter asks for; an empty list asks nothing. */
export function courseTests(filter: CourseFilter): Map<CourseQuestion, Test> {
  const tests = new Map<CourseQuestion, Test>()
  for (const key of Object.keys(TESTS) as CourseQuestion[]) {
    const asked = filter[key]
    if (asked === undefined || (Array.isArray(asked) && !asked.length)) continue
    tests.set(key, (TESTS[key] as (asked: unknown) => Test)(asked))
  }
  return tests
}

/**
 * The one thing in the way of a course: its first refusal. A corequisite is none, since it can be taken
 * along; neither is what keeps the student from every course alike, which is said once, not at each.
 */
export function inTheWay(refusals: readonly Refusal[]): Refusal | undefined {
  return refusals.find(({ code }) => !ASIDE.has(code))
}
const ASIDE: ReadonlySet<Refusal['code']> = new Set([
  ...[...GENERAL_REFUSALS].filter((code) => code !== 'closed'),
  'corequisite',
  'together'
])
