/** Columns and values as in the OneRoster CSV binding 1.2 of 1EdTech, from memory. */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { planRoster, presentOf } from './plan'
import { readRoster } from './read'
import { COLUMNS, headerOf, TABLES, type Row, type Table } from './tables'
import { writeRoster } from './write'

/** A set of a small institution, without ids of ours. */
const SET: Record<Table, Row[]> = {
  orgs: [
    { sourcedId: 'o1', name: 'Quillmoor', type: 'district', 'metadata.timeZone': 'Europe/Oslo' },
    { sourcedId: 'o2', name: 'Old Mill', type: 'school', identifier: 'MILL', parentSourcedId: 'o1' }
  ],
  grades: [
    { sourcedId: 'g1', grade: 'A+', points: '4.3', result: 'earned', rank: '4.3' },
    { sourcedId: 'g2', grade: 'WD', result: 'withdrawn', rank: '0' }
  ],
  academicSessions: [
    {
      sourcedId: 't1',
      title: 'Autumn 2026',
      type: 'term',
      startDate: '2026-08-24',
      endDate: '2026-12-18',
      schoolYear: '2027'
    }
  ],
  courses: [
    {
      sourcedId: 'c1',
      title: 'Peat, "wet" and dry',
      courseCode: 'PEAT 101',
      orgSourcedId: 'o1',
      'metadata.credits': '4'
    }
  ],
  classes: [
    {
      sourcedId: 'k1',
      title: 'Peat',
      courseSourcedId: 'c1',
      classCode: '01',
      classType: 'scheduled',
      schoolSourcedId: 'o2',
      termSourcedIds: 't1',
      'metadata.seats': '20',
      'metadata.meetings': 'MW 09:30-10:45'
    }
  ],
  users: [
    {
      sourcedId: 'u1',
      enabledUser: 'true',
      username: 'runa',
      givenName: 'Rúna',
      familyName: 'Óskarsdóttir',
      identifier: 'Q000001',
      email: 'runa@quillmoor.example'
    },
    {
      sourcedId: 'u2',
      enabledUser: 'true',
      username: 'odd',
      givenName: 'Odd',
      familyName: 'Fen',
      email: 'odd@quillmoor.example'
    }
  ],
  roles: [
    { sourcedId: 'r1', userSourcedId: 'u1', roleType: 'primary', role: 'student', orgSourcedId: 'o1' },
    { sourcedId: 'r2', userSourcedId: 'u2', roleType: 'primary', role: 'teacher', orgSourcedId: 'o1' }
  ],
  enrollments: [
    { sourcedId: 'e1', classSourcedId: 'k1', schoolSourcedId: 'o2', userSourcedId: 'u1', role: 'student' },
    { sourcedId: 'e2', classSourcedId: 'k1', schoolSourcedId: 'o2', userSourcedId: 'u2', role: 'teacher' }
  ],
  lineItems: [{ sourcedId: 'l1', title: 'Final grade', classSourcedId: 'k1' }],
  results: [
    {
      sourcedId: 'x1',
      lineItemSourcedId: 'l1',
      studentSourcedId: 'u1',
      scoreStatus: 'fully graded',
      scoreDate: '2026-12-18',
      textScore: 'B+'
    }
  ]
}
const written = (set: Record<Table, Row[]>) =>
  writeRoster(new Map(TABLES.map((table) => [table, set[table]])), 'a test')
const changed = <T extends Table>(table: T, change: (row: Row, i: number) => Row) => ({
  ...SET,
  [table]: SET[table].map(change)
})
const NOTHING = presentOf(new Map())
const planned = (set: Record<Table, Row[]>) => planRoster(readRoster(written(set)), NOTHING)
/** Faults in a few words. */
const told = (set: Record<Table, Row[]>) =>
  planned(set).faults.map(({ file, line, message }) => `${file} ${line}: ${message}`)

