/** Seats that are given back by a rule or an office: with the record, the charges, the log and a receipt. */
import { asc, eq, inArray, isNull } from 'drizzle-orm'
import type { Refusal } from '#core/findings'
import { courseCode, termCode, type StudentId } from '#core/ids'
import type { Instant } from '#core/time'
import { groupBy } from '#server/db/groupBy'
import { all, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { settleCharges } from '#server/features/charges/ledger'
import { giveBack } from './heldSeats'
import { insertReceipt, lineOf } from './receiptLines'

type TermRow = typeof t.term.$inferSelect

export interface SeatToRelease {
  id: number
  code: string
  course: string
  courseId: number
}

export interface Releasing {
  student: StudentId
  /** Whose doing it is; null for a rule of the term. */
  by: number | null
  now: Instant
  why:
    | { action: 'registration.released' }
    | {
        /** Of a component that is cancelled the rest of the section is kept, and `told` names it as `sections`. */
        action: 'registration.cancelled' | 'registration.partCancelled'
        refusal: Extract<Refusal, { code: 'cancelled' }>
        told: object
      }
}

/** Gives seats of a student back. The student's row is locked; those of the sections are locked here. */
export async function releaseSeats(
  tx: Transaction,
  term: TermRow,
  seats: readonly SeatToRelease[],
  { student, by, now, why }: Releasing
): Promise<void> {
  if (!seats.length) return
  const code = termCode(term.code)
  await tx
    .select({ id: t.section.id })
    .from(t.section)
    .where(
      inArray(
        t.section.id,
        seats.map((seat) => seat.id)
      )
    )
    .orderBy(asc(t.section.id))
    .for('update')
  await giveBack(tx, student, seats)
  // A term that has begun has its courses on the record already.
  if (why.action !== 'registration.partCancelled')
    await tx.delete(t.recordCourse).where(
      all(
        eq(t.recordCourse.studentId, student),
        eq(t.recordCourse.termId, term.id),
        isNull(t.recordCourse.grade),
        inArray(
          t.recordCourse.courseId,
          seats.map((seat) => seat.courseId)
        )
      )
    )
  const isCancelled = why.action !== 'registration.released'
  await settleCharges(
    tx,
    { student, term: code, by, now, whole: isCancelled },
    isCancelled ? 'refund' : 'release'
  )
  const refusals: Refusal[] = isCancelled ? [why.refusal] : []
  const lines = [...groupBy(seats, (seat) => seat.course)].map(([course, own]) =>
    lineOf(courseCode(course), 'released', {
      action: 'release',
      sections: own.map((seat) => seat.code),
      refusals
    })
  )
  for (const { course, sections } of lines)
    await logEvent(tx, {
      at: now,
      account: by,
      student,
      action: why.action,
      before: { term: code, course, sections },
      after: { term: code, course, ...(isCancelled ? why.told : {}) }
    })
  await insertReceipt(tx, { student, term: term.id, by, key: null, now, ended: true }, lines)
}
