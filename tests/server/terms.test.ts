/** Terms made a year on, changed, filled with the offer of an earlier one, opened and published. */
import { eq, isNull } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { weekdayOf, dayNumber } from '#core/time'
import { termCode } from '#core/ids'
import { clashOf } from '#core/week'
import { all } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { everybodyOf, readOpeningFigures } from '#server/features/offices/openingFigures'
import { copyOpenings, dropOpening, makeOpening } from '#server/features/offices/openings'
import { readCatalogContext } from '#server/features/catalog/context'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { opensFor } from '#server/features/registration/openings'
import { offerOf } from '#server/features/sections/sections'
import { copyOffer, lookAtCopy } from '#server/features/terms/copyOffer'
import { makeTerm } from '#server/features/terms/newTerm'
import { changeTerm, dropTerm, makeTerms, type At } from '#server/features/terms/plan'
import { readTermPlan, readTerms } from '#server/features/terms/readTerms'
import { changePrices } from '#server/features/terms/prices'
import { publicationEffect, publishTerm } from '#server/features/terms/publish'
import type { Who } from '#shared/accounts/responses'
import type { StudentRecord } from '#shared/record/responses'
import { pricesBody } from '#shared/offices/prices'
import { newOpeningBody } from '#shared/offices/requests'
import { lastYear, newTermBody, termBody, type TermPlan } from '#shared/offices/terms'
import { at, AUTUMN, demoWorld, person, within, type World } from './world'

const SPRING = termCode('SP28')
const LAST_SPRING = termCode('SP27')

let world: World
let edda: Who & { id: number }
let when: At
beforeAll(async () => {
  world = await demoWorld('terms')
  edda = await person(world.db, 'Edda Whitlock')
  when = { now: (await at(world)).now, zone: world.catalogContext.zone }
})
afterAll(() => world.close())

const planOf = (code: string) => readTermPlan(world.db, termCode(code), when.zone)
const change = async (code: string, changed: Partial<TermPlan>) => {
  const said = termBody.parse({ ...(await planOf(code)), ...changed })
  return within(world, (tx) => changeTerm(tx, edda, termCode(code), said, when))
}
const mailedTo = async (action: string) =>
  world.db
    .select({ name: t.account.name, text: t.eventLog.after })
    .from(t.mail)
    .innerJoin(t.eventLog, eq(t.eventLog.id, t.mail.eventId))
    .innerJoin(t.account, eq(t.account.id, t.mail.accountId))
    .where(eq(t.eventLog.action, action))

describe('a term by itself', () => {
  const winter = {
    code: 'WI28',
    name: 'Winter 2028',
    season: 'winter',
    start: '2028-01-03',
    end: '2028-01-14'
  }
  const make = (said: object) =>
    within(world, (tx) => makeTerm(tx, edda, newTermBody.parse({ ...winter, ...said }), when))
  it('has dates that hold together, however short or long it is, and is planned into at once', async () => {
    for (const [code, end] of [
      ['WI28', '2028-01-09'],
      ['WI29', '2028-01-14']
    ] as const) {
      await make({ code, end })
      const plan = await planOf(code)
      expect(termBody.safeParse(plan).error?.issues).toBeUndefined()
      expect(plan).toMatchObject({ name: 'Winter 2028', published: false, held: 0, end })
      expect(plan.sessions).toMatchObject([{ code: 'FULL', start: '2028-01-03', end }])
      expect((await readCatalogContext(world.db)).terms.map((one) => one.code)).toContain(code)
      await within(world, (tx) => dropTerm(tx, edda, termCode(code), when.now))
    }
  })
  it('has a code and days of its own, and a week at least', async () => {
    await expect(make({ code: 'AU27' })).rejects.toMatchObject({
      code: 'termKnown',
      fields: [{ field: 'code' }]
    })
    await expect(make({ start: '2027-12-10' })).rejects.toMatchObject({ fields: [{ field: 'start' }] })
    for (const wrong of [
      { end: '2028-01-08' },
      { end: '2027-01-14' },
      { code: 'winter' },
      { season: 'monsoon' },
      { start: '' },
      { end: 'soon' }
    ])
      expect(newTermBody.safeParse({ ...winter, ...wrong }).success).toBe(false)
  })
})

