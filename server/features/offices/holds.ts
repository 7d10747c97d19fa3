/** Holds: placed on one student or several, and lifted; the student is told of both. */
import { and, asc, eq, inArray, isNull } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import { studentId } from '#core/ids'
import type { Instant } from '#core/time'
import { all, type Reader, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { lockStudent, lockStudents } from '#server/features/record/lock'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import type { HoldsAsked } from '#shared/offices/requests'
import type { HoldsPlaced, HoldsView } from '#shared/offices/holds'

/** Whose holds somebody places and lifts; undefined for the registrar's office, which has to do with those of all. */
async function officeOf(db: Reader, { id, role }: Pick<Who, 'id' | 'role'>): Promise<string | undefined> {
  if (role !== 'office') return undefined
  const [row] = await db.select({ office: t.account.office }).from(t.account).where(eq(t.account.id, id))
  return row?.office ?? ''
}

/** The offices that kinds of holds name. */
export async function officesOf(db: Reader): Promise<string[]> {
  const rows = await db
    .selectDistinct({ office: t.holdKind.office })
    .from(t.holdKind)
    .orderBy(asc(t.holdKind.office))
  return rows.map((row) => row.office)
}

/** Kinds that may be placed, and all holds that stand, by office and title; of an office its own. */
export async function readHolds(db: Reader, who: Pick<Who, 'id' | 'role'>): Promise<HoldsView> {
  const own = await officeOf(db, who)
  const placer = alias(t.account, 'placer')
  const kinds = await db
    .select()
    .from(t.holdKind)
    .where(own === undefined ? undefined : eq(t.holdKind.office, own))
    .orderBy(asc(t.holdKind.office), asc(t.holdKind.title))
  const rows = await db
    .select({ hold: t.hold, name: t.account.name, number: t.student.number, placedBy: placer.name })
    .from(t.hold)
    .innerJoin(t.student, eq(t.student.id, t.hold.studentId))
    .innerJoin(t.account, eq(t.account.id, t.student.accountId))
    .leftJoin(placer, eq(placer.id, t.hold.placedById))
    .where(own === undefined ? isNull(t.hold.liftedAt) : all(isNull(t.hold.liftedAt), eq(t.hold.office, own)))
    .orderBy(asc(t.hold.office), asc(t.hold.title), asc(t.account.name), asc(t.hold.id))
  return {
    office: own ?? null,
    kinds,
    open: rows.map(({ hold, name, number, placedBy }) => ({
      ...{ id: hold.id, student: studentId(hold.studentId), name, number },
      ...{ title: hold.title, office: hold.office, amount: hold.amount },
      ...{ stopsRegistration: hold.stopsRegistration, stopsTranscript: hold.stopsTranscript },
      ...{ placedAt: hold.placedAt.getTime(), placedBy }
    }))
  }
}

/**
 * Places a hold on each of the students named, all or none; who has the same one already keeps it as it is.
 *
 * @throws Refused where a number is nobody's, or an amount is missing or not owed with this kind
 */
export async function placeHolds(
  tx: Transaction,
  who: Who,
  { kind: id, students }: HoldsAsked,
  now: Instant
): Promise<HoldsPlaced> {
  const own = await officeOf(tx, who)
  const [kind] = await tx.select().from(t.holdKind).where(eq(t.holdKind.id, id))
  if (!kind || (own !== undefined && kind.office !== own))
    throw new Refused(422, 'noKind', 'There is no such kind of hold.', [
      { field: 'kind', message: 'has to be the number of a kind of hold' }
    ])
  const people = await named(tx, students)
  mustOwe(kind, students)
  await lockStudents(
    tx,
    people.map((one) => studentId(one.id))
  )
  const has = await tx
    .select({ student: t.hold.studentId })
    .from(t.hold)
    .where(
      and(
        inArray(
          t.hold.studentId,
          people.map((one) => one.id)
        ),
        eq(t.hold.title, kind.title),
        eq(t.hold.office, kind.office),
        isNull(t.hold.liftedAt)
      )
    )
  const holders = new Set(has.map((one) => one.student))
  const fresh = people.filter((one) => !holders.has(one.id))
  const { title, office, howToLift, stopsRegistration, stopsTranscript } = kind
  for (const { id: student, amount } of fresh) {
    const values = {
      studentId: student,
      title,
      office,
      howToLift,
      amount,
      stopsRegistration,
      stopsTranscript
    }
    await tx.insert(t.hold).values({ ...values, placedAt: new Date(now), placedById: who.id })
    await logEvent(tx, {
      ...{ at: now, account: who.id, student, action: 'hold.placed' },
      after: { title, office, amount, howToLift, stopsRegistration, stopsTranscript }
    })
  }
  return {
    placed: fresh.map((one) => one.name),
    already: people.filter((one) => holders.has(one.id)).map((one) => one.name)
  }
}

/** The students named, in their order, with what they owe. @throws Refused for a number that is nobody's */
async function named(tx: Transaction, students: HoldsAsked['students']) {
  const rows = await tx
    .select({ id: t.student.id, number: t.student.number, name: t.account.name })
    .from(t.student)
    .innerJoin(t.account, eq(t.account.id, t.student.accountId))
    .where(
      inArray(
        t.student.number,
        students.map((one) => one.number)
      )
    )
  const byNumber = new Map(rows.map((row) => [row.number, row]))
  const strange = students.flatMap(({ number }, i) =>
    byNumber.has(number)
      ? []
      : [
          {
            field: `students.${i}.number`,
            message: `has to be the number of a student: ${number} is nobody’s`
          }
        ]
  )
  if (strange.length)
    throw new Refused(
      422,
      'noStudent',
      `${strange.length === 1 ? 'One number is' : `${strange.length} numbers are`} nobody’s. Nothing was placed.`,
      strange
    )
  return students.map(({ number, amount }) => ({ ...byNumber.get(number)!, amount }))
}

function mustOwe({ takesAmount }: { takesAmount: boolean }, students: HoldsAsked['students']): void {
  const wrong = students.flatMap(({ number, amount }, i) =>
    (amount !== null) === takesAmount
      ? []
      : [
          {
            field: `students.${i}.amount`,
            message: `has to be ${takesAmount ? 'given' : 'left out'}: ${number}`
          }
        ]
  )
  if (wrong.length)
    throw new Refused(
      422,
      'amount',
      takesAmount
        ? 'An amount is owed with this kind of hold; give one for each student.'
        : 'No amount is owed with this kind of hold.',
      wrong
    )
}

/** @throws Refused where it does not stand any more */
export async function liftHold(tx: Transaction, who: Who, id: number, now: Instant): Promise<void> {
  const [known] = await tx.select({ student: t.hold.studentId }).from(t.hold).where(eq(t.hold.id, id))
  if (known) await lockStudent(tx, studentId(known.student))
  const [hold] = await tx
    .select()
    .from(t.hold)
    .where(all(eq(t.hold.id, id), isNull(t.hold.liftedAt)))
    .for('update')
  const own = await officeOf(tx, who)
  if (!hold || (own !== undefined && hold.office !== own))
    throw new Refused(404, 'noHold', 'This hold does not stand any more.')
  await tx
    .update(t.hold)
    .set({ liftedAt: new Date(now), liftedById: who.id })
    .where(eq(t.hold.id, id))
  const { studentId: student, title, office } = hold
  await logEvent(tx, { at: now, account: who.id, student, action: 'hold.lifted', before: { title, office } })
}
