/** What a term costs: charged with the seats, given back with them, paid once, and seats lost where it is not paid. */
import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { CourseCode } from '#core/ids'
import { all } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { askAgain, pay } from '#server/features/charges/payments'
import { readStatement } from '#server/features/charges/ledger'
import { followUnpaid } from '#server/features/charges/unpaid'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { run, type RunAsked } from '#server/features/registration/run'
import type { Cashier } from '#server/gateways/cashier'
import { everyMinute } from '#server/jobs/everyMinute'
import type { Who } from '#shared/accounts/responses'
import { accountOf, holdsFor } from '#shared/charges/balance'
import { owedOf } from '#shared/charges/responses'
import {
  AUTUMN,
  idOf,
  LANGUAGE,
  newcomers,
  OPENS,
  openWorld,
  pickFor,
  sectionsNumbered,
  setTime,
  type World
} from './world'

/** Resident, 3 credits: by the credit, with the two fees of the term. */
const THREE_CREDITS = 3 * 36_500 + 26_500 + 3_000
const takes: Cashier = { take: () => Promise.resolve('taken') }
let world: World
let people: Who[]
let section: number
let turn = 0

beforeAll(async () => {
  world = await openWorld('money')
  section = (await sectionsNumbered(world, LANGUAGE, '01'))[0]!.id
  await world.db.update(t.section).set({ capacity: 400 }).where(eq(t.section.id, section))
  people = await newcomers(world, 20)
})
afterAll(() => world.close())

/** The ledger keeps everything, so each test has somebody of its own. */
let who: Who
beforeEach(async () => {
  who = people[turn++]!
  await setTime(world, OPENS)
  await pickFor(world, who, LANGUAGE, '01')
})

const go = (asked: Partial<RunAsked>, by = who) =>
  run(world.db, by, idOf(by), { term: AUTUMN, courses: [], ...asked }, world.catalogContext)
const register = (course: CourseCode = LANGUAGE) => go({ courses: [course] })
const record = async (of = who) => (await readStudentRecords(world.db, [idOf(of)], 'self'))[0]!
const account = async (of = who) => accountOf(await record(of), AUTUMN)
const owed = async (of = who) => {
  const found = await account(of)
  return found ? owedOf(found) : 0
}
const payOnce = (amount: number, key: string, cashier = takes) =>
  pay(world.db, who, idOf(who), { term: AUTUMN, amount, key }, cashier)
const kinds = async () =>
  (await readStatement(world.db, idOf(who), AUTUMN)).map(
    ({ kind, item, amount }) => `${kind} ${item} ${amount}`
  )

describe('a seat', () => {
  it('is charged for in its own transaction, and given back whole until the first date', async () => {
    expect(await account()).toBeUndefined()
    await register()
    expect((await account())!.charges).toEqual([
      { item: 'tuition', amount: 109_500 },
      { item: 'fee Student services', amount: 26_500 },
      { item: 'fee Library', amount: 3_000 }
    ])
    await go({ drop: [LANGUAGE] })
    expect(await owed()).toBe(0)
  })
  it('that is refused costs nothing', async () => {
    await world.db.insert(t.hold).values({
      studentId: idOf(who),
      title: 'Library fine',
      office: 'Library desk',
      amount: 5,
      stopsRegistration: true,
      howToLift: 'Pay it.',
      placedAt: new Date(OPENS)
    })
    expect((await register()).lines[0]!.outcome).toBe('refused')
    await world.db.delete(t.hold)
    expect(await account()).toBeUndefined()
  })
  it('is given back by half, then not at all, as the term says', async () => {
    await register()
    const half = Date.parse('2027-09-10T12:00:00Z')
    await setTime(world, half)
    await go({ drop: [LANGUAGE] })
    expect(await owed()).toBe(THREE_CREDITS / 2)
    expect((await kinds()).slice(-3).sort()).toEqual([
      'refund fee Library 1500',
      'refund fee Student services 13250',
      'refund tuition 54750'
    ])
    who = people[turn++]!
    await pickFor(world, who, LANGUAGE, '01')
    await register()
    await setTime(world, Date.parse('2027-09-20T12:00:00Z'))
    await go({ drop: [LANGUAGE] })
    expect(await owed()).toBe(THREE_CREDITS)
  })
})