describe('dates of a term', () => {
  it.each(['', 'soon', '2027-02-31', '2027-13-01', '1999-12-31', 5, null])(
    'are days: %j is none',
    async (bad) => {
      const plan = await planOf('AU28')
      const { sessions } = plan
      for (const changed of [
        { start: bad },
        { end: bad },
        { paymentDue: bad },
        { addEnds: typeof bad === 'string' ? `${bad}T00:00` : bad },
        { holidays: [{ date: bad, name: 'Harbour day' }] },
        { sessions: [{ ...sessions[0]!, start: bad }] }
      ]) {
        const [field] = Object.keys(changed)
        const read = termBody.safeParse({ ...plan, ...changed })
        expect(
          read.error?.issues.map((one) => one.path[0]),
          field
        ).toContain(field)
      }
    }
  )
})

describe('terms of the next year', () => {
  it('are those of the last one, and made once', async () => {
    const before = await readTerms(world.db)
    const like = lastYear(before).map((one) => one.code)
    expect(like).toEqual(['SU30', 'AU30', 'SP31'])
    const made = await within(world, (tx) => makeTerms(tx, edda, like, when))
    expect(made).toEqual(['SU31', 'AU31', 'SP32'])
    const plans = await Promise.all(made.map(planOf))
    for (const [i, plan] of plans.entries()) {
      const was = await planOf(like[i]!)
      expect(termBody.safeParse(plan).success).toBe(true)
      expect(plan).toMatchObject({ published: false, held: 0, version: 1, loadMost: was.loadMost })
      expect(weekdayOf(dayNumber(plan.start))).toBe(weekdayOf(dayNumber(was.start)))
      expect(plan.sessions.map((one) => one.code)).toEqual(was.sessions.map((one) => one.code))
      expect(plan.holidays.length).toBe(was.holidays.length)
      // The hour on campus stays, whatever the clocks do.
      expect(plan.addEnds.slice(10)).toBe(was.addEnds.slice(10))
    }
    expect(plans[1]!.name).toBe('Autumn 2031')
    // Students plan into them from now on.
    expect((await readCatalogContext(world.db)).terms.map((one) => one.code)).toEqual(
      expect.arrayContaining(made)
    )
    await expect(within(world, (tx) => makeTerms(tx, edda, like, when))).rejects.toMatchObject({
      code: 'termKnown'
    })
  })
  it('are taken away again while nothing rests on them', async () => {
    await within(world, (tx) => dropTerm(tx, edda, termCode('SP32'), when.now))
    expect((await readTerms(world.db)).some((one) => one.code === 'SP32')).toBe(false)
    for (const used of [AUTUMN, SPRING])
      await expect(within(world, (tx) => dropTerm(tx, edda, used, when.now))).rejects.toMatchObject({
        status: 409
      })
  })
})

describe('a term', () => {
  it('is changed as it was seen', async () => {
    const before = await planOf('SU31')
    await change('SU31', { name: 'Summer of 2031', loadMost: 12 })
    expect(await planOf('SU31')).toEqual({ ...before, name: 'Summer of 2031', loadMost: 12, version: 2 })
    const late = termBody.parse(before)
    await expect(
      within(world, (tx) => changeTerm(tx, edda, termCode('SU31'), late, when))
    ).rejects.toMatchObject({ code: 'termMovedOn' })
  })
  it('shares no day with another', async () => {
    const other = await planOf('AU31')
    await expect(change('SU31', { end: other.start })).rejects.toMatchObject({
      code: 'overlap',
      fields: [{ field: 'end' }]
    })
  })
  it('keeps its days while seats are held, and tells all who hold one of other dates', async () => {
    const plan = await planOf('AU27')
    expect(plan.held).toBeGreaterThan(20)
    const end = '2027-12-16'
    const earlier = plan.sessions.map((one) => (one.end > end ? { ...one, end } : one))
    await expect(change('AU27', { end, sessions: earlier })).rejects.toMatchObject({
      code: 'seatsHeld',
      fields: [{ field: 'end' }]
    })
    const first = plan.sessions[1]!
    const moved = plan.sessions.map((one) => (one === first ? { ...one, end: '2027-10-20' } : one))
    await expect(change('AU27', { sessions: moved })).rejects.toMatchObject({
      code: 'seatsHeld',
      fields: [{ field: 'sessions.1.start' }]
    })
    const holidays = [...plan.holidays, { date: '2027-10-11', name: 'Harbour day' }]
    const addEnds = '2027-09-13T00:00'
    const { told } = await change('AU27', { addEnds, holidays })
    expect(told).toBe(plan.held)
    const mails = await mailedTo('term.datesChanged')
    expect(mails.length).toBe(told)
    expect(mails[0]!.text).toMatchObject({
      changes: [
        'Courses are added until the end of Sun 12 Sep 2027 (before: the end of Fri 10 Sep 2027).',
        'No classes on Mon 11 Oct 2027: Harbour day.'
      ]
    })
    // What nobody acts on is told to nobody.
    expect(await change('AU27', { offerHours: 24 })).toEqual({ told: 0 })
  })
  it('keeps a session that has sections', async () => {
    const { sessions } = await planOf('AU27')
    await expect(
      change('AU27', { sessions: sessions.filter((one) => one.code !== 'H2') })
    ).rejects.toMatchObject({ code: 'sessionUsed' })
  })
})

