/**
 * The campus clock: the only place where the server learns what time it is. In the demo it stands at
 * an instant, or runs on from one; on an ordinary server it follows the machine.
 */
import { eq } from 'drizzle-orm'
import type { Instant } from '#core/time'
import type { ClockPicture } from '#wire/picture'
import type { Reader, Transaction } from '../db/connect'
import { campusClock } from '../db/schema'

const ONLY = 1

export async function readClock(db: Reader): Promise<ClockPicture> {
  const [row] = await db.select().from(campusClock).where(eq(campusClock.id, ONLY))
  const real = Date.now()
  if (!row || row.mode === 'real') return { mode: 'real', now: real }
  const at = row.campusAt.getTime()
  return { mode: row.mode, now: row.mode === 'standing' ? at : at + (real - row.setAt.getTime()) }
}

export async function campusNow(db: Reader): Promise<Instant> {
  return (await readClock(db)).now
}

export async function setClock(tx: Transaction, mode: ClockPicture['mode'], at: Instant): Promise<void> {
  const values = { mode, campusAt: new Date(at), setAt: new Date() }
  await tx
    .insert(campusClock)
    .values({ id: ONLY, ...values })
    .onDuplicateKeyUpdate({ set: values })
}
