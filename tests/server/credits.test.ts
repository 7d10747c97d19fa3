/** Credits that a student chooses of a range. */
import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/db/schema/index'
import { readCatalogContext } from '#server/features/catalog/context'
import { readStatement } from '#server/features/charges/ledger'
import { writeFallbacks } from '#server/features/registration/fallbacks'
import { disagreements } from '#server/features/registration/reconcile'
import { run } from '#server/features/registration/run'
import { readSheet } from '#server/features/registration/sheet'
import { readStudentRecords } from '#server/features/record/studentRecords'
import type { Who } from '#shared/accounts/responses'
import { at, AUTUMN, idOf, LANGUAGE, newcomers, openWorld, pickFor, within, type World } from './world'

let world: World
let who: Who

beforeAll(async () => {
  world = await openWorld('credits')
  ;[who] = (await newcomers(world, 1)) as [Who]
  const [course] = await world.db.select().from(t.course).where(eq(t.course.code, LANGUAGE))
  await world.db.update(t.course).set({ creditsMost: 5 }).where(eq(t.course.id, course!.id))
  await world.db.update(t.section).set({ creditsMost: 5 }).where(eq(t.section.courseId, course!.id))
  world.catalogContext = await readCatalogContext(world.db)
  await pickFor(world, who, LANGUAGE, '01')
})
afterAll(() => world.close())

const choose = async (credits: number | null) => {
  const when = { who, student: idOf(who), ...(await at(world)) }
  const said = { list: [], onlyWith: null, givingUp: null, credits, note: null }
  await within(world, (tx) => writeFallbacks(tx, when, { term: AUTUMN, course: LANGUAGE, ...said }))
}
const record = async () => (await readStudentRecords(world.db, [idOf(who)], 'self'))[0]!
const sheet = async () =>
  readSheet(world.db, await record(), world.catalogContext, AUTUMN, (await at(world)).now)
const go = async () =>
  (await run(world.db, who, idOf(who), { term: AUTUMN, courses: [LANGUAGE] }, world.catalogContext)).lines[0]!
const tuition = async () => {
  const entries = await readStatement(world.db, idOf(who), AUTUMN)
  return entries.reduce(
    (sum, one) => sum + (one.item === 'tuition' ? (one.kind === 'charge' ? one.amount : -one.amount) : 0),
    0
  )
}

describe('credits of a range', () => {
  it('are the least until others are chosen, and none outside of it can be', async () => {
    expect((await sheet()).lines[0]).toMatchObject({ course: LANGUAGE, credits: 3, state: 'ready' })
    await expect(choose(6)).rejects.toMatchObject({
      status: 422,
      fields: [{ field: 'credits', message: 'has to be 3 to 5' }]
    })
    await choose(4)
    expect((await sheet()).lines[0]).toMatchObject({ credits: 4, refusals: [] })
  })
  it('are registered, charged and told on the receipt as they were chosen', async () => {
    expect(await go()).toMatchObject({ outcome: 'registered', credits: 4 })
    const [seat] = (await record()).held.filter((one) => one.term === AUTUMN)
    expect(seat).toMatchObject({ course: LANGUAGE, credits: 4 })
    expect(await disagreements(world.db)).toEqual([])
  })
  it('are changed afterwards by an exchange that moves no seat', async () => {
    const before = await tuition()
    expect(await go()).toMatchObject({ outcome: 'refused', refusals: [{ code: 'alreadyRegistered' }] })
    await choose(5)
    expect((await sheet()).lines[0]).toMatchObject({
      state: 'ready',
      credits: 5,
      givesBack: [],
      refusals: []
    })
    expect(await go()).toMatchObject({ outcome: 'exchanged', credits: 5, gaveBack: [] })
    const held = await world.db
      .select({ credits: t.registration.credits })
      .from(t.registration)
      .where(eq(t.registration.studentId, idOf(who)))
    expect(held.map((one) => one.credits)).toContain(5)
    // By the credit: what one more of them costs is charged.
    expect((await tuition()) / before).toBeCloseTo(5 / 4)
    expect(await disagreements(world.db)).toEqual([])
    expect((await sheet()).lines[0]).toMatchObject({ state: 'registered', credits: 5 })
  })
})
