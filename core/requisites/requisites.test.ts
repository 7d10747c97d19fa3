import { describe, expect, it } from 'vitest'
import { RuleError } from '../rules'
import { assumedLeaves, coursesIn, evaluateRule, missingPart, splitMissing, type AsOf } from './evaluate'
import { parseRule } from './rule'

const nothing: AsOf = {
  finishedBefore: () => [],
  inSameTerm: () => false,
  testScore: () => undefined,
  average: () => undefined,
  gradeToCome: () => false,
  standing: 'freshman',
  creditsByThen: 0,
  programs: [],
  permitted: false
}
const finished = (grades: Record<string, string | null>): AsOf => ({
  ...nothing,
  finishedBefore: (c) => (c in grades ? [grades[c]!] : [])
})
const judge = (text: string, asOf: AsOf) => evaluateRule(parseRule(text)!, asOf)

describe('reading a prerequisite', () => {
  it('binds "and" closer than "or"', () => {
    const rule = parseRule('MATH 125 or STAT 110 and STAT 212')
    expect(rule).toMatchObject({ kind: 'any', of: [{ course: 'MATH 125' }, { kind: 'all' }] })
  })
  it('reads grades with signs, tests, standing, credits, program, corequisite and permission', () => {
    const text =
      'STAT 212 (C+) and (MATH 125 or test math >= 70) and standing junior and 60 credits and program envd and with HYDR 331 and permission'
    expect(parseRule(text)).toMatchObject({
      kind: 'all',
      of: [
        { course: 'STAT 212', leastGrade: 'C+', sameTerm: false },
        { kind: 'any', of: [{ course: 'MATH 125' }, { kind: 'test', test: 'MATH', least: 70 }] },
        { kind: 'standing', standing: 'junior' },
        { kind: 'credits', credits: 60 },
        { kind: 'program', program: 'ENVD' },
        { course: 'HYDR 331', sameTerm: true },
        { kind: 'permission' }
      ]
    })
    expect(coursesIn(parseRule(text))).toEqual(['STAT 212', 'MATH 125', 'HYDR 331'])
  })
  it('reads course numbers with a second part or a letter', () => {
    expect(parseRule('MATH 10.101 (C) and ENGL F21a')).toMatchObject({
      of: [{ course: 'MATH 10.101', leastGrade: 'C' }, { course: 'ENGL F21A' }]
    })
  })
  it.each(['30a credits', 'test MATH >= 80b', 'average 2.5c', 'F2 of (STAT 110, STAT 212, MATH 125)'])(
    'takes no letters for an amount: %s',
    (text) => expect(() => parseRule(text)).toThrow(RuleError)
  )
  it('has no rule for an empty text', () => expect(parseRule('  ')).toBeUndefined())
  it.each([
    ['STAT', 'expected a course number, found the end at position 5 of "STAT"'],
    ['STAT 212 (Z)', '"Z" is not a grade at position 11'],
    ['standing wizard', '"wizard" is not one of freshman'],
    ['(MATH 125', 'expected ")", found the end'],
    ['MATH 125 STAT 110', 'expected "and", "or" or the end, found "STAT"'],
    ['test MATH > 70', 'expected ">=", found ">"'],
    ['60 points', 'expected "credits" or "of", found "points"'],
    ['MATH 125 & STAT 110', 'unexpected "&" at position 10']
  ])('quotes "%s" with the fault', (text, message) => {
    expect(() => parseRule(text)).toThrow(RuleError)
    expect(() => parseRule(text)).toThrow(message)
  })
})

