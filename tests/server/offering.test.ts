/** The offer as it is changed: seats, another section, and who may; rooms and instructors are nowhere twice. */
import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { courseCode } from '#core/ids'
import { parseSectionCode } from '#core/formats'
import type { Who } from '#shared/accounts/responses'
import { addSectionBody } from '#shared/sections/requests'
import * as t from '#server/db/schema/index'
import { moveSection } from '#server/features/registration/sectionMoves'
import { addSection, readOffered, setSeats } from '#server/features/sections/offering'
import { offerOf } from '#server/features/sections/sections'
import { at, AUTUMN, demoWorld, person, within, type World } from './world'

let world: World
let edda: Who & { id: number }
let tamsin: Who & { id: number }
beforeAll(async () => {
  world = await demoWorld('offering')
  edda = await person(world.db, 'Edda Whitlock')
  tamsin = await person(world.db, 'Tamsin Orford')
})
afterAll(() => world.close())

const SOIL = courseCode('SOIL 220')
const offer = (course = SOIL) => offerOf(world.db, AUTUMN, [course])
const seatsOf = async (who: Who, code: string, seats: number) => {
  const { now } = await at(world)
  return within(world, (tx) => setSeats(tx, who, code, seats, { catalogContext: world.catalogContext, now }))
}
const add = async (who: Who, like: string, said: unknown) => {
  const { now } = await at(world)
  const body = addSectionBody.parse(said)
  return within(world, (tx) => addSection(tx, who, like, body, { catalogContext: world.catalogContext, now }))
}
/** A lecture with one of its labs, at hours that nobody else has. */
async function family() {
  const sections = await offer()
  const main = sections.find((one) => one.parent === null)!
  return { main, lab: sections.find((one) => one.parent === main.code)! }
}
const EARLY = { days: [2, 4], start: 420, end: 470 }
const LATE = { days: [5], start: 1140, end: 1300 }

describe('the seats of a section', () => {
  it('are as many as are said, but not fewer than are taken nor more than its room has', async () => {
    const main = (await offerOf(world.db, AUTUMN)).find((one) => one.taken > 0 && one.meetings[0]?.room)!
    await seatsOf(edda, main.code, main.taken)
    expect((await offer(main.course)).find((one) => one.code === main.code)!.capacity).toBe(main.taken)
    await expect(seatsOf(edda, main.code, main.taken - 1)).rejects.toThrow('are taken or offered')
    await expect(seatsOf(edda, main.code, 1999)).rejects.toThrow(/has \d+ places/)
    await seatsOf(edda, main.code, main.capacity)
  })
  it('are for the department of the course, and for no other', async () => {
    const own = (await readOffered(world.db, tamsin, { term: AUTUMN, course: courseCode('ENDA 310') }))
      .sections[0]!
    await seatsOf(tamsin, own.code, own.capacity)
    const theirs = (await offer(courseCode('HERI 210')))[0]!
    await expect(seatsOf(tamsin, theirs.code, 10)).rejects.toThrow('another department')
    await expect(
      readOffered(world.db, tamsin, { term: AUTUMN, course: courseCode('HERI 210') })
    ).rejects.toThrow()
  })
})

