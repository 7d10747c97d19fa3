/** Files that are wrong, each with the complaint it has to get. */
import { describe, expect, it } from 'vitest'
import {
  Complaints,
  judgeProgram,
  readCatalog,
  readLists,
  readProgram,
  readRecord,
  together
} from '../../tools/cli/files'

const catalog = {
  format: 'ridgeway catalog 1',
  courses: [
    { code: 'ENVI 101', title: 'One', credits: 3 },
    { code: 'ENVI 201', title: 'Two', credits: 4, prerequisite: 'ENVI 101 (C)' },
    { code: 'STAT 101', title: 'Three', credits: 3, offered: { seasons: [] } }
  ],
  lists: [{ name: 'both', catalogYear: '2025-26', from: 'ENVI 101, 201' }]
}
const need = { id: 'n', title: 'Need', measure: 'courses', amount: 1, credits: 3, from: 'ENVI 101' }
const program = {
  format: 'ridgeway program 1',
  program: {
    code: 'TEST',
    title: 'Test',
    shortTitle: 'Test',
    kind: 'degree',
    catalogYear: '2025-26',
    credits: 3,
    areas: [{ id: 'a', title: 'A', needs: [need] }]
  }
}
const record = {
  format: 'ridgeway record 1',
  record: [{ course: 'ENVI 101', term: 'AU26', credits: 3, grade: 'B' }]
}

const changed = <T>(file: T, change: (file: T) => void): string => {
  const copy = structuredClone(file)
  change(copy)
  return JSON.stringify(copy)
}

function complaintsOn(kind: 'catalog' | 'program' | 'record' | 'lists', text: string): string[] {
  const complaints = new Complaints()
  const good = readCatalog('C', JSON.stringify(catalog), complaints)!
  if (kind === 'catalog') readCatalog('F', text, complaints)
  else if (kind === 'lists') readLists('F', text, complaints)
  else if (kind === 'record') readRecord('F', text, good.catalog, complaints)
  else {
    const spec = readProgram('F', text, complaints)
    if (spec) judgeProgram('F', spec, together([good], []), complaints)
  }
  return complaints.lines
}

type Catalog = typeof catalog & Record<string, unknown>
type Program = typeof program
type Area = Program['program']['areas'][number] & Record<string, unknown>
type Need = typeof need & Record<string, unknown>
const course = (over: object) => (file: Catalog) => Object.assign(file.courses[1]!, over)
const inProgram = (over: object) => (file: Program) => Object.assign(file.program, over)
const inArea = (over: object) => (file: Program) => Object.assign(file.program.areas[0] as Area, over)
const inNeed = (over: object) => (file: Program) =>
  Object.assign(file.program.areas[0]!.needs[0] as Need, over)
const entry = (over: object) => (file: typeof record) => Object.assign(file.record[0]!, over)
const choice = (over: object) =>
  inArea({
    needs: [
      {
        id: 'c',
        title: 'C',
        choose: 1,
        of: [
          { id: 'x', title: 'X', needs: [{ ...need, id: 'n1' }] },
          { id: 'y', title: 'Y', needs: [{ ...need, id: 'n2' }] }
        ],
        ...over
      }
    ]
  })