describe('the offer of an earlier term', () => {
  it('is looked at, then copied once', async () => {
    const seen = await lookAtCopy(world.db, SPRING, LAST_SPRING)
    expect(seen.sections).toBeGreaterThan(50)
    const done = await within(world, (tx) => copyOffer(tx, edda, { term: SPRING, from: LAST_SPRING }, when))
    expect(done).toEqual(seen)
    const again = await lookAtCopy(world.db, SPRING, LAST_SPRING)
    expect(again.sections).toBe(0)
    expect(again.left.filter((one) => one.why === 'offered').length).toBe(done.courses)
  })
  it('has weekdays, hours, rooms and teachers as they were, within its own days, and nobody in it', async () => {
    const rows = await world.db
      .select()
      .from(t.section)
      .innerJoin(t.term, eq(t.term.id, t.section.termId))
      .where(eq(t.term.code, SPRING))
    expect(rows.every(({ section }) => section.taken + section.waiting + section.offered === 0)).toBe(true)
    const plan = await planOf('SP28')
    const meetings = await world.db
      .select({ meeting: t.meeting, section: t.section, session: t.session })
      .from(t.meeting)
      .innerJoin(t.section, eq(t.section.id, t.meeting.sectionId))
      .innerJoin(t.session, eq(t.session.id, t.section.sessionId))
      .innerJoin(t.term, eq(t.term.id, t.section.termId))
      .where(eq(t.term.code, SPRING))
    expect(meetings.length).toBeGreaterThan(rows.length / 2)
    for (const { meeting, session } of meetings) {
      expect(meeting.fromOn >= session.startsOn && meeting.toOn <= session.endsOn).toBe(true)
      expect(session.startsOn >= plan.start && session.endsOn <= plan.end).toBe(true)
    }
    const [was] = await world.db
      .select({ section: t.section, course: t.course.code })
      .from(t.section)
      .innerJoin(t.course, eq(t.course.id, t.section.courseId))
      .innerJoin(t.term, eq(t.term.id, t.section.termId))
      .where(all(eq(t.term.code, LAST_SPRING), eq(t.section.cancelled, false), isNull(t.section.parentId)))
    const copied = rows.find(
      ({ section }) => section.courseId === was!.section.courseId && section.number === was!.section.number
    )!.section
    expect(copied).toMatchObject({
      kind: was!.section.kind,
      capacity: was!.section.capacity,
      credits: was!.section.credits
    })
    expect(copied.code).not.toBe(was!.section.code)
  })
  it('stands in nobody’s way: no room is in use twice that was not before', async () => {
    const twice = async (code: string) => {
      const offer = await publishedOffer(code)
      const placed = offer.flatMap((one) => one.meetings.map((meeting) => ({ of: one.code, meeting })))
      const inRooms = placed.filter(({ meeting }) => meeting.room !== null)
      return inRooms.filter(({ of, meeting }, i) =>
        inRooms
          .slice(i + 1)
          .some(
            (other) =>
              other.of !== of &&
              other.meeting.room === meeting.room &&
              other.meeting.building === meeting.building &&
              clashOf(meeting, other.meeting, new Set())
          )
      ).length
    }
    expect(await twice(SPRING)).toBeLessThanOrEqual(await twice(LAST_SPRING))
  })
  const publishedOffer = async (code: string) => {
    // Only published terms are read as offers.
    const [row] = await world.db.select().from(t.term).where(eq(t.term.code, code))
    await world.db.update(t.term).set({ published: true }).where(eq(t.term.code, code))
    const offer = await offerOf(world.db, termCode(code))
    await world.db.update(t.term).set({ published: row!.published }).where(eq(t.term.code, code))
    return offer
  }
  it('has other numbers than sections that were cancelled, of which the parts follow', async () => {
    const spring = await world.db.select({ id: t.term.id }).from(t.term).where(eq(t.term.code, SPRING))
    const inSpring = eq(t.section.termId, spring[0]!.id)
    const soil = await world.db
      .select({ id: t.course.id })
      .from(t.course)
      .where(eq(t.course.code, 'SOIL 110'))
    const ofCourse = all(inSpring, eq(t.section.courseId, soil[0]!.id))
    const before = await world.db.select().from(t.section).where(ofCourse)
    expect(before.length).toBeGreaterThan(1)
    await world.db.update(t.section).set({ cancelled: true }).where(ofCourse)
    const done = await within(world, (tx) => copyOffer(tx, edda, { term: SPRING, from: LAST_SPRING }, when))
    expect(done.courses).toBe(1)
    const anew = await world.db
      .select()
      .from(t.section)
      .where(all(ofCourse, eq(t.section.cancelled, false)))
    expect(anew.length).toBe(before.length)
    const old = new Set(before.map((one) => one.number))
    expect(anew.filter((one) => old.has(one.number))).toEqual([])
    for (const part of anew.filter((one) => one.parentId !== null))
      expect(part.number).toMatch(
        new RegExp(`^${anew.find((one) => one.id === part.parentId)!.number}[A-Z]$`)
      )
  })
  it('asks for sessions that are there, and for something to copy', async () => {
    await expect(lookAtCopy(world.db, SPRING, termCode('SP30'))).rejects.toMatchObject({ code: 'noOffer' })
    const { sessions } = await planOf('AU28')
    await change('AU28', { sessions: sessions.filter((one) => one.code !== 'H1') })
    await expect(
      within(world, (tx) => copyOffer(tx, edda, { term: termCode('AU28'), from: AUTUMN }, when))
    ).rejects.toMatchObject({ code: 'noSession' })
  })
})

