/** What programs ask of whoever wants a review, and the sign-off that they ask for: data that is held to. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { courseCode } from '#core/ids'
import { generalRefusals } from '#core/registration'
import type { Who } from '#shared/accounts/responses'
import { reviewBody, signOffBody } from '#shared/advising/requests'
import { registrationFacts } from '#shared/registration/registering'
import * as t from '#server/db/schema/index'
import { readDesk } from '#server/features/advising/desk'
import { askForReview } from '#server/features/advising/reviews'
import { signOffTerm } from '#server/features/advising/signOff'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { changeRoute } from '#server/features/route/route'
import { at, AUTUMN, demoWorld, idOf, person, within, type World } from './world'

let world: World
let bram: Who
let yusuf: Who
let junia: Who & { id: number }
beforeAll(async () => {
  world = await demoWorld('reviews')
  bram = await person(world.db, 'Bram Ostrander')
  yusuf = await person(world.db, 'Yusuf Embley')
  junia = await person(world.db, 'Junia Prewett')
})
afterAll(() => world.close())

const recordOf = async (who: Who) => (await readStudentRecords(world.db, [idOf(who)], 'self'))[0]!
async function ask(who: Who, answers: { question: string; answer: string }[]) {
  const doing = { who, student: idOf(who), ...(await at(world)) }
  const said = reviewBody.parse({ term: AUTUMN, answers })
  return within(world, (tx) => askForReview(tx, doing, world.catalogContext, said))
}
const answered = async (who: Who, answer = 'The old mill.') =>
  (await recordOf(who)).programs.flatMap((one) =>
    one.review.questions.map((question) => ({ question, answer }))
  )

describe('a review', () => {
  it('is asked for with every question of the programs answered', async () => {
    await expect(ask(bram, [])).rejects.toMatchObject({ status: 422, code: 'unanswered' })
    const others = [{ question: 'Something else?', answer: 'Yes.' }]
    await expect(ask(bram, others)).rejects.toMatchObject({ code: 'unanswered' })
  })
  it('waits for the whole way to the degree where a program says so', async () => {
    await expect(ask(bram, await answered(bram))).rejects.toMatchObject({ status: 422, code: 'notMapped' })
    expect((await recordOf(bram)).reviews).toEqual([])
    await world.db.update(t.programVersion).set({ review: { covers: 'term', questions: ['Which sites?'] } })
    await ask(bram, [
      { question: 'Which sites?', answer: 'The old mill.' },
      { question: 'Something else?', answer: 'No.' }
    ])
    expect((await recordOf(bram)).reviews).toMatchObject([
      { term: AUTUMN, answers: [{ question: 'Which sites?', answer: 'The old mill.' }] }
    ])
  })
})

describe('a program that asks for a new sign-off after each change', () => {
  const barred = async () => {
    const record = await recordOf(yusuf)
    const { now } = await at(world)
    const facts = registrationFacts(record, world.catalogContext, {
      ...{ term: AUTUMN, now, heldSections: [], offer: [] }
    })
    return generalRefusals(facts).filter((one) => one.code === 'signOff')
  }
  const onDesk = async () => {
    const { now } = await at(world)
    return (await readDesk(world.db, junia, world.catalogContext, now)).rows.find(
      (row) => row.id === idOf(yusuf)
    )!
  }
  const sign = async (said: object = {}) => {
    const when = await at(world)
    const body = signOffBody.parse({ term: AUTUMN, ...said })
    await within(world, (tx) => signOffTerm(tx, junia, idOf(yusuf), body, when))
  }
  const plan = async (code: string) => {
    const doing = { who: yusuf, student: idOf(yusuf), ...(await at(world)) }
    const { route } = await recordOf(yusuf)
    const planned = { course: courseCode(code), term: AUTUMN, credits: 3, note: null, locked: false }
    await within(world, (tx) =>
      changeRoute(tx, doing, { route: route.id, version: route.version, change: { kind: 'add', planned } })
    )
  }
  it('holds the registration back from the change until then, and tells the desk', async () => {
    await sign({ together: 'all-of-them' })
    expect(await barred()).toEqual([])
    expect(await onDesk()).toMatchObject({ isBarred: false, together: 'all-of-them' })
    await plan('HERI 105')
    expect(await barred()).toEqual([{ code: 'signOff', ended: null, changed: true }])
    expect(await onDesk()).toMatchObject({ isBarred: true, changedSince: true })
    await sign()
    expect(await barred()).toEqual([])
    expect((await onDesk()).together).toBeNull()
  })
  it('lets an alternative in that the advisor named', async () => {
    await sign({ alternatives: ['ARTS 120'] })
    await plan('ARTS 120')
    expect((await recordOf(yusuf)).signOffs[0]!.alternatives).toEqual(['ARTS 120'])
    expect(await barred()).toEqual([])
  })
})
