/** Webhooks: addresses of other systems that are told what has changed; made, tried out and ended by the registrar. */
import { randomUUID } from 'node:crypto'
import { asc, desc, eq, inArray, isNull } from 'drizzle-orm'
import type { Instant } from '#core/time'
import { all, type Reader, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { newSecret, whyNotTold } from '#server/gateways/webhooks'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import type { EventType } from '#shared/connections/events'
import type { WebhookSaid } from '#shared/connections/requests'
import type { Delivery, Webhook, WebhookMade } from '#shared/connections/responses'

/** Of each webhook as many deliveries are listed. */
const LISTED = 20

interface Office {
  who: Who
  now: Instant
  machineNow: number
}

/** All of them, the latest first, with what each was told last. */
export async function readWebhooks(db: Reader): Promise<Webhook[]> {
  const rows = await db
    .select({ webhook: t.webhook, madeBy: t.account.name })
    .from(t.webhook)
    .innerJoin(t.account, eq(t.account.id, t.webhook.madeById))
    .orderBy(desc(t.webhook.id))
  return Promise.all(
    rows.map(async ({ webhook, madeBy }) => ({
      ...{ id: webhook.id, name: webhook.name, address: webhook.address, types: webhook.types, madeBy },
      madeAt: webhook.madeAt.getTime(),
      endedAt: webhook.endedAt?.getTime() ?? null,
      deliveries: (
        await db
          .select()
          .from(t.delivery)
          .where(eq(t.delivery.webhookId, webhook.id))
          .orderBy(desc(t.delivery.id))
          .limit(LISTED)
      ).map(deliveryOf)
    }))
  )
}

const deliveryOf = (row: typeof t.delivery.$inferSelect): Delivery => ({
  ...{ id: row.id, type: row.type, state: row.state, tries: row.tries, answer: row.answer },
  madeAt: row.madeAt.getTime(),
  nextAt: row.state === 'waiting' ? row.nextAt.getTime() : null
})

/**
 * @param heardUpTo number of the news after which it is told
 * @returns the secret that signs, told once
 * @throws Refused for an address that this server may not tell
 */
export async function makeWebhook(
  tx: Transaction,
  { who, now, machineNow }: Office,
  { name, address, types }: WebhookSaid,
  heardUpTo: number
): Promise<WebhookMade> {
  const refused = whyNotTold(address)
  if (refused)
    throw new Refused(422, 'notTold', `The address ${refused}.`, [{ field: 'address', message: refused }])
  const secret = newSecret()
  const [made] = await tx
    .insert(t.webhook)
    .values({
      ...{ name, address, secret, types, madeById: who.id, heardUpTo },
      madeAt: new Date(machineNow)
    })
    .$returningId()
  const after = { webhook: made!.id, name, address, types }
  await logEvent(tx, { at: now, account: who.id, student: null, action: 'webhook.made', after })
  return { webhook: made!.id, secret }
}

/** It is told nothing any more, what waits included. @throws Refused where there is none that stands */
export async function endWebhook(
  tx: Transaction,
  { who, now, machineNow }: Office,
  id: number
): Promise<void> {
  const { name, address } = await mustStand(tx, id)
  await endTelling(tx, id, machineNow)
  const before = { webhook: id, name, address }
  await logEvent(tx, { at: now, account: who.id, student: null, action: 'webhook.ended', before })
}

/** The same where the other system has said so itself. */
export async function endTelling(tx: Transaction, id: number, machineNow: number): Promise<void> {
  await tx
    .update(t.webhook)
    .set({ endedAt: new Date(machineNow) })
    .where(all(eq(t.webhook.id, id), isNull(t.webhook.endedAt)))
  await tx
    .update(t.delivery)
    .set({ state: 'givenUp' })
    .where(all(eq(t.delivery.webhookId, id), eq(t.delivery.state, 'waiting')))
}

/** Tells it that it is tried out. @throws Refused where there is none that stands */
export async function tryWebhook(
  tx: Transaction,
  machineNow: number,
  id: number
): Promise<{ delivery: number }> {
  await mustStand(tx, id)
  const [made] = await tx
    .insert(t.delivery)
    .values(deliveryFor(id, 'webhook.tested', {}, machineNow))
    .$returningId()
  return { delivery: made!.id }
}

/** One that was given up is told again, from its first try on. @throws Refused for any other */
export async function tellAgain(tx: Transaction, machineNow: number, id: number): Promise<void> {
  const [row] = await tx.select().from(t.delivery).where(eq(t.delivery.id, id)).for('update')
  if (!row) throw new Refused(404, 'noDelivery', 'There is no such delivery any more.')
  if (row.state !== 'givenUp')
    throw new Refused(
      409,
      'notGivenUp',
      row.state === 'waiting' ? 'It waits to be told already.' : 'It has arrived.'
    )
  await mustStand(tx, row.webhookId)
  await tx
    .update(t.delivery)
    .set({ state: 'waiting', tries: 0, nextAt: new Date(machineNow) })
    .where(eq(t.delivery.id, id))
}

/** A row of what a webhook is told, at once. */
export function deliveryFor(
  webhookId: number,
  type: EventType,
  data: object,
  machineNow: number
): typeof t.delivery.$inferInsert {
  const at = new Date(machineNow)
  return {
    ...{ webhookId, type, state: 'waiting', tries: 0, madeAt: at, nextAt: at },
    reference: `msg_${randomUUID()}`,
    body: JSON.stringify({ type, timestamp: at.toISOString(), data })
  }
}

async function mustStand(tx: Transaction, id: number): Promise<typeof t.webhook.$inferSelect> {
  const [row] = await tx.select().from(t.webhook).where(eq(t.webhook.id, id)).for('update')
  if (!row) throw new Refused(404, 'noWebhook', 'There is no such webhook.')
  if (row.endedAt) throw new Refused(409, 'endedAlready', 'This webhook was ended already.')
  return row
}

/** The numbers by which people know students. */
export async function numbersOf(
  db: Reader,
  students: readonly number[]
): Promise<{ id: number; number: string }[]> {
  if (!students.length) return []
  return db
    .select({ id: t.student.id, number: t.student.number })
    .from(t.student)
    .where(inArray(t.student.id, [...students]))
    .orderBy(asc(t.student.id))
}
