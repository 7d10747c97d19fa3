/**
 * Rehearsals by night: the sheets of all whose opening is within a week, once a day on campus. A student is told the first
 * time, and whenever it comes to something else than what they were told.
 */
import { asc, eq, inArray } from 'drizzle-orm'
import { studentId, termCode, type StudentId, type TermCode } from '#core/ids'
import type { Instant, IsoDate } from '#core/time'
import { groupBy } from '#server/db/groupBy'
import { all, inTransaction, type Database } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { lockStudent } from '#server/features/record/lock'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { campusNow } from '#server/gateways/clock'
import { momentOf, type CatalogContext } from '#shared/catalog/context'
import { preparedOf } from '#shared/registration/prepared'
import { rehearsalOf, type RehearsalSaid } from '#shared/registration/rehearsal'
import { opensFor, readOpenings } from './openings'
import { readSheet } from './sheet'

const HOUR_MS = 3_600_000
const WEEK_MS = 7 * 24 * HOUR_MS
/** The night's work is that of the day on which it is two in the morning. */
const NIGHT_MS = 2 * HOUR_MS
/** As many records are read at once. */
const AT_ONCE = 50

export async function rehearseNightly(db: Database, catalogContext: CatalogContext): Promise<void> {
  const now = await campusNow(db)
  const { today } = momentOf(now - NIGHT_MS, catalogContext.zone)
  const isSoon = (opens: Instant) => opens > now && opens - now <= WEEK_MS
  const terms = new Set((await readOpenings(db)).filter((one) => isSoon(one.opens)).map((one) => one.term))
  if (!terms.size) return
  const rows = await db
    .selectDistinct({ student: t.draftWeek.studentId, term: t.term.code, doneOn: t.rehearsal.onDate })
    .from(t.draftWeek)
    .innerJoin(t.term, eq(t.term.id, t.draftWeek.termId))
    .leftJoin(
      t.rehearsal,
      all(eq(t.rehearsal.studentId, t.draftWeek.studentId), eq(t.rehearsal.termId, t.term.id))
    )
    .where(all(eq(t.draftWeek.goingWith, true), inArray(t.term.code, [...terms])))
    .orderBy(asc(t.draftWeek.studentId))
  const open = rows.filter((row) => row.doneOn === null || row.doneOn < today)
  for (const [code, own] of groupBy(open, (row) => row.term)) {
    const students = own.map((row) => studentId(row.student))
    const opens = await opensFor(db, termCode(code), students)
    const due = students.filter((one) => isSoon(opens.get(one) ?? 0))
    for (let i = 0; i < due.length; i += AT_ONCE)
      await rehearse(db, catalogContext, termCode(code), due.slice(i, i + AT_ONCE), { now, today })
  }
}

async function rehearse(
  db: Database,
  catalogContext: CatalogContext,
  term: TermCode,
  students: readonly StudentId[],
  { now, today }: { now: Instant; today: IsoDate }
): Promise<void> {
  for (const studentRecord of await readStudentRecords(db, students, 'self')) {
    const sheet = await readSheet(db, studentRecord, catalogContext, term, now)
    const said = rehearsalOf(sheet, preparedOf(studentRecord.prepared, term).leftOut) ?? null
    await keep(db, studentRecord.student.id, term, said, { now, today })
  }
}

function keep(
  db: Database,
  student: StudentId,
  term: TermCode,
  said: RehearsalSaid | null,
  { now, today }: { now: Instant; today: IsoDate }
): Promise<void> {
  return inTransaction(db, async (tx) => {
    await lockStudent(tx, student)
    const [row] = await tx.select({ id: t.term.id }).from(t.term).where(eq(t.term.code, term))
    const [before] = await tx
      .select()
      .from(t.rehearsal)
      .where(all(eq(t.rehearsal.studentId, student), eq(t.rehearsal.termId, row!.id)))
    // Another server was faster.
    if (before && before.onDate >= today) return
    await tx
      .insert(t.rehearsal)
      .values({ studentId: student, termId: row!.id, onDate: today, said })
      .onDuplicateKeyUpdate({ set: { onDate: today, said } })
    if (!said || JSON.stringify(before?.said) === JSON.stringify(said)) return
    await logEvent(tx, {
      at: now,
      account: null,
      student,
      action: 'rehearsal.told',
      after: { term, ...said }
    })
  })
}
