/** Records and sections as tables on the command line, and its answers as tables. */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import Papa from 'papaparse'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { main } from '../../tools/cli/main'

let folder: string
beforeAll(() => (folder = mkdtempSync(join(tmpdir(), 'ridgeway-tables-'))))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

function file(name: string, value: object | string): string {
  writeFileSync(join(folder, name), typeof value === 'string' ? value : JSON.stringify(value))
  return join(folder, name)
}
async function run(...args: string[]) {
  const [out, err] = [vi.spyOn(console, 'log'), vi.spyOn(console, 'error')].map((spy) => {
    const lines: string[] = []
    spy.mockImplementation((line: string) => void lines.push(line))
    return lines
  })
  const code = await main(args)
  vi.restoreAllMocks()
  return { code, out: out!.join('\n'), err: err!.join('\n').replaceAll(`${folder}/`, '') }
}
const rowsOf = (text: string) =>
  Papa.parse<Record<string, string>>(text, { header: true, skipEmptyLines: true }).data

const course = (code: string) => ({
  ...{
    code,
    title: code,
    credits: 3,
    creditsMost: 3,
    level: 'undergraduate',
    yearLevel: 1,
    prerequisite: ''
  },
  ...{ offered: { seasons: ['autumn', 'spring'], years: 'every' }, categories: [], equivalents: [] },
  ...{ exclusive: [], repeatable: false }
})
const need = { id: 'any', title: 'Any', measure: 'credits', amount: 12, credits: 12, from: 'any' }
const asked = () => [
  '--catalog',
  file('C.json', {
    format: 'ridgeway catalog 1',
    courses: ['ENVI 101', 'ENVI 102', 'STAT 110', 'WRIT 101'].map(course)
  }),
  '--program',
  file('P.json', {
    format: 'ridgeway program 1',
    program: {
      ...{
        code: 'ANY',
        title: 'Any',
        shortTitle: 'Any',
        kind: 'degree',
        catalogYear: '2025-26',
        credits: 12
      },
      areas: [{ id: 'area', title: 'Area', needs: [need] }]
    }
  })
]
const audit = (record: string, ...more: string[]) => run('audit', ...asked(), '--record', record, ...more)

const TABLE = [
  'course,term,credits,grade,origin,status',
  'ENVI 101,AU26,3,"B+",,',
  'ENVI 102,,3,TR,transfer,taken',
  '',
  'STAT 110,SP27,3,,,',
  'WRIT 101,AU27,3,,,registered',
  'WRIT 101,SP28,3,,,planned'
].join('\r\n')

describe('a record as a table', () => {
  it('is read as the file that says the same, whatever the order of its columns', async () => {
    const same = file('R.json', {
      format: 'ridgeway record 1',
      record: [
        { course: 'ENVI 101', term: 'AU26', credits: 3, grade: 'B+' },
        { course: 'ENVI 102', term: null, credits: 3, grade: 'TR', origin: 'transfer' },
        { course: 'STAT 110', term: 'SP27', credits: 3, grade: null }
      ],
      registered: [{ course: 'WRIT 101', term: 'AU27', credits: 3 }],
      planned: [{ course: 'WRIT 101', term: 'SP28', credits: 3 }]
    })
    const expected = await audit(same, '--json')
    expect(JSON.parse(expected.out).programs[0].amounts).toMatchObject({
      ...{ earned: 6, underWay: 3, registered: 3, planned: 0, needed: 0 }
    })
    expect(await audit(file('R.csv', `\uFEFF${TABLE}`), '--json')).toEqual(expected)
    const [header, ...rows] = Papa.parse<string[]>(TABLE, { skipEmptyLines: true }).data
    const turned = [header!, ...rows].map((row) => row.toReversed())
    expect(await audit(file('R2.csv', Papa.unparse(turned)), '--json')).toEqual(expected)
  })

  it.each([
    ['course,term\nENVI 101,AU26', 'R.csv: row 1: has to have a column credits'],
    [
      'course,term,credits,mark\n',
      'R.csv: row 1: has a column "mark"; the columns are course, term, credits'
    ],
    ['course,term,credits,course\n', 'R.csv: row 1: has the column course twice'],
    [`${TABLE}\r\nSTAT 110,SP28,three,,,`, 'R.csv: row 8/credits: '],
    [`${TABLE}\r\nSTAT 110,SP28,0x3,,,`, 'R.csv: row 8/credits: '],
    [`${TABLE}\r\nSTAT 110,SP28,,,,`, 'R.csv: row 8/credits: '],
    [`${TABLE}\r\nSTAT,SP28,3,,,`, 'R.csv: row 8/course: '],
    [`${TABLE}\r\nSTAT 110,SP28,3,Q,,`, 'R.csv: row 8/grade: the grade scale has no "Q"'],
    [`${TABLE}\r\nSTAT 110,SP28,3,A,,planned`, 'R.csv: row 8/grade: has to be empty of what is planned'],
    [
      `${TABLE}\r\nSTAT 110,SP28,3,,,hoped`,
      'R.csv: row 8/status: has to be taken, registered, planned or nothing'
    ],
    [`${TABLE}\r\nSTAT 110,,3,,,planned`, 'R.csv: row 8/term: '],
    [`${TABLE}\r\nSTAT 110,SP28,3,,,,,`, 'R.csv: row 8: has 8 cells, and there are 6 columns']
  ])('that is wrong is told by its row: %s', async (text, fault) => {
    const { code, err } = await audit(file('R.csv', text))
    expect(code).toBe(1)
    expect(err).toContain(fault)
  })

  it('is checked, and what is said of it is a table too', async () => {
    expect(await run('check', file('R.csv', TABLE))).toMatchObject({ code: 0, out: '1 files, no fault.' })
    const { out } = await audit(file('R.csv', TABLE), '--csv')
    expect(rowsOf(out).map((row) => [row.course, row.state])).toEqual([
      ['ENVI 102', 'registered'],
      ['ENVI 101', 'registered'],
      ['STAT 110', 'registered'],
      ['WRIT 101', 'registered'],
      ['WRIT 101', 'outside']
    ])
  })
})