const CATALOGS: [string, (file: Catalog) => void, string][] = [
  [
    'another format',
    (f) => Object.assign(f, { format: 'something' }),
    'format: has to be "ridgeway catalog 1"'
  ],
  ['no courses', (f) => Object.assign(f, { courses: [] }), 'courses: has to hold a course'],
  ['courses that are no list', (f) => Object.assign(f, { courses: 7 }), 'courses: has to be of type array'],
  ['a field nobody knows', (f) => Object.assign(f, { extra: 1 }), 'extra: is not a field that is known here'],
  [
    'a code without a space',
    course({ code: 'ENVI201' }),
    'courses/1/code: has to be a course code such as ENVI 310'
  ],
  ['a code of small letters', course({ code: 'envi 201' }), 'courses/1/code: has to be a course code'],
  ['no title', course({ title: undefined }), 'courses/1/title: is needed'],
  ['an empty title', course({ title: '' }), 'courses/1/title: is needed'],
  ['credits in words', course({ credits: 'three' }), 'courses/1/credits: has to be of type number'],
  ['credits below zero', course({ credits: -1 }), 'courses/1/credits: has to be zero or more'],
  ['a range upside down', course({ creditsMost: 2 }), 'courses/ENVI 201: 2 credits at most are fewer than 4'],
  [
    'a season of its own',
    course({ offered: { seasons: ['monsoon'] } }),
    'courses/1/offered/seasons/0: has to be "autumn" or "winter" or "spring" or "summer"'
  ],
  [
    'a study level of its own',
    course({ level: 'doctoral' }),
    'courses/1/level: has to be "undergraduate" or "graduate"'
  ],
  ['a course twice', (f) => f.courses.push(f.courses[0]!), 'courses/ENVI 101: ENVI 101 is there twice'],
  [
    'a prerequisite nobody offers',
    course({ prerequisite: 'MATH 999' }),
    'courses/ENVI 201: the catalog has no course MATH 999, named in "MATH 999"'
  ],
  [
    'a prerequisite without an end',
    course({ prerequisite: 'ENVI 101 and' }),
    'expected a course such as STAT 212, found the end at position 13 of "ENVI 101 and"'
  ],
  [
    'a prerequisite with an open bracket',
    course({ prerequisite: '(ENVI 101' }),
    'expected ")", found the end at position 10'
  ],
  ['a grade nobody gives', course({ prerequisite: 'ENVI 101 (Q)' }), '"Q" is not a grade at position 11'],
  [
    'a standing nobody has',
    course({ prerequisite: 'standing elder' }),
    '"elder" is not one of freshman, sophomore'
  ],
  ['a sign out of place', course({ prerequisite: 'ENVI 101 & STAT 101' }), 'unexpected "&" at position 10'],
  [
    'a test without a score',
    course({ prerequisite: 'test MATH >=' }),
    'expected a score, found the end at position 13'
  ],
  [
    'credits without the word',
    course({ prerequisite: '60' }),
    'expected "credits" or "of", found the end at position 3'
  ],
  ['brackets without end', course({ prerequisite: '('.repeat(40) }), 'expected brackets no deeper than 20'],
  [
    'a circle',
    (f) => Object.assign(f.courses[0]!, { prerequisite: 'ENVI 201' }),
    'courses: prerequisites go round: ENVI 101 needs ENVI 201 needs ENVI 101'
  ],
  [
    'an equivalent nobody offers',
    course({ equivalents: ['MATH 999'] }),
    'courses/ENVI 201: the catalog has no course MATH 999'
  ],
  [
    'a term code of its own',
    (f) =>
      Object.assign(f, {
        terms: [
          { code: 'winter', name: 'W', season: 'autumn', year: 2027, start: '2027-01-01', end: '2027-02-01' }
        ]
      }),
    'terms/0/code: has to be a term code such as AU27'
  ],
  [
    'a day that is none',
    (f) =>
      Object.assign(f, {
        terms: [
          { code: 'AU27', name: 'A', season: 'autumn', year: 2027, start: '2027-02-30', end: '2027-12-01' }
        ]
      }),
    'terms/0/start: has to be a date such as 2027-08-30'
  ],
  [
    'a grade scale without a result',
    (f) => Object.assign(f, { grades: [{ grade: 'A', points: 4, rank: 4 }] }),
    'grades/0/result: is needed'
  ]
]

