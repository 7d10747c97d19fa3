/** Kinds of holds: what an office may place, what it stops, and how it is lifted. A hold keeps what its kind was then. */
import { eq } from 'drizzle-orm'
import type { Instant } from '#core/time'
import { all, type Reader, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import type { HoldKindSaid } from '#shared/offices/requests'

/** @throws Refused where the office has one of that title, but for `own` */
async function mustBeNew(tx: Reader, { office, title }: HoldKindSaid, own?: number): Promise<void> {
  const [same] = await tx
    .select({ id: t.holdKind.id })
    .from(t.holdKind)
    .where(all(eq(t.holdKind.office, office), eq(t.holdKind.title, title)))
  if (same && same.id !== own)
    throw new Refused(409, 'kindKnown', `${office} has a hold called ${title} already.`, [
      { field: 'title', message: 'has to be called otherwise' }
    ])
}

async function lockKind(tx: Transaction, id: number) {
  const [kind] = await tx.select().from(t.holdKind).where(eq(t.holdKind.id, id)).for('update')
  if (!kind) throw new Refused(404, 'noKind', 'There is no such kind of hold any more.')
  return kind
}

export async function makeHoldKind(
  tx: Transaction,
  who: Who,
  said: HoldKindSaid,
  now: Instant
): Promise<{ kind: number }> {
  await mustBeNew(tx, said)
  const [row] = await tx.insert(t.holdKind).values(said).$returningId()
  await noted(tx, who, now, null, said)
  return { kind: row!.id }
}

export async function changeHoldKind(
  tx: Transaction,
  who: Who,
  id: number,
  said: HoldKindSaid,
  now: Instant
): Promise<void> {
  const before = await lockKind(tx, id)
  await mustBeNew(tx, said, id)
  await tx.update(t.holdKind).set(said).where(eq(t.holdKind.id, id))
  await noted(tx, who, now, before, said)
}

export async function dropHoldKind(tx: Transaction, who: Who, id: number, now: Instant): Promise<void> {
  const before = await lockKind(tx, id)
  await tx.delete(t.holdKind).where(eq(t.holdKind.id, id))
  await noted(tx, who, now, before, null)
}

const noted = (
  tx: Transaction,
  who: Who,
  now: Instant,
  before: Record<string, unknown> | null,
  after: Record<string, unknown> | null
) => logEvent(tx, { at: now, account: who.id, student: null, action: 'holdKind.changed', before, after })
