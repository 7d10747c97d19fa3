/** The server and a plain model do the same random operations; after each of them they have to agree. */
import { asc, eq, inArray, isNull, sql } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { SectionCode } from '#core/ids'
import * as t from '#server/db/schema/index'
import { pay } from '#server/features/charges/payments'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { answerOffer } from '#server/features/registration/answer'
import { writeFallbacks } from '#server/features/registration/fallbacks'
import { disagreements } from '#server/features/registration/reconcile'
import { run, type RunAsked } from '#server/features/registration/run'
import { pick } from '#server/features/week/pick'
import { doWhatIsDue } from '#server/jobs/everyMinute'
import type { Who } from '#shared/accounts/responses'
import { accountOf } from '#shared/charges/balance'
import { owedOf } from '#shared/charges/responses'
import { LONG } from '../../long'
import {
  at,
  AUTUMN,
  idOf,
  LANGUAGE,
  newcomers,
  OPENS,
  openWorld,
  sectionsNumbered,
  setTime,
  within,
  type World
} from '../world'
import { ModelCollege, modelDay, type ModelOutcome, type SectionName } from './college'

const HOUR = 3_600_000
const PLACES = 4
/** Daylight time on campus, from the opening to the last drop's month. */
const OFFSET = -4 * HOUR
const SEEDS = LONG ? 20 : 1
const STEPS = LONG ? 500 : 40

let world: World
let people: Who[]
let ids: Record<SectionName, number>
let codes: Record<SectionName, SectionCode>
let term: typeof t.term.$inferSelect
beforeAll(async () => {
  world = await openWorld('model')
  const { db } = world
  const [a, b] = await sectionsNumbered(world, LANGUAGE, '01', '02')
  ids = { A: a!.id, B: b!.id }
  codes = { A: a!.code as SectionCode, B: b!.code as SectionCode }
  term = (await db.select().from(t.term).where(eq(t.term.code, AUTUMN)))[0]!
  people = await newcomers(world, 6 * SEEDS)
  expect(people).toHaveLength(6 * SEEDS)
})
afterAll(() => world.close())

/** A linear congruential generator (Knuth, MMIX): the same numbers for the same seed. */
function numbers(seed: number) {
  let state = BigInt(seed)
  return (below: number) => {
    state = (state * 6364136223846793005n + 1442695040888963407n) & ((1n << 64n) - 1n)
    return Number(state >> 33n) % below
  }
}

/** The server, driven by the same operations as the model. */
class Server {
  constructor(private readonly people: Who[]) {}
  private readonly keys = { next: 0 }

