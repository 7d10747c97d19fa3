/** What is written in several places agrees in the demo, and what does not is found. */
import { eq, ne, sql } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { all } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { disagreements } from '#server/features/registration/reconcile'
import { demoWorld, type World } from './world'

let world: World
beforeAll(async () => {
  world = await demoWorld('reconcile')
})
afterAll(() => world.close())

/** What is found after a change that is taken back again. */
async function after(
  change: (tx: Parameters<Parameters<World['db']['transaction']>[0]>[0]) => Promise<unknown>
) {
  let found: string[] = []
  await world.db
    .transaction(async (tx) => {
      await change(tx)
      found = await disagreements(tx)
      throw new Error('back')
    })
    .catch((error: Error) => {
      if (error.message !== 'back') throw error
    })
  return found
}

describe('reconciling', () => {
  it('finds that the demo agrees, every seat of it being a row', async () => {
    expect(await disagreements(world.db)).toEqual([])
    const [{ rows, taken } = { rows: 0, taken: 0 }] = await world.db
      .select({
        rows: sql<number>`(select count(*) from registration)`.mapWith(Number),
        taken: sql<number>`sum(${t.section.taken})`.mapWith(Number)
      })
      .from(t.section)
    expect(rows).toBeGreaterThan(1000)
    expect(taken).toBe(rows)
  })
  it('finds a count that is not its rows', async () => {
    const [row] = await world.db.select().from(t.section).where(ne(t.section.taken, 0)).limit(1)
    const wrong = await after((tx) =>
      tx
        .update(t.section)
        .set({ taken: row!.taken - 1 })
        .where(eq(t.section.id, row!.id))
    )
    expect(wrong).toEqual([expect.stringContaining(`${row!.code} says ${row!.taken - 1} taken`)])
  })
  it('finds a seat that no log, no receipt and no charge tells of', async () => {
    const [seat] = await world.db
      .select({ id: t.registration.id, section: t.section.id })
      .from(t.registration)
      .innerJoin(t.section, eq(t.section.id, t.registration.sectionId))
      .innerJoin(t.term, eq(t.term.id, t.section.termId))
      .where(eq(t.term.code, 'AU27'))
      .limit(1)
    const wrong = await after(async (tx) => {
      await tx.delete(t.registration).where(eq(t.registration.id, seat!.id))
      await tx
        .update(t.section)
        .set({ taken: sql`${t.section.taken} - 1` })
        .where(eq(t.section.id, seat!.section))
    })
    expect(wrong).toHaveLength(2)
    expect(wrong.join()).toMatch(/the log tells .*the seats come to/)
  })
  it('finds a receipt that says what did not happen', async () => {
    const wrong = await after((tx) =>
      tx
        .update(t.receiptLine)
        .set({ outcome: 'dropped' })
        .where(all(eq(t.receiptLine.receiptId, 1), eq(t.receiptLine.ordinal, 0)))
    )
    expect(wrong.map((one) => one.replace(/.*: /, '')).sort()).toEqual([
      'in the log without a receipt.',
      'on a receipt and not in the log.'
    ])
  })
  it('finds a payment that was never posted', async () => {
    const wrong = await after((tx) =>
      tx.insert(t.payment).values({
        studentId: 1,
        termId: 1,
        amount: 1,
        payKey: 'never-posted',
        at: new Date(),
        state: 'taken',
        byId: 1
      })
    )
    expect(wrong).toEqual([expect.stringContaining('and the ledger do not agree')])
  })
})
