/**
 * Placing: which sections an office registers a student in, for courses that the student wants.
 *
 * Method: subsets of the courses from the largest down, each asked for its best weeks (`../find`, branch and bound), until
 * one of them is let in whole by the registration decision. At most 2^n subsets for n courses; a term has few.
 */
import { bestWeeks, findQuestion, weekOf, type KeptHours, type Wish } from '../find'
import type { Refusal } from '../findings'
import type { CourseCode } from '../ids'
import {
  afterGroup,
  decideCourse,
  generalRefusals,
  groupLines,
  rehearse,
  type RegistrationFacts
} from '../registration'
import { optionsAmong, sectionsOf, shortWays, type Option, type Section, type Travel } from '../week'

export interface PlacingAsked {
  /** In order of weight: where not all go together, the first ones stay. None of which a seat is held. */
  courses: readonly CourseCode[]
  /** Sections among which is chosen, with all their components, as the seats stand. */
  offer: readonly Section[]
  /** Hours that stay free. */
  kept: readonly KeptHours[]
  /** Hours that stay free if possible. */
  softly: readonly KeptHours[]
  /** Where the way between campuses has to fit between two classes. */
  travel: Travel | undefined
}

export interface Unplaced {
  course: CourseCode
  refusals: Refusal[]
}

export interface Placed {
  /** In the order of the courses. */
  options: Option[]
  /** Courses that are left, each with the reasons against the option that comes nearest; none where there is no option. */
  left: Unplaced[]
}

/** As many as a term has in any load; the search grows with each. */
const MOST_COURSES = 10
/** Weeks of one set of courses that the decision is asked about: they differ in sections, which it seldom tells apart. */
const WEEKS = 4

const WISHES: readonly Wish[] = [{ kind: 'keptIfPossible' }, { kind: 'seatsSafe' }]

/**
 * The most of the courses that can be had together: at hours that do not clash, with a seat left in each, and let in by the
 * decision as a whole. Of equally many those that stand first; of equal weeks one with room in its sections. Of more than
 * ten courses that can be had by themselves the first ten are weighed.
 */
export function placeStudent(facts: RegistrationFacts, asked: PlacingAsked): Placed {
  const { courses } = asked
  const general = generalRefusals(facts)
  if (general.length) return { options: [], left: courses.map((course) => ({ course, refusals: general })) }
  const offer = openSections(facts, asked)
  const able = courses.filter((course) => offer.some((one) => one.course === course)).slice(0, MOST_COURSES)
  for (const some of subsets(able)) {
    const options = togetherOf(facts, asked, offer, some)
    if (options) return { options, left: leftOf(facts, asked, options) }
  }
  return { options: [], left: leftOf(facts, asked, []) }
}

/** The sections of options that the decision lets in by themselves, or would beside others of the same term. */
function openSections(facts: RegistrationFacts, { courses, offer, travel }: PlacingAsked): Section[] {
  const { heldSections: held, holidays } = facts
  const short = (sections: readonly Section[]) => (travel ? shortWays(sections, travel, holidays).length : 0)
  const before = short(held)
  const open = courses.flatMap((course) =>
    optionsAmong(
      offer.filter((one) => one.course === course),
      holidays
    )
      .filter((option) => rehearse(facts, [option]).get(course)!.refusals.every(isAboutOthers))
      .filter((option) => short([...held, ...sectionsOf(option)]) <= before)
      .flatMap(sectionsOf)
  )
  // An office places in what nobody picks for themselves.
  return [...new Set(open)].map((one) => (one.officeOnly ? { ...one, officeOnly: false } : one))
}

/** Whether another course, taken in the same term, may settle it. */
const isAboutOthers = (one: Refusal): boolean =>
  one.code === 'corequisite' ||
  one.code === 'together' ||
  (one.code === 'condition' && one.condition.is === 'onlyWith')

/** Every choice of some of the things: the largest first, of equal ones that with the earlier things. */
function* subsets<Thing>(things: readonly Thing[]): Generator<Thing[]> {
  for (let size = things.length; size > 0; size--) yield* choose(things, size)
}
function* choose<Thing>(things: readonly Thing[], size: number): Generator<Thing[]> {
  if (size === 0) yield []
  else
    for (let i = 0; i + size <= things.length; i++)
      for (const rest of choose(things.slice(i + 1), size - 1)) yield [things[i]!, ...rest]
}

/** One option of each course, all of them let in; undefined where there is none. */
function togetherOf(
  facts: RegistrationFacts,
  { kept, softly, travel }: PlacingAsked,
  offer: readonly Section[],
  courses: readonly CourseCode[]
): Option[] | undefined {
  const want = { fixed: new Set<string>(), kept, softly, travel, wishes: WISHES }
  const groups = courses.map((course) => ({ courses: [course], take: 1 }))
  const question = findQuestion(offer, { ...want, groups }, facts.holidays)
  for (const week of bestWeeks(question.problem, WEEKS).weeks) {
    const found = weekOf(question, week)
    const options = courses.map((course) => found.find((one) => one.course === course)!)
    const decisions = rehearse(facts, options)
    if (courses.every((course) => !decisions.get(course)!.refusals.length)) return options
  }
  return undefined
}

/** Why the courses that are left are, once the others are held. */
function leftOf(facts: RegistrationFacts, { courses, offer }: PlacingAsked, options: readonly Option[]) {
  const taken = new Set(options.map((one) => one.course))
  const then = groupLines(options, facts).reduce(afterGroup, facts)
  return courses
    .filter((course) => !taken.has(course))
    .map((course): Unplaced => {
      const own = optionsAmong(
        offer.filter((one) => one.course === course),
        facts.holidays
      )
      return { course, refusals: decideCourse(then, course, own).refusals }
    })
}
