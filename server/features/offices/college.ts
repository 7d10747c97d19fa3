/** What the college itself is: read, and written part by part by the registrar. */
import { asc, eq, isNotNull } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import type { AnyMySqlColumn, MySqlTable } from 'drizzle-orm/mysql-core'
import { scaleOf } from '#core/grades'
import type { Instant } from '#core/time'
import type { Reader, Transaction } from '#server/db/connect'
import { groupBy } from '#server/db/groupBy'
import { logEvent } from '#server/db/log'
import { isReferenced, isTwice } from '#server/db/referenced'
import * as t from '#server/db/schema/index'
import { lastAskingFor } from '#server/features/catalog/lists'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import type { CollegePage, CollegeSaid } from '#shared/offices/college'
import { writeGrades } from './collegeGrades'
import { refusedCollege as refuse } from './collegeRefused'

export async function readCollege(db: Reader): Promise<CollegePage> {
  const [institution] = await db.select().from(t.institution).limit(1)
  const to = alias(t.campus, 'to')
  const rooms = groupBy(await db.select().from(t.room).orderBy(asc(t.room.name)), (one) => one.buildingId)
  const buildings = await db
    .select({ id: t.building.id, campus: t.campus.code, name: t.building.name })
    .from(t.building)
    .innerJoin(t.campus, eq(t.campus.id, t.building.campusId))
    .orderBy(asc(t.campus.code), asc(t.building.name))
  const given = await db
    .selectDistinct({ grade: t.recordCourse.grade })
    .from(t.recordCourse)
    .where(isNotNull(t.recordCourse.grade))
  return {
    version: institution?.version ?? 0,
    name: institution?.name ?? '',
    timeZone: institution?.timeZone ?? '',
    hasTerms: (await db.$count(t.term)) > 0,
    campuses: await db
      .select({ id: t.campus.id, code: t.campus.code, name: t.campus.name })
      .from(t.campus)
      .orderBy(asc(t.campus.id)),
    travel: await db
      .select({ from: t.campus.code, to: to.code, minutes: t.campusTravel.minutes })
      .from(t.campusTravel)
      .innerJoin(t.campus, eq(t.campus.id, t.campusTravel.fromId))
      .innerJoin(to, eq(to.id, t.campusTravel.toId))
      .orderBy(asc(t.campus.code), asc(to.code)),
    buildings: buildings.map((one) => ({
      ...one,
      rooms: (rooms.get(one.id) ?? []).map(({ id, name, seats }) => ({ id, name, seats }))
    })),
    departments: await db.select().from(t.department).orderBy(asc(t.department.name)),
    subjects: await db
      .select({
        code: t.subject.code,
        name: t.subject.name,
        college: t.subject.college,
        department: t.department.name
      })
      .from(t.subject)
      .leftJoin(t.department, eq(t.department.id, t.subject.departmentId))
      .orderBy(asc(t.subject.code)),
    categories: await db.select().from(t.category).orderBy(asc(t.category.id)),
    grades: [...scaleOf(institution?.grades).grades],
    given: given.flatMap((one) => one.grade ?? [])
  }
}

/**
 * Writes a part of what the college is. The first is its frame, by which there is one.
 *
 * @throws Refused where it was written meanwhile, or something rests on what would be gone or another
 */
export async function writeCollege(
  tx: Transaction,
  { who, now }: { who: Who; now: Instant },
  said: CollegeSaid
): Promise<{ version: number }> {
  const [institution] = await tx.select().from(t.institution).limit(1).for('update')
  if ((institution?.version ?? 0) !== said.version)
    throw new Refused(409, 'changedMeanwhile', 'Somebody else has changed the college meanwhile.')
  const version = said.version + 1
  if (!institution && said.part !== 'frame')
    throw new Refused(409, 'notSetUp', 'First say what the college is called and where it is.')
  try {
    await writePart(tx, said, institution?.id)
  } catch (error) {
    if (!isTwice(error)) throw error
    throw refuse(
      said.part,
      'has to have every name once; two that change their names for each other do so one by one'
    )
  }
  await tx.update(t.institution).set({ version }).where(isNotNull(t.institution.id))
  const after = { part: said.part, version }
  await logEvent(tx, { at: now, account: who.id, student: null, action: 'college.written', after })
  return { version }
}

