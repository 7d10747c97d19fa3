/**
 * What webhooks are told: made of the news once it is sure that nothing more can come below it, each at least once, and
 * tried until it has arrived or been tried for days. Servers on one database share the work; times are the machine's.
 */
import { asc, eq, gt, inArray, isNull, lt, lte, ne, sql } from 'drizzle-orm'
import { all, inTransaction, untilThrough, type Database, type Transaction } from '#server/db/connect'
import { groupBy } from '#server/db/groupBy'
import * as t from '#server/db/schema/index'
import type { WebhookSender } from '#server/gateways/webhooks'
import type { ChosenType } from '#shared/connections/events'
import type { NewsKind } from '#shared/news/responses'
import { deliveryFor, endTelling, numbersOf } from './webhooks'

/** What is news within is told outside so; what is somebody's own, or among advisors, is not. */
const TYPE_OF: Partial<Record<NewsKind, ChosenType>> = {
  record: 'record.changed',
  route: 'route.changed',
  seats: 'seats.changed',
  term: 'catalog.changed',
  requests: 'requests.changed'
}
const KINDS = Object.keys(TYPE_OF) as NewsKind[]
const STUDENTS_MOST = 500

const SECOND = 1000
const MINUTE = 60 * SECOND
const HOUR = 60 * MINUTE
/** After each try that failed, how long until the next (Standard Webhooks); after the last it is given up. */
const WAITS = [
  ...[5 * SECOND, 5 * MINUTE, 30 * MINUTE, 2 * HOUR, 5 * HOUR, 10 * HOUR],
  ...[14 * HOUR, 20 * HOUR, 24 * HOUR]
]
/** Whoever has taken one up and is heard of no more has died: another one takes it. */
const TAKEN_MS = MINUTE
const AT_ONCE = 20
const KEPT_MS = 30 * 24 * HOUR
const GONE = 410

/** Whether any webhook stands. */
export async function anyWebhook(db: Database): Promise<boolean> {
  const [one] = await db
    .select({ id: t.webhook.id })
    .from(t.webhook)
    .where(isNull(t.webhook.endedAt))
    .limit(1)
  return one !== undefined
}

/** Makes deliveries of all news up to a mark, below which nothing more can come. */
export async function gatherDeliveries(db: Database, mark: number, now: number): Promise<void> {
  await inTransaction(db, async (tx) => {
    const behind = await tx
      .select()
      .from(t.webhook)
      .where(all(isNull(t.webhook.endedAt), lt(t.webhook.heardUpTo, mark)))
      .orderBy(asc(t.webhook.id))
      .for('update', { skipLocked: true })
    for (const { id, heardUpTo, types } of behind) {
      for (const [type, data] of await eventsOf(tx, heardUpTo, mark))
        if (types.includes(type)) await tx.insert(t.delivery).values(deliveryFor(id, type, data, now))
      await tx.update(t.webhook).set({ heardUpTo: mark }).where(eq(t.webhook.id, id))
    }
  })
}

/** What has changed between two marks, said once for each student and each term. */
async function eventsOf(tx: Transaction, after: number, upTo: number): Promise<[ChosenType, object][]> {
  const rows = await tx
    .selectDistinct({
      kind: t.news.kind,
      student: t.news.studentId,
      term: sql<string | null>`json_value(${t.news.about}, '$.term')`
    })
    .from(t.news)
    .where(all(gt(t.news.id, after), lte(t.news.id, upTo), inArray(t.news.kind, KINDS)))
  const events: [ChosenType, object][] = []
  for (const kind of KINDS) {
    const ofKind = rows.filter((row) => row.kind === kind)
    if (!ofKind.length) continue
    const type = TYPE_OF[kind]!
    if (kind === 'record' || kind === 'route') {
      const students = [...new Set(ofKind.flatMap((row) => row.student ?? []))]
      for (let i = 0; i < students.length; i += STUDENTS_MOST)
        events.push([type, { students: await numbersOf(tx, students.slice(i, i + STUDENTS_MOST)) }])
    } else if (kind === 'requests') events.push([type, {}])
    // What may be about any term says none.
    else events.push([type, { terms: ofKind.some((row) => !row.term) ? [] : ofKind.map((row) => row.term) }])
  }
  return events
}

