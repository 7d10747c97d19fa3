/** What holds of a section beside its hours and seats: whom it is for, who teaches it, its line, its fee, seats kept. */
import { asc, eq, inArray } from 'drizzle-orm'
import { parseDayLetters } from '#core/formats'
import type { SectionCode } from '#core/ids'
import type { Section } from '#core/week'
import { all, type Reader, type Transaction } from '#server/db/connect'
import { groupBy } from '#server/db/groupBy'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { handOnOrphans } from '#server/features/advising/requestAnswers'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import type { CatalogContext } from '#shared/catalog/context'
import type { SectionRules } from '#shared/sections/requests'
import { sectionName, sectionPlace } from '#shared/week/texts'
import { holidaysOf, lockWanted, mustBeFree, NOWHERE } from './clashes'
import { lockKnown, mustNotBeOver } from './planning'
import { sectionsByCode } from './sections'

type Row = typeof t.section.$inferSelect

/** The rules of sections, by code. */
export async function rulesOf(db: Reader, codes: readonly string[]): Promise<Record<string, SectionRules>> {
  if (!codes.length) return {}
  const rows = await db
    .select({ section: t.section, block: t.block.code })
    .from(t.section)
    .leftJoin(t.block, eq(t.block.id, t.section.blockId))
    .where(inArray(t.section.code, [...codes]))
  const ids = rows.map(({ section }) => section.id)
  const teaching = groupBy(
    await db.select().from(t.sectionInstructor).where(inArray(t.sectionInstructor.sectionId, ids)),
    (row) => row.sectionId
  )
  const meetings = groupBy(
    await db.select().from(t.meeting).where(inArray(t.meeting.sectionId, ids)),
    (row) => row.sectionId
  )
  const reserved = groupBy(
    await db
      .select({ kept: t.reservedSeats, block: t.block.code })
      .from(t.reservedSeats)
      .leftJoin(t.block, eq(t.block.id, t.reservedSeats.blockId))
      .where(inArray(t.reservedSeats.sectionId, ids))
      .orderBy(asc(t.reservedSeats.id)),
    (row) => row.kept.sectionId
  )
  return Object.fromEntries(
    rows.map(({ section: s, block }): [string, SectionRules] => [
      s.code,
      {
        topic: s.topic,
        instructors: (teaching.get(s.id) ?? []).map((one) => one.instructorId),
        room: meetings.get(s.id)?.[0]?.roomId ?? null,
        line: s.waitCapacity,
        fee: s.fee,
        permissionNeeded: s.permissionNeeded,
        officeOnly: s.officeOnly,
        block,
        onlyFor: s.onlyFor && { programs: [...s.onlyFor.programs], standings: [...s.onlyFor.standings] },
        reserved: (reserved.get(s.id) ?? []).map((one) => ({
          ...{ program: one.kept.programCode, block: one.block, seats: one.kept.seats }
        }))
      }
    ])
  )
}

/**
 * Changes what holds of a section. Seats that are held stay, whoever they would be for now.
 *
 * @throws Refused where more stand in line, seats are held at another fee, or a room or an instructor is taken
 * @returns the term
 */
export async function changeRules(
  tx: Transaction,
  who: Who,
  code: string,
  said: SectionRules,
  { catalogContext, now }: { catalogContext: CatalogContext; now: number }
): Promise<string> {
  const { section, course, term } = await lockKnown(tx, who, code)
  mustNotBeOver(term, now, catalogContext)
  if (section.cancelled) throw new Refused(409, 'cancelled', `Section ${code} is cancelled.`)
  const { [code]: before } = await rulesOf(tx, [code])
  const [was] = await sectionsByCode(tx, [code as SectionCode])
  if (section.waiting > said.line)
    throw refused(
      'line',
      'lineTaken',
      `${section.waiting} stand in line.`,
      `has to be at least ${section.waiting}`
    )
  if (said.fee !== section.fee && section.taken + section.offered > 0)
    throw refused(
      'fee',
      'feeStays',
      'Seats are held at the fee that it has.',
      'has to stay as it is while seats are held'
    )
  await lockWanted(tx, {
    parts: [{ room: said.room, seats: section.capacity }],
    instructors: said.instructors
  })
  const meetings = await tx.select().from(t.meeting).where(eq(t.meeting.sectionId, section.id))
  for (const { days, startsMin, endsMin, fromOn, toOn } of meetings)
    await mustBeFree(
      tx,
      term,
      {
        ...{ days: parseDayLetters(days) ?? [], start: startsMin, end: endsMin, from: fromOn, to: toOn },
        ...NOWHERE
      },
      {
        ...{ room: said.room, instructors: said.instructors, moved: section.id },
        holidays: holidaysOf(catalogContext, term.code)
      }
    )
  await putRules(tx, section, said)
  if (before!.instructors.some((one) => !said.instructors.includes(one)))
    await handOnOrphans(tx, { who, now })
  await tx.update(t.meeting).set({ roomId: said.room }).where(eq(t.meeting.sectionId, section.id))
  await logEvent(tx, {
    ...{ at: now, account: who.id, student: null, action: 'section.rulesChanged' },
    before: { term: term.code, course, section: code, ...before },
    after: { term: term.code, course, section: code, ...said }
  })
  const [is] = await sectionsByCode(tx, [code as SectionCode])
  await tellElsewhere(tx, { who, now, id: section.id }, was!, is!)
  return term.code
}

