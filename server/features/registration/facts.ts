/** What the registration decision needs to know about a student and a term, read in one transaction. */
import type { CourseCode, TermCode } from '#core/ids'
import { pickedOptions, type RegistrationFacts } from '#core/registration'
import type { Instant } from '#core/time'
import type { Option, Section } from '#core/week'
import type { StudentRecord } from '#shared/record/responses'
import { goingWith } from '#shared/reading'
import type { Shelf } from '#shared/catalog/shelf'
import { registrationFacts } from '#shared/registration/registering'
import { termWeek, withChosenCredits } from '#shared/week/termWeek'
import type { Reader } from '#server/db/connect'
import { sectionsOfFallbacks } from '#server/features/record/seen'
import { familiesOf } from '#server/features/sections/sections'

/**
 * Facts as of `now`, the sections of the student's draft and fallbacks with their components, as the seats stand, and the
 * options that are picked of them.
 */
export async function readFacts(
  db: Reader,
  picture: StudentRecord,
  shelf: Shelf,
  term: TermCode,
  now: Instant
): Promise<{ facts: RegistrationFacts; offer: Section[]; options: Map<CourseCode, Option> }> {
  const draft = goingWith(picture, term)
  const { picked } = termWeek(picture, term, draft)
  const wanted = [...(draft?.sections ?? []), ...picked.map((one) => one.code)]
  const named = [...new Set([...wanted, ...sectionsOfFallbacks(picture)])]
  const offer = withChosenCredits(await familiesOf(db, named), picture.fallbacks, term)
  return {
    facts: factsWith(picture, shelf, { term, now, offer }),
    offer,
    options: pickedOptions(offer, wanted)
  }
}

/** Facts for sections that have been read. */
export function factsWith(
  picture: StudentRecord,
  shelf: Shelf,
  { term, now, offer }: { term: TermCode; now: Instant; offer: readonly Section[] }
): RegistrationFacts {
  const { held: heldSections, exchanged: exchanging } = termWeek(picture, term, goingWith(picture, term))
  return registrationFacts(picture, shelf, { term, now, heldSections, offer, exchanging })
}

/**
 * Facts for a choice that is offered to a student: a seat of its course that is held is exchanged for it, and what is
 * given up besides is said with the answer.
 */
export function factsOfOffer(
  picture: StudentRecord,
  shelf: Shelf,
  {
    term,
    now,
    course,
    offer
  }: { term: TermCode; now: Instant; course: CourseCode; offer: readonly Section[] }
): RegistrationFacts {
  const { held } = termWeek(picture, term, undefined)
  const exchanging = new Set(held.some((one) => one.course === course) ? [course] : [])
  const facts = registrationFacts(picture, shelf, { term, now, heldSections: held, offer, exchanging })
  return { ...facts, givingUp: new Map() }
}
