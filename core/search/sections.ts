/** What can be asked of the sections of a term, as tests that facets count. */
import { subjectOf, type Course } from '../catalog'
import type { Refusal } from '../findings'
import type { Minutes, Weekday } from '../time'
import { seatsLeft, sectionsOf, type Meeting, type Mode, type Option, type Section } from '../week'
import { inTheWay } from './courses'

/** A section with its components, and what is known of it for one student. */
export interface FoundSection {
  main: Section
  /** Its choices: the section with one component of each kind. */
  options: readonly Option[]
  course: Course
  college: string
  /** Open needs of the student that its course would serve, as `program need`. */
  serves: readonly string[]
  /** How many needs it would meet at once. */
  atOnce: number
  /** Why its best choice cannot be taken, in the order of the decision. */
  refusals: readonly Refusal[]
  /** Some choice of it stands in the week on screen without a clash, and outside of hours that must stay free. */
  fits: boolean
}

/** Absent: not asked. Of a list, one has to apply. */
export interface SectionFilter {
  subjects?: readonly string[] | undefined
  colleges?: readonly string[] | undefined
  /** Codes of campuses, and names of places away from them. */
  campuses?: readonly string[] | undefined
  buildings?: readonly string[] | undefined
  modes?: readonly Mode[] | undefined
  /** Codes of sessions. */
  sessions?: readonly string[] | undefined
  /** Meets on one of them; or on none but them. */
  days?: { of: readonly Weekday[]; only: boolean } | undefined
  /** No class starts before, ends after. */
  after?: Minutes | undefined
  before?: Minutes | undefined
  /** How long a class is, both ends included. */
  length?: { least: Minutes; most: Minutes } | undefined
  /** Patterns of days and hours, as `patternOf` writes them. */
  patterns?: readonly string[] | undefined
  /** A seat left; or a seat left or a place in line. */
  seats?: 'open' | 'line' | undefined
  credits?: { least: number; most: number } | undefined
  categories?: Readonly<Record<string, readonly string[]>> | undefined
  blocks?: readonly string[] | undefined
  noFee?: true | undefined
  noPermission?: true | undefined
  needs?: readonly string[] | undefined
  /** Meets at least so many open needs at once. */
  serves?: number | undefined
  takable?: true | undefined
  fits?: true | undefined
}

export type SectionQuestion = keyof SectionFilter

/** The days and hours of a section's first weekly meeting, `MW 570-645`; undefined without set hours. */
export function patternOf({ meetings }: Pick<Section, 'meetings'>): string | undefined {
  const first = meetings.find((one) => one.from !== one.to) ?? meetings[0]
  return first && `${first.days.join('')} ${first.start}-${first.end}`
}

/** The campus of a section, or the place away from every campus where it is held. */
export function placeOf({ campus, offSite }: Pick<Section, 'campus' | 'offSite'>): string {
  return offSite ?? campus
}

type Test = (found: FoundSection) => boolean
const hasLine = (one: Section) => one.taken < one.capacity || one.waiting < one.waitCapacity
/** What is asked of hours holds for each class of some choice; what has no hours stands in no way of any. */
const everyClass =
  (test: (meeting: Meeting) => boolean): Test =>
  ({ options, main }) =>
    options.length
      ? options.some((option) => sectionsOf(option).every((one) => one.meetings.every(test)))
      : main.meetings.every(test)

const TESTS: { [K in SectionQuestion]-?: (asked: NonNullable<SectionFilter[K]>) => Test } = {
  subjects: (list) => (found) => list.includes(subjectOf(found.course.code)),
  colleges: (list) => (found) => list.includes(found.college),
  campuses: (list) => (found) => list.includes(placeOf(found.main)),
  buildings: (list) => (found) =>
    found.main.meetings.some((one) => one.building !== null && list.includes(one.building)),
  modes: (list) => (found) => list.includes(found.main.mode),
  sessions: (list) => (found) => list.includes(found.main.session),
  days: ({ of, only }) =>
    only
      ? everyClass((one) => one.days.every((day) => of.includes(day)))
      : (found) => found.main.meetings.some((one) => one.days.some((day) => of.includes(day))),
  after: (time) => everyClass((one) => one.start >= time),
  before: (time) => everyClass((one) => one.end <= time),
  length: ({ least, most }) => {
    const fits = (one: Meeting) => one.end - one.start >= least && one.end - one.start <= most
    return (found) => found.main.meetings.some(fits)
  },
  patterns: (list) => (found) => list.includes(patternOf(found.main) ?? ''),
  seats: (asked) => (found) =>
    asked === 'open'
      ? found.options.some((option) => seatsLeft(option) > 0)
      : found.options.some((option) => sectionsOf(option).every(hasLine)),
  credits:
    ({ least, most }) =>
    ({ main }) =>
      main.credits >= least && main.credits <= most,
  categories: (families) => (found) =>
    Object.values(families).every(
      (list) =>
        !list.length || list.some((one) => (found.main.categories ?? found.course.categories).includes(one))
    ),
  blocks: (list) => (found) => found.main.block !== null && list.includes(found.main.block),
  noFee: () => (found) => found.main.fee === 0,
  noPermission: () => (found) => !found.main.permissionNeeded,
  needs: (list) => (found) => list.some((need) => found.serves.includes(need)),
  serves: (least) => (found) => found.atOnce >= least,
  takable: () => (found) => found.options.length > 0 && inTheWay(found.refusals) === undefined,
  fits: () => (found) => found.fits
}

/** The tests that a filter asks for; an empty list asks nothing. */
export function sectionTests(filter: SectionFilter): Map<SectionQuestion, Test> {
  const tests = new Map<SectionQuestion, Test>()
  for (const key of Object.keys(TESTS) as SectionQuestion[]) {
    const asked = filter[key]
    if (asked === undefined || (Array.isArray(asked) && !asked.length)) continue
    tests.set(key, (TESTS[key] as (asked: unknown) => Test)(asked))
  }
  return tests
}
