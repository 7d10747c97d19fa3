import { readdirSync, readFileSync } from 'node:fs'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { parse } from 'yaml'
import { Catalog, type Course } from '#core/catalog'
import { courseCode } from '#core/ids'
import { programFile, type programShape } from '#shared/fileShapes'
import type { z } from 'zod'
import { programText, readProgramText } from './programText'

const course = (code: string, credits = 3): Course => ({
  code: courseCode(code),
  title: code,
  credits,
  creditsMost: credits,
  level: 'undergraduate',
  yearLevel: 1,
  offered: { seasons: ['autumn'], years: 'every' },
  prerequisite: '',
  categories: [],
  equivalents: [],
  exclusive: [],
  repeatable: false
})
const catalog = new Catalog(['MATH 101', 'MATH 102', 'STAT 101', 'STAT 102'].map((code) => course(code)))
const context = { catalog, lists: [], expects: { code: 'PROG', catalogYear: '2028-29' } }

const PROGRAM = `code: PROG
title: A program
shortTitle: Program
kind: minor
catalogYear: 2028-29
credits: 6
areas:
  - id: numbers
    title: Numbers
    needs:
      - id: first
        title: One of mathematics
        measure: courses
        amount: 1
        credits: 3
        from: MATH 101, 102
      - id: second
        title: One of statistics
        measure: courses
        amount: 1
        credits: 3
        from: STAT *
`
const read = (text: string) => readProgramText(text, context)
/** Each fault with the words that it marks. */
const marked = (text: string) =>
  read(text).faults.map(({ from, to, line, message }) => ({ at: text.slice(from, to), line, message }))
const with_ = (was: string, is: string) => PROGRAM.replace(was, is)

describe('a program as text', () => {
  it('is read as it is written', () => {
    const { spec, faults } = read(PROGRAM)
    expect(faults).toEqual([])
    expect(spec).toMatchObject({ code: 'PROG', credits: 6 })
    expect(spec!.areas[0]!.needs.map((one) => one.id)).toEqual(['first', 'second'])
  })

  it('marks the field that has another kind of value, and what a missing one is missing in', () => {
    expect(marked(with_('credits: 6', 'credits: six'))).toEqual([
      { at: 'six', line: 6, message: 'credits has to be of type number.' }
    ])
    expect(marked(with_('        amount: 1\n', ''))).toEqual([
      { at: 'id: first', line: 11, message: 'amount is needed.' }
    ])
    expect(marked(with_('kind: minor', 'kind: hobby'))[0]).toMatchObject({ at: 'hobby', line: 4 })
  })

  it('marks a field that nobody knows', () => {
    expect(marked(with_('from: STAT *', 'form: STAT *')).map((one) => one.message)).toContain(
      'form is not a field that is known here.'
    )
  })

  it('marks the word of a rule that cannot be read', () => {
    expect(marked(with_('MATH 101, 102', 'MATH 101 xor MATH 102'))).toEqual([
      { at: 'xor', line: 16, message: expect.stringContaining('xor') as string }
    ])
    expect(marked(with_('MATH 101, 102', '"MATH 101 xor MATH 102"'))[0]!.at).toBe('xor')
  })

  it('marks a course that the catalog does not have, where it is named', () => {
    expect(marked(with_('MATH 101, 102', 'MATH 101 or MATH 999 or MATH 102'))).toEqual([
      {
        at: 'MATH 999',
        line: 16,
        message: 'The catalog has no course MATH 999, named in "MATH 101 or MATH 999 or MATH 102".'
      }
    ])
  })

  it('refuses a need that no catalog can meet', () => {
    const [fault] = marked(
      with_(
        'amount: 1\n        credits: 3\n        from: STAT',
        'amount: 3\n        credits: 3\n        from: STAT'
      )
    )
    expect(fault).toMatchObject({
      at: 'STAT *',
      message: expect.stringMatching(/can give 2 at most/) as string
    })
  })

  it('marks the total that the areas do not add up to', () => {
    expect(marked(with_('credits: 6', 'credits: 9'))).toEqual([
      { at: '9', line: 6, message: 'The areas add up to 6 credits, the program says 9.' }
    ])
  })

  it('marks the second of two with the same id', () => {
    expect(marked(with_('id: second', 'id: first'))).toEqual([
      { at: 'id: first', line: 17, message: 'This id is used twice.' }
    ])
  })

  it('stays the program and the year that it is a version of', () => {
    expect(marked(with_('2028-29', '2029-30'))).toEqual([
      { at: '2029-30', line: 5, message: 'catalogYear has to stay "2028-29".' }
    ])
  })

  it('keeps the names of a program that is published', () => {
    const expects = { ...context.expects, title: 'A program', kind: 'minor' as const }
    const { faults } = readProgramText(with_('kind: minor', 'kind: degree'), { ...context, expects })
    expect(faults.map((one) => one.message)).toEqual(['kind has to stay "minor".'])
  })

  it('says of a text that is not YAML where it stops being so', () => {
    const [fault] = marked(with_('kind: minor', 'kind: [minor'))
    expect(fault!.message).toMatch(/^This is not YAML/)
    expect(fault!.line).toBeGreaterThan(3)
  })

  it('refuses references to other places', () => {
    const text = with_('from: MATH 101, 102', 'from: &set MATH 101, 102').replace(
      'from: STAT *',
      'from: *set'
    )
    expect(marked(text)[0]!.message).toBe('Anchors and references cannot stand in a program.')
  })

  it('of any text, says something and never throws', () => {
    const pieces = fc.constantFrom(
      'areas:',
      '- ',
      'id: a',
      '\n',
      '  ',
      ': ',
      '[',
      '{',
      '&a',
      '*a',
      '"',
      '|',
      '\t',
      'needs:',
      'é',
      '---',
      '%'
    )
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc.array(pieces, { maxLength: 40 }).map((all) => all.join(''))
        ),
        (text) => {
          const { faults } = read(text)
          expect(faults.length).toBeGreaterThan(0)
          for (const { from, to } of faults) expect(0 <= from && from <= to && to <= text.length).toBe(true)
        }
      ),
      { seed: 20, numRuns: 400 }
    )
  })

  it.each([`${'['.repeat(20_000)}`, `areas: ${'{a: '.repeat(5000)}`])('stands deep nesting', (text) => {
    expect(read(text).faults.length).toBeGreaterThan(0)
  })

  const folder = new URL('../../demo/programs/', import.meta.url)
  const programs = readdirSync(folder)
    .map(
      (name) =>
        JSON.parse(readFileSync(new URL(name, folder), 'utf8')) as { program?: z.infer<typeof programShape> }
    )
    .flatMap(({ program }) => (program ? [program] : []))

  it.each(programs.map((one) => [one.code, one] as const))(
    'holds all of %s, and nothing else',
    (_, program) => {
      const text = programText(program)
      // The reference library reads it: https://yaml.org/spec/1.2.2
      expect(parse(text)).toEqual(program)
      expect(programFile.shape.program.parse(parse(text))).toEqual(program)
    }
  )
})
