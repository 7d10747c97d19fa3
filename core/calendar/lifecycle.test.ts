import { describe, expect, it } from 'vitest'
import { courseCode, termCode } from '../ids'
import { term } from '../testing/build'
import {
  deadlines,
  isAlive,
  officeTerm,
  takesPlans,
  termStandings,
  workingTerm,
  type CalendarPerson,
  type CalendarTerm
} from './lifecycle'

/** UTC stands for campus time here. */
const at = (date: string, time = '12:00') => ({ now: Date.parse(`${date}T${time}:00Z`), today: date })
const dated = (code: string, addEnds: string, dropEnds: string, published = true): CalendarTerm => ({
  ...term(code, { published }),
  addEndsAt: at(addEnds, '00:00').now,
  dropEndsAt: at(dropEnds, '00:00').now
})
// Spring 18 Jan to 14 May, summer 7 Jun to 30 Jul, autumn 30 Aug to 17 Dec.
const TERMS = [
  dated('SP27', '2027-01-30', '2027-04-17'),
  dated('SU27', '2027-06-19', '2027-07-16'),
  dated('AU27', '2027-09-11', '2027-11-20'),
  dated('SP28', '2028-01-30', '2028-04-17', false)
]
const one = (course: string, code: string) => ({ course: courseCode(course), term: termCode(code) })
const grade = (course: string, code: string, given: string | null) => ({ ...one(course, code), grade: given })
const person = (over: Partial<CalendarPerson> = {}): CalendarPerson => ({
  openings: [
    { term: termCode('SU27'), opens: at('2027-03-15', '11:00').now },
    { term: termCode('AU27'), opens: at('2027-04-12', '11:00').now }
  ],
  planned: [],
  held: [],
  record: [],
  ...over
})
const standings = (over: Partial<CalendarPerson>, date: string, time?: string) =>
  termStandings(person(over), TERMS, at(date, time))
const of = (code: string, over: Partial<CalendarPerson>, date: string, time?: string) =>
  standings(over, date, time).find((s) => s.term.code === code)!
const working = (over: Partial<CalendarPerson>, date: string) => workingTerm(standings(over, date))?.term.code
const alive = (over: Partial<CalendarPerson>, date: string) =>
  standings(over, date)
    .filter(isAlive)
    .map((s) => s.term.code)

describe('a term', () => {
  it('takes plans after its first day, until the very instant at which adding ends', () => {
    const autumn = TERMS[2]!
    expect(takesPlans(autumn, at('2027-08-30'))).toBe(true)
    expect(takesPlans(autumn, at('2027-09-10', '23:59'))).toBe(true)
    expect(takesPlans(autumn, at('2027-09-11', '00:00'))).toBe(false)
  })
  it('takes plans until it begins where no section of it was ever published', () => {
    const spring = TERMS[3]!
    expect(takesPlans(spring, at('2028-01-16'))).toBe(true)
    expect(takesPlans(spring, at('2028-01-18'))).toBe(false)
    expect(takesPlans({ ...spring, published: true }, at('2028-01-18'))).toBe(true)
  })
  it('takes plans until it begins where no deadline is known', () => {
    expect(takesPlans(term('AU27'), at('2027-08-29'))).toBe(true)
    expect(takesPlans(term('AU27'), at('2027-08-30'))).toBe(false)
  })
  it('is ahead, under way from its first to its last day, then over', () => {
    const state = (date: string) => of('AU27', {}, date).state
    expect([state('2027-08-29'), state('2027-08-30'), state('2027-12-17'), state('2027-12-18')]).toEqual([
      'ahead',
      'underWay',
      'underWay',
      'over'
    ])
  })
  it('that is over waits for grades while one is missing, on the record or of a seat', () => {
    const seat = { held: [one('SOIL 220', 'AU27')] }
    expect(of('AU27', seat, '2027-12-18')).toMatchObject({ state: 'gradesDue', taken: 1, ungraded: 1 })
    const graded = { ...seat, record: [grade('SOIL 220', 'AU27', 'B')] }
    expect(of('AU27', graded, '2027-12-18')).toMatchObject({ state: 'over', ungraded: 0 })
    expect(of('AU27', { record: [grade('SOIL 220', 'AU27', null)] }, '2027-12-18').state).toBe('gradesDue')
  })
  it('opens for a person at an instant, and is closed for adding at another', () => {
    const adding = (date: string, time: string) => of('AU27', {}, date, time).adding
    expect([
      adding('2027-04-12', '10:59'),
      adding('2027-04-12', '11:00'),
      adding('2027-09-10', '23:59'),
      adding('2027-09-11', '00:00')
    ]).toEqual(['notYet', 'open', 'open', 'ended'])
    expect(of('AU27', { openings: [] }, '2027-04-12').adding).toBe('none')
  })
  it('has unsettled courses only while they can still be registered', () => {
    const plan = {
      planned: [one('SOIL 220', 'AU27'), one('MATH 231', 'AU27')],
      held: [one('SOIL 220', 'AU27')]
    }
    expect(of('AU27', plan, '2027-08-30').unsettled).toBe(1)
    expect(of('AU27', plan, '2027-09-11').unsettled).toBe(0)
  })
})

