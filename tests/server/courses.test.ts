/** The catalog as people read it, and what they mark in it. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { courseCode, termCode } from '#core/ids'
import type { Who } from '#shared/accounts/responses'
import { readCatalog, readCoursePage, readDescriptions } from '#server/features/catalog/catalog'
import { bookmarkCourse, readBookmarks } from '#server/features/catalog/bookmarks'
import { readTermNotes, writeTermNote } from '#server/features/route/load'
import { offerOf } from '#server/features/sections/sections'
import { at, demoWorld, idOf, person, within, type World } from './world'

let world: World
let imke: Who
let bram: Who
beforeAll(async () => {
  world = await demoWorld('courses')
  ;[imke, bram] = (await Promise.all(['Imke Varga', 'Bram Ostrander'].map((n) => person(world.db, n)))) as [
    Who,
    Who
  ]
})
afterAll(() => world.close())

const mark = async (who: Who, code: string, change: Parameters<typeof bookmarkCourse>[3], now?: number) => {
  const when = { who, student: idOf(who), ...(await at(world)), ...(now ? { now } : {}) }
  await within(world, (tx) => bookmarkCourse(tx, when, courseCode(code), change))
}
const marksOf = (who: Who) => readBookmarks(world.db, idOf(who), who.id)

describe('a course', () => {
  it('is described, and its history counts sections, not their labs', async () => {
    const page = await readCoursePage(world.db, courseCode('SOIL 220'))
    expect(page.description).toMatch(/soils form/)
    expect(page.fee).toBe(60)
    const autumn = page.history.find((one) => one.term === 'AU27')!
    expect(autumn).toMatchObject({ sections: 2, seats: 48 })
    expect(page.history.length).toBeGreaterThan(1)
    for (const { seats, taken } of page.history) expect(taken).toBeLessThanOrEqual(seats)
  })
  it('has words for searching, one text for each course', async () => {
    const texts = await readDescriptions(world.db)
    expect(Object.keys(texts)).toHaveLength(160)
    expect(texts['SOIL 220']).toMatch(/soils form/)
  })
  it('belongs to a subject of a college, and knows its support lab', async () => {
    const { subjects, categories, supportLabs } = await readCatalog(world.db)
    expect(subjects).toHaveLength(20)
    expect(new Set(subjects.map((one) => one.college)).size).toBe(3)
    expect(new Set(categories.map((one) => one.family)).size).toBe(2)
    expect(supportLabs).toContainEqual({ course: 'CSCI 101', lab: 'CSCI 15L' })
  })
  it('is offered as a whole term, or as some courses of it; not before the term is published', async () => {
    const whole = await offerOf(world.db, 'AU27')
    const some = await offerOf(world.db, 'AU27', [courseCode('HERI 210')])
    expect(whole.length).toBeGreaterThan(100)
    expect(some).toEqual(whole.filter((one) => one.course === 'HERI 210'))
    expect(some.map((one) => one.topic)).toContain('Drowned villages')
    expect(await offerOf(world.db, 'AU28')).toEqual([])
    expect(await offerOf(world.db, 'AU27', [])).toEqual([])
  })
})

describe('what a student marks', () => {
  it('keeps stars, notes and what was looked at, each apart', async () => {
    await mark(imke, 'HERI 320', { starred: true })
    await mark(imke, 'STAT 330', { looked: true }, Date.parse('2027-04-09T14:00:00Z'))
    await mark(imke, 'HERI 320', { looked: true }, Date.parse('2027-04-09T15:00:00Z'))
    await mark(imke, 'STAT 330', { note: 'ask about the labs' })
    const marks = await marksOf(imke)
    expect(marks).toEqual([
      { course: 'HERI 320', starred: true, lookedAt: Date.parse('2027-04-09T15:00:00Z'), note: null },
      {
        course: 'STAT 330',
        starred: false,
        lookedAt: Date.parse('2027-04-09T14:00:00Z'),
        note: 'ask about the labs'
      }
    ])
    await mark(imke, 'HERI 320', { starred: false })
    await mark(imke, 'STAT 330', { note: null })
    expect((await marksOf(imke)).map(({ starred, note }) => [starred, note])).toEqual([
      [false, null],
      [false, null]
    ])
  })
  it('keeps the twelve looked at last, and every star', async () => {
    const codes = world.catalogContext.catalog.courses.slice(0, 15).map((one) => one.code)
    await mark(bram, codes[0]!, { starred: true })
    for (const [i, code] of codes.entries()) await mark(bram, code, { looked: true }, 1_000_000_000_000 + i)
    const marks = await marksOf(bram)
    expect(marks.filter((one) => one.lookedAt !== null)).toHaveLength(12)
    expect(marks.find((one) => one.course === codes[0])).toMatchObject({ starred: true, lookedAt: null })
  })
  it('is nobody else’s', async () => {
    await mark(imke, 'MUSI 101', { note: 'only mine' })
    expect((await marksOf(bram)).some((one) => one.note)).toBe(false)
  })
  it('asks for a course of the catalog', async () => {
    await expect(mark(imke, 'NONE 999', { starred: true })).rejects.toMatchObject({ code: 'noCourse' })
  })
  it('notes one thing on a term, for the advisors too', async () => {
    const when = { who: imke, student: idOf(imke), ...(await at(world)) }
    const write = (text: string | null) =>
      within(world, (tx) => writeTermNote(tx, when, termCode('SP28'), text))
    await write('six hours of work a week')
    await write('ten hours of work a week')
    expect(await readTermNotes(world.db, idOf(imke))).toEqual([
      { term: 'SP28', text: 'ten hours of work a week', by: 'Imke Varga' }
    ])
    await write(null)
    expect(await readTermNotes(world.db, idOf(imke))).toEqual([])
  })
})
