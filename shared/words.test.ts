import { describe, expect, it } from 'vitest'
import type { RefusalCode } from '#core/findings'
import { courseCode } from '#core/ids'
import { parseRule } from '#core/requisites'
import { REFUSALS } from './testing/refusals'
import { creditsText } from './words'
import { forecastText } from '#shared/degree/texts'
import { leafText, leavesText, ruleText } from '#shared/catalog/texts'
import { refusalText, wayOut } from '#shared/registration/texts'

describe('rules', () => {
  it.each([
    ['HERI 220 and CHEM 101', 'HERI 220 and CHEM 101'],
    ['HERI 220 or CHEM 101 or 60 credits', 'HERI 220, CHEM 101 or 60 credits earned by then'],
    ['HERI 220 and (CHEM 101 or STAT 110 (C))', 'HERI 220 and (CHEM 101 or STAT 110 with C or better)']
  ])('"%s" reads "%s"', (rule, text) => {
    expect(ruleText(parseRule(rule)!)).toBe(text)
  })
})

describe('refusals', () => {
  const refusal = (code: RefusalCode) => REFUSALS.find((one) => one.code === code)!
  it('have a sentence of their own each', () => {
    const sentences = REFUSALS.map((refusal) => refusalText(refusal, 'UTC'))
    expect(new Set(sentences).size).toBe(REFUSALS.length)
    for (const sentence of sentences) expect(sentence).toMatch(/^[A-Z].*\.$/)
  })
  it('say amounts with two decimals and who can lift a hold', () => {
    expect(refusalText(refusal('hold'), 'UTC')).toBe(
      'Hold: library fine 14.50. Only Library desk can lift it.'
    )
  })
  it('count the seats that are kept for others', () => {
    const said = REFUSALS.filter(({ code }) => code === 'reserved').map((one) => refusalText(one, 'UTC'))
    expect(said).toEqual([
      'The 4 seats left of the lecture are kept for others.',
      'The last seat of the lab is kept for others.'
    ])
  })
  it('offer a way out where the student has one', () => {
    const of = (code: RefusalCode) => wayOut(refusal(code))
    expect(of('full')).toBe('Pick another section')
    expect(of('prerequisite')).toBe('Change the route')
    expect(of('signOff')).toBeUndefined()
  })
})

describe('words', () => {
  it('say what a target asks for', () => {
    expect(forecastText({ kind: 'possible', least: 3.714 }, 3.5, 72)).toBe(
      'It takes an average of 3.72 over the 72 credits still to come.'
    )
    expect(forecastText({ kind: 'outOfReach', best: 3.4 }, 3.9, 9)).toContain('Out of reach')
    // No figure that would do, nor one that cannot be had.
    expect(forecastText({ kind: 'outOfReach', best: 2.996 }, 3, 9)).toContain('it would be 2.99.')
    expect(forecastText({ kind: 'possible', least: 3.2 }, 3, 60)).toContain('average of 3.20 over')
    expect(forecastText({ kind: 'reached', least: 0 }, 2, 9)).toContain('2.00 is kept')
    expect(forecastText({ kind: 'nothingLeft' }, 2, 0)).toContain('No credits')
  })
  it('count one and many', () => {
    expect([1, 2, 2.5].map(creditsText)).toEqual(['1 credit', '2 credits', '2.5 credits'])
  })
  it('read a rule aloud', () => {
    const stat = { kind: 'course' as const, course: courseCode('STAT 212'), leastGrade: 'C', sameTerm: false }
    expect(leafText(stat)).toBe('STAT 212 with C or better')
    expect(leavesText([stat, { kind: 'standing', standing: 'junior' }, { kind: 'permission' }], 'or')).toBe(
      'STAT 212 with C or better, third year standing or permission of the department'
    )
  })
})
