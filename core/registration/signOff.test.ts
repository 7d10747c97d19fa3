import { describe, expect, it } from 'vitest'
import { Catalog } from '../catalog'
import type { Refusal, SignOffCondition } from '../findings'
import { courseCode, termCode, type SectionCode } from '../ids'
import { course, entry, section, term } from '../testing/build'
import { factsIn } from '../testing/facts'
import { optionsAmong, type Section } from '../week'
import { decide } from './decide'
import type { RegistrationFacts } from './facts'
import { groupLines } from './group'
import { rehearse } from './rehearse'
import type { SignOff } from './signOff'

const STAT = courseCode('STAT 212')
const ENDA = courseCode('ENDA 325')
const SOIL = courseCode('SOIL 220')
const catalog = new Catalog([course(STAT), course(ENDA), course(SOIL, { credits: 4 })])
const terms = ['AU26', 'SP27', 'AU27'].map((code) => term(code))
const option = (...sections: Section[]) => optionsAmong(sections)[0]!
const enda = option(section(ENDA))
const soil = option(section(SOIL, [], { credits: 4 }))

const facts = (sign: Partial<SignOff>, over: Partial<RegistrationFacts> = {}): RegistrationFacts =>
  factsIn(
    { catalog, terms, term: terms[2]! },
    {
      signOff: {
        policy: 'term',
        given: { courses: [ENDA], alternatives: [], creditsMost: 18, conditions: [], until: null, ...sign },
        changed: false
      },
      ...over
    }
  )
const on = (condition: SignOffCondition) => ({ conditions: [condition] })
const refusals = (sign: Partial<SignOff>, over: Partial<RegistrationFacts> = {}, which = enda): Refusal[] =>
  decide(facts(sign, over), [which])[0]!.refusals
const seat = (of: typeof enda, credits: number) => ({
  held: [
    {
      course: of.course,
      term: termCode('AU27'),
      section: of.main.code as SectionCode,
      credits,
      placedByOffice: false
    }
  ],
  heldSections: [of.main]
})

describe('a least grade of another course', () => {
  const condition: SignOffCondition = { is: 'leastGrade', course: ENDA, of: STAT, grade: 'C' }
  it.each([
    ['B', true],
    ['C', true],
    ['C-', false],
    ['F', false]
  ])('finished with %s lets the course in: %s', (grade, isIn) => {
    const found = refusals(on(condition), { record: [entry(STAT, grade, { term: termCode('SP27') })] })
    expect(found).toEqual(isIn ? [] : [{ code: 'condition', condition }])
  })
  it('is assumed of a course under way, and said so', () => {
    const record = [entry(STAT, null, { term: termCode('SP27') })]
    const [decision] = decide(facts(on(condition), { record }), [enda])
    expect(decision).toMatchObject({
      refusals: [],
      assumed: [{ kind: 'course', course: STAT, leastGrade: 'C' }]
    })
  })
  it('is not met where it was never taken, and asks nothing of other courses', () => {
    expect(refusals(on(condition))).toEqual([{ code: 'condition', condition }])
    expect(refusals(on(condition), {}, soil)).toEqual([])
  })
})

describe('not both', () => {
  const condition: SignOffCondition = { is: 'notBoth', course: ENDA, other: SOIL }
  it('lets in either, and neither beside the other', () => {
    expect(refusals(on(condition))).toEqual([])
    expect(refusals(on(condition), {}, soil)).toEqual([])
    expect(refusals(on(condition), seat(soil, 4))).toEqual([{ code: 'condition', condition }])
    expect(refusals(on(condition), seat(enda, 3), soil)).toEqual([{ code: 'condition', condition }])
  })
  it('lets the first of two lines of a run in, and not the second', () => {
    const found = rehearse(facts(on(condition)), [soil, enda])
    expect(found.get(SOIL)!.refusals).toEqual([])
    expect(found.get(ENDA)!.refusals).toEqual([{ code: 'condition', condition }])
  })
})

describe('only with', () => {
  const condition: SignOffCondition = { is: 'onlyWith', course: ENDA, other: SOIL }
  it('asks for the other one, held or in the same run, whatever their order', () => {
    expect(refusals(on(condition))).toEqual([{ code: 'condition', condition }])
    expect(refusals(on(condition), seat(soil, 4))).toEqual([])
    const known = facts(on(condition))
    expect(groupLines([enda, soil], known)).toEqual([[enda, soil]])
    expect(decide(known, [enda, soil]).flatMap((line) => line.refusals)).toEqual([])
  })
  it('leaves the other one free', () => {
    expect(refusals(on(condition), {}, soil)).toEqual([])
  })
})

describe('the range of credits', () => {
  it('ends at its very last credit', () => {
    expect(refusals({ creditsMost: 7 }, seat(soil, 4))).toEqual([])
    expect(refusals({ creditsMost: 6 }, seat(soil, 4))).toEqual([
      { code: 'conditionCredits', credits: 7, most: 6 }
    ])
  })
  it('is set aside by a permission for the load', () => {
    const permissions = new Map([[enda.main.code, new Set(['load' as const])]])
    expect(refusals({ creditsMost: 6 }, { ...seat(soil, 4), permissions })).toEqual([])
  })
  it('does not keep a seat from being exchanged for one of as many credits', () => {
    const other = option(section(SOIL, [], { credits: 4 }))
    const over = { ...seat(soil, 4), exchanging: new Set([SOIL]) }
    expect(refusals({ creditsMost: 3 }, over, other)).toEqual([])
  })
})

describe('an end', () => {
  const until = Date.parse('2027-05-01T04:00:00Z')
  it('is the first instant at which it does not stand', () => {
    expect(refusals({ until }, { now: until - 1 })).toEqual([])
    expect(refusals({ until }, { now: until })).toEqual([{ code: 'signOff', ended: until, changed: false }])
  })
})

it('asks nothing in a term without a sign-off', () => {
  const condition: SignOffCondition = { is: 'onlyWith', course: ENDA, other: SOIL }
  const known = facts({ ...on(condition), creditsMost: 1 })
  const free = { ...known, signOff: { ...known.signOff, policy: 'none' as const } }
  expect(decide(free, [enda])[0]!.refusals).toEqual([])
  expect(groupLines([enda, soil], free)).toEqual([[enda], [soil]])
})
