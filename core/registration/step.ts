/** The step in which a group goes through: what is given back in it, and how things stand after it. */
import type { HeldSeat } from '../degree'
import type { CourseCode } from '../ids'
import { sectionsOf, type Option, type Section } from '../week'
import type { RegistrationFacts } from './facts'

/**
 * The sections given back when an option of a course is taken: all that the student holds of it where it is exchanged,
 * and of the course that is given up for it.
 */
export function givenBack(
  facts: Pick<RegistrationFacts, 'heldSections' | 'exchanging' | 'givingUp'>,
  course: CourseCode
): Section[] {
  const other = givenUpFor(facts, course)
  return facts.heldSections.filter((section) =>
    section.course === course ? facts.exchanging.has(course) : section.course === other
  )
}

/** The course whose seat is given up once a seat of another one is had; undefined where none is held. */
export function givenUpFor(
  { heldSections, givingUp }: Pick<RegistrationFacts, 'heldSections' | 'givingUp'>,
  course: CourseCode
): CourseCode | undefined {
  const other = givingUp.get(course)
  return heldSections.some((section) => section.course === other) ? other : undefined
}

/** Courses of which no seat of before is held once a group has gone through: its own, and what is given up for them. */
export function goneWith(facts: RegistrationFacts, group: readonly Option[]): Set<CourseCode> {
  return new Set(group.flatMap(({ course }) => [course, givenUpFor(facts, course) ?? course]))
}

/** The facts once a group has gone through. */
export function afterGroup(facts: RegistrationFacts, group: readonly Option[]): RegistrationFacts {
  const gone = goneWith(facts, group)
  return {
    ...facts,
    heldSections: [
      ...facts.heldSections.filter((section) => !gone.has(section.course)),
      ...group.flatMap(sectionsOf)
    ],
    held: [...heldWithout(facts, gone), ...group.map((option) => seatIn(facts, option))]
  }
}

/** The seats of before without those of the term that are gone. */
export const heldWithout = ({ held, term }: RegistrationFacts, gone: ReadonlySet<CourseCode>) =>
  held.filter((seat) => seat.term !== term.code || !gone.has(seat.course))

export const seatIn = (
  { term, placing }: Pick<RegistrationFacts, 'term' | 'placing'>,
  { course, main }: Option
): HeldSeat => ({
  course,
  term: term.code,
  section: main.code,
  credits: main.credits,
  placedByOffice: placing !== undefined
})