describe('a OneRoster set', () => {
  it('is read as it is written: quoted cells, letters of all kinds, a mark at the front', () => {
    const files = written(SET).map(({ name, text }) => ({ name: `set/${name}`, text: `\uFEFF${text}` }))
    const { tables, faults } = readRoster(files)
    expect(faults).toEqual([])
    for (const table of TABLES)
      expect(
        tables
          .get(table)!
          .map(({ row }) => Object.fromEntries(Object.entries(row).filter(([, cell]) => cell)))
      ).toEqual(SET[table])
  })

  it('is new all of it where nothing is here, in the order in which it rests on itself', () => {
    const { items, faults } = planned(SET)
    expect(faults).toEqual([])
    expect(items.map((one) => [one.id, one.change])).toEqual([
      ['institution', 'new'],
      ['campus-MILL', 'new'],
      ['scale-A+', 'new'],
      ['scale-WD', 'new'],
      ['term-AU26', 'new'],
      ['course-PEAT-101', 'new'],
      ['class-AU26-PEAT-101-01', 'new'],
      ['student-Q000001', 'new'],
      ['person-odd-quillmoor-example', 'new'],
      ['role-student-Q000001-student', 'new'],
      ['role-person-odd-quillmoor-example-teacher', 'new'],
      ['taken-AU26-PEAT-101-student-Q000001', 'new'],
      ['teaches-class-AU26-PEAT-101-01-person-odd-quillmoor-example', 'new'],
      ['final-AU26-PEAT-101', 'new'],
      ['grade-AU26-PEAT-101-student-Q000001', 'new']
    ])
  })

  it('meets what is here by what it is about, whatever it calls it', () => {
    const here = new Map<Table, Row[]>(
      TABLES.map((table) => [
        table,
        planned(SET)
          .items.filter((one) => one.table === table)
          .map((one) => one.row)
      ])
    )
    const again = (set: Record<Table, Row[]>) =>
      planRoster(readRoster(written(set)), presentOf(here)).items.filter((one) => one.change !== 'same')
    expect(again(SET)).toEqual([])
    expect(again(changed('courses', (row) => ({ ...row, title: 'Peat' })))).toMatchObject([
      { id: 'course-PEAT-101', change: 'changed', fields: [{ name: 'title', after: 'Peat' }] }
    ])
    expect(again(changed('classes', (row) => ({ ...row, 'metadata.seats': '30' })))).toMatchObject([
      { change: 'left', reason: expect.stringContaining('metadata.seats differs') as string }
    ])
    expect(again(changed('users', (row) => ({ ...row, status: 'tobedeleted' })))).toMatchObject([
      { change: 'left', reason: 'An import takes nothing away.' },
      { change: 'left' }
    ])
  })

  it('is read but for its bad lines, and what rests on them; each is told', () => {
    const set = {
      ...SET,
      courses: [
        ...SET.courses,
        { sourcedId: 'c2', title: 'No credits', courseCode: 'PEAT 102', orgSourcedId: 'o1' },
        { sourcedId: 'c3', title: 'Astray', courseCode: 'peat', orgSourcedId: 'o1' },
        // Read in any case where somebody types it; in a table it is the name of the course.
        {
          sourcedId: 'c5',
          title: 'Small',
          courseCode: 'peat105',
          orgSourcedId: 'o1',
          'metadata.credits': '3'
        },
        {
          sourcedId: 'c4',
          title: 'Homeless',
          courseCode: 'PEAT 104',
          orgSourcedId: 'o9',
          'metadata.credits': '3'
        }
      ]
    }
    expect(told(set)).toEqual([
      'courses.csv 4: courseCode has to be a course code such as ENVI 310.',
      'courses.csv 5: courseCode has to be a course code such as ENVI 310.',
      'courses.csv 3: metadata.credits is needed of a course that is not here yet.',
      'courses.csv 6: orgSourcedId names o9: there is no such line that can be read.'
    ])
    expect(
      planned(set)
        .items.filter((one) => one.table === 'courses')
        .map((one) => one.id)
    ).toEqual(['course-PEAT-101'])
  })

  it('counts lines as an editor does, over quoted cells of several', () => {
    const text =
      'sourcedId,name,type,identifier,parentSourcedId\r\no1,"Quill\nmoor",district,,\r\no2,Mill,scool,,\r\n'
    expect(readRoster([{ name: 'orgs.csv', text }]).faults).toMatchObject([
      { line: 4, message: expect.stringMatching(/^type has to be/) as string }
    ])
  })

  it.each(['\n', '\r\n'])('is read whole however long it is, its lines ended by %j', (end) => {
    const lines = Array.from({ length: 7001 }, (_, n) =>
      n % 3 ? `o${n},Place ${n},school` : `o${n},"Place ""${n}"",${end}up the hill",school`
    )
    const text = ['sourcedId,name,type', ...lines, 'bad,No Kind,'].join(end)
    const { tables, faults } = readRoster([{ name: 'orgs.csv', text }])
    const orgs = tables.get('orgs')!
    expect(orgs).toHaveLength(7001)
    expect(orgs[6999]!.row.name).toBe(`Place "6999",${end}up the hill`)
    // Every third line is two.
    const last = 1 + 7001 + 2334
    expect(orgs.at(-1)).toEqual({
      line: last,
      row: { sourcedId: 'o7000', name: 'Place 7000', type: 'school' }
    })
    expect(faults).toEqual([{ file: 'orgs.csv', line: last + 1, message: 'type is needed.' }])
  })
  it('is refused file by file where it is not one', () => {
    const faults = (name: string, text: string) =>
      readRoster([{ name, text }]).faults.map((one) => one.message)
    expect(faults('orgs.csv', '')).toEqual(['The columns sourcedId, name, type are needed.'])
    expect(faults('orgs.csv', 'sourcedId,name,type,colour\n')).toEqual([
      'The standard has no column colour here.'
    ])
    expect(faults('grades.xlsx', 'PK')).toEqual(['is not a file of a OneRoster set that is known here.'])
    expect(faults('manifest.csv', 'propertyName,value\noneroster.version,1.0\n')).toEqual([
      'It says version 1.0, and 1.2 is read here.'
    ])
    expect(readRoster([]).faults).toHaveLength(1)
  })

  it('names itself in a circle, and is told so', () => {
    expect(told(changed('orgs', (row, i) => (i ? { ...row, parentSourcedId: 'o2' } : row)))).toEqual([])
    const loop = [
      { ...SET.academicSessions[0]!, sourcedId: 'g1', type: 'gradingPeriod', parentSourcedId: 'g1' }
    ]
    expect(told({ ...SET, academicSessions: [...SET.academicSessions, ...loop] })).toEqual([
      'academicSessions.csv 3: parentSourcedId names g1: A gradingPeriod needs the term that it is part of, as its parent.'
    ])
  })

  it('bent in any way, of 300 sets each tells its faults by line, and never throws', () => {
    const bad = fc.constantFrom(
      '',
      ' ',
      '"',
      'a,b',
      '\n',
      'x'.repeat(300),
      '\u0000',
      '-1',
      '9999-99-99',
      'nobody',
      '=1+1',
      'true'
    )
    const cases = fc.record({
      table: fc.constantFrom(...TABLES),
      pick: fc.nat(1000),
      cell: bad,
      row: fc.nat(1)
    })
    let faulty = 0
    fc.assert(
      fc.property(cases, ({ table, pick, cell, row }) => {
        const names = headerOf(table)
        const name = names[pick % names.length]!
        const { items, faults } = planned(
          changed(table, (one, i) => (i === row % SET[table].length ? { ...one, [name]: cell } : one))
        )
        const lines = new Set([...items, ...faults].map((one) => one.line))
        expect(lines.size).toBeGreaterThan(0)
        for (const one of faults) {
          expect(one.message).toMatch(/\.$/)
          expect(one.line).toBeGreaterThan(0)
        }
        if (faults.length) faulty++
        // A needed cell that is empty is never let through.
        if (COLUMNS[table].find((one) => one.name === name)!.isNeeded && !cell.trim())
          expect(faults.length).toBeGreaterThan(0)
      }),
      { seed: 7, numRuns: 300 }
    )
    expect(faulty).toBeGreaterThan(60)
  })
})
