/** Term dates in a calendar file, read back with a reference reader. */
import ICAL from 'ical.js'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { termDates, type TermDate } from '#shared/route/termDates'
import { calendarOf } from '#server/features/route/calendar'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { demoWorld, idOf, OPENS, person, type World } from './world'

let world: World
let dates: TermDate[]
beforeAll(async () => {
  world = await demoWorld('dates')
  const imke = await person(world.db, 'Imke Varga')
  const [studentRecord] = await readStudentRecords(world.db, [idOf(imke)], 'self')
  dates = termDates(studentRecord!, world.catalogContext, '2027-04-09')
})
afterAll(() => world.close())

const read = (text: string) =>
  new ICAL.Component(ICAL.parse(text) as unknown[])
    .getAllSubcomponents('vevent')
    .map((one) => new ICAL.Event(one))

describe('term dates', () => {
  it('name the opening, the deadlines, the halves and the holidays of the terms ahead', () => {
    const of = (uid: string) => dates.find((one) => one.uid === `${uid}@ridgeway`)
    expect(of('AU27-opening')).toMatchObject({ at: OPENS })
    for (const what of ['begins', 'ends', 'payment', 'add', 'drop']) expect(of(`AU27-${what}`)).toBeDefined()
    expect(dates.some((one) => one.uid.startsWith('AU26'))).toBe(false)
    expect(dates.filter((one) => one.uid.startsWith('AU27-free')).length).toBeGreaterThan(0)
    expect(new Set(dates.map((one) => one.uid)).size).toBe(dates.length)
  })
  it('tell no deadline of a term whose calendar is not published', () => {
    const ahead = dates.filter((one) => one.uid.startsWith('SP28'))
    expect(ahead.map((one) => one.uid)).toContain('SP28-begins@ridgeway')
    expect(ahead.every((one) => 'on' in one)).toBe(true)
    expect(ahead.some((one) => one.uid.includes('payment'))).toBe(false)
  })
  it('come back from the file as they went in (RFC 5545, read with ical.js)', () => {
    const text = calendarOf('Term dates', dates, OPENS)
    const events = read(text)
    expect(events).toHaveLength(dates.length)
    for (const date of dates) {
      const event = events.find((one) => one.uid === date.uid)!
      expect(event.summary).toBe(date.title)
      if ('on' in date) {
        expect(event.startDate.isDate).toBe(true)
        expect(event.startDate.toString()).toBe(date.on)
      } else {
        expect(event.startDate.isDate).toBe(false)
        expect(event.startDate.toUnixTime() * 1000).toBe(date.at)
      }
    }
  })
  it('are folded and escaped by RFC 5545, 3.1 and 3.3.11', () => {
    const title = `Drop; add, and \\ pay: ${'a long title '.repeat(12)}é`
    const text = calendarOf('Term dates', [{ uid: 'x@ridgeway', title, on: '2027-11-07' }], OPENS)
    for (const line of text.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75)
    expect(text).toContain('Drop\\; add\\, and \\\\ pay')
    expect(read(text)[0]!.summary).toBe(title)
  })
})