describe('openings', () => {
  it('are copied as many weeks before the first day', async () => {
    const from = AUTUMN
    const next = termCode('AU28')
    const done = await within(world, (tx) => copyOpenings(tx, edda, { term: next, from }, when))
    expect(done).toEqual({ made: 5, passed: 0 })
    const rows = await world.db
      .select({ title: t.opening.title, at: t.opening.opensAt })
      .from(t.opening)
      .innerJoin(t.term, eq(t.term.id, t.opening.termId))
      .where(eq(t.term.code, next))
    // 7 am in Autumn 2027's spring, and again; the first day is 52 weeks on.
    expect(rows.map((one) => one.at.toISOString())).toContain('2028-04-10T11:00:00.000Z')
    await expect(
      within(world, (tx) => copyOpenings(tx, edda, { term: next, from }, when))
    ).rejects.toMatchObject({ code: 'openings' })
  })
  it('are made for a group and for a student, told where the term is published, and taken away', async () => {
    const before = await readOpeningFigures(world.db, world.catalogContext, when.now)
    const early = Date.parse('2027-04-10T11:00:00Z')
    const said = (part: object) =>
      newOpeningBody.parse({ term: AUTUMN, title: 'first-year block', opens: early, ...part })
    const one = await within(world, (tx) =>
      makeOpening(tx, edda, said({ title: 'Imke Varga', student: 'H204007' }), when)
    )
    expect(one.told).toBe(1)
    expect((await mailedTo('opening.moved')).map((mail) => mail.name)).toEqual(['Imke Varga'])
    const figures = await readOpeningFigures(world.db, world.catalogContext, when.now)
    expect(figures.find((row) => row.id === one.opening)).toMatchObject({ students: 1, opens: early })
    expect(await within(world, (tx) => dropOpening(tx, edda, one.opening, when))).toEqual({ told: 1 })
    expect(await readOpeningFigures(world.db, world.catalogContext, when.now)).toEqual(before)
    for (const wrong of [
      { programs: ['NONE'] },
      { blocks: ['NONE'] },
      { student: 'H999999' },
      { opens: when.now }
    ])
      await expect(within(world, (tx) => makeOpening(tx, edda, said(wrong), when))).rejects.toMatchObject({
        status: 422
      })
  })

  it('open for a block, or for whoever has earned so many credits, and each record says the same', async () => {
    const { now } = when
    const early = now + 3_600_000
    const everybody = await everybodyOf(world.db)
    const records = await readStudentRecords(world.db, everybody, 'registrar')
    const failed = ['F', 'W', 'I', 'NP', 'AU']
    const earned = ({ record }: StudentRecord) =>
      record.reduce(
        (sum, { grade, credits }) => sum + (grade === null || failed.includes(grade) ? 0 : credits),
        0
      )
    const opensLater = ({ openings }: StudentRecord) =>
      (openings.find((one) => one.term === AUTUMN)?.opens ?? Infinity) > early
    for (const [part, isFor] of [
      [{ blocks: ['heron'] }, ({ student }: StudentRecord) => student.block === 'Heron'],
      [{ creditsLeast: 40 }, (one: StudentRecord) => earned(one) >= 40]
    ] satisfies [object, (one: StudentRecord) => boolean][]) {
      const said = newOpeningBody.parse({ term: AUTUMN, title: 'some', opens: early, ...part })
      const { opening, told } = await within(world, (tx) => makeOpening(tx, edda, said, when))
      // Who may register before that already is told nothing.
      const meant = records.filter((one) => isFor(one) && opensLater(one))
      expect(meant.length).toBeGreaterThan(3)
      expect(meant.length).toBeLessThan(records.length / 2)
      expect(told).toBe(meant.length)
      const opens = await opensFor(world.db, AUTUMN, everybody)
      const now = await readStudentRecords(world.db, everybody, 'self')
      for (const { student, openings } of now) {
        const own = openings.find((one) => one.term === AUTUMN)?.opens
        expect(own, student.name).toBe(opens.get(student.id))
        expect(own === early, student.name).toBe(meant.some((one) => one.student.id === student.id))
      }
      await within(world, (tx) => dropOpening(tx, edda, opening, when))
    }
  })
})