describe('a payment', () => {
  it('is one for its key, however often and at once it is sent', async () => {
    await register()
    const sent = await Promise.all([1, 2, 3].map(() => payOnce(50_000, 'payment-one')))
    expect(new Set(sent.map((one) => one.id)).size).toBe(1)
    expect(await owed()).toBe(THREE_CREDITS - 50_000)
    await expect(payOnce(40_000, 'payment-one')).rejects.toMatchObject({ status: 422 })
  })
  it('is at most what is owed, what is asked for already aside', async () => {
    await register()
    await expect(payOnce(THREE_CREDITS + 1, 'payment-two')).rejects.toMatchObject({
      code: 'notOwed',
      fields: [{ field: 'amount', message: 'has to be at most 1,390.00' }]
    })
    await payOnce(THREE_CREDITS, 'payment-three')
    await expect(payOnce(1, 'payment-four')).rejects.toMatchObject({
      message: 'For Autumn 2027 nothing is still to be paid.'
    })
  })
  it('without an answer is asked for again, and posted once', async () => {
    await register()
    const asked: string[] = []
    const silent: Cashier = {
      take: ({ reference }) => {
        asked.push(reference)
        return Promise.reject(new Error('no answer'))
      }
    }
    expect(await payOnce(10_000, 'payment-five', silent)).toMatchObject({ state: 'asked' })
    expect(await account()).toMatchObject({ paid: 0, asked: 10_000 })
    const remembers: Cashier = {
      take: ({ reference }) => {
        asked.push(reference)
        return Promise.resolve('taken')
      }
    }
    await Promise.all([askAgain(world.db, remembers), askAgain(world.db, remembers)])
    await askAgain(world.db, remembers)
    expect(new Set(asked).size).toBe(1)
    expect(await account()).toMatchObject({ paid: 10_000, asked: 0 })
  })
  it('that is refused moves nothing', async () => {
    await register()
    const refuses: Cashier = { take: () => Promise.resolve('refused') }
    expect(await payOnce(10_000, 'payment-six', refuses)).toMatchObject({ state: 'refused' })
    expect(await account()).toMatchObject({ paid: 0, asked: 0 })
  })
})

