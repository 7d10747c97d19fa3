/** Openings made, copied, moved and taken away, with everybody told whose own opening is another then. */
import { eq } from 'drizzle-orm'
import { DateTime } from 'luxon'
import { wholeWeeksBetween } from '#core/calendar'
import { termCode, type TermCode } from '#core/ids'
import type { Instant } from '#core/time'
import type { Reader, Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { termRow } from '#server/features/catalog/catalog'
import { opensFor } from '#server/features/registration/openings'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import type { OpeningSaid } from '#shared/offices/requests'
import { deadlineText } from '#shared/when'
import { everybodyOf } from './openingFigures'

interface At {
  now: Instant
  zone: string
}

/** Does something to the openings of a term; of a published one everybody is told whose own opening is another then. */
async function telling(
  tx: Transaction,
  who: Who,
  term: typeof t.term.$inferSelect,
  now: Instant,
  work: () => Promise<{ id: number; title: string }>
): Promise<{ told: number }> {
  const code = termCode(term.code)
  const everybody = await everybodyOf(tx)
  const first = await opensFor(tx, code, everybody)
  const { id, title } = await work()
  if (!term.published) return { told: 0 }
  const then = await opensFor(tx, code, everybody)
  const concerned = everybody.filter((one) => first.get(one) !== then.get(one))
  for (const student of concerned)
    await logEvent(tx, {
      ...{ at: now, account: who.id, student, action: 'opening.moved' },
      before: { opens: first.get(student) ?? null },
      after: { term: term.code, opening: id, title, opens: then.get(student) ?? null }
    })
  return { told: concerned.length }
}

function mustBeInTime(
  opens: Instant,
  { name, addEndsAt }: typeof t.term.$inferSelect,
  { now, zone }: At
): void {
  if (opens <= now || opens >= addEndsAt.getTime())
    throw new Refused(422, 'outside', `It has to be from now on, and before adding to ${name} ends.`, [
      {
        field: 'opens',
        message: `has to be before ${deadlineText(addEndsAt.getTime(), zone)}, and to come`
      }
    ])
}

/** An opening that is to come, with its term, to be changed. @throws Refused where it has passed */
async function lockOpening(tx: Transaction, id: number, { now, zone }: At) {
  const [opening] = await tx.select().from(t.opening).where(eq(t.opening.id, id)).for('update')
  if (!opening) throw new Refused(404, 'noOpening', 'There is no such opening any more.')
  const [term] = await tx.select().from(t.term).where(eq(t.term.id, opening.termId))
  if (!term) throw new Error(`opening ${id} is of no term`)
  const before = opening.opensAt.getTime()
  if (before <= now)
    throw new Refused(
      409,
      'open',
      `It opened on ${deadlineText(before, zone)}; who may register cannot be told otherwise.`
    )
  return { opening, term }
}

/**
 * Moves an opening that is to come; whoever may register from another instant by it is told.
 *
 * @returns how many were told
 * @throws Refused where it has passed, or would be after adding ends
 */
export async function moveOpening(
  tx: Transaction,
  who: Who,
  id: number,
  opens: Instant,
  at: At
): Promise<{ told: number }> {
  const { opening, term } = await lockOpening(tx, id, at)
  mustBeInTime(opens, term, at)
  return telling(tx, who, term, at.now, async () => {
    await tx
      .update(t.opening)
      .set({ opensAt: new Date(opens) })
      .where(eq(t.opening.id, id))
    return { id, title: opening.title }
  })
}

/**
 * Opens a term for a group, or for one student.
 *
 * @returns how many were told
 * @throws Refused where the time is not to come, or the group is of nobody
 */
export async function makeOpening(
  tx: Transaction,
  who: Who,
  { term: code, title, opens, standings, programs, blocks, creditsLeast, student }: OpeningSaid,
  at: At
): Promise<{ opening: number; told: number }> {
  const term = await termRow(tx, code)
  mustBeInTime(opens, term, at)
  await mustBeKnown(tx, { programs, blocks })
  const studentId = student === null ? null : await byNumber(tx, student)
  let opening = 0
  const { told } = await telling(tx, who, term, at.now, async () => {
    const opensAt = new Date(opens)
    const [row] = await tx
      .insert(t.opening)
      .values({ termId: term.id, title, opensAt, standings, programs, blocks, creditsLeast, studentId })
      .$returningId()
    opening = row!.id
    return { id: opening, title }
  })
  await logEvent(tx, {
    ...{ at: at.now, account: who.id, student: null, action: 'opening.made' },
    after: { term: code, opening, title, opens, standings, programs, blocks, creditsLeast }
  })
  return { opening, told }
}

/** @throws Refused naming the first program or block that there is not */
async function mustBeKnown(
  tx: Reader,
  { programs, blocks }: Pick<OpeningSaid, 'programs' | 'blocks'>
): Promise<void> {
  const known = {
    programs: (await tx.select({ code: t.program.code }).from(t.program)).map((row) => row.code),
    blocks: (await tx.select({ code: t.block.code }).from(t.block)).map((row) => row.code)
  }
  for (const [field, said] of [
    ['programs', programs],
    ['blocks', blocks]
  ] as const) {
    const other = said.find((one) => !known[field].includes(one))
    if (other)
      throw new Refused(
        422,
        'noGroup',
        `There is no ${field === 'programs' ? 'program' : 'block'} ${other}.`,
        [{ field, message: `have to be among ${known[field].join(', ')}` }]
      )
  }
}

async function byNumber(tx: Reader, number: string): Promise<number> {
  const [row] = await tx.select({ id: t.student.id }).from(t.student).where(eq(t.student.number, number))
  if (row) return row.id
  throw new Refused(422, 'noStudent', `There is no student ${number}.`, [
    { field: 'student', message: 'has to be the number of a student' }
  ])
}

/** Takes an opening away that is to come. @returns how many were told */
export async function dropOpening(tx: Transaction, who: Who, id: number, at: At): Promise<{ told: number }> {
  const { opening, term } = await lockOpening(tx, id, at)
  const done = await telling(tx, who, term, at.now, async () => {
    await tx.delete(t.opening).where(eq(t.opening.id, id))
    return { id, title: opening.title }
  })
  await logEvent(tx, {
    ...{ at: at.now, account: who.id, student: null, action: 'opening.dropped' },
    before: { term: term.code, opening: id, title: opening.title, opens: opening.opensAt.getTime() }
  })
  return done
}

/**
 * Opens a term for the groups for which an earlier one opened, as many weeks before its first day. Those of single students
 * are not copied, nor what would not be to come any more.
 *
 * @throws Refused where the term has openings already
 */
export async function copyOpenings(
  tx: Transaction,
  who: Who,
  { term: code, from }: { term: TermCode; from: TermCode },
  at: At
): Promise<{ made: number; passed: number }> {
  await tx.select({ id: t.term.id }).from(t.term).where(eq(t.term.code, code)).for('update')
  const [target, source] = [await termRow(tx, code), await termRow(tx, from)]
  const own = await tx.select().from(t.opening).where(eq(t.opening.termId, target.id)).limit(1)
  if (own.length)
    throw new Refused(409, 'openings', `${target.name} has openings already; they are changed one by one.`)
  const rows = await tx.select().from(t.opening).where(eq(t.opening.termId, source.id))
  const days = wholeWeeksBetween(source.startsOn, target.startsOn)
  const moved = rows
    .filter((one) => one.studentId === null)
    .map(({ id: _, ...one }) => ({
      ...one,
      termId: target.id,
      opensAt: DateTime.fromJSDate(one.opensAt, { zone: at.zone }).plus({ days }).toJSDate()
    }))
  if (!moved.length)
    throw new Refused(422, 'noOpenings', `${source.name} has no openings to copy.`, [
      { field: 'from', message: 'has to be a term with openings' }
    ])
  const ahead = moved.filter(
    (one) => one.opensAt.getTime() > at.now && one.opensAt.getTime() < target.addEndsAt.getTime()
  )
  if (ahead.length) {
    await telling(tx, who, target, at.now, async () => {
      await tx.insert(t.opening).values(ahead)
      return { id: 0, title: ahead[0]!.title }
    })
    await logEvent(tx, {
      ...{ at: at.now, account: who.id, student: null, action: 'opening.made' },
      after: { term: code, from, openings: ahead.length }
    })
  }
  return { made: ahead.length, passed: moved.length - ahead.length }
}