  /** Nobody of an earlier seed is left in the sections; what they hold is given back as by themselves. */
  async begin() {
    await setTime(world, OPENS)
    await world.db.update(t.section).set({ capacity: 2, waitCapacity: PLACES }).where(eq(t.section.id, ids.A))
    await world.db.update(t.section).set({ capacity: 1, waitCapacity: PLACES }).where(eq(t.section.id, ids.B))
  }
  private async go(who: number, asked: Partial<RunAsked>): Promise<ModelOutcome> {
    const { people } = this
    const key = `model-${idOf(people[who]!)}-${this.keys.next++}`
    const send = () =>
      run(
        world.db,
        people[who]!,
        idOf(people[who]!),
        { term: AUTUMN, courses: [], ...asked, key },
        world.catalogContext
      )
    const [receipt, again] = await Promise.all(this.keys.next % 3 ? [send()] : [send(), send()])
    if (again) expect(again.id).toBe(receipt!.id)
    return receipt!.lines[0]!.outcome as ModelOutcome
  }
  async register(who: number, section: SectionName, waits: boolean) {
    const person = this.people[who]!
    const when = await at(world)
    // Nothing is picked for a term to which nothing can be added any more.
    if (when.now >= term.addEndsAt.getTime()) return 'refused'
    await within(world, (tx) =>
      pick(
        tx,
        person,
        idOf(person),
        { term: AUTUMN, picks: [{ course: LANGUAGE, sections: [codes[section]] }] },
        when
      )
    )
    await within(world, (tx) =>
      writeFallbacks(
        tx,
        { who: person, student: idOf(person), ...when },
        {
          term: AUTUMN,
          course: LANGUAGE,
          list: waits ? [{ kind: 'line' }] : [],
          onlyWith: null,
          givingUp: null,
          credits: null,
          note: null
        }
      )
    )
    return this.go(who, { courses: [LANGUAGE] })
  }
  drop = (who: number) => this.go(who, { drop: [LANGUAGE] })
  leave = (who: number) => this.go(who, { leave: [LANGUAGE] })
  async answer(who: number, given: 'accept' | 'decline') {
    const person = this.people[who]!
    const { offers } = await this.record(who)
    const asked = { answer: given, givingUp: [] }
    const receipt = await answerOffer(
      world.db,
      person,
      idOf(person),
      offers[0]!.id,
      asked,
      world.catalogContext
    )
    return receipt.lines[0]!.outcome as ModelOutcome
  }
  async pay(who: number, amount: number) {
    const person = this.people[who]!
    const asked = { term: AUTUMN, amount, key: `pay-${idOf(person)}-${this.keys.next++}` }
    const takes = { take: () => Promise.resolve('taken' as const) }
    return pay(world.db, person, idOf(person), asked, takes).then(
      () => true,
      () => false
    )
  }
  async hold(who: number, placed: boolean) {
    const studentId = idOf(this.people[who]!)
    await world.db.delete(t.hold).where(eq(t.hold.studentId, studentId))
    if (placed)
      await world.db.insert(t.hold).values({
        studentId,
        title: 'Library fine',
        office: 'Library desk',
        stopsRegistration: true,
        howToLift: 'Pay it.',
        placedAt: new Date(OPENS)
      })
  }
  async permit(who: number, given: boolean) {
    const studentId = idOf(this.people[who]!)
    await world.db.delete(t.request).where(eq(t.request.studentId, studentId))
    if (given)
      await world.db.insert(t.request).values({
        studentId,
        sectionId: ids.A,
        kind: 'full',
        state: 'given',
        reason: 'A transfer.',
        askedAt: new Date(OPENS),
        waitsFor: 'registrar'
      })
  }
  raise = () =>
    world.db
      .update(t.section)
      .set({ capacity: sql`${t.section.capacity} + 1` })
      .where(eq(t.section.id, ids.A))
  serve = () => doWhatIsDue(world.db, world.catalogContext)
  record = async (who: number) => (await readStudentRecords(world.db, [idOf(this.people[who]!)], 'self'))[0]!

  /** What can be seen of it, in the model's words. */
  async seen() {
    const students = this.people.map(idOf)
    const records = await readStudentRecords(world.db, students, 'self')
    const line = await world.db
      .select({ student: t.waitlistPlace.studentId, section: t.waitlistPlace.sectionId })
      .from(t.waitlistPlace)
      .where(inArray(t.waitlistPlace.sectionId, [ids.A, ids.B]))
      .orderBy(asc(t.waitlistPlace.joinedAt), asc(t.waitlistPlace.id))
    const sections = await world.db
      .select()
      .from(t.section)
      .where(inArray(t.section.id, [ids.A, ids.B]))
    const [a, b] = [sections.find((one) => one.id === ids.A)!, sections.find((one) => one.id === ids.B)!]
    const lineOf = (section: number) =>
      line
        .filter((row) => row.section === section)
        .map((row) => students.findIndex((id) => id === row.student))
    const nameOf = (code: string) => (code === codes.A ? 'A' : 'B')
    return {
      capacity: { A: a.capacity, B: b.capacity },
      taken: { A: a.taken, B: b.taken },
      offered: { A: a.offered, B: b.offered },
      lines: { A: lineOf(ids.A), B: lineOf(ids.B) },
      people: students.map((id) => {
        const record = records.find((one) => one.student.id === id)!
        const held = record.held.find((seat) => seat.term === AUTUMN)?.section
        const account = accountOf(record, AUTUMN)
        return {
          seat: held === undefined ? null : nameOf(held),
          offer: record.offers[0]
            ? { section: nameOf(record.offers[0].sections[0]!), until: record.offers[0].until }
            : null,
          owed: account ? owedOf(account) : 0,
          notices: account?.notices.map((one) => modelDay(one, OFFSET)) ?? []
        }
      })
    }
  }
}