type Due = { delivery: typeof t.delivery.$inferSelect; webhook: typeof t.webhook.$inferSelect }

/**
 * Tells all that is due, those of one webhook one after the other, so that one that is slow holds up no other.
 *
 * @returns when the next is due; undefined where none waits
 */
export async function tellDue(
  db: Database,
  sender: WebhookSender,
  clock: () => number = Date.now
): Promise<number | undefined> {
  for (;;) {
    const due = await takeUp(db, clock())
    if (!due.length) break
    await Promise.all(
      [...groupBy(due, (one) => one.webhook.id).values()].map(async (own) => {
        for (const one of own) await tellOne(db, one, sender, clock)
      })
    )
  }
  const [next] = await db
    .select({ at: t.delivery.nextAt })
    .from(t.delivery)
    .where(eq(t.delivery.state, 'waiting'))
    .orderBy(asc(t.delivery.nextAt))
    .limit(1)
  return next?.at.getTime()
}

/** Takes some up, so that no other server tells them meanwhile; nothing is locked while they are told. */
async function takeUp(db: Database, now: number): Promise<Due[]> {
  return inTransaction(db, async (tx) => {
    const rows = await tx
      .select()
      .from(t.delivery)
      .where(all(eq(t.delivery.state, 'waiting'), lte(t.delivery.nextAt, new Date(now))))
      .orderBy(asc(t.delivery.id))
      .limit(AT_ONCE)
      .for('update', { skipLocked: true })
    if (!rows.length) return []
    const taken = inArray(
      t.delivery.id,
      rows.map(({ id }) => id)
    )
    await tx
      .update(t.delivery)
      .set({ tries: sql`${t.delivery.tries} + 1`, nextAt: new Date(now + TAKEN_MS) })
      .where(taken)
    return tx
      .select({ delivery: t.delivery, webhook: t.webhook })
      .from(t.delivery)
      .innerJoin(t.webhook, eq(t.webhook.id, t.delivery.webhookId))
      .where(taken)
      .orderBy(asc(t.delivery.id))
  })
}

async function tellOne(
  db: Database,
  { delivery, webhook }: Due,
  sender: WebhookSender,
  clock: () => number
): Promise<void> {
  const { address, secret } = webhook
  const { reference, body } = delivery
  const told = await sender.tell({ address, secret, reference, body, at: clock() }).then(
    (status) => ({ status, answer: `answered ${status}` }),
    (error: unknown) => ({ status: 0, answer: reasonOf(error) })
  )
  const isThere = told.status >= 200 && told.status < 300
  const wait = WAITS[delivery.tries - 1]
  const state = isThere ? 'delivered' : wait === undefined ? 'givenUp' : 'waiting'
  await inTransaction(db, async (tx) => {
    await tx
      .update(t.delivery)
      .set({ state, answer: told.answer, nextAt: new Date(clock() + (wait ?? 0)) })
      .where(all(eq(t.delivery.id, delivery.id), eq(t.delivery.state, 'waiting')))
    // Whoever answers so wants to be told no more.
    if (told.status === GONE) await endTelling(tx, webhook.id, clock())
  })
}

function reasonOf(error: unknown): string {
  if (!(error instanceof Error)) return 'no answer'
  const { cause } = error as { cause?: { code?: string } }
  const reason = error.name === 'TimeoutError' ? 'no answer in time' : (cause?.code ?? error.message)
  return `no answer: ${reason}`.slice(0, 160)
}

/** What ended long ago is kept no more. */
export async function forgetDeliveries(db: Database, now: number): Promise<void> {
  const old = lt(t.delivery.madeAt, new Date(now - KEPT_MS))
  await untilThrough(() => db.delete(t.delivery).where(all(ne(t.delivery.state, 'waiting'), old)))
}
