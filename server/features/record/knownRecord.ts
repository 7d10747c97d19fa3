/**
 * A record that was read before its student's row was locked. Under the lock it is not read again while the log has
 * nothing new of the student: what moves with seats is, everything else is as it was. The log is written in the
 * transaction of every change, so what it does not tell has not happened.
 */
import { all, type Reader, type Transaction } from '#server/db/connect'
import type { Action } from '#server/db/log'
import * as t from '#server/db/schema/index'
import type { StudentId } from '#core/ids'
import type { StudentRecord } from '#shared/record/responses'
import { eq, max, notInArray } from 'drizzle-orm'
import { readSeatParts } from './seatParts'
import { readStudentRecords } from './studentRecords'

export interface KnownRecord {
  record: StudentRecord
  /** The last entry of the log that it knows; 0 for none. */
  upTo: number
}

/** What changes nothing but the parts of a record that move with its seats, and what changes nothing. */
const OF_SEATS: readonly Action[] = [
  'registration.made',
  'registration.exchanged',
  'section.seatAdded',
  'line.joined',
  'line.left',
  'offer.made',
  'offer.answered',
  'offer.lapsed',
  'fallbacks.changed',
  'week.picked',
  'record.read',
  'sheet.read'
]

async function lastEntry(db: Reader, student: StudentId): Promise<number> {
  const [row] = await db
    .select({ last: max(t.eventLog.id) })
    .from(t.eventLog)
    .where(all(eq(t.eventLog.studentId, student), notInArray(t.eventLog.action, [...OF_SEATS])))
  return row?.last ?? 0
}

/** Undefined where there is no such student. */
export async function readKnown(db: Reader, student: StudentId): Promise<KnownRecord | undefined> {
  // The mark first: what comes in between is read twice, and never missed.
  const upTo = await lastEntry(db, student)
  const [record] = await readStudentRecords(db, [student], 'self')
  return record && { record, upTo }
}

/** The record as it is now, whose student's row is locked. */
export async function recordNow(tx: Transaction, { record, upTo }: KnownRecord): Promise<StudentRecord> {
  const { id } = record.student
  if ((await lastEntry(tx, id)) !== upTo) return (await readStudentRecords(tx, [id], 'self'))[0]!
  const seats = await readSeatParts(tx, [id], record.relation, record.sections)
  return { ...record, ...seats(id) }
}
