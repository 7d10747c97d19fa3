/** The parsers under random texts: they refuse in words or read, and never do anything else. */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { compileProgram, parseCourseSet, ProgramError } from '#core/degree'
import { leavesOf, parseRule } from '#core/requisites'
import { programFile, catalogFile } from '#shared/fileShapes'
import { recordFile } from '#shared/record/recordShape'
import { programFrom, readFileText } from '#shared/files'
import { course } from '../../core/testing/build'

const word = fc.constantFrom(
  ...'ENVI STAT or and without ( ) , * + - >= level category graduate undergraduate any list mode campus online test MATH'.split(
    ' '
  ),
  ...'with standing junior permission program credits 101 300 310-499 15L 094 3.5 C B+ F & ; é 0 \u0000'.split(
    ' '
  )
)
const text = fc.oneof(
  fc.array(word, { minLength: 1, maxLength: 4 }).map((words) => words.join(' ')),
  fc.array(word, { maxLength: 30 }).map((words) => words.join(' ')),
  fc.array(word, { maxLength: 30 }).map((words) => words.join('')),
  fc.string({ maxLength: 60 })
)
/** The name of what a function threw; undefined when it went through. */
function thrown(work: () => unknown): string | undefined {
  try {
    work()
    return undefined
  } catch (error) {
    return (error as Error).name
  }
}

describe('random texts', () => {
  it('are read as course sets or refused with a place (5000 texts, seed 20270601)', () => {
    let read = 0
    fc.assert(
      fc.property(text, (rule) => {
        const refused = thrown(() => {
          const set = parseCourseSet(rule, new Map([['envi', 'ENVI *']]))
          set.has(course('ENVI 310'), { campus: null, mode: 'online' })
          read++
        })
        expect([undefined, 'RuleError']).toContain(refused)
      }),
      { seed: 20270601, numRuns: 5000 }
    )
    expect(read).toBeGreaterThan(100)
  })
  it('are read as prerequisites or refused with a place (5000 texts, seed 20270602)', () => {
    let read = 0
    fc.assert(
      fc.property(text, (rule) => {
        const refused = thrown(() => parseRule(rule) && read++)
        expect([undefined, 'RuleError']).toContain(refused)
      }),
      { seed: 20270602, numRuns: 5000 }
    )
    expect(read).toBeGreaterThan(30)
  })
  it('deep ones are refused, and long ones read', () => {
    const deep = '('.repeat(50_000)
    expect(thrown(() => parseCourseSet(deep))).toBe('RuleError')
    expect(thrown(() => parseRule(deep))).toBe('RuleError')
    const lists = new Map(Array.from({ length: 9000 }, (_, i) => [`l${i}`, `list l${i + 1}`]))
    expect(thrown(() => parseCourseSet('list l0', lists))).toBe('RuleError')
    const codes = Array.from({ length: 20_000 }, (_, i) => `ENVI ${100 + (i % 800)}`)
    const set = parseCourseSet(codes.join(', '))
    expect(set.listed).toEqual(codes)
    expect(set.has(course('ENVI 899'))).toBe(true)
    expect(set.has(course('ENVI 900'))).toBe(false)
    const narrowed = parseCourseSet(`any ${'and ENVI * '.repeat(20_000)}without ENVI 899`)
    expect([narrowed.has(course('ENVI 898')), narrowed.has(course('ENVI 899'))]).toEqual([true, false])
    expect(leavesOf(parseRule(codes.join(' or ')))).toHaveLength(20_000)
    expect(leavesOf(parseRule(codes.join(' and ')))).toHaveLength(20_000)
  })
})

describe('random files', () => {
  const value = fc.letrec((tie) => ({
    any: fc.oneof(
      { maxDepth: 5 },
      fc.constantFrom(null, true, 0, -1, 1e9, '', 'ENVI 101', 'a', 'AU27', 'ridgeway program 1'),
      fc.array(tie('any'), { maxLength: 4 }),
      fc.dictionary(
        fc.constantFrom(
          'format',
          'program',
          'areas',
          'needs',
          'of',
          'choose',
          'id',
          'title',
          'from',
          'amount',
          'record',
          'courses',
          'code',
          '__proto__'
        ),
        tie('any'),
        { maxKeys: 6 }
      )
    )
  })).any
  it('are refused in words, whatever they hold (1500 files, seed 20270603)', () => {
    fc.assert(
      fc.property(value, (file) => {
        for (const shape of [programFile, recordFile, catalogFile]) {
          const read = readFileText(JSON.stringify(file), shape as typeof programFile)
          if (!read.ok) expect(read.faults.every((fault) => fault.message.length > 3)).toBe(true)
        }
      }),
      { seed: 20270603, numRuns: 1500 }
    )
  })
  it('of the right shape are compiled or refused with a path (800 programs, seed 20270604)', () => {
    const id = fc.constantFrom('a', 'b', 'c', 'd', 'e', 'f')
    const amount = fc.constantFrom(-1, 0, 0.5, 1, 2, 3, 6, 1e8)
    const need = fc.record({
      id,
      title: fc.constant('N'),
      measure: fc.constantFrom('courses', 'credits'),
      amount,
      credits: amount,
      from: fc.constantFrom('ENVI 101', 'any', 'ENVI *', 'ENVI 9-1', '', 'list gone')
    })
    const choice = fc.record({
      id,
      title: fc.constant('C'),
      choose: amount,
      of: fc.array(fc.record({ id, title: fc.constant('B'), needs: fc.array(need, { maxLength: 2 }) }), {
        maxLength: 3
      })
    })
    const area = fc.record({
      id,
      title: fc.constant('A'),
      needs: fc.array(fc.oneof(need, choice), { maxLength: 3 })
    })
    let compiled = 0
    fc.assert(
      fc.property(fc.array(area, { minLength: 1, maxLength: 3 }), amount, (areas, credits) => {
        const file = {
          format: 'ridgeway program 1',
          program: {
            code: 'TEST',
            title: 'T',
            shortTitle: 'T',
            kind: 'degree',
            catalogYear: '2025-26',
            credits,
            areas
          }
        }
        const read = readFileText(JSON.stringify(file), programFile)
        if (!read.ok) return
        try {
          compileProgram(programFrom(read.value))
          compiled++
        } catch (error) {
          expect(error).toBeInstanceOf(ProgramError)
          expect((error as ProgramError).path.startsWith('TEST')).toBe(true)
        }
      }),
      { seed: 20270604, numRuns: 800 }
    )
    expect(compiled).toBeGreaterThan(5)
  })
})
