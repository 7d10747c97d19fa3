/** What holds for every week of a student: hours kept free, wishes in order, and the private calendar address. */
import { isDeepStrictEqual } from 'node:util'
import { asc, eq } from 'drizzle-orm'
import { formatDayLetters, parseDayLetters } from '#core/formats'
import { studentId, type StudentId } from '#core/ids'
import type { KeepFree, WeekHabits } from '#shared/week/responses'
import type { Reader, Transaction } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { logEvent } from '#server/db/log'
import type { ActorContext } from '#server/features/route/route'
import { Refused } from '#server/http/problem'
import { lockStudent } from '#server/features/record/lock'
import { secretKey } from './drafts'

export async function readKeepFree(db: Reader, student: StudentId): Promise<KeepFree[]> {
  const rows = await db
    .select()
    .from(t.keepFree)
    .where(eq(t.keepFree.studentId, student))
    .orderBy(asc(t.keepFree.id))
  return rows.map(keepFreeOf)
}

export function keepFreeOf({
  name,
  days,
  startsMin,
  endsMin,
  hard
}: Omit<typeof t.keepFree.$inferSelect, 'id' | 'studentId'>): KeepFree {
  return { name, days: parseDayLetters(days) ?? [], start: startsMin, end: endsMin, hard }
}

/** All hours kept free, in place of those there were. @throws Refused when those are others than were seen */
export async function writeKeepFree(
  tx: Transaction,
  at: ActorContext,
  hours: KeepFree[],
  seen?: KeepFree[]
): Promise<void> {
  await lockStudent(tx, at.student)
  const before = await readKeepFree(tx, at.student)
  if (seen && !isDeepStrictEqual(seen, before))
    throw new Refused(
      409,
      'keepFreeMovedOn',
      'The hours kept free were changed meanwhile, so your change was not made. You now see them as they are; try again.'
    )
  await tx.delete(t.keepFree).where(eq(t.keepFree.studentId, at.student))
  if (hours.length)
    await tx.insert(t.keepFree).values(
      hours.map(({ name, days, start, end, hard }) => ({
        studentId: at.student,
        name,
        days: formatDayLetters(days),
        startsMin: start,
        endsMin: end,
        hard
      }))
    )
  await logEvent(tx, {
    at: at.now,
    account: at.who.id,
    student: at.student,
    action: 'keepFree.changed',
    before: { hours: before },
    after: { hours }
  })
}

export async function readHabits(db: Reader, student: StudentId): Promise<WeekHabits> {
  const [row] = await db.select().from(t.weekHabits).where(eq(t.weekHabits.studentId, student))
  return { wishes: row?.wishes ?? [], travelHolds: row?.travelHolds ?? false }
}

export async function writeHabits(tx: Transaction, at: ActorContext, habits: WeekHabits): Promise<void> {
  await lockStudent(tx, at.student)
  const before = await readHabits(tx, at.student)
  await tx
    .insert(t.weekHabits)
    .values({ studentId: at.student, ...habits })
    .onDuplicateKeyUpdate({ set: habits })
  await logEvent(tx, {
    at: at.now,
    account: at.who.id,
    student: at.student,
    action: 'weekHabits.changed',
    before,
    after: habits
  })
}

export async function readCalendarKey(db: Reader, student: StudentId): Promise<string | null> {
  const [row] = await db
    .select({ key: t.calendarAddress.key })
    .from(t.calendarAddress)
    .where(eq(t.calendarAddress.studentId, student))
  return row?.key ?? null
}

/** A new private address; the one before, if any, leads nowhere from now on. */
export async function makeCalendarAddress(tx: Transaction, at: ActorContext): Promise<{ key: string }> {
  await withdrawCalendarAddress(tx, at, true)
  const key = secretKey()
  await tx.insert(t.calendarAddress).values({ studentId: at.student, key, madeAt: new Date(at.now) })
  await logEvent(tx, {
    at: at.now,
    account: at.who.id,
    student: at.student,
    action: 'calendarAddress.made'
  })
  return { key }
}

/** The private address leads nowhere any more. */
export async function withdrawCalendarAddress(
  tx: Transaction,
  at: ActorContext,
  quiet = false
): Promise<void> {
  await lockStudent(tx, at.student)
  await tx.delete(t.calendarAddress).where(eq(t.calendarAddress.studentId, at.student))
  if (!quiet)
    await logEvent(tx, {
      at: at.now,
      account: at.who.id,
      student: at.student,
      action: 'calendarAddress.withdrawn'
    })
}

/** Whose address it is; undefined when it leads nowhere. */
export async function studentAtAddress(db: Reader, key: string): Promise<StudentId | undefined> {
  const [row] = await db
    .select({ id: t.calendarAddress.studentId })
    .from(t.calendarAddress)
    .where(eq(t.calendarAddress.key, key))
  return row && studentId(row.id)
}