describe('what a term costs', () => {
  const prices = {
    tuition: [
      {
        ...{ level: 'undergraduate', residency: 'resident' },
        bands: [
          { from: 0, flat: 0, perCredit: 40_000 },
          { from: 12, flat: 450_000, perCredit: 0 }
        ]
      }
    ],
    fees: [{ title: 'Student services', amount: 27_000 }],
    releasesUnpaid: false
  }
  const change = (code: typeof SPRING, said: object) =>
    within(world, (tx) => changePrices(tx, edda, code, pricesBody.parse(said), when))

  it('is set while nobody holds a seat, beside what is given back by when', async () => {
    const before = await planOf(SPRING)
    expect(before.refunds.length).toBeGreaterThan(0)
    expect(await change(SPRING, { version: before.version, prices })).toEqual({ version: before.version + 1 })
    const after = await planOf(SPRING)
    expect(after).toMatchObject({ prices, refunds: before.refunds, version: before.version + 1 })
    await expect(change(SPRING, { version: before.version, prices })).rejects.toMatchObject({
      code: 'termMovedOn'
    })
    await change(SPRING, { version: after.version, prices: before.prices })
    expect((await planOf(SPRING)).prices).toEqual(before.prices)
  })
  it('stays where seats are held', async () => {
    const { version } = await planOf(AUTUMN)
    await expect(change(AUTUMN, { version, prices })).rejects.toMatchObject({ code: 'seatsHeld' })
  })
  it.each([
    [
      { tuition: [{ ...prices.tuition[0], bands: [{ from: 3, flat: 0, perCredit: 1 }] }] },
      'prices.tuition.0.bands.0.from'
    ],
    [{ tuition: [{ ...prices.tuition[0], bands: [] }] }, 'prices.tuition.0.bands'],
    [
      {
        tuition: [
          { ...prices.tuition[0], bands: [...prices.tuition[0]!.bands, { from: 12, flat: 0, perCredit: 0 }] }
        ]
      },
      'prices.tuition.0.bands.2.from'
    ],
    [{ tuition: [prices.tuition[0], prices.tuition[0]] }, 'prices.tuition'],
    [{ fees: [prices.fees[0], prices.fees[0]] }, 'prices.fees'],
    [{ fees: [{ title: 'Half a cent', amount: 0.5 }] }, 'prices.fees.0.amount']
  ])('is refused by its field where it makes no sense (%#)', (over, field) => {
    const read = pricesBody.safeParse({ version: 1, prices: { ...prices, ...over } })
    expect(read.error?.issues.map((one) => one.path.join('.'))).toContain(field)
  })
})

