/** Sections that are cancelled and moved: who loses what, who is told what, and that nothing is left half done. */
import { and, eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { CourseCode } from '#core/ids'
import * as t from '#server/db/schema/index'
import { readAccounts } from '#server/features/charges/ledger'
import { disagreements } from '#server/features/registration/reconcile'
import { run } from '#server/features/registration/run'
import { cancelSection, emptyCancelled } from '#server/features/registration/sectionChanges'
import { moveSection } from '#server/features/registration/sectionMoves'
import { readReceipts } from '#server/features/registration/sheet'
import { readStudentRecords } from '#server/features/record/studentRecords'
import type { Who } from '#shared/accounts/responses'
import { mailOf } from '#shared/mail/mails'
import {
  at,
  AUTUMN,
  idOf,
  LANGUAGE,
  newcomers,
  openWorld,
  person,
  pickFor,
  sectionsNumbered,
  type World
} from './world'

let world: World
let registrar: Who
let people: Who[]

beforeAll(async () => {
  world = await openWorld('changed')
  registrar = await person(world.db, 'Edda Whitlock')
  people = await newcomers(world, 4)
  for (const who of people.slice(0, 3)) await register(who, LANGUAGE, '01')
})
afterAll(() => world.close())

async function register(who: Who, course: string, ...numbers: string[]) {
  const code = await pickFor(world, who, course, ...numbers)
  const receipt = await run(world.db, who, idOf(who), { term: AUTUMN, courses: [code] }, world.catalogContext)
  expect(receipt.lines.map((line) => line.outcome)).toEqual(['registered'])
}
const codeOf = async (course: string, number: string) =>
  (await sectionsNumbered(world, course, number))[0]!.code
const mailsOf = async (who: Who) => {
  const rows = await world.db
    .select({ action: t.eventLog.action, before: t.eventLog.before, after: t.eventLog.after })
    .from(t.mail)
    .innerJoin(t.eventLog, eq(t.eventLog.id, t.mail.eventId))
    .where(eq(t.eventLog.studentId, idOf(who)))
  const about = { terms: world.catalogContext.terms, zone: world.catalogContext.zone }
  return rows.map((row) => mailOf(row as never, about)!)
}
const held = async (who: Who): Promise<CourseCode[]> => {
  const [record] = await readStudentRecords(world.db, [idOf(who)], 'self')
  return record!.held.filter((seat) => seat.term === AUTUMN).map((seat) => seat.course)
}

describe('a section that is moved', () => {
  it('keeps its seats, and tells each what it clashes with and what is nearest', async () => {
    const [who] = people
    const [other] = await sectionsNumbered(world, 'MUSI 102', '01')
    const [meeting] = await world.db.select().from(t.meeting).where(eq(t.meeting.sectionId, other!.id))
    await register(who!, 'MUSI 102', '01')
    const code = await codeOf(LANGUAGE, '01')
    const hours = { days: [1 as const], start: meeting!.startsMin, end: meeting!.endsMin }
    await moveSection(world.db, registrar, code, hours, world.catalogContext)
    expect(await held(who!)).toContain(LANGUAGE)
    const [mail] = await mailsOf(who!)
    expect(mail!.subject).toBe('LANG 140-01 meets at other hours')
    expect(mail!.text).toMatch(
      /It clashes with MUSI 102\. The nearest that fits your week and had a seat then: LANG 140-/
    )
    const [calm] = await mailsOf(people[1]!)
    expect(calm!.text).toContain('It clashes with nothing that you hold.')
  })
})

describe('a part of a section that is cancelled', () => {
  const LAB = 'SOIL 220'
  it('takes who was in it out of it alone, and they register another part', async () => {
    const who = await person(world.db, 'Imke Varga')
    await register(who, LAB, '01', '01A')
    const [main, gone, other] = [await codeOf(LAB, '01'), await codeOf(LAB, '01A'), await codeOf(LAB, '01B')]
    await cancelSection(world.db, registrar, gone, 'the room is under water', world.catalogContext)
    const sectionsHeld = async () => {
      const [record] = await readStudentRecords(world.db, [idOf(who)], 'self')
      const { section, components } = record!.held.find(
        (seat) => seat.term === AUTUMN && seat.course === LAB
      )!
      return [section, ...components]
    }
    expect(await sectionsHeld()).toEqual([main])
    const [receipt] = await readReceipts(world.db, idOf(who), AUTUMN)
    expect(receipt!.lines).toMatchObject([
      { course: LAB, outcome: 'released', sections: [gone], refusals: [{ code: 'cancelled', section: gone }] }
    ])
    const text = (await mailsOf(who)).at(-1)!.text
    expect(text).toContain('Your seat in the rest of SOIL 220 stays')
    expect(text).toMatch(/The nearest that fits your week and had a seat then: SOIL 220-01 \+ SOIL 220-01B/)
    expect(await disagreements(world.db)).toEqual([])
    await register(who, LAB, '01', '01B')
    expect(new Set(await sectionsHeld())).toEqual(new Set([main, other]))
    expect(await disagreements(world.db)).toEqual([])
  })
})

describe('a section that is cancelled', () => {
  it('gives every seat back with all that it cost, and says why on the receipt and by mail', async () => {
    const code = await codeOf(LANGUAGE, '01')
    await cancelSection(world.db, registrar, code, 'too few', world.catalogContext)
    for (const who of people.slice(0, 3)) {
      expect(await held(who)).not.toContain(LANGUAGE)
      const [receipt] = await readReceipts(world.db, idOf(who), AUTUMN)
      expect([receipt!.by, receipt!.lines[0]]).toMatchObject([
        'Edda Whitlock',
        { outcome: 'released', action: 'release', refusals: [{ code: 'cancelled', section: code }] }
      ])
      const mails = await mailsOf(who)
      expect(mails.at(-1)!.text).toMatch(
        /was cancelled\. Your seat in it is given back, with all that it cost\. The nearest/
      )
    }
    const [account] = (await readAccounts(world.db, [idOf(people[1]!)])).get(idOf(people[1]!)) ?? []
    expect([account!.charges, account!.releasedAt]).toEqual([[], null])
    expect(await disagreements(world.db)).toEqual([])
  })
  it('cannot be registered any more, and cancelling it once more changes nothing', async () => {
    const code = await codeOf(LANGUAGE, '01')
    const before = await world.db.$count(t.eventLog)
    await cancelSection(world.db, registrar, code, 'too few', world.catalogContext)
    expect(await world.db.$count(t.eventLog)).toBe(before)
    const course = await pickFor(world, people[3]!, LANGUAGE, '01').catch(() => undefined)
    if (course) {
      const asked = { term: AUTUMN, courses: [course] }
      const { lines } = await run(world.db, people[3]!, idOf(people[3]!), asked, world.catalogContext)
      expect(lines[0]).toMatchObject({ outcome: 'refused', refusals: [{ code: 'cancelled' }] })
    }
  })
  it('is emptied by the next server where the first was cut off, its line and its offers too', async () => {
    const [waiter, holder] = [people[3]!, people[2]!]
    const [section] = await sectionsNumbered(world, LANGUAGE, '02')
    await register(holder, LANGUAGE, '02')
    const { now } = await at(world)
    await world.db.insert(t.waitlistPlace).values({
      studentId: idOf(waiter),
      sectionId: section!.id,
      joinedAt: new Date(now),
      sections: [section!.code]
    })
    await world.db.update(t.section).set({ cancelled: true, waiting: 1 }).where(eq(t.section.id, section!.id))
    await emptyCancelled(world.db, world.catalogContext)
    expect(await held(holder)).not.toContain(LANGUAGE)
    const places = await world.db
      .select()
      .from(t.waitlistPlace)
      .where(and(eq(t.waitlistPlace.studentId, idOf(waiter)), eq(t.waitlistPlace.sectionId, section!.id)))
    expect(places).toEqual([])
    expect((await mailsOf(waiter)).at(-1)!.text).toContain('you stand in its line no more')
    expect(await disagreements(world.db)).toEqual([])
    const entries = await world.db.$count(t.eventLog)
    await emptyCancelled(world.db, world.catalogContext)
    expect(await world.db.$count(t.eventLog)).toBe(entries)
  })
  it('is not one of a term that is over: neither cancelled nor moved', async () => {
    const [past] = await world.db
      .select({ code: t.section.code })
      .from(t.section)
      .innerJoin(t.term, eq(t.term.id, t.section.termId))
      .where(eq(t.term.code, 'AU26'))
      .limit(1)
    const over = { code: 'termOver', status: 422 }
    await expect(
      cancelSection(world.db, registrar, past!.code, 'late', world.catalogContext)
    ).rejects.toMatchObject(over)
    const hours = { days: [1 as const], start: 600, end: 650 }
    await expect(
      moveSection(world.db, registrar, past!.code, hours, world.catalogContext)
    ).rejects.toMatchObject(over)
  })
  it('is one that is there', async () => {
    await expect(
      cancelSection(world.db, registrar, 'AAAAA', 'no room', world.catalogContext)
    ).rejects.toMatchObject({
      status: 404
    })
  })
})
