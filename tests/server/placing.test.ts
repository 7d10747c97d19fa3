/** Placing many students at once: what is proposed can be had, and is had by the same decision as any seat. */
import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { studentId, type StudentId } from '#core/ids'
import * as t from '#server/db/schema/index'
import { place, proposePlacing } from '#server/features/offices/placing'
import { readGroups } from '#server/features/offices/placingGroups'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { run } from '#server/features/registration/run'
import { offerOf } from '#server/features/sections/sections'
import type { Who } from '#shared/accounts/responses'
import type { ProposedPlacing } from '#shared/offices/placing'
import { placementBody, placingBody, type PlacingGroup } from '#shared/offices/placingRequests'
import { at, AUTUMN, demoWorld, person, type World } from './world'

let world: World
let edda: Who
const when = async () => ({ catalogContext: world.catalogContext, now: (await at(world)).now })
const ASIDE = ['notOpen', 'signOff', 'notAgreed'] as const

/** Piece after piece, as the page asks. */
async function proposed(
  group: PlacingGroup,
  setAside: readonly string[] = ASIDE
): Promise<ProposedPlacing[]> {
  const found: ProposedPlacing[] = []
  let taken = {}
  for (let from: number | null = 0; from !== null;) {
    const asked = placingBody.parse({ group, setAside, from, taken })
    const piece = await proposePlacing(world.db, AUTUMN, asked, await when())
    expect(piece.next === null || piece.next > from).toBe(true)
    found.push(...piece.students)
    ;({ taken, next: from } = piece)
  }
  return found
}
const sectionsOfPlacing = (one: ProposedPlacing) =>
  one.placed.flatMap(({ sections }) => sections.map(({ code }) => code))
const placeAs = async (one: ProposedPlacing, over: object = {}, key?: string) => {
  const asked = placementBody.parse({
    ...{ term: AUTUMN, sections: sectionsOfPlacing(one), setAside: ASIDE },
    ...over
  })
  return place(world.db, edda, one.student, { ...asked, key }, await when())
}
const heldBy = async (student: StudentId) => {
  const [record] = await readStudentRecords(world.db, [student], 'self')
  return record!.held.filter((seat) => seat.term === AUTUMN)
}

/** The office takes back what it had placed a block in. */
async function takeBack(block: string): Promise<void> {
  const members = await world.db
    .select({ id: t.student.id })
    .from(t.student)
    .innerJoin(t.block, eq(t.block.id, t.student.blockId))
    .where(eq(t.block.code, block))
  const consent = 'The block is placed anew.'
  for (const { id } of members) {
    const drop = (await heldBy(studentId(id))).filter((one) => one.placedByOffice).map((one) => one.course)
    if (drop.length)
      await run(
        world.db,
        edda,
        studentId(id),
        { term: AUTUMN, courses: [], drop, consent },
        world.catalogContext
      )
  }
}

beforeAll(async () => {
  world = await demoWorld('placing')
  edda = await person(world.db, 'Edda Whitlock')
})
afterAll(() => world.close())

describe('whom an office can place', () => {
  it('are those who handed in, the blocks with sections in the term, those of each opening', async () => {
    const { handedIn, blocks, openings } = await readGroups(world.db, AUTUMN, await when())
    const rows = await world.db
      .selectDistinct({ student: t.intention.studentId })
      .from(t.intention)
      .innerJoin(t.term, eq(t.term.id, t.intention.termId))
      .where(eq(t.term.code, AUTUMN))
    expect(handedIn).toBe(rows.length)
    expect(blocks.map((one) => one.code)).toEqual(['heron', 'kestrel', 'plover'])
    expect(blocks.every((one) => one.students > 0 && one.courses.length > 0)).toBe(true)
    const everybody = await world.db.$count(t.student)
    expect(openings.reduce((sum, one) => sum + one.students, 0)).toBeLessThanOrEqual(everybody)
    expect(openings.some((one) => one.students > 0)).toBe(true)
  })
  it('are nobody in a term whose sections nobody sees', async () => {
    const spring = world.catalogContext.terms.find((one) => one.code === 'SP28')!
    expect(spring.published).toBe(false)
    await expect(readGroups(world.db, spring.code, await when())).rejects.toThrow('not published')
  })
})

