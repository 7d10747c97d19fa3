/** Giving seats back: what may be dropped at an instant, and what it costs. */
import type { GradeScale } from '../grades'
import { allAttempts, attemptsOf } from '../degree'
import type { Refusal } from '../findings'
import type { CourseCode } from '../ids'
import { coursesIn, evaluateRule, missingPart, ruleOf } from '../requisites'
import { asOfTerm } from '../route'
import type { Instant } from '../time'
import { permits } from '../week'
import type { RegistrationFacts } from './facts'

/** Until when a term, or a session of it, lets go of its students, half-open: at the instant itself it is over. */
export interface DropDates {
  /** Until then a drop leaves no trace on the record. */
  freeUntil: Instant
  /** From then on nothing can be dropped any more. */
  ends: Instant
}

/** What a session of a term allows until when; half-open. */
export interface SessionDates extends DropDates {
  /** From then on nothing of it can be added any more. */
  addEnds: Instant
}

export interface DropDecision {
  course: CourseCode
  refusals: Refusal[]
  /** What stays on the record: nothing, or the grade of a late drop. */
  mark: string | null
}

/** What a drop leaves on the record at an instant. */
export function dropMark({ freeUntil }: DropDates, now: Instant, scale: GradeScale): string | null {
  return now < freeUntil ? null : (scale.withdrawn ?? null)
}

/**
 * Decides for courses that are to be dropped together. One that a course which stays asks for in the same term is
 * refused, unless that one is dropped as well; what is refused takes nothing else with it.
 */
export function decideDrop(facts: RegistrationFacts, courses: readonly CourseCode[]): DropDecision[] {
  const refusals = new Map(courses.map((course) => [course, ownRefusals(facts, course)]))
  // A course that stays after all may ask for another one that was to go.
  for (let again = true; again;) {
    again = false
    const going = new Set(courses.filter((course) => !refusals.get(course)!.length))
    for (const { asking, asked } of askedFor(facts, going)) {
      refusals.get(asked)!.push({ code: 'neededBy', course: asking })
      again = true
    }
  }
  return courses.map((course) => ({
    course,
    refusals: refusals.get(course)!,
    mark: dropMark(dropDatesOf(facts, course), facts.now, facts.catalog.scale)
  }))
}

/** Until when a course that is held can be given back: by the session of its section. */
function dropDatesOf({ heldSections, sessions, drop }: RegistrationFacts, course: CourseCode): DropDates {
  const main = heldSections.find((one) => one.course === course && one.parent === null)
  return sessions.get(main?.session ?? '') ?? drop
}

/** The facts once courses have been dropped. */
export function afterDrop(facts: RegistrationFacts, courses: readonly CourseCode[]): RegistrationFacts {
  const gone = new Set(courses)
  return {
    ...facts,
    held: facts.held.filter((seat) => seat.term !== facts.term.code || !gone.has(seat.course)),
    heldSections: facts.heldSections.filter((section) => !gone.has(section.course)),
    record: facts.record.filter(
      ({ term, course, grade }) => term !== facts.term.code || grade !== null || !gone.has(course)
    )
  }
}

function ownRefusals(facts: RegistrationFacts, course: CourseCode): Refusal[] {
  const seat = facts.held.find((one) => one.term === facts.term.code && one.course === course)
  if (!seat) return [{ code: 'notHeld' }]
  if (seat.placedByOffice && !facts.placing) return [{ code: 'placed' }]
  const { ends } = dropDatesOf(facts, course)
  return facts.now < ends || permits(facts.permissions, 'late', seat.section)
    ? []
    : [{ code: 'dropEnded', since: ends }]
}

/** Which courses that stay ask in the same term for one that goes, and have it as long as it does not go. */
function askedFor(facts: RegistrationFacts, going: ReadonlySet<CourseCode>) {
  const { catalog, terms, term, held, heldSections, student } = facts
  const inTerm = held.filter((seat) => seat.term === term.code)
  const asOf = ({ record, held }: RegistrationFacts) => {
    const attempts = attemptsOf({ catalog, record, held, planned: [] }, terms)
    return asOfTerm(term.code, terms, allAttempts(attempts), student, catalog)
  }
  const [now, then] = [asOf(facts), asOf(afterDrop(facts, [...going]))]
  return inTerm
    .filter((seat) => !going.has(seat.course))
    .flatMap((seat) => {
      const main = heldSections.find((one) => one.course === seat.course && one.parent === null)
      const rule = ruleOf(main?.prerequisite ?? catalog.maybeCourse(seat.course)?.prerequisite ?? '')
      if (!rule) return []
      const missing = (asOf: typeof now) => missingPart(evaluateRule(rule, asOf))
      const lacking = missing(then)
      if (!lacking || missing(now)) return []
      // The one of those that go without which it would not hold.
      const same = new Set(coursesIn(lacking).flatMap((course) => [course, ...catalog.sameAs(course)]))
      const asked = [...going].find((course) => same.has(course))
      return asked ? [{ asking: seat.course, asked }] : []
    })
}

/**
 * Full time for a student before a first degree, in credits of a term: "at least 12 semester hours", 34 CFR 668.2(b),
 * "Full-time student".
 */
export const FULL_TIME_CREDITS = 12

/** Whether a change of credits in a term ends full-time study. */
export function endsFullTime(before: number, after: number): boolean {
  return before >= FULL_TIME_CREDITS && after < FULL_TIME_CREDITS
}
