/**
 * A record that was read before its student's row was locked. Under the lock it is not read again while the log has
 * nothing new of the student but what its owner wrote and has taken in; where that moves with seats alone, those parts
 * are. The log is written in the transaction of every change, so what it does not tell has not happened.
 */
import { all, type Reader, type Transaction } from '#server/db/connect'
import type { Action } from '#server/db/log'
import * as t from '#server/db/schema/index'
import type { StudentId } from '#core/ids'
import type { StudentRecord } from '#shared/record/responses'
import { eq, max, notInArray, sql } from 'drizzle-orm'
import { readSeatParts } from './seatParts'
import { readStudentRecords } from './studentRecords'

export interface KnownRecord {
  record: StudentRecord
  upTo: LastEntries
  /** Entries of the log that were written with it, and are in it. */
  own: number[]
}

/** The last entries of the log that a record knows; 0 for none. */
interface LastEntries {
  any: number
  /** Of those that change more than the parts that move with seats. */
  beside: number
}

/** What changes nothing. */
const OF_NOTHING: readonly Action[] = ['record.read', 'sheet.read']
/** What changes nothing but the parts of a record that move with its seats. */
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
  'week.picked'
]

async function lastEntries(db: Reader, student: StudentId, own: readonly number[]): Promise<LastEntries> {
  const isBeside = notInArray(t.eventLog.action, [...OF_SEATS])
  const [row] = await db
    .select({
      any: max(t.eventLog.id),
      beside: sql<number | null>`max(case when ${isBeside} then ${t.eventLog.id} end)`
    })
    .from(t.eventLog)
    .where(
      all(
        eq(t.eventLog.studentId, student),
        notInArray(t.eventLog.action, [...OF_NOTHING]),
        notInArray(t.eventLog.id, [0, ...own])
      )
    )
  return { any: row?.any ?? 0, beside: Number(row?.beside ?? 0) }
}

/** Undefined where there is no such student. */
export async function readKnown(db: Reader, student: StudentId): Promise<KnownRecord | undefined> {
  // The mark first: what comes in between is read twice, and never missed.
  const upTo = await lastEntries(db, student, [])
  const [record] = await readStudentRecords(db, [student], 'self')
  return record && { record, upTo, own: [] }
}

/**
 * Brings a record up to date, whose student's row is locked.
 *
 * @returns whether it was so already
 */
export async function bringUpToDate(tx: Transaction, known: KnownRecord): Promise<boolean> {
  const { id } = known.record.student
  const upTo = await lastEntries(tx, id, known.own)
  if (upTo.any === known.upTo.any) return true
  if (upTo.beside !== known.upTo.beside) known.record = (await readStudentRecords(tx, [id], 'self'))[0]!
  else {
    const seats = await readSeatParts(tx, [id], known.record.relation, known.record.sections)
    known.record = { ...known.record, ...seats(id) }
  }
  known.upTo = upTo
  return false
}