const PROGRAMS: [string, (file: Program) => void, string][] = [
  [
    'a code of small letters',
    inProgram({ code: 'test' }),
    'program/code: has to be two to eight capital letters'
  ],
  [
    'a kind of its own',
    inProgram({ kind: 'diploma' }),
    'program/kind: has to be "degree" or "minor" or "certificate"'
  ],
  [
    'a catalog year in words',
    inProgram({ catalogYear: 'last year' }),
    'program/catalogYear: has to be a catalog year such as 2025-26'
  ],
  ['no areas', inProgram({ areas: [] }), 'program/areas: has to hold an area'],
  [
    'credits that do not add up',
    inProgram({ credits: 4 }),
    'TEST: the areas add up to 3 credits, the program says 4'
  ],
  ['a need without a set', inNeed({ from: undefined }), 'from: is needed'],
  [
    'a set that cannot be read',
    inNeed({ from: 'ENVI 101 or' }),
    'TEST/a/n: expected a course, a subject or a condition, found the end at position 12 of "ENVI 101 or"'
  ],
  ['an empty range', inNeed({ from: 'ENVI 300-200' }), 'TEST/a/n: the range 300-200 is empty at position 6'],
  [
    'a subject that is none',
    inNeed({ from: 'ENVIRONMENT 101' }),
    '"ENVIRONMENT" is not a subject of two to five letters at position 1'
  ],
  [
    'a number that is none',
    inNeed({ from: 'ENVI 10.5555' }),
    '"10.5555" is not a course number at position 6'
  ],
  ['a list that is not there', inNeed({ from: 'list gone' }), 'there is no list "gone" at position 6'],
  [
    'a mode of its own',
    inNeed({ from: 'mode telepathy' }),
    '"telepathy" is not one of in-person, online-hours, online, mixed'
  ],
  [
    'a course that is not there',
    inNeed({ from: 'MATH 999 or ENVI 101' }),
    'TEST/a/n: the catalog has no course MATH 999, named in "MATH 999 or ENVI 101"'
  ],
  [
    'a need out of reach',
    inNeed({ amount: 3, credits: 3, from: 'list both' }),
    'TEST/a/n: asks for 3 courses, and "list both" can give 2 at most'
  ],
  [
    'credits out of reach',
    inNeed({ measure: 'credits', amount: 30, credits: 30, from: 'ENVI *' }),
    'the areas add up to 30 credits'
  ],
  [
    'a need nobody offers any more',
    inNeed({ from: 'STAT 101' }),
    'TEST/a/n: no course of "STAT 101" is offered any more'
  ],
  [
    'subjects out of reach',
    inNeed({ amount: 2, from: 'ENVI *', subjects: 2 }),
    'TEST/a/n: asks for 2 subjects, and "ENVI *" can give 1 at most'
  ],
  ['more subjects than courses', inNeed({ subjects: 2 }), 'TEST/a/n: 1 courses cannot come from 2 subjects'],
  ['half a course', inNeed({ amount: 1.5 }), 'TEST/a/n: courses come whole'],
  ['no amount', inNeed({ amount: 0 }), 'TEST/a/n: the amount has to be above zero'],
  ['a least grade nobody gives', inNeed({ leastGrade: 'Z' }), 'TEST/a/n: "Z" is not a grade'],
  [
    'a part beyond the whole',
    inNeed({ including: [{ from: 'ENVI *', amount: 2 }] }),
    'TEST/a/n: a part cannot be more than the whole need'
  ],
  [
    'a part out of reach',
    inNeed({ including: [{ from: 'STAT 999', amount: 1 }] }),
    'TEST/a/n: the catalog has no course STAT 999'
  ],
  ['an id twice', inArea({ needs: [need, need] }), 'TEST/a/n: this id is used twice'],
  ['an id of capitals', inNeed({ id: 'N 1' }), 'id: has to be lower-case letters, digits and hyphens'],
  ['more branches than there are', choice({ choose: 3 }), 'TEST/a/c: 3 of 2 branches cannot be chosen'],
  ['no branch', choice({ of: [] }), 'TEST/a/c: 1 of 0 branches cannot be chosen'],
  [
    'branches of unequal credits',
    choice({
      of: [
        { id: 'x', title: 'X', needs: [need] },
        { id: 'y', title: 'Y', needs: [] }
      ]
    }),
    'TEST/a/c: the branches of a choice have to stand for the same credits'
  ],
  [
    'a choice in free choice',
    (f) => {
      choice({})(f)
      inArea({ free: true })(f)
    },
    'TEST/a: free choice cannot hold a choice of branches'
  ],
  [
    'sharing with nobody',
    inArea({ shares: { with: ['b'], credits: 3 } }),
    'TEST/a: there is no area "b" to share with'
  ],
  [
    'sharing with itself',
    inArea({ shares: { with: ['a'], credits: 3 } }),
    'TEST/a: an area cannot share with itself'
  ],
  [
    'a limit on an area that is not there',
    inProgram({ limits: [{ title: 'L', from: 'any', credits: 3, areas: ['b'] }] }),
    'TEST/limits/1: there is no area "b"'
  ],
  [
    'a limit in credits and in courses',
    inProgram({ limits: [{ title: 'L', from: 'any', credits: 3, courses: 1 }] }),
    'TEST/limits/1: the most of a limit is said in credits or in courses, one of them'
  ],
  [
    'a part of which it is not said how much it may be',
    inNeed({ atMost: [{ from: 'any' }] }),
    'TEST/a/n: the most of a part is said in credits or in courses, one of them'
  ],
  [
    'no course of any subject',
    inNeed({ perSubject: 0 }),
    'TEST/a/n: courses of one subject come whole, from 1 on'
  ],
  [
    'a limit that cannot be read',
    inProgram({ limits: [{ title: 'L', from: '+', credits: 3 }] }),
    'TEST/limits/1: expected a course, a subject or a condition, found "+" at position 1'
  ],
  [
    'a condition of its own',
    inProgram({ conditions: [{ id: 'x', title: 'X', asks: 'luck' }] }),
    'program/conditions/0/asks: is not one of the values that may stand here'
  ],
  [
    'an average beyond the scale',
    inProgram({ conditions: [{ id: 'x', title: 'X', asks: 'average', least: 9 }] }),
    'TEST/conditions/x: an average lies between 0 and 4'
  ],
  [
    'more of the last credits than there are',
    inProgram({ conditions: [{ id: 'x', title: 'X', asks: 'credits', least: 30, amongLast: 20 }] }),
    'TEST/conditions/x: 30 of the last 20 credits cannot be reached'
  ],
  [
    'a suggested need that is not there',
    inProgram({ suggested: [[{ need: 'gone' }]] }),
    'TEST/suggested/1: there is no need "gone" to suggest'
  ],
  [
    'a suggested course that is not there',
    inProgram({ suggested: [['MATH 999']] }),
    'TEST/suggested/1: the catalog has no course MATH 999'
  ],
  [
    'an entry set that cannot be read',
    inProgram({ entry: { title: 'E', needs: [{ ...need, from: 'ENVI' }] } }),
    'TEST/entry/entry/n: expected a course number, found the end'
  ],
  [
    'a repeat policy of its own',
    inProgram({ repeats: 'luckiest' }),
    'program/repeats: has to be "best" or "last" or "all"'
  ]
]

