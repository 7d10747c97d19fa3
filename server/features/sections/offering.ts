/** The offer of a term as those who plan it change it: seats more or fewer, and another section like one that is there. */
import { asc, eq, or } from 'drizzle-orm'
import type { CourseCode, TermCode } from '#core/ids'
import type { Reader, Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { termRow } from '#server/features/catalog/catalog'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import type { CatalogContext } from '#shared/catalog/context'
import type { OfferedCourse } from '#shared/sections/offering'
import type { SectionAdded } from '#shared/sections/requests'
import { readBlocks } from './blocks'
import { bestHours } from './bestHours'
import { mustSeat } from './clashes'
import { insertFamily, mustFit } from './family'
import { lockKnown, mustNotBeOver, mustPlan } from './planning'
import { rulesOf } from './rules'
import { plannedOffer } from './sections'

/** A course's sections in a term, with what may be chosen for another one. */
export async function readOffered(
  db: Reader,
  who: Pick<Who, 'id' | 'role'>,
  { term, course }: { term: TermCode; course: CourseCode }
): Promise<OfferedCourse> {
  await mustPlan(db, who, course)
  await termRow(db, term)
  const sections = (await plannedOffer(db, term, course)).filter((one) => !one.cancelled)
  const rooms = await db
    .select({
      id: t.room.id,
      room: t.room.name,
      building: t.building.name,
      seats: t.room.seats,
      campus: t.campus.code
    })
    .from(t.room)
    .innerJoin(t.building, eq(t.building.id, t.room.buildingId))
    .innerJoin(t.campus, eq(t.campus.id, t.building.campusId))
    .orderBy(asc(t.building.name), asc(t.room.name))
  const instructors = await db
    .select({ id: t.instructor.id, name: t.instructor.name })
    .from(t.instructor)
    .orderBy(asc(t.instructor.name))
  return {
    sections,
    rooms: rooms.map(({ room, building, ...one }) => ({ ...one, name: `${building} ${room}` })),
    instructors,
    rules: await rulesOf(
      db,
      sections.map((one) => one.code)
    ),
    blocks: await readBlocks(db),
    programs: await db
      .select({ code: t.program.code, title: t.program.title })
      .from(t.program)
      .orderBy(asc(t.program.title)),
    ...(await bestHours(db, { term, course }, sections))
  }
}

/**
 * Gives a section so many seats. What is taken or offered stays; more seats go to those in line first.
 *
 * @throws Refused for fewer than are taken, or more than its room has
 * @returns the term
 */
export async function setSeats(
  tx: Transaction,
  who: Who,
  code: string,
  seats: number,
  { catalogContext, now }: { catalogContext: CatalogContext; now: number }
): Promise<string> {
  const { section, course, term } = await lockKnown(tx, who, code)
  mustNotBeOver(term, now, catalogContext)
  if (section.cancelled) throw new Refused(409, 'cancelled', `Section ${code} is cancelled.`)
  const taken = section.taken + section.offered
  if (seats < taken)
    throw new Refused(422, 'seatsTaken', `${taken} seats of ${code} are taken or offered.`, [
      { field: 'seats', message: `has to be at least ${taken}` }
    ])
  const rooms = await tx
    .select({ name: t.room.name, building: t.building.name, seats: t.room.seats })
    .from(t.meeting)
    .innerJoin(t.room, eq(t.room.id, t.meeting.roomId))
    .innerJoin(t.building, eq(t.building.id, t.room.buildingId))
    .where(eq(t.meeting.sectionId, section.id))
  if (seats > section.capacity) for (const room of rooms) mustSeat(room, seats)
  await tx.update(t.section).set({ capacity: seats }).where(eq(t.section.id, section.id))
  await logEvent(tx, {
    ...{ at: now, account: who.id, student: null, action: 'section.seatsChanged' },
    before: { term: term.code, course, section: code, capacity: section.capacity },
    after: { term: term.code, course, section: code, capacity: seats }
  })
  return term.code
}

/**
 * Adds a section like another one of the same term, with parts at hours of their own.
 *
 * @throws Refused where a part is missing, or a room or an instructor is taken at these hours
 * @returns the code of the new section, and its term
 */
export async function addSection(
  tx: Transaction,
  who: Who,
  like: string,
  said: SectionAdded,
  { catalogContext, now }: { catalogContext: CatalogContext; now: number }
): Promise<{ code: string; term: string }> {
  const { section, course, term } = await lockKnown(tx, who, like)
  mustNotBeOver(term, now, catalogContext)
  const family = await tx
    .select()
    .from(t.section)
    .where(or(eq(t.section.id, section.id), eq(t.section.parentId, section.id))!)
    .orderBy(asc(t.section.id))
  const parts = mustHaveParts(section, family, said)
  const [session] = await tx.select().from(t.session).where(eq(t.session.id, section.sessionId))
  const dates = { from: session!.startsOn, to: session!.endsOn }
  const instructors = said.instructor === null ? [] : [said.instructor]
  await mustFit(
    tx,
    term,
    parts.map(({ part, row }) => ({ ...part, ...dates, kind: row.kind })),
    { instructors, catalogContext }
  )
  const [first] = await insertFamily(
    tx,
    parts.map(({ row, part }) => {
      const { id: _, code: _c, number: _n, parentId: _p, ...copied } = row
      return {
        values: { ...copied, blockId: null, officeOnly: false },
        part: { ...part, ...dates, kind: row.kind }
      }
    }),
    instructors
  )
  const after = { term: term.code, course, section: first!.code, like, capacity: parts[0]!.part.seats }
  await logEvent(tx, { at: now, account: who.id, student: null, action: 'section.added', after })
  return { code: first!.code, term: term.code }
}

/** The section itself first, then a component of each kind that it has. */
function mustHaveParts(
  main: typeof t.section.$inferSelect,
  family: readonly (typeof t.section.$inferSelect)[],
  { parts }: SectionAdded
) {
  const found = parts.map((part) => ({ part, row: family.find((one) => one.code === part.of) }))
  const own = found.flatMap(({ part, row }) => (row ? [{ part, row }] : []))
  const kinds = new Set(
    family.filter((one) => one.parentId !== null && !one.cancelled).map((one) => one.kind)
  )
  const isWhole = [...kinds].every((kind) =>
    own.some(({ row }) => row.parentId !== null && row.kind === kind)
  )
  const mains = own.filter(({ row }) => row.id === main.id)
  if (main.parentId !== null || own.length < found.length || mains.length !== 1 || !isWhole)
    throw new Refused(422, 'parts', 'A section is added with each kind of its parts.', [
      { field: 'parts', message: `have to be ${main.code} once, and each kind of its components` }
    ])
  return [...mains, ...own.filter(({ row }) => row.id !== main.id)]
}
