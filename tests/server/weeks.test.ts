/** Draft weeks, hours kept free, wishes, and the links by which a week is shared or subscribed to. */
import { desc, eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { courseCode, type SectionCode } from '#core/ids'
import { changesSince } from '#core/week'
import type { Who } from '#shared/accounts/responses'
import { goingWith, readStudent } from '#shared/reading'
import * as t from '#server/db/schema/index'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { changeDraft, dropDraft, makeDraft, readShared } from '#server/features/week/drafts'
import {
  makeCalendarAddress,
  readCalendarKey,
  readHabits,
  readKeepFree,
  studentAtAddress,
  withdrawCalendarAddress,
  writeHabits,
  writeKeepFree
} from '#server/features/week/habits'
import { pick } from '#server/features/week/pick'
import { offerOf } from '#server/features/sections/sections'
import type { SectionSeats, SectionWithoutSeats } from '#shared/sections/responses'
import { termSeats, wholeOffer } from '#server/features/sections/wholeOffer'
import { at, AUTUMN, demoWorld, idOf, person, pickFor, sectionsNumbered, within, type World } from './world'

let world: World
let imke: Who
let bram: Who
beforeAll(async () => {
  world = await demoWorld('weeks')
  ;[imke, bram] = (await Promise.all(['Imke Varga', 'Bram Ostrander'].map((n) => person(world.db, n)))) as [
    Who,
    Who
  ]
})
afterAll(() => world.close())

const occasion = async (who = imke) => ({ who, student: idOf(who), ...(await at(world)) })
const drafts = async (who = imke) => {
  const [studentRecord] = await readStudentRecords(world.db, [idOf(who)], 'self')
  return studentRecord!.drafts.filter((one) => one.term === AUTUMN)
}
const codes = async (course: string, ...numbers: string[]) =>
  (await sectionsNumbered(world, course, ...numbers)).map((row) => row.code as SectionCode)
const make = async (name: string, over: Partial<Parameters<typeof makeDraft>[2]> = {}) => {
  const when = await occasion()
  const body = { term: AUTUMN, name, sections: [], copyOf: null, goingWith: false, ...over }
  return within(world, (tx) => makeDraft(tx, when, body))
}
const change = async (id: number, body: Parameters<typeof changeDraft>[3]) => {
  const when = await occasion()
  await within(world, (tx) => changeDraft(tx, when, id, body))
}
const drop = async (id: number) => {
  const when = await occasion()
  await within(world, (tx) => dropDraft(tx, when, id))
}

describe('draft weeks', () => {
  it('are several, of which one is gone with, and only one', async () => {
    const before = await drafts()
    expect(before.map((one) => [one.name, one.goingWith])).toEqual([
      ['Fridays off', true],
      ['Late starts', false]
    ])
    await change(before[1]!.id, { goingWith: true })
    expect((await drafts()).filter((one) => one.goingWith).map((one) => one.name)).toEqual(['Late starts'])
    await change(before[0]!.id, { goingWith: true })
    expect((await drafts()).filter((one) => one.goingWith).map((one) => one.name)).toEqual(['Fridays off'])
  })
  it('keep one gone with when two are made to be so at once', async () => {
    await Promise.all(['one', 'two', 'three'].map((name) => make(name, { goingWith: true })))
    const list = await drafts()
    expect(list.filter((one) => one.goingWith)).toHaveLength(1)
    await change(list.find((one) => one.name === 'Fridays off')!.id, { goingWith: true })
    for (const name of ['one', 'two', 'three']) await drop(list.find((one) => one.name === name)!.id)
  })
  it('are copied with their picks, and change apart from then on', async () => {
    const [first] = await drafts()
    const { week } = await make('Copy', { copyOf: first!.id })
    expect((await drafts()).find((one) => one.id === week)!.sections).toEqual(first!.sections)
    const when = await at(world)
    const sections = await codes('MATH 231', '02')
    await within(world, (tx) =>
      pick(
        tx,
        imke,
        idOf(imke),
        { term: AUTUMN, week, picks: [{ course: courseCode('MATH 231'), sections }] },
        when
      )
    )
    const after = await drafts()
    expect(after.find((one) => one.id === week)!.sections).toContain(sections[0])
    expect(after.find((one) => one.id === first!.id)!.sections).toEqual(first!.sections)
    await drop(week)
  })
  it('are made of what was found, and refused of what is not one choice of its course', async () => {
    const whole = [...(await codes('SOIL 220', '01', '01B')), ...(await codes('ENDA 310', '02'))]
    const { week } = await make('Found', { sections: whole })
    expect((await drafts()).find((one) => one.id === week)!.sections.toSorted()).toEqual(whole.toSorted())
    await expect(make('Half', { sections: whole.slice(0, 1) })).rejects.toMatchObject({
      status: 422,
      code: 'noOption'
    })
    const other = ['22222' as SectionCode]
    await expect(make('Strange', { sections: other })).rejects.toMatchObject({ code: 'noOption' })
    await drop(week)
  })
  it('have names of their own, whatever the case, and a bounded number', async () => {
    await expect(make('FRIDAYS OFF')).rejects.toMatchObject({ status: 422, code: 'nameTaken' })
    const [first, second] = await drafts()
    await expect(change(second!.id, { name: first!.name })).rejects.toMatchObject({ code: 'nameTaken' })
    const made = []
    for (let n = 0; n < 10; n++) made.push((await make(`number ${n}`)).week)
    await expect(make('one more')).rejects.toMatchObject({ code: 'tooMany' })
    for (const id of made) await drop(id)
  })
  it('are not taken away while gone with, nor found by somebody else', async () => {
    const [first] = await drafts()
    await expect(drop(first!.id)).rejects.toMatchObject({ code: 'goingWith' })
    const stranger = await occasion(bram)
    await expect(within(world, (tx) => dropDraft(tx, stranger, first!.id))).rejects.toMatchObject({
      status: 404
    })
    const when = await at(world)
    const body = { term: AUTUMN, week: first!.id, picks: [{ course: courseCode('MATH 231'), sections: [] }] }
    await expect(within(world, (tx) => pick(tx, bram, idOf(bram), body, when))).rejects.toMatchObject({
      status: 404
    })
  })
  it('are written down in the event log', async () => {
    const [last] = await world.db
      .select()
      .from(t.eventLog)
      .where(eq(t.eventLog.action, 'week.dropped'))
      .orderBy(desc(t.eventLog.id))
      .limit(1)
    expect(last).toMatchObject({ studentId: idOf(imke), before: { name: 'number 9' } })
  })
})

describe('picks', () => {
  it('of several courses go in together or not at all', async () => {
    const when = await at(world)
    const before = (await drafts())[0]!.sections
    const picks = [
      { course: courseCode('MATH 231'), sections: await codes('MATH 231', '02') },
      { course: courseCode('SOIL 220'), sections: await codes('SOIL 220', '01') }
    ]
    await expect(
      within(world, (tx) => pick(tx, imke, idOf(imke), { term: AUTUMN, picks }, when))
    ).rejects.toMatchObject({ code: 'noOption' })
    expect((await drafts())[0]!.sections).toEqual(before)
  })
  it('are never of sections that only an office registers', async () => {
    const [one] = await sectionsNumbered(world, 'ENDA 310', '02')
    await world.db.update(t.section).set({ officeOnly: true }).where(eq(t.section.id, one!.id))
    await expect(pickFor(world, imke, 'ENDA 310', '02')).rejects.toMatchObject({
      status: 422,
      code: 'officeOnly'
    })
    await world.db.update(t.section).set({ officeOnly: false }).where(eq(t.section.id, one!.id))
  })
  it('remember what the section was like: moved, filled and cancelled since are known', async () => {
    const state = async () => {
      const [studentRecord] = await readStudentRecords(world.db, [idOf(imke)], 'self')
      const week = goingWith(studentRecord!, AUTUMN)!
      const section = studentRecord!.sections.find(
        (one) => one.course === 'MATH 231' && week.sections.includes(one.code)
      )!
      return changesSince(section, week.asPicked[section.code]!)
    }
    await pickFor(world, imke, 'MATH 231', '01')
    const id = (await sectionsNumbered(world, 'MATH 231', '01'))[0]!.id
    expect(await state()).toEqual([])
    await world.db.update(t.meeting).set({ startsMin: 600 }).where(eq(t.meeting.sectionId, id))
    expect(await state()).toEqual(['moved'])
    const [row] = await world.db.select().from(t.section).where(eq(t.section.id, id))
    await world.db.update(t.section).set({ capacity: row!.taken }).where(eq(t.section.id, id))
    expect(await state()).toEqual(['moved', 'filled'])
    await world.db.update(t.section).set({ cancelled: true }).where(eq(t.section.id, id))
    expect(await state()).toEqual(['cancelled'])
  })
})

describe('what holds for every week', () => {
  it('are hours kept free, written as a whole', async () => {
    const when = await occasion()
    const hours = [
      { name: 'Choir', days: [2 as const, 4 as const], start: 1080, end: 1440, hard: true },
      { name: 'Sleep', days: [1 as const], start: 0, end: 540, hard: false }
    ]
    await within(world, (tx) => writeKeepFree(tx, when, hours))
    expect(await readKeepFree(world.db, idOf(imke))).toEqual(hours)
    await within(world, (tx) => writeKeepFree(tx, when, []))
    expect(await readKeepFree(world.db, idOf(imke))).toEqual([])
  })
  it('are not written over by somebody who has seen others', async () => {
    const when = await occasion()
    const choir = { name: 'Choir', days: [2 as const], start: 1080, end: 1440, hard: true }
    const sleep = { name: 'Sleep', days: [1 as const], start: 0, end: 540, hard: false }
    await within(world, (tx) => writeKeepFree(tx, when, [choir], []))
    const late = within(world, (tx) => writeKeepFree(tx, when, [sleep], []))
    await expect(late).rejects.toMatchObject({ status: 409, code: 'keepFreeMovedOn' })
    expect(await readKeepFree(world.db, idOf(imke))).toEqual([choir])
    await within(world, (tx) => writeKeepFree(tx, when, [choir, sleep], [choir]))
    expect(await readKeepFree(world.db, idOf(imke))).toEqual([choir, sleep])
    await within(world, (tx) => writeKeepFree(tx, when, []))
  })
  it('are wishes in order', async () => {
    const when = await occasion()
    expect(await readHabits(world.db, idOf(imke))).toEqual({ wishes: [], travelHolds: false })
    const habits = {
      wishes: [{ kind: 'dayOff', day: 5 } as const, { kind: 'fewestDays' } as const],
      travelHolds: true
    }
    await within(world, (tx) => writeHabits(tx, when, habits))
    await within(world, (tx) => writeHabits(tx, when, { ...habits, travelHolds: false }))
    expect(await readHabits(world.db, idOf(imke))).toEqual({ ...habits, travelHolds: false })
  })
})

describe('links', () => {
  it('show a shared week and nothing else of the record, until they are withdrawn', async () => {
    const [first] = await drafts()
    await change(first!.id, { shared: true })
    const key = (await drafts())[0]!.shareKey!
    expect(key).toMatch(/^[0-9a-f]{32}$/)
    const shared = await readShared(world.db, key)
    expect(Object.keys(shared).sort()).toEqual(['institution', 'name', 'sections', 'term', 'termName'])
    expect(shared.sections.map((one) => one.code).toSorted()).toEqual(first!.sections.toSorted())
    expect(JSON.stringify(shared)).not.toContain('Imke')
    await change(first!.id, { shared: false })
    await expect(readShared(world.db, key)).rejects.toMatchObject({ status: 404 })
  })
  it('are not told to others who read the record', async () => {
    const [first] = await drafts()
    await change(first!.id, { shared: true })
    const [seen] = await readStudentRecords(world.db, [idOf(imke)], 'programAdvisor')
    expect(seen!.drafts.every((one) => one.shareKey === null)).toBe(true)
  })
  it('lead a calendar program to the student, until withdrawn or made anew', async () => {
    const when = await occasion()
    const { key } = await within(world, (tx) => makeCalendarAddress(tx, when))
    expect(await studentAtAddress(world.db, key)).toBe(idOf(imke))
    const { key: next } = await within(world, (tx) => makeCalendarAddress(tx, when))
    expect(await studentAtAddress(world.db, key)).toBeUndefined()
    expect(await readCalendarKey(world.db, idOf(imke))).toBe(next)
    await within(world, (tx) => withdrawCalendarAddress(tx, when))
    expect(await studentAtAddress(world.db, next)).toBeUndefined()
  })
})

describe('seats kept for a program', () => {
  it('are counted less those its students sit in', async () => {
    const read = async () =>
      (await offerOf(world.db, AUTUMN, [courseCode('ENDA 325')])).find((one) => one.number === '01')!
    const before = (await read()).reserved[0]!
    expect(before).toMatchObject({ program: 'ENVD', block: null })
    const [row] = await sectionsNumbered(world, 'ENDA 325', '01')
    const seat = { sectionId: row!.id, registeredAt: new Date((await at(world)).now), byId: imke.id }
    const outsider = await person(world.db, 'Teodor Quill')
    await world.db.insert(t.registration).values({ ...seat, studentId: idOf(outsider) })
    expect((await read()).reserved[0]!.left).toBe(before.left)
    await world.db.insert(t.registration).values({ ...seat, studentId: idOf(imke) })
    expect((await read()).reserved[0]!.left).toBe(before.left - 1)
  })
})

describe('what a section has of its own', () => {
  it('comes with it: place, categories, what it asks for before it', async () => {
    const offer = await offerOf(world.db, AUTUMN, ['ENVI 120', 'STAT 110'].map(courseCode))
    const find = (course: string, number: string) =>
      offer.find((one) => one.course === course && one.number === number)
    expect(find('ENVI 120', '01')).toMatchObject({
      offSite: 'Tern Island station',
      categories: ['field', 'place'],
      prerequisite: null
    })
    expect(find('STAT 110', '04')).toMatchObject({ prerequisite: 'MATH 110 or MATH 125', offSite: null })
    expect(find('STAT 110', '01')).toMatchObject({ prerequisite: null, categories: null, offSite: null })
  })
  it('counts in the degree as soon as its seat is held', async () => {
    const [speaking] = await sectionsNumbered(world, 'SPCH 101', '02')
    const values = {
      studentId: idOf(imke),
      sectionId: speaking!.id,
      registeredAt: new Date(0),
      byId: imke.id
    }
    await world.db.insert(t.registration).values(values)
    const [studentRecord] = await readStudentRecords(world.db, [idOf(imke)], 'self')
    expect(studentRecord!.held.find((seat) => seat.course === 'SPCH 101')).toMatchObject({
      categories: ['place']
    })
    const { attempts } = readStudent(studentRecord!, world.catalogContext, (await at(world)).now)
    const attempt = attempts.counted.find((one) => one.course === 'SPCH 101')
    expect(attempt).toMatchObject({ status: 'registered', categories: ['place'] })
    await world.db.delete(t.registration).where(eq(t.registration.sectionId, speaking!.id))
  })
})

describe('the whole offer of a term', () => {
  const offer = async (now: number) =>
    JSON.parse((await wholeOffer(world.db, AUTUMN, now)).text) as SectionWithoutSeats[]
  const seats = async () => JSON.parse((await termSeats(world.db, AUTUMN)).text) as SectionSeats[]

  it('with its seats is what is read section by section', async () => {
    const now = new Map((await seats()).map((one) => [one.code, one]))
    const whole = (await offer(0)).map((one) => ({ ...one, ...now.get(one.code) }))
    expect(whole).toEqual(await offerOf(world.db, AUTUMN))
  })
  it('has seats that are never old, and is itself read anew while nobody waits', async () => {
    const [one] = await sectionsNumbered(world, 'ENDA 310', '01')
    const find = async (now: number) => (await offer(now)).find((section) => section.code === one!.code)
    await world.db.update(t.section).set({ taken: 17, topic: 'Tides' }).where(eq(t.section.id, one!.id))
    expect((await seats()).find((section) => section.code === one!.code)).toMatchObject({ taken: 17 })
    expect(await find(10)).toMatchObject({ topic: null })
    expect(await find(60_000)).toMatchObject({ topic: null })
    await vi.waitFor(async () => expect(await find(60_001)).toMatchObject({ topic: 'Tides' }))
    await world.db.update(t.section).set({ topic: 'Winds' }).where(eq(t.section.id, one!.id))
    expect(await find(500_000)).toMatchObject({ topic: 'Winds' })
  })
  it('is the same version as long as it says the same', async () => {
    const first = await wholeOffer(world.db, AUTUMN, 1_000_000)
    await wholeOffer(world.db, AUTUMN, 1_060_000)
    await vi.waitFor(async () =>
      expect((await wholeOffer(world.db, AUTUMN, 1_060_001)).etag).toBe(first.etag)
    )
  })
})
