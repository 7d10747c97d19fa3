import { describe, expect, it } from 'vitest'
import { Catalog } from '../catalog'
import { COMMON_SCALE, GradeScale } from '../grades'
import { courseCode, termCode, type CourseCode } from '../ids'
import { course, meeting, section, term } from '../testing/build'
import { factsIn } from '../testing/facts'
import { optionsAmong, type Section } from '../week'
import { decide } from './decide'
import type { RegistrationFacts } from './facts'
import { decideDrop, dropMark, endsFullTime } from './drop'
import { decideLine, mayBeOffered, offerEnds, type LineFacts, type LinePolicy } from './line'

const at = (text: string) => Date.parse(text)
const catalog = new Catalog([
  course('HYDR 331', { prerequisite: 'with HYDR 332' }),
  course('HYDR 332', { prerequisite: 'with HYDR 331' }),
  course('ENDA 310', { prerequisite: 'STAT 110 or with STAT 212' }),
  course('STAT 110'),
  course('STAT 212'),
  course('SOIL 220', { credits: 4 })
])
const terms = ['SP27', 'AU27'].map((code) => term(code))
const autumn = termCode('AU27')
const drop = { freeUntil: at('2027-09-11T04:00:00Z'), ends: at('2027-11-20T05:00:00Z') }

function holding(courses: readonly string[], over: Partial<RegistrationFacts> = {}): RegistrationFacts {
  const sections = courses.map((code) => section(code))
  const held = sections.map((one) => ({
    course: one.course,
    term: autumn,
    section: one.code,
    credits: one.credits,
    placedByOffice: false
  }))
  const now = at('2027-05-01T12:00:00Z')
  return factsIn({ catalog, terms, term: terms[1]! }, { now, drop, held, heldSections: sections, ...over })
}
const dropping = (facts: RegistrationFacts, ...courses: string[]) =>
  decideDrop(facts, courses.map(courseCode)).map(({ course, refusals, mark }) => [
    course,
    mark,
    ...refusals.map((refusal) => refusal.code)
  ])

describe('a drop', () => {
  it('leaves no trace until the instant from which it leaves a W', () => {
    expect(dropMark(drop, drop.freeUntil - 1, COMMON_SCALE)).toBeNull()
    expect(dropMark(drop, drop.freeUntil, COMMON_SCALE)).toBe('W')
    const own = new GradeScale([{ grade: 'WD', points: null, result: 'withdrawn', rank: 0 }])
    expect(dropMark(drop, drop.freeUntil, own)).toBe('WD')
  })
  it('is possible until the last moment, not at it', () => {
    const facts = (now: number) => holding(['SOIL 220'], { now })
    expect(dropping(facts(drop.ends - 1), 'SOIL 220')).toEqual([['SOIL 220', 'W']])
    expect(dropping(facts(drop.ends), 'SOIL 220')).toEqual([['SOIL 220', 'W', 'dropEnded']])
  })
  it('goes by the dates of its session, where that has its own', () => {
    const early = { addEnds: drop.freeUntil - 2, freeUntil: drop.freeUntil - 1, ends: drop.ends - 1 }
    const facts = (now: number, session: string) => {
      const held = holding(['SOIL 220'], { now, sessions: new Map([['H1', early]]) })
      return { ...held, heldSections: held.heldSections.map((one) => ({ ...one, session })) }
    }
    expect(dropping(facts(early.freeUntil, 'H1'), 'SOIL 220')).toEqual([['SOIL 220', 'W']])
    expect(dropping(facts(early.freeUntil, 'FULL'), 'SOIL 220')).toEqual([['SOIL 220', null]])
    expect(dropping(facts(early.ends, 'H1'), 'SOIL 220')).toEqual([['SOIL 220', 'W', 'dropEnded']])
    expect(dropping(facts(early.ends, 'FULL'), 'SOIL 220')).toEqual([['SOIL 220', 'W']])
  })
  it('is of a seat that is held, and not of one that an office has given', () => {
    expect(dropping(holding([]), 'SOIL 220')).toEqual([['SOIL 220', null, 'notHeld']])
    const facts = holding(['SOIL 220'])
    const placed = facts.held.map((seat) => ({ ...seat, placedByOffice: true }))
    expect(dropping({ ...facts, held: placed }, 'SOIL 220')).toEqual([['SOIL 220', null, 'placed']])
  })
  it('is not stopped by a hold', () => {
    const hold = { title: 'Fine', office: 'Library desk', amount: 5, stopsRegistration: true }
    expect(dropping(holding(['SOIL 220'], { holds: [hold] }), 'SOIL 220')).toEqual([['SOIL 220', null]])
  })
  it('keeps what another course asks for in the same term, unless both go', () => {
    const facts = holding(['HYDR 331', 'HYDR 332'])
    expect(dropping(facts, 'HYDR 331')).toEqual([['HYDR 331', null, 'neededBy']])
    expect(dropping(facts, 'HYDR 331', 'HYDR 332')).toEqual([
      ['HYDR 331', null],
      ['HYDR 332', null]
    ])
  })
  it('keeps it as well where the other one cannot go after all', () => {
    const facts = holding(['HYDR 331', 'HYDR 332'])
    const held = facts.held.map((seat) => ({ ...seat, placedByOffice: seat.course === 'HYDR 332' }))
    expect(dropping({ ...facts, held }, 'HYDR 331', 'HYDR 332')).toEqual([
      ['HYDR 331', null, 'neededBy'],
      ['HYDR 332', null, 'placed']
    ])
  })
  it('asks no more of a course that stays than it had before', () => {
    // ENDA 310 rests on STAT 212 beside it only while STAT 110 is not behind it.
    expect(dropping(holding(['ENDA 310', 'STAT 212']), 'STAT 212')).toEqual([['STAT 212', null, 'neededBy']])
    const earned = [
      {
        course: courseCode('STAT 110'),
        term: termCode('SP27'),
        credits: 3,
        grade: 'B',
        origin: 'here' as const
      }
    ]
    expect(dropping(holding(['ENDA 310', 'STAT 212'], { record: earned }), 'STAT 212')).toEqual([
      ['STAT 212', null]
    ])
    // It never had what it asks for: dropping something else takes nothing from it.
    expect(dropping(holding(['ENDA 310', 'SOIL 220']), 'SOIL 220')).toEqual([['SOIL 220', null]])
  })
  it('ends full time below 12 credits (34 CFR 668.2)', () => {
    expect([endsFullTime(14, 12), endsFullTime(14, 11), endsFullTime(11, 8)]).toEqual([false, true, false])
  })
})

