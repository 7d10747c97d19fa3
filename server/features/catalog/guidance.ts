/** Guidance: the institution's own short texts, written by the registrar. They come along with the catalog. */
import { asc, eq } from 'drizzle-orm'
import type { Instant } from '#core/time'
import type { Reader, Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import type { GuidanceAbout, GuidanceText } from '#shared/catalog/guidance'
import type { GuidanceSaid } from '#shared/catalog/guidanceRequests'
import { FOUND_WORDS } from '#shared/catalog/guidanceWords'

export const readGuidance = (db: Reader): Promise<GuidanceText[]> =>
  db.select().from(t.guidance).orderBy(asc(t.guidance.id))

/** Whether there is what a text would be about. */
const IS_THERE: Record<GuidanceAbout, (db: Reader, key: string) => Promise<boolean>> = {
  everybody: () => Promise.resolve(true),
  finding: (_, key) => Promise.resolve(Object.hasOwn(FOUND_WORDS, key)),
  program: async (db, key) =>
    (await db.select({ id: t.program.id }).from(t.program).where(eq(t.program.code, key))).length > 0,
  term: async (db, key) =>
    (await db.select({ id: t.term.id }).from(t.term).where(eq(t.term.code, key))).length > 0,
  course: async (db, key) =>
    (await db.select({ id: t.course.id }).from(t.course).where(eq(t.course.code, key))).length > 0
}

async function mustBeThere(db: Reader, { about, key }: GuidanceSaid): Promise<void> {
  if (await IS_THERE[about](db, key)) return
  const message = `has to be the code of a ${about === 'finding' ? 'kind of finding' : about} that there is`
  throw new Refused(400, 'malformed', `key ${message}.`, [{ field: 'key', message }])
}

async function lockText(tx: Transaction, id: number): Promise<GuidanceText> {
  const [text] = await tx.select().from(t.guidance).where(eq(t.guidance.id, id)).for('update')
  if (!text) throw new Refused(404, 'noGuidance', 'There is no such text any more.')
  return text
}

/** @throws Refused where there is nothing of that code */
export async function makeGuidance(
  tx: Transaction,
  who: Who,
  said: GuidanceSaid,
  now: Instant
): Promise<{ guidance: number }> {
  await mustBeThere(tx, said)
  const [made] = await tx.insert(t.guidance).values(said).$returningId()
  await noted(tx, who, now, null, said)
  return { guidance: made!.id }
}

/** @throws Refused where there is no such text, or nothing of that code */
export async function changeGuidance(
  tx: Transaction,
  who: Who,
  id: number,
  said: GuidanceSaid,
  now: Instant
): Promise<void> {
  const before = await lockText(tx, id)
  await mustBeThere(tx, said)
  await tx.update(t.guidance).set(said).where(eq(t.guidance.id, id))
  await noted(tx, who, now, before, said)
}

export async function dropGuidance(tx: Transaction, who: Who, id: number, now: Instant): Promise<void> {
  const before = await lockText(tx, id)
  await tx.delete(t.guidance).where(eq(t.guidance.id, id))
  await noted(tx, who, now, before, null)
}

const noted = (tx: Transaction, who: Who, now: Instant, before: object | null, after: object | null) =>
  logEvent(tx, {
    ...{ at: now, account: who.id, student: null, action: 'guidance.changed' },
    ...(before && { before }),
    ...(after && { after })
  })