describe('publication', () => {
  it('says before whom it concerns, and tells them', async () => {
    const effect = await publicationEffect(world.db, SPRING)
    const rows = await readTerms(world.db)
    const row = rows.find((one) => one.code === SPRING)!
    expect(effect).toMatchObject({ sections: row.sections, courses: row.courses, planned: row.planned })
    expect(effect.openings).toEqual([])
    expect(effect.unopened).toBe(effect.planned)
    expect(await within(world, (tx) => publishTerm(tx, edda, SPRING, when))).toEqual({ told: effect.planned })
    const mails = await mailedTo('term.onOffer')
    expect(mails.length).toBe(effect.planned)
    const catalogContext = await readCatalogContext(world.db)
    expect(catalogContext.terms.find((one) => one.code === SPRING)!.published).toBe(true)
    const without = new Set(mails.flatMap((mail) => (mail.text as { without: string[] }).without))
    expect([...without].sort()).toEqual(effect.without.map((one) => one.course).sort())
    await expect(within(world, (tx) => publishTerm(tx, edda, SPRING, when))).rejects.toMatchObject({
      code: 'published'
    })
  })
  it('leaves classes that follow their session, as long as nobody holds a seat', async () => {
    const plan = await planOf('SP28')
    const end = '2028-05-05'
    const sessions = plan.sessions.map((one) => (one.end === plan.end ? { ...one, end } : one))
    expect(end < plan.end).toBe(true)
    await change('SP28', { end, sessions, dropEnds: '2028-04-10T00:00', graduateBy: null })
    const last = await world.db
      .selectDistinct({ to: t.meeting.toOn })
      .from(t.meeting)
      .innerJoin(t.section, eq(t.section.id, t.meeting.sectionId))
      .innerJoin(t.session, eq(t.session.id, t.section.sessionId))
      .innerJoin(t.term, eq(t.term.id, t.section.termId))
      .where(all(eq(t.term.code, 'SP28'), eq(t.session.code, 'FULL')))
    expect(last.map((one) => one.to)).toContain(end)
    expect(last.every((one) => one.to <= end)).toBe(true)
    // What would leave classes outside is not done.
    const short = sessions.map((one) => (one.code === 'H2' ? { ...one, start: end } : one))
    const moved = short.map((one) =>
      one.code === 'H2' ? { ...one, end: '2028-05-04', start: '2028-05-04' } : one
    )
    expect((await planOf('SP28')).sessions).toEqual(sessions)
    await world.db
      .update(t.meeting)
      .set({ fromOn: '2028-04-03' })
      .where(eq(t.meeting.sectionId, await sectionIn('SP28', 'H2')))
    await expect(change('SP28', { sessions: moved })).rejects.toMatchObject({ code: 'classesOutside' })
  })
  const sectionIn = async (term: string, session: string) => {
    const [row] = await world.db
      .select({ id: t.section.id })
      .from(t.section)
      .innerJoin(t.session, eq(t.session.id, t.section.sessionId))
      .innerJoin(t.term, eq(t.term.id, t.section.termId))
      .where(all(eq(t.term.code, term), eq(t.session.code, session)))
    return row!.id
  }
  it('needs sections', async () => {
    await expect(within(world, (tx) => publishTerm(tx, edda, termCode('SP30'), when))).rejects.toMatchObject({
      code: 'noOffer'
    })
  })
})