describe('judging a prerequisite', () => {
  it('asks for the least grade', () => {
    expect(judge('STAT 212 (C)', finished({ 'STAT 212': 'C' })).met).toBe(true)
    expect(judge('STAT 212 (C)', finished({ 'STAT 212': 'C-' })).met).toBe(false)
    expect(judge('STAT 212', finished({ 'STAT 212': 'F' })).met).toBe(false)
  })
  it('assumes what is not graded yet, and says so', () => {
    const result = judge('STAT 212 (C)', finished({ 'STAT 212': null }))
    expect(result).toMatchObject({ met: true, assumed: true })
    expect(assumedLeaves(result)).toMatchObject([{ course: 'STAT 212' }])
  })
  it('assumes nothing when another way is certain', () => {
    const result = judge('STAT 212 or MATH 125', finished({ 'STAT 212': null, 'MATH 125': 'B' }))
    expect(result).toMatchObject({ met: true, assumed: false })
    expect(assumedLeaves(result)).toEqual([])
  })
  it('lets a corequisite be taken in the same term, a prerequisite not', () => {
    const together = { ...nothing, inSameTerm: () => true }
    expect(judge('with HYDR 331', together).met).toBe(true)
    expect(judge('HYDR 331', together).met).toBe(false)
  })
  it('asks a corequisite that was taken before for its grade, and one that is taken along for none yet', () => {
    const along = (grades: Record<string, string | null>) => ({ ...finished(grades), inSameTerm: () => true })
    expect(judge('with STAT 110 (C)', finished({ 'STAT 110': 'D' })).met).toBe(false)
    expect(judge('with STAT 110 (C)', finished({ 'STAT 110': 'C' }))).toMatchObject({
      met: true,
      assumed: false
    })
    expect(judge('with STAT 110 (C)', along({ 'STAT 110': 'D' }))).toMatchObject({ met: true, assumed: true })
    expect(judge('with STAT 110 (C)', nothing).met).toBe(false)
  })
  it('asks for so many of several, each of which may be a rule', () => {
    const rule = '2 of (STAT 110, MATH 125 (C), test MATH >= 70 or permission)'
    expect(judge(rule, finished({ 'STAT 110': 'B' })).met).toBe(false)
    expect(judge(rule, finished({ 'STAT 110': 'B', 'MATH 125': 'D' })).met).toBe(false)
    expect(judge(rule, finished({ 'STAT 110': 'B', 'MATH 125': 'C' }))).toMatchObject({
      met: true,
      assumed: false
    })
    expect(judge(rule, finished({ 'STAT 110': 'B', 'MATH 125': null }))).toMatchObject({
      met: true,
      assumed: true
    })
    expect(judge(rule, { ...finished({ 'STAT 110': 'B' }), permitted: true }).met).toBe(true)
    expect(missingPart(judge(rule, nothing))).toMatchObject({ kind: 'some', least: 2 })
    expect(missingPart(judge(rule, finished({ 'STAT 110': 'B' })))).toMatchObject({
      kind: 'any',
      of: [{ course: 'MATH 125' }, { kind: 'any' }]
    })
  })
  it('reads one of several as any of them, and all of them as a list', () => {
    expect(parseRule('1 of (STAT 110, MATH 125)')).toMatchObject({ kind: 'any' })
    expect(parseRule('2 of (STAT 110, MATH 125)')).toMatchObject({ kind: 'all' })
    expect(() => parseRule('3 of (STAT 110, MATH 125)')).toThrow('3 of 2 cannot be asked for')
    expect(() => parseRule('0 of (STAT 110)')).toThrow('0 of 1 cannot be asked for')
    expect(() => parseRule('2 STAT 110')).toThrow('expected "credits" or "of"')
  })
  it('names every way that would do, and of a list what is not there yet', () => {
    const sixty = { ...nothing, creditsByThen: 60 }
    expect(missingPart(judge('MATH 125 or test MATH >= 70', nothing))).toMatchObject({
      kind: 'any',
      of: [{ course: 'MATH 125' }, { test: 'MATH' }]
    })
    expect(missingPart(judge('MATH 125 and 60 credits', sixty))).toMatchObject({ course: 'MATH 125' })
    expect(missingPart(judge('60 credits', sixty))).toBeUndefined()
  })
  it('reads an average, of everything or of some courses, and refuses one that nobody can have', () => {
    expect(parseRule('average 2.5')).toEqual({ kind: 'average', least: 2.5 })
    expect(parseRule('average 3 of (STAT 110, STAT 212) and MATH 125')).toMatchObject({
      kind: 'all',
      of: [{ kind: 'average', least: 3, courses: ['STAT 110', 'STAT 212'] }, { course: 'MATH 125' }]
    })
    for (const [rule, fault] of [
      ['average 4.5', 'an average of 4.5 cannot be asked for at position 9'],
      ['average 0', 'an average of 0 cannot be asked for'],
      ['average of (STAT 110)', 'expected an average such as 2.5'],
      ['average 2 of STAT 110', 'expected "("'],
      ['average 2 of (STAT)', 'expected a course number']
    ] as const)
      expect(() => parseRule(rule)).toThrow(fault)
    expect(coursesIn(parseRule('average 3 of (STAT 110, STAT 212)'))).toEqual(['STAT 110', 'STAT 212'])
  })
  it('holds an average in hundredths; below it a grade still to come is enough, and assumed', () => {
    const rule = 'average 2.5 of (STAT 110, STAT 212)'
    const asOf = (average: number | undefined, toCome = false): AsOf => ({
      ...nothing,
      average: () => average,
      gradeToCome: () => toCome
    })
    const held = (found: AsOf) => {
      const { met, assumed } = judge(rule, found)
      return { met, assumed }
    }
    expect(held(asOf(2.495))).toEqual({ met: true, assumed: false })
    expect(held(asOf(2.494))).toEqual({ met: false, assumed: false })
    expect(held(asOf(2.494, true))).toEqual({ met: true, assumed: true })
    expect(held(asOf(undefined))).toEqual({ met: false, assumed: false })
    expect(held(asOf(undefined, true))).toEqual({ met: true, assumed: true })
  })
  it('takes apart what has to come before and what may be taken along', () => {
    const split = (rule: string) => splitMissing(missingPart(judge(rule, nothing)))
    expect(split('STAT 110 and with HYDR 332')).toMatchObject({
      before: { course: 'STAT 110' },
      together: { course: 'HYDR 332' }
    })
    expect(split('with HYDR 331 and with HYDR 332').before).toBeUndefined()
    expect(split('STAT 110 or with HYDR 332')).toMatchObject({ before: { kind: 'any' }, together: undefined })
    const planning = splitMissing(
      missingPart(judge('(STAT 110 or permission) and permission', nothing)),
      (leaf) => leaf.kind === 'permission'
    )
    expect(planning).toMatchObject({ before: { course: 'STAT 110' }, together: undefined })
  })
  it('compares scores, standing, programs and permission', () => {
    expect(judge('test MATH >= 70', { ...nothing, testScore: () => 70 }).met).toBe(true)
    expect(judge('standing junior', { ...nothing, standing: 'senior' }).met).toBe(true)
    expect(judge('standing junior', { ...nothing, standing: 'sophomore' }).met).toBe(false)
    expect(judge('program ENVD', { ...nothing, programs: ['ENVD'] }).met).toBe(true)
    expect(judge('permission', nothing).met).toBe(false)
  })
})
