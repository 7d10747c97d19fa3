import { describe, expect, it } from 'vitest'
import { Catalog, type Course } from '#core/catalog'
import { courseCode } from '#core/ids'
import { completionsAt } from './programCompletion'

const course = (code: string, title: string): Course => ({
  code: courseCode(code),
  title,
  ...{ credits: 3, creditsMost: 3, level: 'undergraduate', yearLevel: 1, prerequisite: '' },
  ...{ offered: { seasons: ['autumn'], years: 'every' }, categories: [], equivalents: [], exclusive: [] },
  repeatable: false
})
const context = {
  catalog: new Catalog([
    course('ENVI 101', 'The Living Landscape'),
    course('ENVI 310', 'Wetlands'),
    course('STAT 212', 'Inference')
  ]),
  lists: [
    { name: 'field-electives', title: 'Field electives' },
    { name: 'field-electives', title: 'Field electives' }
  ],
  categories: [{ code: 'lab', title: 'Laboratory' }]
}
/** What is offered, and the line with the first of it. */
const offered = (line: string) => {
  const found = completionsAt(line, context)
  return (
    found && {
      labels: found.options.map((one) => one.label),
      first: line.slice(0, found.from) + found.options[0]!.label
    }
  )
}

describe('completion of a program’s text', () => {
  it('names the fields where one begins', () => {
    expect(offered('      - me')!.labels).toContain('measure: ')
    expect(offered('      - me')!.first).toBe('      - id: ')
  })

  it('names subjects and the words of a course set', () => {
    expect(offered('    from: ENVI 101 or ')!.labels).toEqual(
      expect.arrayContaining(['ENVI', 'STAT', 'category', 'without'])
    )
    expect(offered('    from: ENVI 101 or S')!.first).toBe('    from: ENVI 101 or ENVI')
  })

  it('names the courses of a subject, with their titles', () => {
    expect(completionsAt('    from: ENVI ', context)!.options).toEqual([
      { label: '101', detail: 'The Living Landscape' },
      { label: '310', detail: 'Wetlands' }
    ])
    expect(offered('    - from: STAT 2')!.first).toBe('    - from: STAT 212')
  })

  it('names lists and categories, each once', () => {
    expect(offered('from: list f')!.labels).toEqual(['field-electives'])
    expect(offered('from: STAT * or category ')!.labels).toEqual(['lab'])
  })

  it('names the values of fields that have but a few', () => {
    expect(offered('  measure: c')).toEqual({ labels: ['courses', 'credits'], first: '  measure: courses' })
    expect(offered('  leastGrade: ')!.labels).toContain('B+')
  })

  it('offers nothing where anything may be written', () => {
    expect(completionsAt('  title: me', context)).toBeUndefined()
    expect(completionsAt('  note: from here', context)).toBeUndefined()
  })
})