/** Tells whoever holds a seat of a section where it meets and who teaches it, as far as that has changed. */
async function tellElsewhere(
  tx: Transaction,
  { who, now, id }: { who: Who; now: number; id: number },
  was: Section,
  is: Section
): Promise<void> {
  const [placeBefore, place] = [sectionPlace(was), sectionPlace(is)]
  const teachers = is.instructors.join(', ') || 'somebody who is not named yet'
  const changed = {
    ...(place !== placeBefore && { place, placeBefore }),
    ...(is.instructors.join() !== was.instructors.join() && { instructors: teachers })
  }
  if (!Object.keys(changed).length) return
  const people = await tx
    .select({ student: t.registration.studentId })
    .from(t.registration)
    .where(eq(t.registration.sectionId, id))
  const after = { term: is.term, course: is.course, section: sectionName(is), ...changed }
  for (const { student } of people)
    await logEvent(tx, { at: now, account: who.id, student, action: 'registration.elsewhere', after })
}

/** Writes what holds of a section, but its room. @throws Refused for what there is not, or what a component cannot have */
export async function putRules(
  tx: Transaction,
  section: Pick<Row, 'id' | 'parentId' | 'capacity'>,
  said: Omit<SectionRules, 'room'>
): Promise<void> {
  const { topic, line, fee, permissionNeeded, officeOnly, onlyFor, reserved } = said
  const ofSection =
    officeOnly || permissionNeeded || said.block !== null || onlyFor !== null || reserved.length > 0
  if (section.parentId !== null && ofSection)
    throw refused(
      'onlyFor',
      'ofSection',
      'Whom a component is for is said of its section.',
      'has to be said of the section, not of a component'
    )
  const kept = reserved.reduce((sum, one) => sum + one.seats, 0)
  if (kept > section.capacity)
    throw refused(
      'reserved',
      'tooManyKept',
      `${kept} seats would be kept of ${section.capacity}.`,
      `have to be ${section.capacity} seats or less`
    )
  const blocks = await blockIds(tx, [said.block, ...reserved.map((one) => one.block)])
  await mustBePrograms(tx, [...(onlyFor?.programs ?? []), ...reserved.map((one) => one.program)])
  await tx
    .update(t.section)
    .set({
      ...{ topic, waitCapacity: line, fee, permissionNeeded, officeOnly, onlyFor },
      blockId: said.block === null ? null : blocks.get(said.block)!
    })
    .where(eq(t.section.id, section.id))
  await tx.delete(t.sectionInstructor).where(eq(t.sectionInstructor.sectionId, section.id))
  const instructors = [...new Set(said.instructors)]
  if (instructors.length)
    await tx
      .insert(t.sectionInstructor)
      .values(instructors.map((instructorId) => ({ sectionId: section.id, instructorId })))
  await tx.delete(t.reservedSeats).where(eq(t.reservedSeats.sectionId, section.id))
  if (reserved.length)
    await tx.insert(t.reservedSeats).values(
      reserved.map(({ program, block, seats }) => ({
        ...{ sectionId: section.id, programCode: program, seats },
        blockId: block === null ? null : blocks.get(block)!
      }))
    )
}

async function blockIds(tx: Transaction, codes: readonly (string | null)[]): Promise<Map<string, number>> {
  const wanted = [...new Set(codes.filter((one) => one !== null))]
  if (!wanted.length) return new Map()
  const rows = await tx.select().from(t.block).where(inArray(t.block.code, wanted))
  const found = new Map(rows.map((row) => [row.code, row.id]))
  for (const code of wanted)
    if (!found.has(code))
      throw refused('block', 'noBlock', `There is no block ${code}.`, `has to be a block: ${code} is none`)
  return found
}

async function mustBePrograms(tx: Transaction, codes: readonly (string | null)[]): Promise<void> {
  const wanted = [...new Set(codes.filter((one) => one !== null))]
  if (!wanted.length) return
  const rows = await tx
    .select({ code: t.program.code })
    .from(t.program)
    .where(all(inArray(t.program.code, wanted)))
  for (const code of wanted)
    if (!rows.some((row) => row.code === code))
      throw refused(
        'onlyFor',
        'noProgram',
        `There is no program ${code}.`,
        `has to name programs: ${code} is none`
      )
}

const refused = (field: string, code: string, text: string, message: string) =>
  new Refused(422, code, text, [{ field, message }])