describe('what is unpaid', () => {
  const noon = (day: string) => Date.parse(`${day}T16:00:00Z`)
  const holds = async (of = who) => (await record(of)).held.some((seat) => seat.term === AUTUMN)
  const follow = async (day: string) => {
    await setTime(world, noon(day))
    await Promise.all([1, 2].map(() => followUnpaid(world.db, world.catalogContext.zone)))
  }
  const notices = async (of = who) => (await account(of))!.notices.length

  it('is told twice, then the seats are given back, once, with a receipt; who has paid is spared', async () => {
    await register()
    const [unpaid, paid] = [who, people[turn++]!]
    await pickFor(world, paid, LANGUAGE, '01')
    await go({ courses: [LANGUAGE] }, paid)
    const told: number[] = []
    for (const day of ['2027-07-18', '2027-07-19', '2027-07-29', '2027-07-30', '2027-08-02']) {
      await follow(day)
      told.push(await notices(unpaid))
    }
    expect(told).toEqual([0, 1, 1, 2, 2])
    await pay(world.db, paid, idOf(paid), { term: AUTUMN, amount: THREE_CREDITS, key: 'in-time-1' }, takes)
    expect(await holds(unpaid)).toBe(true)
    await follow('2027-08-03')
    expect([await holds(unpaid), await holds(paid)]).toEqual([false, true])
    expect([await notices(unpaid), await notices(paid)]).toEqual([0, 0])
    expect(await owed(unpaid)).toBe(0)
    expect(await account(unpaid)).toMatchObject({ releasedAt: noon('2027-08-03') })
    const lines = await world.db
      .select({ by: t.receipt.byId, outcome: t.receiptLine.outcome, action: t.receiptLine.action })
      .from(t.receiptLine)
      .innerJoin(t.receipt, eq(t.receipt.id, t.receiptLine.receiptId))
      .where(all(eq(t.receipt.studentId, idOf(unpaid)), eq(t.receiptLine.outcome, 'released')))
    expect(lines).toEqual([{ by: null, outcome: 'released', action: 'release' }])
    // Whoever registers afterwards is told twice anew before anything is lost.
    await go({ courses: [LANGUAGE] }, unpaid)
    await setTime(world, noon('2027-08-03') + 60_000)
    await everyMinute(world.db, world.catalogContext)
    expect([await holds(unpaid), await notices(unpaid)]).toEqual([true, 1])
  })
  it('is not lost untold where time has jumped past the due date, nor once adding has ended', async () => {
    await register()
    await follow('2027-08-30')
    expect([await holds(), await notices()]).toEqual([true, 1])
    await follow('2027-08-31')
    await follow('2027-09-02')
    expect([await holds(), await notices()]).toEqual([true, 2])
    await follow('2027-09-03')
    expect(await holds()).toBe(false)
    who = people[turn++]!
    await setTime(world, OPENS)
    await pickFor(world, who, LANGUAGE, '01')
    await register()
    await follow('2027-09-09')
    await follow('2027-09-10')
    await follow('2027-09-14')
    expect(await holds()).toBe(true)
  })
  it('spares whose payment the cashier has not answered, and seats that an office placed', async () => {
    await register()
    const silent: Cashier = { take: () => Promise.reject(new Error('no answer')) }
    await payOnce(THREE_CREDITS, 'payment-nine', silent)
    const placed = people[turn++]!
    await pickFor(world, placed, LANGUAGE, '01')
    await go({ courses: [LANGUAGE] }, placed)
    await world.db
      .update(t.registration)
      .set({ placedByOffice: true })
      .where(all(eq(t.registration.studentId, idOf(placed)), eq(t.registration.sectionId, section)))
    for (const day of ['2027-07-19', '2027-07-30', '2027-08-03']) await follow(day)
    expect([await holds(who), await holds(placed)]).toEqual([true, true])
    await askAgain(world.db, takes)
  })
  it('of an earlier term is a hold for a later one, after its due date and not before', async () => {
    await register()
    const next = world.catalogContext.terms.find((term) => term.start > '2028-01-01')!
    const holdsOn = async (today: string) =>
      holdsFor(await record(), world.catalogContext.terms, next, today).map((hold) => [
        hold.title,
        hold.amount
      ])
    expect(await holdsOn('2027-08-02')).toEqual([])
    expect(await holdsOn('2027-08-03')).toEqual([['Balance of Autumn 2027', THREE_CREDITS / 100]])
    const own = world.catalogContext.terms.find((term) => term.code === AUTUMN)!
    expect(holdsFor(await record(), world.catalogContext.terms, own, '2027-08-03')).toEqual([])
  })
})

describe('the ledger', () => {
  it('is not changed and nothing of it is deleted, whoever asks', async () => {
    await expect(world.db.update(t.ledgerEntry).set({ amount: 1 })).rejects.toThrow()
    await expect(world.db.delete(t.ledgerEntry)).rejects.toThrow()
  })
  it('takes no entry that does not add up', async () => {
    const [any] = await world.db.select().from(t.ledgerEntry).where(eq(t.ledgerEntry.kind, 'charge')).limit(1)
    const wrong = { ...any!, id: undefined }
    for (const over of [
      { amount: -1 },
      { assessed: any!.assessed + 1 },
      { debit: any!.credit },
      { kind: 'refund' as const },
      { kind: 'payment' as const }
    ])
      await expect(world.db.insert(t.ledgerEntry).values({ ...wrong, ...over })).rejects.toThrow()
  })
})
