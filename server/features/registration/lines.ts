/** Places in the lines of full sections: taken, given up. The student's row is locked, and those of the sections. */
import { asc, eq, inArray, isNull, sql } from 'drizzle-orm'
import type { CourseCode, StudentId, TermCode } from '#core/ids'
import type { Instant } from '#core/time'
import type { Option } from '#core/week'
import { all, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { courseIds, termRow } from '#server/features/catalog/catalog'
import { campusNow } from '#server/gateways/clock'
import type { Who } from '#shared/accounts/responses'
import type { ReceiptLine } from '#shared/registration/responses'
import { codesOf, lineOf, type RunUnderWay } from './receiptLines'

/** Takes a place at the end of each of the lines. */
export async function joinLine(
  tx: Transaction,
  who: Who,
  { student, term, now }: { student: StudentId; term: TermCode; now: Instant },
  option: Option,
  lines: readonly { id: number }[]
): Promise<ReceiptLine> {
  const ids = lines.map((row) => row.id)
  const sections = codesOf(option)
  const joinedAt = new Date(now)
  await tx
    .insert(t.waitlistPlace)
    .values(ids.map((sectionId) => ({ studentId: student, sectionId, joinedAt, sections })))
  await tx
    .update(t.section)
    .set({ waiting: sql`${t.section.waiting} + 1` })
    .where(inArray(t.section.id, ids))
  const rows = await tx
    .select({ waiting: t.section.waiting })
    .from(t.section)
    .where(inArray(t.section.id, ids))
  const place = Math.max(...rows.map((row) => row.waiting))
  await logEvent(tx, {
    at: now,
    account: who.id,
    student,
    action: 'line.joined',
    after: { term, course: option.course, sections, place }
  })
  return lineOf(option.course, 'inLine', { sections, place })
}

/** Takes a student out of the lines of sections. */
export async function leaveLines(
  tx: Transaction,
  student: StudentId,
  sections: readonly number[]
): Promise<void> {
  if (!sections.length) return
  const mine = all(eq(t.waitlistPlace.studentId, student), inArray(t.waitlistPlace.sectionId, [...sections]))
  const places = await tx.select({ section: t.waitlistPlace.sectionId }).from(t.waitlistPlace).where(mine)
  if (!places.length) return
  await tx.delete(t.waitlistPlace).where(mine)
  await tx
    .update(t.section)
    .set({ waiting: sql`${t.section.waiting} - 1` })
    .where(
      inArray(
        t.section.id,
        places.map((place) => place.section)
      )
    )
}

/** The sections of a course in whose lines a student stands, or in which seats are offered to them; locked. */
async function lockLines(tx: Transaction, student: StudentId, course: number, term: number) {
  const places = tx
    .select({ id: t.waitlistPlace.sectionId })
    .from(t.waitlistPlace)
    .where(eq(t.waitlistPlace.studentId, student))
  const offered = tx
    .select({ id: t.offeredSeat.sectionId })
    .from(t.offeredSeat)
    .innerJoin(t.seatOffer, eq(t.seatOffer.id, t.offeredSeat.offerId))
    .where(all(eq(t.seatOffer.studentId, student), isNull(t.seatOffer.answer)))
  return tx
    .select({ id: t.section.id, code: t.section.code })
    .from(t.section)
    .where(
      all(
        eq(t.section.courseId, course),
        eq(t.section.termId, term),
        sql`(${t.section.id} in ${places} or ${t.section.id} in ${offered})`
      )
    )
    .orderBy(asc(t.section.id))
    .for('update')
}

/** Leaves the lines of a course. A seat that was offered stays kept for the next. */
export async function leaveLine(
  tx: Transaction,
  who: Who,
  { student, term: code }: RunUnderWay,
  course: CourseCode
): Promise<ReceiptLine> {
  const term = await termRow(tx, code)
  const courseId = (await courseIds(tx, [course])).get(course)!
  const sections = await lockLines(tx, student, courseId, term.id)
  const now = await campusNow(tx)
  if (!sections.length)
    return lineOf(course, 'refused', { action: 'leave', refusals: [{ code: 'notInLine' }] })
  await leaveLines(
    tx,
    student,
    sections.map((row) => row.id)
  )
  await tx
    .update(t.seatOffer)
    .set({ answer: 'declined', answeredAt: new Date(now) })
    .where(
      all(
        eq(t.seatOffer.studentId, student),
        eq(t.seatOffer.termId, term.id),
        eq(t.seatOffer.courseId, courseId),
        isNull(t.seatOffer.answer)
      )
    )
  const codes = sections.map((row) => row.code)
  await logEvent(tx, {
    at: now,
    account: who.id,
    student,
    action: 'line.left',
    before: { term: code, course, sections: codes },
    after: { term: code }
  })
  return lineOf(course, 'left', { action: 'leave', sections: codes })
}