describe('a section that is added', () => {
  it('has a code, a number and parts of its own, and no seat taken', async () => {
    const { main, lab } = await family()
    const { code } = await add(edda, main.code, {
      parts: [
        { of: main.code, ...EARLY, seats: 30 },
        { of: lab.code, ...LATE, seats: 15 }
      ]
    })
    expect(parseSectionCode(code).ok).toBe(true)
    const sections = await offer()
    const made = sections.find((one) => one.code === code)!
    const part = sections.find((one) => one.parent === code)!
    expect(made).toMatchObject({ capacity: 30, taken: 0, credits: main.credits, session: main.session })
    expect(made.meetings).toMatchObject([{ ...EARLY, room: null }])
    expect(part).toMatchObject({ kind: lab.kind, capacity: 15, number: `${made.number}A` })
    expect(new Set(sections.map((one) => one.number)).size).toBe(sections.length)
  })
  it('has all kinds of parts, at hours that go together', async () => {
    const { main, lab } = await family()
    const alone = { parts: [{ of: main.code, ...EARLY, seats: 30 }] }
    await expect(add(edda, main.code, alone)).rejects.toThrow('each kind of its parts')
    const both = [
      { of: main.code, ...EARLY, seats: 30 },
      { of: lab.code, ...EARLY, seats: 15 }
    ]
    await expect(add(edda, main.code, { parts: both })).rejects.toThrow('clash with one another')
  })
  it('is in no room and with nobody that is elsewhere then; two at once are not both', async () => {
    const { main, lab } = await family()
    const { rooms, instructors } = await readOffered(world.db, edda, { term: AUTUMN, course: SOIL })
    const [meeting] = main.meetings
    const { days, start, end } = meeting!
    const room = rooms.find((one) => one.name === meeting!.room)!
    const like = (over: object, more: object = {}) =>
      add(edda, main.code, {
        parts: [
          { of: main.code, ...EARLY, seats: 10, ...over },
          { of: lab.code, ...LATE, seats: 10 }
        ],
        ...more
      })
    await expect(like({ days, start, end, room: room.id })).rejects.toThrow(
      `taken by SOIL 220 ${main.number}`
    )
    await expect(like({ room: room.id, seats: room.seats + 1 })).rejects.toThrow(`has ${room.seats} places`)
    const teaching = instructors.find((one) => one.name === main.instructors[0])!
    await expect(like({ days, start, end }, { instructor: teaching.id })).rejects.toThrow(
      'The instructor teaches'
    )
    const free = { days: [7], start: 600, end: 675, room: room.id }
    const tried = await Promise.allSettled([like(free), like(free)])
    expect(tried.filter((one) => one.status === 'fulfilled')).toHaveLength(1)
  })
  it('can be where a cancelled one was, and none moves to where another is', async () => {
    const { main } = await family()
    const others = await offerOf(world.db, AUTUMN)
    const [mine] = main.meetings
    const same = others.find(
      (one) => one.code !== main.code && one.meetings[0]?.room === mine!.room && one.meetings[0] !== undefined
    )!
    const { days, start, end } = same.meetings[0]!
    const move = () => moveSection(world.db, edda, main.code, { days, start, end }, world.catalogContext)
    await expect(move()).rejects.toThrow('is taken by')
    await world.db.update(t.section).set({ cancelled: true }).where(eq(t.section.code, same.code))
    await move()
    expect((await offer()).find((one) => one.code === main.code)!.meetings).toMatchObject([
      { days, start, end, room: mine!.room }
    ])
    // Without a room it is in nobody's way.
    const hours = { days: [7] as const, start: 500, end: 575, keepsRoom: false }
    await moveSection(world.db, edda, main.code, hours, world.catalogContext)
    expect((await offer()).find((one) => one.code === main.code)!.meetings).toMatchObject([{ room: null }])
  })
})

describe('the hours that are proposed', () => {
  it('are free for as many as is said: neither a seat, a pick nor hours kept free of theirs lie there', async () => {
    const { wanting, hours } = await readOffered(world.db, edda, { term: AUTUMN, course: SOIL })
    expect(wanting).toBeGreaterThan(5)
    expect(hours.length).toBeGreaterThan(1)
    expect(hours.map((one) => one.free)).toEqual(hours.map((one) => one.free).toSorted((a, b) => b - a))
    expect(hours[0]!.free).toBeLessThanOrEqual(wanting)
    // Everybody who wants it keeps the best hours free: nobody is free then any more.
    const best = hours[0]!
    const planned = await world.db
      .select({ student: t.route.studentId })
      .from(t.plannedCourse)
      .innerJoin(t.route, eq(t.route.id, t.plannedCourse.routeId))
      .innerJoin(t.course, eq(t.course.id, t.plannedCourse.courseId))
      .where(eq(t.course.code, SOIL))
    for (const studentId of new Set(planned.map((row) => row.student)))
      await world.db.insert(t.keepFree).values({
        ...{ studentId, name: 'Work', days: 'MTWRFSU', startsMin: best.start, endsMin: best.end, hard: true }
      })
    const after = await readOffered(world.db, edda, { term: AUTUMN, course: SOIL })
    const same = after.hours.find((one) => one.start === best.start && one.days.join() === best.days.join())
    expect(same?.free ?? 0).toBe(0)
  })
})
