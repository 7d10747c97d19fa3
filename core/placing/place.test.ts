import { describe, expect, it } from 'vitest'
import * as fc from 'fast-check'
import { Catalog } from '../catalog'
import { courseCode, type CourseCode } from '../ids'
import type { RegistrationFacts } from '../registration'
import { course, meeting, section, term } from '../testing/build'
import { factsIn } from '../testing/facts'
import type { Section } from '../week'
import { placeStudent, type PlacingAsked } from './place'

const CODES = ['STAT 110', 'SOIL 220', 'HYDR 331', 'HYDR 332'].map(courseCode)
const [stat, soil, hydrology, lab] = CODES as [CourseCode, CourseCode, CourseCode, CourseCode]
const catalog = new Catalog([
  course(stat),
  course(soil, { credits: 4 }),
  course(hydrology, { prerequisite: `with ${lab}` }),
  course(lab, { prerequisite: `with ${hydrology}` })
])
const terms = [term('AU27')]
const facts = (over: Partial<RegistrationFacts> = {}) =>
  factsIn({ catalog, terms, term: terms[0]! }, { placing: { setAside: new Set() }, ...over })
const place = (
  courses: CourseCode[],
  offer: Section[],
  over: Partial<RegistrationFacts> = {},
  asked: Partial<PlacingAsked> = {}
) => placeStudent(facts(over), { courses, offer, kept: [], softly: [], travel: undefined, ...asked })
const hours = (slot: number) => [meeting('MW', `${8 + slot}:00`, `${8 + slot}:50`)]

describe('placing a student', () => {
  it('takes sections that go together, though the first of each would not', () => {
    const early = section(stat, hours(1))
    const late = section(stat, hours(2))
    const other = section(soil, hours(1))
    const { options, left } = place([stat, soil], [early, late, other])
    expect(options.map((one) => one.main.code)).toEqual([late.code, other.code])
    expect(left).toEqual([])
  })
  it('leaves the later course where not all go together, and says what stands against it', () => {
    const { options, left } = place([soil, stat], [section(stat, hours(1)), section(soil, hours(1))])
    expect(options.map((one) => one.course)).toEqual([soil])
    expect(left.map(({ course, refusals }) => [course, refusals.map((one) => one.code)])).toEqual([
      [stat, ['clash']]
    ])
  })
  it('takes courses that ask for each other together or not at all', () => {
    const both = [section(hydrology, hours(1)), section(lab, hours(2))]
    expect(place([hydrology, lab], both).options).toHaveLength(2)
    const { options, left } = place([hydrology, lab], [both[0]!, section(lab, hours(2), { taken: 30 })])
    expect(options).toEqual([])
    expect(left.map((one) => one.refusals[0]!.code)).toEqual(['corequisite', 'full'])
  })
  it('keeps within the load, by fewer courses rather than by none', () => {
    const offer = [section(stat, hours(1)), section(soil, hours(2), { credits: 4 })]
    const { options, left } = place([stat, soil], offer, { loadMost: 5 })
    expect(options.map((one) => one.course)).toEqual([stat])
    expect(left[0]!.refusals[0]!.code).toBe('load')
  })
  it('goes around hours that are kept free, and around what is held', () => {
    const free = section(stat, hours(3))
    const offer = [section(stat, hours(1)), section(stat, hours(2)), free]
    const kept = [{ name: 'work', days: [1 as const, 3 as const], start: 9 * 60, end: 10 * 60 }]
    const heldSections = [section(soil, hours(2))]
    expect(place([stat], offer, { heldSections }, { kept }).options[0]!.main.code).toBe(free.code)
  })
  it('places in what only an office registers, which the decision refuses to everybody else', () => {
    const offer = [section(stat, hours(1), { officeOnly: true })]
    expect(place([stat], offer).options).toHaveLength(1)
    const { left } = place([stat], offer, { placing: undefined })
    expect(left[0]!.refusals).toEqual([{ code: 'officeOnly', section: offer[0]!.code }])
  })
  it('sets aside the opening, the sign-off and the terms of registration where they are named, and a hold never', () => {
    const offer = [section(stat, hours(1))]
    const closed = {
      opens: null,
      agreed: false,
      signOff: { policy: 'term', given: null, changed: false }
    } as const
    const codes = (...named: ('notOpen' | 'signOff' | 'notAgreed')[]) =>
      place([stat], offer, { ...closed, placing: { setAside: new Set(named) } }).left.flatMap((one) =>
        one.refusals.map((why) => why.code)
      )
    expect(codes()).toEqual(['notOpen', 'signOff', 'notAgreed'])
    expect(codes('notOpen', 'notAgreed')).toEqual(['signOff'])
    expect(codes('notOpen', 'signOff', 'notAgreed')).toEqual([])
    const holds = [{ title: 'Fine', office: 'Library desk', amount: 3, stopsRegistration: true }]
    expect(place([stat], offer, { holds }).left[0]!.refusals[0]!.code).toBe('hold')
  })
  it('names every course, also where there are more than it weighs', () => {
    const many = Array.from({ length: 12 }, (_, i) => courseCode(`STAT ${200 + i}`))
    const offer = many.map((code, i) => section(code, hours(i)))
    const { options, left } = place(many, offer, { loadMost: 60 })
    expect(options.map((one) => one.course)).toEqual(many.slice(0, 10))
    expect(left.map((one) => one.course)).toEqual(many.slice(10))
  })
})

/** One section of a random term: of which course, in which hour, whether full. */
interface Drawn {
  course: number
  slot: number
  full: boolean
}

/** The most courses by trying every choice, from the rules as they are written: hours, seats, credits, pairs. */
function mostOf(drawn: readonly Drawn[], most: number): number {
  const of = CODES.map((_, c) => drawn.filter((one) => one.course === c && !one.full))
  let best = 0
  const go = (c: number, taken: Drawn[]) => {
    if (c < CODES.length) {
      go(c + 1, taken)
      for (const one of of[c]!)
        if (taken.every((other) => other.slot !== one.slot)) go(c + 1, [...taken, one])
      return
    }
    const has = (course: number) => taken.some((one) => one.course === course)
    const credits = taken.reduce((sum, one) => sum + (one.course === 1 ? 4 : 3), 0)
    if (has(2) === has(3) && credits <= most) best = Math.max(best, taken.length)
  }
  go(0, [])
  return best
}

it('places as many courses as trying every choice does', () => {
  const drawn = fc.record({ course: fc.nat(3), slot: fc.nat(4), full: fc.boolean() })
  fc.assert(
    fc.property(fc.array(drawn, { maxLength: 9 }), fc.integer({ min: 3, max: 13 }), (sections, loadMost) => {
      const offer = sections.map(({ course, slot, full }) =>
        section(CODES[course]!, hours(slot), { taken: full ? 30 : 3, credits: course === 1 ? 4 : 3 })
      )
      const { options, left } = place([...CODES], offer, { loadMost })
      expect(options).toHaveLength(mostOf(sections, loadMost))
      expect(options.length + left.length).toBe(CODES.length)
      expect(
        left.every((one) => one.refusals.length > 0 || !offer.some((s) => s.course === one.course))
      ).toBe(true)
    }),
    { numRuns: 300 }
  )
})
