import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/db/schema/index'
import { readCatalogContext } from '#server/features/catalog/context'
import { acceptAgreement } from '#server/features/registration/agreements'
import { run } from '#server/features/registration/run'
import { readStudentRecords } from '#server/features/record/studentRecords'
import type { Who } from '#shared/accounts/responses'
import { at, AUTUMN, idOf, LANGUAGE, newcomers, openWorld, pickFor, within, type World } from './world'

let world: World
let who: Who

beforeAll(async () => {
  world = await openWorld('agreements')
  ;[who] = (await newcomers(world, 1)) as [Who]
  await pickFor(world, who, LANGUAGE, '01')
})
afterAll(() => world.close())

const writeTerms = async (agreement: string | null) => {
  await world.db.update(t.term).set({ agreement }).where(eq(t.term.code, AUTUMN))
  world.catalogContext = await readCatalogContext(world.db)
}
const accept = async (text: string) => {
  const when = { who, student: idOf(who), ...(await at(world)) }
  return within(world, (tx) => acceptAgreement(tx, when, { term: AUTUMN, text }))
}
const go = async () =>
  (
    await run(world.db, who, idOf(who), { term: AUTUMN, courses: [LANGUAGE] }, world.catalogContext)
  ).lines.map((line) => [line.outcome, line.refusals])

describe('terms of registration', () => {
  it('are accepted word for word as they read now, or not at all', async () => {
    await writeTerms('A seat is paid for.')
    await expect(accept('A seat is free.')).rejects.toMatchObject({ status: 409, code: 'otherTerms' })
    expect(await go()).toEqual([['refused', [{ code: 'notAgreed' }]]])
  })
  it('that have changed are to be accepted anew; what was accepted before is kept', async () => {
    await accept('A seat is paid for.')
    await writeTerms('A seat is paid for in time.')
    expect(await go()).toEqual([['refused', [{ code: 'notAgreed' }]]])
    await accept('A seat is paid for in time.')
    const kept = await world.db
      .select()
      .from(t.agreement)
      .where(eq(t.agreement.studentId, idOf(who)))
      .orderBy(t.agreement.id)
    const texts = kept.map((one) => one.text).filter((text) => text.startsWith('A seat'))
    expect(texts).toEqual(['A seat is paid for.', 'A seat is paid for in time.'])
    const [record] = await readStudentRecords(world.db, [idOf(who)], 'self')
    expect(record!.agreements.map((one) => one.term)).toContain(AUTUMN)
    expect(await go()).toEqual([['registered', []]])
  })
  it('of a term that asks for none are refused', async () => {
    await writeTerms(null)
    await expect(accept('A seat is paid for.')).rejects.toMatchObject({ code: 'otherTerms' })
  })
})
