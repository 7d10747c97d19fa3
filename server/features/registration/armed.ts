/**
 * Run sheets that were left to run by themselves. All that are due at once are drawn into an order by lot, whoever armed
 * first: it says nothing about who may have a seat. Then they run one after the other like any other run, each by one
 * server at a time: its lease ends if that server does, and its key makes it the same run for the next.
 */
import { randomInt } from 'node:crypto'
import { asc, eq, isNotNull, isNull, lt, or } from 'drizzle-orm'
import { studentId, termCode, type StudentId, type TermCode } from '#core/ids'
import { drawLots } from '#core/registration'
import type { Instant } from '#core/time'
import { groupBy } from '#server/db/groupBy'
import { all, inTransaction, type Database, type Reader, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { whoIs } from '#server/features/accounts/accounts'
import { lockStudent } from '#server/features/record/lock'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { campusNow } from '#server/gateways/clock'
import type { CatalogContext } from '#shared/catalog/context'
import { isSeat } from '#shared/registration/outcomes'
import { preparedRun } from '#shared/registration/prepared'
import type { Receipt } from '#shared/registration/responses'
import { opensFor } from './openings'
import { run } from './run'

interface ArmedSheet {
  student: StudentId
  term: TermCode
  termId: number
  armedAt: Date
}

/**
 * Runs what is due as of the campus time, until nothing is. One that fails holds up none of the others; it is tried again
 * once its lease is over.
 *
 * @throws the first failure, after the others have run
 */
export async function runArmed(db: Database, catalogContext: CatalogContext): Promise<void> {
  await draw(db, await campusNow(db))
  const failures: unknown[] = []
  for (let next; (next = await lease(db));)
    await runOne(db, next, catalogContext).catch((error: unknown) => failures.push(error))
  if (failures.length) throw failures[0]
}

/** When the next of them is due, as of the campus time; undefined where none is waiting. */
export async function nextArmed(db: Reader): Promise<Instant | undefined> {
  const opens = (await armedSheets(db)).map((one) => one.opens)
  return opens.length ? Math.min(...opens) : undefined
}

/** Sheets that wait for their opening, and when that is. */
async function armedSheets(db: Reader): Promise<(ArmedSheet & { opens: Instant })[]> {
  const rows = await db
    .select({
      student: t.preparedSheet.studentId,
      term: t.term.code,
      termId: t.term.id,
      armedAt: t.preparedSheet.armedAt
    })
    .from(t.preparedSheet)
    .innerJoin(t.term, eq(t.term.id, t.preparedSheet.termId))
    .where(all(isNotNull(t.preparedSheet.armedAt), isNull(t.preparedSheet.lot)))
    .orderBy(asc(t.preparedSheet.studentId))
  const found: (ArmedSheet & { opens: Instant })[] = []
  for (const [code, sheets] of groupBy(rows, (row) => row.term)) {
    const term = termCode(code)
    const opens = await opensFor(
      db,
      term,
      sheets.map((one) => studentId(one.student))
    )
    for (const { student: id, termId, armedAt } of sheets) {
      const student = studentId(id)
      const at = opens.get(student)
      if (at !== undefined) found.push({ student, term, termId, armedAt: armedAt!, opens: at })
    }
  }
  return found
}

/** Draws an order of all that are due and have none yet. */
async function draw(db: Database, now: Instant): Promise<void> {
  const due = (await armedSheets(db)).filter((one) => one.opens <= now)
  if (!due.length) return
  await inTransaction(db, async (tx) => {
    for (const [lot, one] of drawLots(due, (bound) => randomInt(bound)).entries())
      await tx
        .update(t.preparedSheet)
        .set({ lot })
        .where(all(ofSheet(one), isNotNull(t.preparedSheet.armedAt), isNull(t.preparedSheet.lot)))
  })
}

const ofSheet = ({ student, termId }: Pick<ArmedSheet, 'student' | 'termId'>) =>
  all(eq(t.preparedSheet.studentId, student), eq(t.preparedSheet.termId, termId))

/** Longer than a run takes. */
const LEASE_MS = 60_000

/** Takes the first that no other server is at; undefined once there is none. */
function lease(db: Database): Promise<ArmedSheet | undefined> {
  return inTransaction(db, async (tx) => {
    const now = Date.now()
    const [row] = await tx
      .select()
      .from(t.preparedSheet)
      .where(
        all(
          isNotNull(t.preparedSheet.armedAt),
          isNotNull(t.preparedSheet.lot),
          or(isNull(t.preparedSheet.leasedUntil), lt(t.preparedSheet.leasedUntil, new Date(now)))
        )
      )
      .orderBy(asc(t.preparedSheet.lot), asc(t.preparedSheet.studentId))
      .limit(1)
      .for('update', { skipLocked: true })
    if (!row) return undefined
    const [term] = await tx.select({ code: t.term.code }).from(t.term).where(eq(t.term.id, row.termId))
    const leased = {
      student: studentId(row.studentId),
      term: termCode(term!.code),
      termId: row.termId,
      armedAt: row.armedAt!
    }
    await tx
      .update(t.preparedSheet)
      .set({ leasedUntil: new Date(now + LEASE_MS) })
      .where(ofSheet(leased))
    return leased
  })
}

async function runOne(db: Database, sheet: ArmedSheet, catalogContext: CatalogContext): Promise<void> {
  const { student, term, armedAt } = sheet
  const [studentRecord] = await readStudentRecords(db, [student], 'self')
  const [account] = await db
    .select({ id: t.student.accountId })
    .from(t.student)
    .where(eq(t.student.id, student))
  const key = `armed ${term} ${armedAt.getTime()}`
  const asked = { term, ...preparedRun(studentRecord!, term), armed: true, key }
  const receipt =
    asked.courses.length + asked.drop.length
      ? await run(db, await whoIs(db, account!.id), student, asked, catalogContext)
      : undefined
  await inTransaction(db, (tx) => disarm(tx, sheet, receipt))
}

/** It has run, and is told of. */
async function disarm(tx: Transaction, sheet: ArmedSheet, receipt: Receipt | undefined): Promise<void> {
  const { student, term, armedAt } = sheet
  await lockStudent(tx, student)
  const [done] = await tx
    .update(t.preparedSheet)
    .set({ armedAt: null, lot: null, leasedUntil: null })
    .where(all(ofSheet(sheet), eq(t.preparedSheet.armedAt, armedAt)))
  if (!done.affectedRows) return
  const lines = receipt?.lines ?? []
  await logEvent(tx, {
    at: await campusNow(tx),
    account: null,
    student,
    action: 'sheet.ran',
    after: {
      term,
      receipt: receipt?.id ?? null,
      lines: lines.length,
      seats: lines.filter((line) => isSeat(line.outcome)).length
    }
  })
}
