/** Changes that are sent again because their answer did not arrive: answered as the first time, and not made again. */
import { createHash } from 'node:crypto'
import { eq, lt } from 'drizzle-orm'
import { all, untilThrough, type Database, type Transaction } from './connect'
import { madeChange } from './schema/index'
import { Refused } from '#server/http/problem'

/** A change with the key that its client gave it; `what` says which endpoint was asked for what. */
export interface KeyedChange {
  account: number
  key: string
  what: unknown
}

/** Longer than anything waits in a browser to be sent. */
const KEPT_MS = 30 * 24 * 3_600_000

/**
 * Does the work of a change in its transaction, or answers what it came to when it was sent before. Two at once with one
 * key follow one another. What was refused was not made: it is tried again.
 *
 * @throws Refused where the key was given to another change
 */
export async function madeOnce<T>(tx: Transaction, change: KeyedChange, work: () => Promise<T>): Promise<T> {
  const asked = createHash('sha256').update(JSON.stringify(change.what)).digest('hex')
  const own = all(eq(madeChange.accountId, change.account), eq(madeChange.changeKey, change.key))
  const values = { accountId: change.account, changeKey: change.key, asked, at: new Date() }
  // Waits for another with the same key to be through.
  const [{ affectedRows }] = await tx.insert(madeChange).ignore().values(values)
  if (affectedRows !== 1) {
    const [before] = await tx.select().from(madeChange).where(own)
    if (before!.asked !== asked) throw keyUsed()
    return before!.answer as T
  }
  const answer = await work()
  await tx
    .update(madeChange)
    .set({ answer: answer ?? null })
    .where(own)
  return answer
}

export async function forgetMadeChanges(db: Database, now: number): Promise<void> {
  await untilThrough(() => db.delete(madeChange).where(all(lt(madeChange.at, new Date(now - KEPT_MS)))))
}

export const keyUsed = (): Refused =>
  new Refused(422, 'keyUsed', 'This key was given to another change. Give every change a key of its own.', [
    { field: 'Idempotency-Key', message: 'has to be another one for every change' }
  ])
