/** Sections that are like no other, and what holds of a section: by those who plan it, as it can be, and for registration at once. */
import { and, count, eq, isNotNull, isNull } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { courseCode, termCode } from '#core/ids'
import type { Who } from '#shared/accounts/responses'
import { mailOf } from '#shared/mail/mails'
import { newSectionBody, rulesBody } from '#shared/sections/requests'
import { makeSection } from '#server/features/sections/newSection'
import { readOffered } from '#server/features/sections/offering'
import * as t from '#server/db/schema/index'
import { changeRules, rulesOf } from '#server/features/sections/rules'
import { plannedOffer } from '#server/features/sections/sections'
import { at, AUTUMN, demoWorld, person, within, type World } from './world'

let world: World
let edda: Who & { id: number }
let tamsin: Who & { id: number }
beforeAll(async () => {
  world = await demoWorld('sectionrules')
  edda = await person(world.db, 'Edda Whitlock')
  tamsin = await person(world.db, 'Tamsin Orford')
})
afterAll(() => world.close())

const SOIL = courseCode('SOIL 220')
const ENDA = courseCode('ENDA 310')
const LECTURE = { kind: 'lecture', days: [2, 4], start: 420, end: 470, seats: 20 }
const plain = { line: 5, fee: 0 }
const said = (over: object = {}) =>
  newSectionBody.parse({
    ...{ session: 'FULL', campus: 'HILL', mode: 'inPerson', parts: [LECTURE], rules: plain },
    ...over
  })
const make = async (who: Who, over: object = {}, course = SOIL, term = AUTUMN) => {
  const { now } = await at(world)
  return within(world, (tx) =>
    makeSection(tx, who, { term, course }, said(over), { catalogContext: world.catalogContext, now })
  )
}
const rule = async (who: Who, code: string, over: object) => {
  const { now } = await at(world)
  const body = rulesBody.parse({ ...plain, ...over })
  return within(world, (tx) =>
    changeRules(tx, who, code, body, { catalogContext: world.catalogContext, now })
  )
}
const sectionsOf = (course = SOIL) => plannedOffer(world.db, AUTUMN, course)
const offered = (course = SOIL) => readOffered(world.db, edda, { term: AUTUMN, course })

describe('a section of another make', () => {
  it('has its own parts, credits of its course, and what was said of it', async () => {
    const code = await make(edda, {
      parts: [
        LECTURE,
        { kind: 'lab', days: [5], start: 420, end: 520, seats: 10 },
        { kind: 'lab', days: [5], start: 420, end: 520, seats: 10 }
      ],
      rules: {
        ...plain,
        topic: ' Peat ',
        permissionNeeded: true,
        onlyFor: { programs: ['ENVD'], standings: ['senior'] },
        reserved: [{ program: 'ENVD', seats: 8 }]
      }
    })
    const all = await sectionsOf()
    const main = all.find((one) => one.code === code)!
    const parts = all.filter((one) => one.parent === code)
    expect(main).toMatchObject({
      ...{
        kind: 'lecture',
        credits: world.catalogContext.catalog.course(SOIL).credits,
        capacity: 20,
        taken: 0
      },
      ...{ topic: 'Peat', permissionNeeded: true, waitCapacity: 5, session: 'FULL', campus: 'HILL' },
      ...{ onlyFor: { programs: ['ENVD'], standings: ['senior'] }, reserved: [{ program: 'ENVD', left: 8 }] }
    })
    expect(main.meetings).toMatchObject([{ days: [2, 4], start: 420, end: 470 }])
    expect(parts.map(({ number, kind, capacity, credits }) => ({ number, kind, capacity, credits }))).toEqual(
      [
        { number: `${main.number}A`, kind: 'lab', capacity: 10, credits: 0 },
        { number: `${main.number}B`, kind: 'lab', capacity: 10, credits: 0 }
      ]
    )
  })
  it('meets nowhere where it is online at any time', async () => {
    const code = await make(edda, { mode: 'online', campus: 'ONLINE', parts: [{ ...LECTURE, days: [] }] })
    expect((await sectionsOf()).find((one) => one.code === code)!.meetings).toEqual([])
    expect(newSectionBody.safeParse({ ...said(), mode: 'online' }).error?.issues[0]?.path).toEqual([
      'parts',
      0,
      'days'
    ])
    expect(
      newSectionBody.safeParse({ ...said(), parts: [{ ...LECTURE, days: [] }] }).error?.issues[0]?.message
    ).toBe('has to name a day')
  })
  it('is refused where its parts clash, its room is taken, or there is no such thing', async () => {
    const { rooms, sections } = await offered(ENDA)
    const there = sections.find((one) => one.parent === null && one.meetings[0]?.room)!
    const [{ days, start, end, room }] = there.meetings as [(typeof there.meetings)[number]]
    const id = rooms.find((one) => one.name === room)!.id
    const tutorial = { kind: 'tutorial', days: [2], start: 440, end: 500, seats: 10 }
    await expect(make(edda, { parts: [LECTURE, tutorial] })).rejects.toThrow('would clash with one another')
    await expect(
      make(edda, { parts: [{ ...LECTURE, days: [...days], start, end, seats: 1, room: id }] })
    ).rejects.toThrow('The room is taken by ENDA 310')
    await expect(make(edda, { session: 'H9' })).rejects.toThrow('no session H9')
    await expect(make(edda, { campus: 'MOON' })).rejects.toThrow('no campus MOON')
    await expect(make(edda, { rules: { ...plain, block: 'wren' } })).rejects.toThrow('no block wren')
    await expect(
      make(edda, { rules: { ...plain, reserved: [{ program: 'ENVD', seats: 21 }] } })
    ).rejects.toThrow('21 seats would be kept of 20')
  })
  it('is made by the department of the course, and by no other', async () => {
    await make(tamsin, { parts: [{ ...LECTURE, start: 360, end: 410 }] }, ENDA)
    await expect(make(tamsin, {}, courseCode('HERI 210'))).rejects.toThrow('another department')
  })
  it('is made in a term that is not published too, and seen by those who plan it', async () => {
    const { now } = await at(world)
    const term = termCode('AU29')
    const code = await within(world, (tx) =>
      makeSection(tx, edda, { term, course: SOIL }, said(), { catalogContext: world.catalogContext, now })
    )
    const { sections } = await readOffered(world.db, edda, { term, course: SOIL })
    expect(sections.map((one) => one.code)).toEqual([code])
  })
})

