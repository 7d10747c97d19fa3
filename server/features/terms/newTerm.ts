/** A term by itself, of which its days are known and nothing else: its dates and rules are as is usual, until they are changed. */
import { eq } from 'drizzle-orm'
import { DateTime } from 'luxon'
import { daysLater } from '#core/calendar'
import type { Instant, IsoDate } from '#core/time'
import { dayNumber } from '#core/time'
import type { Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import type { NewTermSaid } from '#shared/offices/terms'
import { mustBeApart } from './plan'

/** Days of a term in which courses are added, at most. */
const ADDING_MOST = 12

/** What is written of it in its own row: adding for a fourth of its days, two weeks at most; dropping until as long before its end. */
export function usualColumns(
  { code, name, season, start, end }: NewTermSaid,
  zone: string
): typeof t.term.$inferInsert {
  const day = (days: number, from: IsoDate = start) =>
    DateTime.fromISO(daysLater(from, days), { zone }).toJSDate()
  const adding = Math.min(ADDING_MOST, Math.max(1, Math.floor((dayNumber(end) - dayNumber(start)) / 4)))
  return {
    ...{
      code,
      name,
      season,
      year: Number(start.slice(0, 4)),
      startsOn: start,
      endsOn: end,
      published: false
    },
    ...{ addEndsAt: day(adding), dropFreeEndsAt: day(adding), linesCloseAt: day(adding - 1) },
    ...{
      dropEndsAt: day(-adding, end),
      offerHours: 48,
      offerHoursNear: 12,
      paymentDueOn: daysLater(start, -28)
    },
    ...{ loadMost: season === 'summer' ? 9 : 18, signOffPolicy: 'term', waitlistPolicy: 'offer' }
  }
}

/** The session that lies in the whole term. */
export const wholeSession = (termId: number, { start, end }: Pick<NewTermSaid, 'start' | 'end'>) =>
  ({ termId, code: 'FULL', name: 'Full term', half: 'full', startsOn: start, endsOn: end }) as const

/** Makes a term, unpublished. @throws Refused where there is one of that code, or one that has some of its days */
export async function makeTerm(
  tx: Transaction,
  who: Who,
  said: NewTermSaid,
  { now, zone }: { now: Instant; zone: string }
): Promise<void> {
  const [known] = await tx.select({ name: t.term.name }).from(t.term).where(eq(t.term.code, said.code))
  if (known)
    throw new Refused(409, 'termKnown', `There is a term ${said.code} already: ${known.name}.`, [
      { field: 'code', message: 'has to be a code that no other term has' }
    ])
  await mustBeApart(tx, said)
  const [made] = await tx.insert(t.term).values(usualColumns(said, zone)).$returningId()
  await tx.insert(t.session).values(wholeSession(made!.id, said))
  const after = { term: said.code }
  await logEvent(tx, { at: now, account: who.id, student: null, action: 'term.made', after })
}
