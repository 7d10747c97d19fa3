/** How a student prepares a run sheet, and whether it is left to run by itself. */
import { eq, inArray } from 'drizzle-orm'
import { termCode, type CourseCode, type StudentId } from '#core/ids'
import { all, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { courseIds } from '#server/features/catalog/catalog'
import { lockStudent } from '#server/features/record/lock'
import type { ActorContext } from '#server/features/route/route'
import { openTerm } from '#server/features/sections/options'
import { Refused } from '#server/http/problem'
import type { PreparedSheet } from '#shared/registration/prepared'
import { opensFor } from './openings'

type TermRow = typeof t.term.$inferSelect

/** Keeps what is said of a sheet, in place of what was. */
export async function writePrepared(tx: Transaction, at: ActorContext, said: PreparedSheet): Promise<void> {
  const { armed, order, leftOut, drops, whole } = said
  const term = await openTerm(tx, said.term, at)
  await courseIds(tx, [...new Set([...order, ...leftOut, ...drops])])
  await lockStudent(tx, at.student)
  const own = all(eq(t.preparedSheet.studentId, at.student), eq(t.preparedSheet.termId, term.id))
  const [before] = await tx.select().from(t.preparedSheet).where(own)
  if (armed && !before?.armedAt) await mustWait(tx, at, term)
  const armedAt = armed ? (before?.armedAt ?? new Date(at.now)) : null
  const values = { order, leftOut, drops, whole, armedAt, ...(armed ? {} : { lot: null, leasedUntil: null }) }
  await tx
    .insert(t.preparedSheet)
    .values({ studentId: at.student, termId: term.id, ...values })
    .onDuplicateKeyUpdate({ set: values })
  await logEvent(tx, {
    at: at.now,
    account: at.who.id,
    student: at.student,
    action: 'sheet.prepared',
    before: before
      ? {
          term: said.term,
          order: before.order,
          leftOut: before.leftOut,
          drops: before.drops,
          whole: before.whole,
          armed: before.armedAt !== null
        }
      : null,
    after: said
  })
}

/** Courses that have been dropped are not to be dropped once more, nor given up for another one. */
export async function forgetDrops(
  tx: Transaction,
  student: StudentId,
  term: number,
  dropped: ReadonlyMap<CourseCode, number>
): Promise<void> {
  const own = all(eq(t.preparedSheet.studentId, student), eq(t.preparedSheet.termId, term))
  const [sheet] = await tx.select({ drops: t.preparedSheet.drops }).from(t.preparedSheet).where(own)
  const left = sheet?.drops.filter((course) => !dropped.has(course))
  if (left && left.length < sheet!.drops.length)
    await tx.update(t.preparedSheet).set({ drops: left }).where(own)
  await tx
    .update(t.fallback)
    .set({ givingUpId: null })
    .where(
      all(
        eq(t.fallback.studentId, student),
        eq(t.fallback.termId, term),
        inArray(t.fallback.givingUpId, [...dropped.values()])
      )
    )
}

/** Refuses to leave a sheet to run by itself where there is no opening that it could wait for. */
async function mustWait(tx: Transaction, { student, now }: ActorContext, term: TermRow): Promise<void> {
  const refused = (message: string, fix: string) =>
    new Refused(422, 'notArmed', message, [{ field: 'armed', message: fix }])
  if (!term.arming)
    throw refused(
      `${term.name} has no run sheets that run by themselves.`,
      'has to be false in this term: register at the opening yourself'
    )
  const opens = (await opensFor(tx, termCode(term.code), [student])).get(student)
  if (opens === undefined)
    throw refused(`${term.name} has no opening for you yet.`, 'has to be false until there is an opening')
  if (opens <= now)
    throw refused(
      `${term.name} is open for you already: register now.`,
      'has to be false once registration is open'
    )
}