describe('what holds of a section', () => {
  it('is read as it was said, and changed', async () => {
    const code = await make(edda, { parts: [{ ...LECTURE, start: 300, end: 350 }] })
    const wanted = {
      line: 9,
      fee: 12.5,
      officeOnly: true,
      block: 'heron',
      reserved: [{ block: 'heron', seats: 4 }]
    }
    await rule(edda, code, wanted)
    expect((await offered()).rules[code]).toEqual(rulesBody.parse(wanted))
    expect((await sectionsOf()).find((one) => one.code === code)).toMatchObject({
      block: 'Heron',
      officeOnly: true,
      waitCapacity: 9
    })
  })
  it('keeps its fee while seats are held, and its line while they stand in it', async () => {
    const held = (await sectionsOf(ENDA)).find((one) => one.parent === null && one.taken > 0)!
    const { fee, ...rest } = (await offered(ENDA)).rules[held.code]!
    await expect(rule(tamsin, held.code, { ...rest, fee: fee + 5 })).rejects.toThrow(
      'Seats are held at the fee'
    )
    await rule(tamsin, held.code, { ...rest, fee, topic: 'Maps' })
    expect((await offered(ENDA)).rules[held.code]!.topic).toBe('Maps')
    const [waiting] = (await plannedAll()).filter((one) => one.waiting > 0)
    await expect(rule(edda, waiting!.code, { line: waiting!.waiting - 1 })).rejects.toThrow('stand in line')
  })
  it('names an instructor who is free then, and a component asks nothing of its own', async () => {
    const { instructors, sections, rules } = await offered(ENDA)
    const [one, other] = sections.filter(
      (section) => section.parent === null && section.meetings.length && section.instructors.length
    )
    const teaching = rules[one!.code]!.instructors
    const code = await make(edda, {
      parts: [
        {
          ...LECTURE,
          days: [...one!.meetings[0]!.days],
          start: one!.meetings[0]!.start,
          end: one!.meetings[0]!.end
        }
      ]
    })
    await expect(rule(edda, code, { instructors: teaching })).rejects.toThrow('teaches ENDA 310')
    expect(instructors.some(({ id }) => id === teaching[0])).toBe(true)
    expect(other!.code).not.toBe(one!.code)
    const lab = (await sectionsOf()).find((section) => section.parent !== null)!
    await expect(rule(edda, lab.code, { officeOnly: true })).rejects.toThrow('said of its section')
  })
})

const plannedAll = async () =>
  (
    await Promise.all(
      ['ENDA 325', 'SOIL 220', 'STAT 330', 'MATH 231', 'WRIT 215', 'ENDA 205'].map((code) =>
        sectionsOf(courseCode(code))
      )
    )
  ).flat()

describe('another room or another teacher', () => {
  it('is told to whoever holds a seat, and nothing where neither is another', async () => {
    const [held] = await world.db
      .select({ id: t.section.id, code: t.section.code, students: count() })
      .from(t.registration)
      .innerJoin(t.section, eq(t.section.id, t.registration.sectionId))
      .innerJoin(t.term, eq(t.term.id, t.section.termId))
      .innerJoin(t.meeting, eq(t.meeting.sectionId, t.section.id))
      .where(and(eq(t.term.code, AUTUMN), isNull(t.section.parentId), isNotNull(t.meeting.roomId)))
      .groupBy(t.section.id)
      .limit(1)
    const { [held!.code]: rules } = await rulesOf(world.db, [held!.code])
    const told = async () => {
      const rows = await world.db
        .select({ after: t.eventLog.after })
        .from(t.mail)
        .innerJoin(t.eventLog, eq(t.eventLog.id, t.mail.eventId))
        .where(eq(t.eventLog.action, 'registration.elsewhere'))
      const { terms, zone } = world.catalogContext
      return rows.map(({ after }) =>
        mailOf(
          { action: 'registration.elsewhere', before: null, after: after as Record<string, unknown> },
          { terms, zone }
        )!
      )
    }
    await rule(edda, held!.code, { ...rules, line: rules!.line + 1 })
    expect(await told()).toEqual([])

    await rule(edda, held!.code, { ...rules, room: null })
    const mails = await told()
    const holders = await world.db.$count(t.registration, eq(t.registration.sectionId, held!.id))
    expect(mails).toHaveLength(holders)
    expect(mails[0]!.subject).toMatch(/: another room$/)
    expect(mails[0]!.text).toMatch(/It meets in a room that is not set yet; before it was \S+/)
    expect(mails[0]!.text).not.toContain('taught')

    await rule(edda, held!.code, { ...rules, room: null, instructors: [] })
    const after = (await told()).slice(mails.length)
    expect(after).toHaveLength(holders)
    expect(after[0]!.text).toContain('It is taught by somebody who is not named yet.')
  })
})
