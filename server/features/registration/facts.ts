/** What the registration decision needs to know about a student and a term, read in one transaction. */
import type { CourseCode, TermCode } from '#core/ids'
import { pickedOptions, type Placing, type RegistrationFacts } from '#core/registration'
import type { Instant } from '#core/time'
import type { Option, Section } from '#core/week'
import type { StudentRecord } from '#shared/record/responses'
import { goingWith } from '#shared/reading'
import type { CatalogContext } from '#shared/catalog/context'
import { registrationFacts } from '#shared/registration/registering'
import { termWeek, withChosenCredits } from '#shared/week/termWeek'
import type { Reader } from '#server/db/connect'
import { sectionsOfFallbacks } from '#server/features/record/seen'
import { familiesOf } from '#server/features/sections/sections'
import type { RunAsked } from './run'

/**
 * Facts as of `now`, the sections of the student's draft and fallbacks with their components, as the seats stand, and the
 * options that are picked of them.
 */
export async function readFacts(
  db: Reader,
  studentRecord: StudentRecord,
  catalogContext: CatalogContext,
  term: TermCode,
  now: Instant
): Promise<{ facts: RegistrationFacts; offer: Section[]; options: Map<CourseCode, Option> }> {
  const draft = goingWith(studentRecord, term)
  const { picked } = termWeek(studentRecord, term, draft)
  const wanted = [...(draft?.sections ?? []), ...picked.map((one) => one.code)]
  const named = [...new Set([...wanted, ...sectionsOfFallbacks(studentRecord)])]
  const offer = withChosenCredits(await familiesOf(db, named), studentRecord.fallbacks, term)
  return {
    facts: factsWith(studentRecord, catalogContext, { term, now, offer }),
    offer,
    options: pickedOptions(offer, wanted)
  }
}

/** What a run chooses among: what is picked, or the sections in which an office places the student. */
export async function factsOfRun(
  db: Reader,
  studentRecord: StudentRecord,
  catalogContext: CatalogContext,
  { term, placing }: Pick<RunAsked, 'term' | 'placing'>
): ReturnType<typeof readFacts> {
  if (!placing) return readFacts(db, studentRecord, catalogContext, term, 0)
  const offer = await familiesOf(db, placing.sections)
  const setAside = new Set(placing.setAside)
  return {
    facts: factsWith(studentRecord, catalogContext, { term, now: 0, offer, placing: { setAside } }),
    offer,
    options: pickedOptions(offer, placing.sections)
  }
}

/**
 * Facts for sections that have been read. Where an office places the student, nothing is exchanged or given up for it,
 * whatever is picked and prepared.
 */
export function factsWith(
  studentRecord: StudentRecord,
  catalogContext: CatalogContext,
  {
    term,
    now,
    offer,
    placing
  }: { term: TermCode; now: Instant; offer: readonly Section[]; placing?: Placing | undefined }
): RegistrationFacts {
  const { held: heldSections, exchanged } = termWeek(studentRecord, term, goingWith(studentRecord, term))
  const exchanging = placing ? new Set<CourseCode>() : exchanged
  const facts = registrationFacts(studentRecord, catalogContext, {
    term,
    now,
    heldSections,
    offer,
    exchanging
  })
  return placing ? { ...facts, givingUp: new Map(), placing } : facts
}

/**
 * Facts for a choice that is offered to a student: a seat of its course that is held is exchanged for it, and what is
 * given up besides is said with the answer.
 */
export function factsOfOffer(
  studentRecord: StudentRecord,
  catalogContext: CatalogContext,
  {
    term,
    now,
    course,
    offer
  }: { term: TermCode; now: Instant; course: CourseCode; offer: readonly Section[] }
): RegistrationFacts {
  const { held } = termWeek(studentRecord, term, undefined)
  const exchanging = new Set(held.some((one) => one.course === course) ? [course] : [])
  const facts = registrationFacts(studentRecord, catalogContext, {
    term,
    now,
    heldSections: held,
    offer,
    exchanging
  })
  return { ...facts, givingUp: new Map() }
}
