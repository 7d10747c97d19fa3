/** Sets of files that are brought: what each would change, written in one transaction, and taken back. */
import { asc, between, desc, eq, sql } from 'drizzle-orm'
import { all, inTransaction, type Database, type Reader, type Transaction } from '#server/db/connect'
import { groupBy } from '#server/db/groupBy'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { isTwice } from '#server/db/referenced'
import { handOnOrphans } from '#server/features/advising/requestAnswers'
import { pause } from '#server/pause'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import { planning, presentOf, type RosterItem } from '#shared/oneRoster/plan'
import { reading, type RosterFault, type RosterFile } from '#shared/oneRoster/read'
import type { ImportPage, ImportRow, RosterCounts } from '#shared/oneRoster/responses'
import type { Row } from '#shared/oneRoster/tables'
import { writeRoster } from '#shared/oneRoster/write'
import { campusDate } from '#shared/when'
import { writeWanted } from './apply'
import { readRosterTables } from './present'
import { takeBack } from './journal'
import { judge } from './judge'
import { mustStand, withoutLines, type LeftOut } from './leftOut'

interface At {
  who: Who
  now: number
}

/** The zone of the campus; before there is an institution, that of nowhere. */
async function zoneOf(db: Reader): Promise<string> {
  const [institution] = await db.select().from(t.institution).limit(1)
  return institution?.timeZone ?? 'UTC'
}

const ITEMS_A_ROW = 200
const FAULTS_MOST = 1000

/** A long piece of work, at whose pauses others are answered. */
async function inTurns<T>(work: Generator<void, T>): Promise<T> {
  for (;;) {
    const { done, value } = work.next()
    if (done) return value
    await pause()
  }
}

/** All that is here, as the files of a set. */
export async function exportRoster(db: Reader): Promise<RosterFile[]> {
  const tables = await readRosterTables(db)
  const [institution] = await db.select().from(t.institution).limit(1)
  return writeRoster(tables, institution?.name ?? 'Ridgeway')
}

/** Reads a set and keeps what it would change; nothing else is written. */
export async function planImport(
  db: Database,
  { who, now }: At,
  { name, files }: { name: string; files: readonly RosterFile[] }
): Promise<{ id: number }> {
  const set = await inTurns(reading(files))
  const present = presentOf(await readRosterTables(db, set.tables.keys()))
  const planned = await inTurns(planning(set, present))
  const judged = await judge(db, planned.items, { present, today: campusDate(now, await zoneOf(db)) })
  const faults = [...planned.faults, ...judged.faults]
  const counts: RosterCounts = {}
  for (const { table, change } of judged.items) {
    const of = (counts[table] ??= {})
    of[change] = (of[change] ?? 0) + 1
  }
  const items = judged.items.filter((one) => one.change !== 'same')
  return inTransaction(db, async (tx) => {
    const [made] = await tx
      .insert(t.dataImport)
      .values({
        ...{ name, state: 'planned' as const, counts, byId: who.id, at: new Date(now) },
        faults: faults.slice(0, FAULTS_MOST)
      })
      .$returningId()
    const importId = made!.id
    for (let i = 0; i < items.length; i += ITEMS_A_ROW)
      await tx
        .insert(t.dataImportItems)
        .values({ importId, ordinal: i / ITEMS_A_ROW, items: items.slice(i, i + ITEMS_A_ROW) })
    await logEvent(tx, {
      ...{ at: now, account: who.id, student: null, action: 'import.planned' },
      after: { import: importId, name, counts, faults: faults.length }
    })
    return { id: importId }
  })
}

async function rowsOf(db: Reader, id?: number): Promise<(ImportRow & { told: RosterFault[] })[]> {
  const rows = await db
    .select({ one: t.dataImport, by: t.account.name })
    .from(t.dataImport)
    .innerJoin(t.account, eq(t.account.id, t.dataImport.byId))
    .where(id === undefined ? sql`true` : eq(t.dataImport.id, id))
    .orderBy(desc(t.dataImport.id))
    .limit(50)
  return rows.map(({ one, by }) => ({
    ...{ id: one.id, name: one.name, state: one.state, by, at: one.at.getTime() },
    ...{ counts: one.counts, faults: one.faults.length, told: one.faults }
  }))
}

export const readImports = async (db: Reader): Promise<ImportRow[]> =>
  (await rowsOf(db)).map(({ told: _, ...row }) => row)

const noImport = () => new Refused(404, 'noImport', 'There is no such import.')

/** Rows of items that are read at once: others are answered in between. */
const ROWS_AT_ONCE = 10