describe('the terms a person works with', () => {
  const springAndAutumn = {
    record: [grade('STAT 212', 'SP27', null)],
    planned: [one('SOIL 220', 'AU27')],
    held: [one('STAT 212', 'SP27')]
  }
  it('are those to come, and the one under way in which something is taken', () => {
    expect(alive(springAndAutumn, '2027-04-09')).toEqual(['SP27', 'SU27', 'AU27'])
    expect(alive({}, '2027-04-09')).toEqual(['SU27', 'AU27'])
  })
  it('keep one that is over until its grades are there', () => {
    expect(alive(springAndAutumn, '2027-05-20')).toEqual(['SP27', 'SU27', 'AU27'])
    expect(alive({ record: [grade('STAT 212', 'SP27', 'B')] }, '2027-05-20')).toEqual(['SU27', 'AU27'])
  })
  it('begin with what is planned and not registered, even on the first days of a term', () => {
    expect(working(springAndAutumn, '2027-04-09')).toBe('AU27')
    expect(working(springAndAutumn, '2027-08-31')).toBe('AU27')
  })
  it('begin with what opens next where nothing is left to register', () => {
    expect(working({}, '2027-04-09')).toBe('AU27')
    expect(working({ held: [one('FELD 390', 'SU27')] }, '2027-04-09')).toBe('AU27')
  })
  it('begin with the term under way once adding has ended and nothing else is published', () => {
    const seated = { planned: [one('SOIL 220', 'AU27')], held: [one('SOIL 220', 'AU27')] }
    expect(working(seated, '2027-09-11')).toBe('AU27')
    expect(working(seated, '2027-12-17')).toBe('AU27')
  })
  it('begin with the term whose grades are due between terms', () => {
    expect(working({ held: [one('SOIL 220', 'AU27')] }, '2027-12-20')).toBe('AU27')
  })
  it('are never none, on any day of two years', () => {
    for (let day = at('2027-01-01').now; day < at('2029-01-01').now; day += 86_400_000) {
      const date = new Date(day).toISOString().slice(0, 10)
      for (const over of [{}, springAndAutumn, { openings: [] }])
        expect({ date, term: working(over, date) }).toEqual({ date, term: expect.any(String) })
    }
  })
})

describe('the term that offices work with', () => {
  const office = (date: string) => officeTerm(TERMS, at(date))?.code
  it('is the last published one to which courses can be added, also when it has begun', () => {
    expect(office('2027-04-09')).toBe('AU27')
    expect(office('2027-09-10')).toBe('AU27')
  })
  it('is then the one under way, then the last that was, never one years ahead', () => {
    expect(office('2027-09-11')).toBe('AU27')
    expect(office('2027-12-20')).toBe('AU27')
  })
})

it('deadlines are in order, each once', () => {
  const found = deadlines(TERMS.slice(0, 2), person().openings)
  expect(found).toEqual([...new Set(found)].sort((a, b) => a - b))
  expect(found).toHaveLength(6)
})