async function writePart(tx: Transaction, said: CollegeSaid, institution: number | undefined): Promise<void> {
  const before = await readCollege(tx)
  switch (said.part) {
    case 'frame':
      return writeFrame(tx, institution, said, before)
    case 'rooms':
      return writeRooms(tx, said, before)
    case 'subjects':
      return writeSubjects(tx, said, before)
    case 'categories':
      return writeCategories(tx, said, before)
    case 'grades':
      return writeGrades(tx, said.grades, before)
  }
}

type Part<P extends CollegeSaid['part']> = Extract<CollegeSaid, { part: P }>

/** Takes away what is not said any more. @throws Refused where something rests on it */
async function dropMissing(
  tx: Transaction,
  [table, id]: readonly [MySqlTable, AnyMySqlColumn],
  known: readonly { id: number | null; name: string }[],
  said: readonly { id: number | null }[],
  field: string
): Promise<void> {
  const stays = new Set(said.map((one) => one.id))
  for (const one of known.filter(({ id: known_ }) => !stays.has(known_)))
    try {
      await tx.delete(table).where(eq(id, one.id))
    } catch (error) {
      if (!isReferenced(error)) throw error
      throw refuse(field, `has to keep ${one.name}: something rests on it`)
    }
}

/** @throws Refused for a row that there is not: somebody made the number up */
function mustBeKnown(
  said: readonly { id: number | null }[],
  known: readonly { id: number | null }[],
  field: string
) {
  const there = new Set(known.map((one) => one.id))
  if (said.some(({ id }) => id !== null && !there.has(id)))
    throw refuse(field, 'has to name rows that there are')
}

async function writeFrame(
  tx: Transaction,
  known: number | undefined,
  said: Part<'frame'>,
  before: CollegePage
): Promise<void> {
  const { name, timeZone, campuses, travel } = said
  if (before.hasTerms && timeZone !== before.timeZone)
    throw refuse('timeZone', `has to stay ${before.timeZone}: the instants of terms are in it`)
  mustBeKnown(campuses, before.campuses, 'campuses')
  for (const { from, to } of travel)
    for (const code of [from, to])
      if (!campuses.some((one) => one.code === code))
        throw refuse('travel', `has to name campuses, and ${code} is none`)
  if (known !== undefined)
    await tx.update(t.institution).set({ name, timeZone }).where(eq(t.institution.id, known))
  const [made] =
    known === undefined ? await tx.insert(t.institution).values({ name, timeZone }).$returningId() : []
  const institutionId = known ?? made!.id
  const stays = new Set(campuses.map((one) => one.code))
  for (const { code, name: called } of before.campuses)
    if (!stays.has(code) && (await lastAskingFor(tx, 'campus', code)))
      throw refuse('campuses', `has to keep ${called}: a published program asks for it`)
  await tx.delete(t.campusTravel).where(isNotNull(t.campusTravel.fromId))
  await dropMissing(tx, [t.campus, t.campus.id], before.campuses, campuses, 'campuses')
  for (const { id, code, name: called } of campuses) {
    const old = before.campuses.find((one) => one.id === id)
    if (old && old.code !== code)
      throw refuse('campuses', `has to leave the code ${old.code} as it is: rules of programs name it`)
    if (id === null) await tx.insert(t.campus).values({ institutionId, code, name: called })
    else await tx.update(t.campus).set({ name: called }).where(eq(t.campus.id, id))
  }
  const ids = await campusIds(tx)
  const ways = new Map(travel.map((one) => [`${one.from} ${one.to}`, one]))
  const rows = [...ways.values()].flatMap(({ from, to, minutes }) =>
    from === to ? [] : [{ fromId: ids.get(from)!, toId: ids.get(to)!, minutes }]
  )
  if (rows.length) await tx.insert(t.campusTravel).values(rows)
}

