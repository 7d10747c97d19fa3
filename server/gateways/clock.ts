/**
 * The campus clock: the only place where the server learns what time it is. In the demo it stands at
 * an instant, or runs on from one; on an ordinary server it follows the machine.
 */
import { eq } from 'drizzle-orm'
import type { Term } from '#core/catalog'
import type { Instant } from '#core/time'
import type { ClockView } from '#shared/responses'
import type { Reader, Transaction } from '#server/db/connect'
import { campusClock } from '#server/db/schema/index'
import { Refused } from '#server/http/problem'

const ONLY = 1

export async function readClock(db: Reader): Promise<ClockView> {
  const [row] = await db.select().from(campusClock).where(eq(campusClock.id, ONLY))
  const real = Date.now()
  if (!row || row.mode === 'real') return { mode: 'real', now: real }
  const at = row.campusAt.getTime()
  return { mode: row.mode, now: row.mode === 'standing' ? at : at + (real - row.setAt.getTime()) }
}

export async function campusNow(db: Reader): Promise<Instant> {
  return (await readClock(db)).now
}

/** A year before the first term and after the last one there is nothing to see. */
const BEYOND_DAYS = 366

/** @throws Refused for an instant that is far from all terms */
export async function setClock(
  tx: Transaction,
  mode: ClockView['mode'],
  at: Instant,
  terms: readonly Pick<Term, 'start' | 'end'>[]
): Promise<void> {
  const beyond = BEYOND_DAYS * 86_400_000
  const first = Math.min(...terms.map((term) => Date.parse(term.start))) - beyond
  const last = Math.max(...terms.map((term) => Date.parse(term.end))) + beyond
  if (mode !== 'real' && terms.length && (at < first || at > last)) {
    const day = (instant: Instant) => new Date(instant).toISOString().slice(0, 10)
    const message = `has to be from ${day(first)} to ${day(last)}`
    throw new Refused(400, 'malformed', `at ${message}.`, [{ field: 'at', message }])
  }
  const values = { mode, campusAt: new Date(at), setAt: new Date() }
  await tx
    .insert(campusClock)
    .values({ id: ONLY, ...values })
    .onDuplicateKeyUpdate({ set: values })
}