function seenOf(model: ModelCollege) {
  return {
    capacity: model.capacity,
    taken: { A: model.taken('A'), B: model.taken('B') },
    offered: { A: model.offered('A'), B: model.offered('B') },
    lines: model.lines,
    people: model.people.map(({ seat, offer, notices }, who) => ({
      seat,
      offer,
      owed: model.owed(who),
      notices
    }))
  }
}

describe('registration and a plain model of it', () => {
  const seeds = Array.from({ length: SEEDS }, (_, i) => i + 1)
  it.each(seeds)(
    `agree after each of ${STEPS} operations (seed %i)`,
    { timeout: 1_200_000 },
    async (seed) => {
      const below = numbers(seed)
      const own = people.slice((seed - 1) * 6, seed * 6)
      const server = new Server(own)
      await server.begin()
      const instant = (at: Date) => at.getTime()
      const model = new ModelCollege(
        {
          opens: OPENS,
          linesClose: instant(term.linesCloseAt),
          addEnds: instant(term.addEndsAt),
          dropFreeEnds: instant(term.dropFreeEndsAt),
          dropEnds: instant(term.dropEndsAt),
          fullRefundEnds: term.prices!.refunds[0]!.until,
          halfRefundEnds: term.prices!.refunds[1]!.until,
          paymentDue: Date.parse(term.paymentDueOn) / (24 * HOUR),
          firstDay: Date.parse(term.startsOn) / (24 * HOUR),
          dayOf: (at) => modelDay(at, OFFSET),
          places: PLACES
        },
        own.length,
        { A: 2, B: 1 }
      )
      const done: string[] = []
      for (let step = 0; step < STEPS; step++) {
        const who = below(own.length)
        const act = below(16)
        const yes = below(2) === 1
        let outcomes: unknown[] = []
        if (act < 5) {
          const section = below(3) ? 'A' : 'B'
          done.push(`${who} registers ${section}${yes ? ' or waits' : ''}`)
          outcomes = [model.register(who, section, yes), await server.register(who, section, yes)]
        } else if (act < 7) {
          done.push(`${who} drops`)
          outcomes = [model.drop(who), await server.drop(who)]
        } else if (act === 7) {
          done.push(`${who} leaves the line`)
          outcomes = [model.leave(who), await server.leave(who)]
        } else if (act < 10) {
          const offered = model.people.findIndex((one) => one.offer !== null)
          if (offered < 0) continue
          const given = below(3) ? 'accept' : 'decline'
          done.push(`${offered} answers ${given}`)
          outcomes = [model.answer(offered, given), await server.answer(offered, given)]
        } else if (act < 12) {
          // Mostly hours, sometimes weeks: offers lapse, dates pass.
          model.now += below(4) ? below(30) * HOUR : below(16) * 24 * HOUR
          done.push(`it is ${new Date(model.now).toISOString()}`)
          await setTime(world, model.now)
        } else if (act === 12) {
          model.people[who]!.hold = yes
          done.push(`a hold of ${who}: ${yes}`)
          await server.hold(who, yes)
        } else if (act === 13) {
          model.people[who]!.permitted = yes
          done.push(`a permission of ${who}: ${yes}`)
          await server.permit(who, yes)
        } else if (act === 14) {
          if (model.capacity.A > 3) continue
          model.capacity.A++
          done.push('A has a seat more')
          await server.raise()
        } else {
          const owed = model.owed(who)
          const amount = yes && owed > 0 ? owed : 1 + below(90_000)
          done.push(`${who} pays ${amount} of ${owed}`)
          outcomes = [model.pay(who, amount), await server.pay(who, amount)]
        }
        model.serve()
        await server.serve()
        const told = done.slice(-12).join('\n')
        expect(outcomes[1], told).toEqual(outcomes[0])
        expect(await server.seen(), told).toEqual(seenOf(model))
        if (step % 20 === 19) expect(await disagreements(world.db), told).toEqual([])
      }
      expect(await disagreements(world.db)).toEqual([])
      // Cleared for the next, each as by its own people and by the office.
      for (const who of own.keys()) {
        await server.hold(who, false)
        await server.permit(who, false)
      }
      await setTime(world, OPENS)
      for (const who of own.keys()) {
        await server.leave(who)
        await server.drop(who)
      }
      await server.serve()
      const open = await world.db.select().from(t.seatOffer).where(isNull(t.seatOffer.answer))
      expect(open).toEqual([])
    }
  )
})