const policy: LinePolicy = { serves: 'offer', closes: at('2027-09-09T04:00:00Z'), hours: 48, hoursNear: 12 }
const full = (over: Partial<Section> = {}) =>
  section('SOIL 220', [meeting('TR', '13:00', '14:15')], {
    credits: 4,
    capacity: 20,
    taken: 20,
    waitCapacity: 5,
    ...over
  })
function joining(sections: Section[], over: Partial<LineFacts> = {}, facts = holding([])) {
  const option = optionsAmong(sections)[0]!
  const { refusals, lines } = decideLine(
    { now: facts.now, policy, waiting: new Set<CourseCode>(), ...over },
    option,
    decide(facts, [option])[0]!
  )
  return { codes: refusals.map((refusal) => refusal.code), lines }
}

describe('standing in line', () => {
  it('is for what is full, in the line of each section that is', () => {
    const lecture = full()
    const lab = full({ kind: 'lab', parent: lecture.code, credits: 0, meetings: [] })
    expect(joining([lecture])).toEqual({ codes: [], lines: [lecture.code] })
    expect(joining([lecture, lab])).toEqual({ codes: [], lines: [lecture.code, lab.code] })
    expect(joining([{ ...lecture, taken: 3 }, lab])).toEqual({ codes: [], lines: [lab.code] })
    expect(joining([{ ...lecture, taken: 3 }]).codes).toEqual(['seatLeft'])
  })
  it('is for seats kept for others as well', () => {
    const kept = full({ taken: 18, reserved: [{ program: 'HERI', block: null, left: 2 }] })
    expect(joining([kept])).toEqual({ codes: [], lines: [kept.code] })
  })
  it('asks for all the rest, but for hours and load only when the seat is taken', () => {
    expect(joining([full({ officeOnly: true })]).codes).toEqual(['officeOnly'])
    const other = section('STAT 110', [meeting('T', '13:30', '15:00')], { credits: 17 })
    const busy = holding([], {
      held: [{ course: other.course, term: autumn, section: other.code, credits: 17, placedByOffice: false }],
      heldSections: [other]
    })
    expect(joining([full()], {}, busy).codes).toEqual([])
    expect(
      joining([full()], {}, { ...busy, signOff: { policy: 'term', given: null, changed: false } }).codes
    ).toEqual(['signOff'])
  })
  it('ends with its last place, with the day on which lines close, and is once a course', () => {
    expect(joining([full({ waiting: 4 })]).codes).toEqual([])
    expect(joining([full({ waiting: 5 })]).codes).toEqual(['lineFull'])
    expect(joining([full()], { now: policy.closes - 1 }).codes).toEqual([])
    expect(joining([full()], { now: policy.closes }).codes).toEqual(['lineClosed'])
    expect(joining([full()], { waiting: new Set([courseCode('SOIL 220')]) }).codes).toEqual(['inLine'])
  })
})

describe('a freed seat', () => {
  const decision = (...codes: ('clash' | 'load' | 'hold')[]) =>
    ({ course: courseCode('SOIL 220'), refusals: codes.map((code) => ({ code })), assumed: [] }) as never
  it('is offered to whom only another course of their own is in the way', () => {
    expect(mayBeOffered(decision('clash', 'load'), 'offer')).toBe(true)
    expect(mayBeOffered(decision('hold'), 'offer')).toBe(false)
  })
  it('is moved into only where nothing is in the way', () => {
    expect(mayBeOffered(decision('clash'), 'automatic')).toBe(false)
    expect(mayBeOffered(decision(), 'automatic')).toBe(true)
  })
  it('stands for two days, shorter from a week before classes, never past the closing of the lines', () => {
    const now = at('2027-08-01T12:00:00Z')
    expect(offerEnds(policy, now, 29)).toBe(at('2027-08-03T12:00:00Z'))
    expect(offerEnds(policy, now, 8)).toBe(at('2027-08-03T12:00:00Z'))
    expect(offerEnds(policy, now, 7)).toBe(at('2027-08-02T00:00:00Z'))
    expect(offerEnds(policy, policy.closes - 60_000, -9)).toBe(policy.closes)
  })
})