const RECORDS: [string, (file: typeof record) => void, string][] = [
  [
    'another format',
    (f) => Object.assign(f, { format: 'ridgeway program 1' }),
    'format: has to be "ridgeway record 1"'
  ],
  ['no record', (f) => Object.assign(f, { record: undefined }), 'record: is needed'],
  [
    'a course code of its own',
    entry({ course: 'Maths' }),
    'record/0/course: has to be a course code such as ENVI 310'
  ],
  ['a term in words', entry({ term: 'last autumn' }), 'record/0/term: has to be a term code such as AU27'],
  ['no term at all', entry({ term: undefined }), 'record/0/term: is needed'],
  ['credits below zero', entry({ credits: -3 }), 'record/0/credits: has to be zero or more'],
  ['a grade the scale does not have', entry({ grade: 'Q' }), 'record/0/grade: the grade scale has no "Q"'],
  ['a grade in numbers', entry({ grade: 4 }), 'record/0/grade: has to be of type string'],
  [
    'an origin of its own',
    entry({ origin: 'elsewhere' }),
    'record/0/origin: has to be "here" or "transfer" or "test"'
  ],
  [
    'a standing of its own',
    (f) => Object.assign(f, { standing: 'elder' }),
    'standing: has to be "freshman" or'
  ],
  [
    'an exception of its own',
    (f) => Object.assign(f, { exceptions: [{ kind: 'favour' }] }),
    'exceptions/0/kind: is not one of the values that may stand here'
  ],
  [
    'a substitution without a course',
    (f) =>
      Object.assign(f, { exceptions: [{ kind: 'substitution', program: 'TEST', need: 'n', reason: '' }] }),
    'exceptions/0/course: is needed'
  ],
  [
    'a test score in words',
    (f) => Object.assign(f, { tests: { MATH: 'high' } }),
    'tests/MATH: has to be of type number'
  ]
]

const TEXTS: [string, string, string][] = [
  ['nothing', '', 'is not JSON'],
  ['half a file', '{"format": "ridgeway cat', 'is not JSON'],
  ['a list', '[]', 'has to be of type object'],
  ['null', 'null', 'has to be of type object'],
  ['a number', '12', 'has to be of type object']
]

describe('malformed files', () => {
  it('are more than sixty, and the sound ones get no complaint', () => {
    expect(CATALOGS.length + PROGRAMS.length + RECORDS.length + TEXTS.length).toBeGreaterThanOrEqual(80)
    expect(complaintsOn('catalog', JSON.stringify(catalog))).toEqual([])
    expect(complaintsOn('program', JSON.stringify(program))).toEqual([])
    expect(complaintsOn('record', JSON.stringify(record))).toEqual([])
  })
  const told = (lines: string[], message: string) => {
    expect(lines.join('\n')).toContain(message)
    expect(lines.every((line) => line.startsWith('F: '))).toBe(true)
  }
  it.each(CATALOGS)('a catalog with %s', (_, change, message) => {
    told(complaintsOn('catalog', changed(catalog as Catalog, change)), message)
  })
  it.each(PROGRAMS)('a program with %s', (_, change, message) => {
    told(complaintsOn('program', changed(program, change)), message)
  })
  it.each(RECORDS)('a record with %s', (_, change, message) => {
    told(complaintsOn('record', changed(record, change)), message)
  })
  it.each(TEXTS)('a file that holds %s', (_, text, message) => {
    for (const kind of ['catalog', 'program', 'record', 'lists'] as const)
      told(complaintsOn(kind, text), message)
  })
  it('lists that contain each other are refused', () => {
    const lists = [
      { name: 'one', catalogYear: '2025-26', from: 'list two' },
      { name: 'two', catalogYear: '2025-26', from: 'list one' }
    ]
    const complaints = new Complaints()
    const content = readCatalog('C', JSON.stringify({ ...catalog, lists }), complaints)!
    const spec = readProgram('F', changed(program, inNeed({ from: 'list one' })), complaints)!
    judgeProgram('F', spec, content, complaints)
    expect(complaints.lines.join()).toContain('the list "one" contains itself')
  })
})