const SECTIONS = [
  'code,term,course,number,parent,days,start,end,from,to,capacity,taken,instructors',
  'E1,AU27,ENVI 101,01,,MW,9:30,10:45,2027-08-30,2027-12-17,20,20,Ada Vane; Bo Lind',
  'S1,AU27,STAT 110,01,,MW,11:00,12:15,2027-08-30,2027-10-15,,,',
  'S1,AU27,,,,TR,11:00,12:15,2027-10-18,2027-12-17,,,',
  'L1,AU27,STAT 110,01A,S1,F,9:00,11:00,2027-08-30,2027-12-17,,,',
  'O1,AU27,WRIT 101,01,,,,,,,,,'
].join('\n')
const weeks = (table: string, ...more: string[]) =>
  run(
    ...['weeks', '--sections', file('S.csv', table), '--want'],
    file('W.json', { format: 'ridgeway want 1', courses: ['ENVI 101', 'STAT 110', 'WRIT 101'] }),
    ...more
  )

describe('sections as a table', () => {
  it('are a row for each meeting; the weeks that fit are a table as well', async () => {
    const { code, out } = await weeks(SECTIONS, '--csv')
    expect(code).toBe(0)
    expect(rowsOf(out)).toEqual([
      {
        week: '1',
        courses: 'ENVI 101-01; STAT 110-01+01A; WRIT 101-01',
        sections: 'E1 S1 L1 O1',
        days: '5',
        'first start': '09:00',
        'last end': '12:15',
        'minutes between': '30'
      }
    ])
  })

  it.each([
    [
      SECTIONS.replace('O1,AU27', 'O1,SP28'),
      'S.csv: has sections of AU27 and SP28; it has to be of one term'
    ],
    [
      SECTIONS.replace('S1,AU27,,,,TR', 'S1,AU27,ENVI 102,,,TR'),
      'S.csv: row 4/course: has to be as in the first row of S1, or empty'
    ],
    [SECTIONS.replace('TR,11:00', 'TR,25:00'), 'S.csv: row 4/start: has to be a time such as 9:30 or 16:45'],
    [SECTIONS.replace('F,9:00,11:00', 'F,9:00,'), 'S.csv: row 5/end: '],
    [SECTIONS.replace('01A,S1', '01A,S9'), 'S.csv: row 5/parent: there is no section S9 in this file'],
    [SECTIONS.replace('17,20,20', '17,many,20'), 'S.csv: row 2/capacity: ']
  ])('that are wrong are told by their row', async (table, fault) => {
    const { code, err } = await weeks(table)
    expect(code).toBe(1)
    expect(err).toContain(fault)
  })
})