const campusIds = async (db: Reader) =>
  new Map((await db.select().from(t.campus)).map((one) => [one.code, one.id]))

async function writeRooms(tx: Transaction, { buildings }: Part<'rooms'>, before: CollegePage): Promise<void> {
  mustBeKnown(buildings, before.buildings, 'buildings')
  const campuses = await campusIds(tx)
  const roomsBefore = before.buildings.flatMap((one) => one.rooms)
  const rooms = buildings.flatMap((one) => one.rooms)
  mustBeKnown(rooms, roomsBefore, 'buildings')
  await dropMissing(tx, [t.room, t.room.id], roomsBefore, rooms, 'buildings')
  await dropMissing(tx, [t.building, t.building.id], before.buildings, buildings, 'buildings')
  for (const { id, campus, name, rooms: inside } of buildings) {
    const campusId = campuses.get(campus)
    if (campusId === undefined) throw refuse('buildings', `has to name a campus, and ${campus} is none`)
    let buildingId = id
    if (buildingId === null) {
      const [made] = await tx.insert(t.building).values({ campusId, name }).$returningId()
      buildingId = made!.id
    } else await tx.update(t.building).set({ campusId, name }).where(eq(t.building.id, buildingId))
    for (const room of inside) {
      const values = { buildingId, name: room.name, seats: room.seats }
      const old = roomsBefore.find((one) => one.id === room.id)
      if (room.id === null) await tx.insert(t.room).values(values)
      else if (old!.name !== room.name || old!.seats !== room.seats || id === null)
        await tx.update(t.room).set(values).where(eq(t.room.id, room.id))
    }
  }
}

async function writeSubjects(
  tx: Transaction,
  { departments, subjects }: Part<'subjects'>,
  before: CollegePage
): Promise<void> {
  mustBeKnown(departments, before.departments, 'departments')
  const said = new Set(subjects.map((one) => one.code))
  const lost = before.subjects.find((one) => !said.has(one.code))
  if (lost) throw refuse('subjects', `has to keep ${lost.code}: codes of courses begin with it`)
  // Set free first, so that a department can be taken away whose subjects went to another.
  await tx.update(t.subject).set({ departmentId: null }).where(isNotNull(t.subject.id))
  await dropMissing(tx, [t.department, t.department.id], before.departments, departments, 'departments')
  for (const { id, name } of departments)
    if (id === null) await tx.insert(t.department).values({ name })
    else await tx.update(t.department).set({ name }).where(eq(t.department.id, id))
  const ids = new Map((await tx.select().from(t.department)).map((one) => [one.name, one.id]))
  const there = new Set(before.subjects.map((one) => one.code))
  for (const { code, name, college, department } of subjects) {
    if (department !== null && !ids.has(department))
      throw refuse('subjects', `has to name a department, and ${department} is none`)
    const values = { name, college, departmentId: department === null ? null : ids.get(department)! }
    if (there.has(code)) await tx.update(t.subject).set(values).where(eq(t.subject.code, code))
    else await tx.insert(t.subject).values({ code, ...values })
  }
}

async function writeCategories(
  tx: Transaction,
  { categories }: Part<'categories'>,
  before: CollegePage
): Promise<void> {
  mustBeKnown(categories, before.categories, 'categories')
  const stays = new Map(categories.map((one) => [one.id, one.code]))
  for (const { id, code } of before.categories)
    if (stays.get(id!) !== code && (await lastAskingFor(tx, 'category', code)))
      throw refuse('categories', `has to keep the code ${code}: a published program asks for it`)
  const named = before.categories.map(({ id, title }) => ({ id, name: title }))
  await dropMissing(tx, [t.category, t.category.id], named, categories, 'categories')
  for (const { id, ...values } of categories)
    if (id === null) await tx.insert(t.category).values(values)
    else await tx.update(t.category).set(values).where(eq(t.category.id, id))
}