async function itemsOf(db: Reader, id: number): Promise<RosterItem[]> {
  const items: RosterItem[] = []
  for (let from = 0; ; from += ROWS_AT_ONCE) {
    const rows = await db
      .select({ items: t.dataImportItems.items })
      .from(t.dataImportItems)
      .where(
        all(
          eq(t.dataImportItems.importId, id),
          between(t.dataImportItems.ordinal, from, from + ROWS_AT_ONCE - 1)
        )
      )
      .orderBy(asc(t.dataImportItems.ordinal))
    for (const row of rows) items.push(...row.items)
    if (rows.length < ROWS_AT_ONCE) return items
  }
}

/** @param page of its lines, from 0 on; behind the last one there are none */
export async function readImport(db: Reader, id: number, page = 0): Promise<ImportPage> {
  const [row] = await rowsOf(db, id)
  if (!row) throw noImport()
  const [shown] = await db
    .select({ items: t.dataImportItems.items })
    .from(t.dataImportItems)
    .where(all(eq(t.dataImportItems.importId, id), eq(t.dataImportItems.ordinal, page)))
  const { told, ...rest } = row
  const differing = Object.values(row.counts).reduce(
    (sum, { new: fresh = 0, changed = 0, left = 0 }) => sum + fresh + changed + left,
    0
  )
  return {
    ...{ ...rest, faults: told, items: shown?.items ?? [], all: differing },
    ...{ page, pages: await db.$count(t.dataImportItems, eq(t.dataImportItems.importId, id)) }
  }
}

async function lockImport(tx: Transaction, id: number) {
  const [row] = await tx.select().from(t.dataImport).where(eq(t.dataImport.id, id)).for('update')
  if (!row) throw noImport()
  return row
}

/**
 * Writes what an import brings, without the files and lines that are left out, and what rests on such a line.
 *
 * @returns how many lines were written
 * @throws Refused where it is written already, or what is here has changed since it was looked at
 */
export async function applyImport(
  tx: Transaction,
  { who, now }: At,
  id: number,
  { leaveOut, lines }: LeftOut
): Promise<{ lines: number }> {
  const { state, name } = await lockImport(tx, id)
  if (state !== 'planned') throw new Refused(409, 'ended', 'It was taken over already.')
  const items = (await itemsOf(tx, id)).filter((one) => one.change === 'new' || one.change === 'changed')
  const taken = withoutLines(
    items.filter((one) => !leaveOut.includes(one.table)),
    lines
  )
  const wanted = groupBy(taken, (one) => one.table)
  await mustStand(tx, taken, leaveOut)
  try {
    await writeWanted(tx, { now, importId: id, by: who.id }, wanted)
  } catch (error) {
    if (!isTwice(error)) throw error
    throw new Refused(
      409,
      'movedOn',
      'Something that it brings has come here meanwhile. Bring the files again.'
    )
  }
  await tx
    .update(t.dataImport)
    .set({ state: 'applied', endedAt: new Date(now) })
    .where(eq(t.dataImport.id, id))
  await handOnOrphans(tx, { who, now })
  await told(tx, { who, now }, { id, name, action: 'import.applied' }, taken)
  return { lines: taken.length }
}

/** Takes an import back. */
export async function undoImport(tx: Transaction, { who, now }: At, id: number): Promise<void> {
  const { state, name } = await lockImport(tx, id)
  if (state !== 'applied')
    throw new Refused(409, 'notApplied', 'It is not taken over, so nothing is to be taken back.')
  await takeBack(tx, id)
  await tx
    .update(t.dataImport)
    .set({ state: 'undone', endedAt: new Date(now) })
    .where(eq(t.dataImport.id, id))
  const items = (await itemsOf(tx, id)).filter((one) => one.change === 'changed')
  await told(tx, { who, now }, { id, name, action: 'import.undone' }, items)
}

/** Everybody hears that the catalog is another; each student whose record is. */
async function told(
  tx: Transaction,
  { who, now }: At,
  { id, name, action }: { id: number; name: string; action: 'import.applied' | 'import.undone' },
  items: readonly RosterItem[]
): Promise<void> {
  await logEvent(tx, { at: now, account: who.id, student: null, action, after: { import: id, name } })
  const numbers = new Set(
    items.flatMap(({ row }: { row: Row }) =>
      [row.userSourcedId, row.studentSourcedId].flatMap((one) =>
        one?.startsWith('student-') ? [one.slice('student-'.length)] : []
      )
    )
  )
  // Of those who came with it nobody has seen anything yet.
  for (const { table, change, id: about } of items)
    if (table === 'users' && change === 'new') numbers.delete(about.replace(/^student-/, ''))
  if (!numbers.size) return
  const students = await tx.select({ id: t.student.id, number: t.student.number }).from(t.student)
  for (const student of students)
    if (numbers.has(student.number))
      await logEvent(tx, {
        ...{ at: now, account: who.id, student: student.id, action: 'record.brought' },
        after: { import: id }
      })
}