describe('what is proposed', () => {
  it('gives away no seat twice, and to nobody two courses at one time', async () => {
    const all = await proposed({ kind: 'handedIn' })
    const offer = new Map((await offerOf(world.db, AUTUMN)).map((one) => [one.code as string, one]))
    const given = new Map<string, number>()
    for (const code of all.flatMap(sectionsOfPlacing)) given.set(code, (given.get(code) ?? 0) + 1)
    for (const [code, seats] of given) {
      const { capacity, taken } = offer.get(code)!
      expect(seats, code).toBeLessThanOrEqual(capacity - taken)
    }
    expect(all.length).toBeGreaterThan(20)
    expect(all.filter((one) => one.placed.length).length).toBeGreaterThan(10)
    for (const one of all) {
      const hours = sectionsOfPlacing(one).flatMap((code) =>
        offer
          .get(code)!
          .meetings.flatMap((meeting) =>
            meeting.days.map((day) => ({ ...meeting, day, course: offer.get(code)!.course }))
          )
      )
      // Of the same dates: those of a half term may stand at the hours of the other half.
      const overlap = hours.filter((a) =>
        hours.some(
          (b) =>
            a.course !== b.course &&
            a.day === b.day &&
            a.start < b.end &&
            b.start < a.end &&
            a.from <= b.to &&
            b.from <= a.to
        )
      )
      expect(overlap, one.name).toEqual([])
    }
  })
  it('is nothing before the opening unless that is set aside', async () => {
    const all = await proposed({ kind: 'handedIn' }, ['signOff', 'notAgreed'])
    const early = all.filter((one) =>
      one.left.some((left) => left.refusals.some((r) => r.code === 'notOpen'))
    )
    expect(early.length).toBeGreaterThan(10)
    expect(early.every((one) => !one.placed.length)).toBe(true)
  })
  it('keeps a block in the sections of the block', async () => {
    await takeBack('heron')
    const all = await proposed({ kind: 'block', block: 'heron' })
    const offer = new Map((await offerOf(world.db, AUTUMN)).map((one) => [one.code as string, one]))
    const codes = all.flatMap(sectionsOfPlacing)
    expect(all.every((one) => one.ground === 'block' && one.placed.length > 0)).toBe(true)
    expect(new Set(codes.map((code) => offer.get(code)!.block))).toEqual(new Set(['Heron']))
  })
})

describe('placing', () => {
  it('registers what was proposed, says on the receipt on whose word and what was set aside', async () => {
    const some = (await proposed({ kind: 'handedIn' })).filter((one) => one.placed.length).slice(0, 12)
    for (const one of some) {
      const receipt = await placeAs(one)
      expect(receipt.lines.map((line) => [line.course, line.outcome])).toEqual(
        one.placed.map(({ course }) => [course, 'registered'])
      )
      expect(receipt).toMatchObject({ by: 'Edda Whitlock', setAside: ASIDE, ended: true })
      expect(receipt.consent).toMatch(/^Handed in for Autumn 2027, /)
      const seats = (await heldBy(one.student)).filter((seat) =>
        one.placed.some(({ course }) => course === seat.course)
      )
      expect(seats.every((seat) => seat.placedByOffice)).toBe(true)
    }
    const again = await proposed({ kind: 'handedIn' })
    for (const { student, placed } of some)
      expect(
        again
          .find((one) => one.student === student)!
          .placed.filter((now) => placed.some((before) => before.course === now.course))
      ).toEqual([])
  })
  it('is decided when it is done: not before the opening, where that is not set aside', async () => {
    const [one] = (await proposed({ kind: 'handedIn' })).filter((one) => one.placed.length)
    const receipt = await placeAs(one!, { setAside: [] })
    expect(receipt.lines.every((line) => line.outcome === 'refused')).toBe(true)
    expect(receipt.lines[0]!.refusals.map((why) => why.code)).toContain('notOpen')
  })
  it('is one run under one key', async () => {
    const [one] = (await proposed({ kind: 'handedIn' })).filter((one) => one.placed.length)
    const first = await placeAs(one!, {}, 'placing-once')
    const second = await placeAs(one!, {}, 'placing-once')
    expect(second).toEqual(first)
  })
  it('asks how the student agreed where nothing was handed in', async () => {
    await takeBack('plover')
    const [one] = (await proposed({ kind: 'block', block: 'plover' })).filter(
      // Of the demo's students those with an odd number have handed in what they plan.
      (one) => one.placed.length > 0 && one.student % 2 === 0
    )
    await expect(placeAs(one!)).rejects.toMatchObject({ status: 422, code: 'consent' })
    const receipt = await placeAs(one!, { consent: 'Joined the block at the orientation.' })
    expect(receipt.consent).toBe('Joined the block at the orientation.')
  })
  it('refuses sections of another term, and two of one course', async () => {
    const [one] = (await proposed({ kind: 'handedIn' })).filter((one) => one.placed.length)
    await expect(placeAs(one!, { sections: ['ZZZZZ'] })).rejects.toMatchObject({ code: 'noOption' })
    const course = one!.placed[0]!.course
    const mains = (await offerOf(world.db, AUTUMN, [course])).filter((section) => section.parent === null)
    const two = [...sectionsOfPlacing(one!), ...mains.map((section) => section.code)]
    await expect(placeAs(one!, { sections: [...new Set(two)] })).rejects.toMatchObject({ code: 'noOption' })
  })
  it('is not undone by the student, and is by the office', async () => {
    const [one] = (await proposed({ kind: 'handedIn' })).filter((one) => one.placed.length)
    const { course } = one!.placed[0]!
    await placeAs(one!)
    const row = await world.db.select().from(t.student).where(eq(t.student.id, one!.student))
    const [account] = await world.db.select().from(t.account).where(eq(t.account.id, row[0]!.accountId))
    const self = await person(world.db, account!.name)
    const drop = { term: AUTUMN, courses: [], drop: [course] }
    const refused = await run(world.db, self, one!.student, drop, world.catalogContext)
    expect(refused.lines[0]).toMatchObject({ outcome: 'refused', refusals: [{ code: 'placed' }] })
    const consent = 'They have asked for it by telephone.'
    const done = await run(world.db, edda, one!.student, { ...drop, consent }, world.catalogContext)
    expect(done.lines[0]).toMatchObject({ outcome: 'dropped' })
  })
})
