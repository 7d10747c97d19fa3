/** What the registration decision needs to know about a student and a term, read in one transaction. */
import { eq } from 'drizzle-orm'
import { dayNumber, type Instant } from '#core/time'
import type { SectionCode, TermCode } from '#core/ids'
import type { RegistrationFacts } from '#core/registration'
import type { Section } from '#core/week'
import type { StudentPicture } from '#wire/picture'
import { termOf, type Shelf } from '#wire/reading'
import { all, type Reader } from '../../db/connect'
import * as t from '../../db/schema'
import { familiesOf, sectionsByCode } from '../week/sections'

/** Facts as of `now`, and the sections of the student's draft with their components, as the seats stand. */
export async function readFacts(
  db: Reader,
  picture: StudentPicture,
  shelf: Shelf,
  code: TermCode,
  now: Instant
): Promise<{ facts: RegistrationFacts; offer: Section[] }> {
  const term = termOf(shelf, code)
  const draft = picture.drafts.find((d) => d.term === code)
  const offer = await familiesOf(db, draft?.sections ?? [])
  const heldSections = await sectionsByCode(db, await registeredCodes(db, picture.student.id, code))
  const signOff = picture.signOffs.find((s) => s.term === code)
  const facts: RegistrationFacts = {
    now,
    catalog: shelf.catalog,
    terms: shelf.terms,
    term,
    opens: picture.openings.find((o) => o.term === code)?.opens ?? null,
    closes: term.addEndsAt,
    student: {
      standing: picture.student.standing,
      programs: picture.programs.map((p) => p.spec.code),
      tests: picture.tests
    },
    holds: picture.holds,
    record: picture.record,
    held: picture.held,
    heldSections,
    holidays: new Set(term.holidays.map((h) => dayNumber(h.date))),
    loadMost: term.loadMost,
    signOff: { policy: term.signOffPolicy, courses: signOff?.courses ?? null },
    permitted: new Set(await permittedSections(db, picture.student.id, now)),
    componentsOf: (main) => [
      ...new Set(offer.filter((s) => s.parent === main && !s.cancelled).map((s) => s.kind))
    ]
  }
  return { facts, offer }
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

async function permittedSections(db: Reader, student: number, now: Instant): Promise<SectionCode[]> {
  const rows = await db
    .select({ code: t.section.code, until: t.permission.until })
    .from(t.permission)
    .innerJoin(t.section, eq(t.section.id, t.permission.sectionId))
    .where(all(eq(t.permission.studentId, student), eq(t.permission.state, 'given')))
  return rows
    .filter((row) => row.until === null || row.until.getTime() > now)
    .map((row) => row.code as SectionCode)
}
