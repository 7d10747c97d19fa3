/** What the registration decision needs to know about a student and a term, read in one transaction. */
import { eq } from 'drizzle-orm'
import type { SectionCode, TermCode } from '#core/ids'
import type { RegistrationFacts } from '#core/registration'
import type { Instant } from '#core/time'
import type { Section } from '#core/week'
import type { StudentPicture } from '#wire/picture'
import { goingWith, type Shelf } from '#wire/reading'
import { registrationFacts } from '#wire/registering'
import { all, type Reader } from '../../db/connect'
import * as t from '../../db/schema'
import { familiesOf, sectionsByCode } from '../week/sections'

/** Facts as of `now`, and the sections of the student's draft with their components, as the seats stand. */
export async function readFacts(
  db: Reader,
  picture: StudentPicture,
  shelf: Shelf,
  term: TermCode,
  now: Instant
): Promise<{ facts: RegistrationFacts; offer: Section[] }> {
  const draft = goingWith(picture, term)
  const offer = await familiesOf(db, draft?.sections ?? [])
  const heldSections = await sectionsByCode(db, await registeredCodes(db, picture.student.id, term))
  return { facts: registrationFacts(picture, shelf, { term, now, heldSections, offer }), offer }
}

async function registeredCodes(db: Reader, student: number, term: TermCode): Promise<SectionCode[]> {
  const rows = await db
    .select({ code: t.section.code })
    .from(t.registration)
    .innerJoin(t.section, eq(t.section.id, t.registration.sectionId))
    .innerJoin(t.term, eq(t.term.id, t.section.termId))
    .where(all(eq(t.registration.studentId, student), eq(t.term.code, term)))
  return rows.map((row) => row.code as SectionCode)
}
