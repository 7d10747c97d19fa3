/** What may be picked in a term, and how picks are kept. */
import { eq, inArray } from 'drizzle-orm'
import { takesPlans } from '#core/calendar'
import type { CourseCode, SectionCode, StudentId, TermCode } from '#core/ids'
import type { Instant } from '#core/time'
import { asPicked, optionsAmong, sectionsOf, type Section } from '#core/week'
import { momentOf } from '#shared/catalog/context'
import type { Transaction } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { datesOfTerm, termRow } from '#server/features/catalog/catalog'
import { Refused } from '#server/http/problem'
import { familiesOf } from './sections'

/** A term to which courses can still be added. @throws Refused */
export async function openTerm(tx: Transaction, code: TermCode, at: { now: Instant; zone: string }) {
  const term = await termRow(tx, code)
  if (!takesPlans(datesOfTerm(term), momentOf(at.now, at.zone)))
    throw new Refused(
      422,
      'termClosed',
      `Adding to ${term.name} has ended; its sections cannot be picked any more.`,
      [{ field: 'term', message: 'has to be a term to which courses can still be added' }]
    )
  return term
}

/** Refuses sections that are not one option of their course, or that only an office registers. */
export function mustBeOption(
  offer: readonly Section[],
  { course, sections }: { course: CourseCode; sections: readonly SectionCode[] },
  term: string
): void {
  const wanted = [...sections].sort().join()
  const option = optionsAmong(offer).find((one) => one.key.split('+').sort().join() === wanted)
  if (!option)
    throw new Refused(
      422,
      'noOption',
      `These sections are not one choice of ${course} in ${term}: pick a section and one of each of its components, none at the hours of another.`,
      [{ field: 'sections', message: `has to be a section of ${course} with one of each of its components` }]
    )
  const placed = sectionsOf(option).find((section) => section.officeOnly)
  if (placed)
    throw new Refused(
      422,
      'officeOnly',
      `Only an office places students in ${course}-${placed.number}; it cannot be picked.`,
      [{ field: 'sections', message: 'has to be sections that students register themselves' }]
    )
}

/** Refuses sections of a term of which those of some course are not one option of it. */
export async function mustBeOptions(
  tx: Transaction,
  term: { code: string; name: string },
  codes: readonly SectionCode[]
): Promise<void> {
  const offer = await familiesOf(tx, codes)
  const strange = codes.find((code) => !offer.some((one) => one.code === code && one.term === term.code))
  if (strange)
    throw new Refused(422, 'noOption', `${term.name} has no section ${strange}.`, [
      { field: 'sections', message: `has to be sections of ${term.name}` }
    ])
  const picked = offer.filter((one) => codes.includes(one.code))
  for (const course of new Set(picked.map((one) => one.course))) {
    const own = (list: readonly Section[]) => list.filter((one) => one.course === course)
    mustBeOption(own(offer), { course, sections: own(picked).map((one) => one.code) }, term.name)
  }
}

/**
 * Puts sections into a student's draft week, with what they are like now. Where a seat of their course is held, they
 * are picked instead of it.
 */
export async function putPicks(
  tx: Transaction,
  { student, draft }: { student: StudentId; draft: number },
  codes: readonly SectionCode[]
): Promise<void> {
  if (!codes.length) return
  const sections = new Map<string, Section>((await familiesOf(tx, codes)).map((one) => [one.code, one]))
  const rows = await tx
    .select({ id: t.section.id, code: t.section.code, course: t.section.courseId, term: t.section.termId })
    .from(t.section)
    .where(inArray(t.section.code, [...codes]))
  const seats = await tx
    .select({ course: t.section.courseId, term: t.section.termId })
    .from(t.registration)
    .innerJoin(t.section, eq(t.section.id, t.registration.sectionId))
    .where(eq(t.registration.studentId, student))
  await tx.insert(t.pickedSection).values(
    rows.map(({ id, code, course, term }) => ({
      draftWeekId: draft,
      sectionId: id,
      asPicked: asPicked(sections.get(code)!),
      exchange: seats.some((seat) => seat.course === course && seat.term === term)
    }))
  )
}
