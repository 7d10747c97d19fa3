/** Offers that are open: read and locked, ended by an answer, by a run, or by their time. */
import { asc, eq, gt, inArray, isNull, lte } from 'drizzle-orm'
import { courseCode, studentId, termCode, type CourseCode, type StudentId, type TermCode } from '#core/ids'
import type { Instant } from '#core/time'
import { all, inTransaction, type Database, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { campusNow } from '#server/gateways/clock'
import { leaveLines } from './lines'

/** Ends offers whose time is over; their students have left the line, and the seats stay kept for the next. */
export async function lapseOffers(db: Database): Promise<void> {
  const now = await campusNow(db)
  const over = await db
    .select({ id: t.seatOffer.id })
    .from(t.seatOffer)
    .where(all(isNull(t.seatOffer.answer), lte(t.seatOffer.until, new Date(now))))
    .orderBy(asc(t.seatOffer.id))
    .limit(500)
  for (const { id } of over)
    await inTransaction(db, async (tx) => {
      const [offer] = await tx
        .select()
        .from(t.seatOffer)
        .where(all(eq(t.seatOffer.id, id), isNull(t.seatOffer.answer)))
        .for('update', { skipLocked: true })
      if (!offer) return
      const { course, term } = await namesOf(tx, offer)
      await endOffer(tx, offer, 'lapsed', now)
      await logEvent(tx, {
        at: now,
        account: null,
        student: offer.studentId,
        action: 'offer.lapsed',
        after: { term, offer: id, course }
      })
    })
}

/** An offer that is open, with the sections in which it holds a seat. */
export interface OpenOffer {
  row: typeof t.seatOffer.$inferSelect
  seats: { id: number; code: string }[]
}

/** The offers that are open to a student for courses, locked; each stands until its instant. */
export async function openOffers(
  tx: Transaction,
  student: StudentId,
  term: TermCode,
  courses: readonly CourseCode[]
): Promise<OpenOffer[]> {
  const now = await campusNow(tx)
  // Of other tables nothing is locked: whoever writes of the same term or course would wait.
  const terms = tx.select({ id: t.term.id }).from(t.term).where(eq(t.term.code, term))
  const ofCourses = tx
    .select({ id: t.course.id })
    .from(t.course)
    .where(inArray(t.course.code, [...courses]))
  const rows = await tx
    .select()
    .from(t.seatOffer)
    .where(
      all(
        eq(t.seatOffer.studentId, student),
        inArray(t.seatOffer.termId, terms),
        inArray(t.seatOffer.courseId, ofCourses),
        isNull(t.seatOffer.answer),
        gt(t.seatOffer.until, new Date(now))
      )
    )
    .for('update')
  if (!rows.length) return []
  const seats = await tx
    .select({ offer: t.offeredSeat.offerId, id: t.section.id, code: t.section.code })
    .from(t.offeredSeat)
    .innerJoin(t.section, eq(t.section.id, t.offeredSeat.sectionId))
    .where(
      inArray(
        t.offeredSeat.offerId,
        rows.map((row) => row.id)
      )
    )
  return rows.map((row) => ({ row, seats: seats.filter((seat) => seat.offer === row.id) }))
}

/** Writes the answer to an offer and takes its student out of the lines that led to it. */
export async function endOffer(
  tx: Transaction,
  {
    id,
    studentId: student,
    sections
  }: Pick<typeof t.seatOffer.$inferSelect, 'id' | 'studentId' | 'sections'>,
  answer: 'accepted' | 'declined' | 'lapsed',
  now: Instant
): Promise<void> {
  await tx
    .update(t.seatOffer)
    .set({ answer, answeredAt: new Date(now) })
    .where(eq(t.seatOffer.id, id))
  const rows = await tx
    .select({ id: t.section.id })
    .from(t.section)
    .where(inArray(t.section.code, sections))
    .orderBy(asc(t.section.id))
    .for('update')
  await leaveLines(
    tx,
    studentId(student),
    rows.map((row) => row.id)
  )
}

/** The course and the term of an offer. Read apart from it, so that locking it locks neither. */
export async function namesOf(
  tx: Transaction,
  { courseId, termId }: Pick<typeof t.seatOffer.$inferSelect, 'courseId' | 'termId'>
): Promise<{ course: CourseCode; term: TermCode }> {
  const [course] = await tx.select({ code: t.course.code }).from(t.course).where(eq(t.course.id, courseId))
  const [term] = await tx.select({ code: t.term.code }).from(t.term).where(eq(t.term.id, termId))
  return { course: courseCode(course!.code), term: termCode(term!.code) }
}
