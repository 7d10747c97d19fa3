/** The command as somebody calls it: a process of its own, files, exit codes. */
import { spawnSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it, vi, type MockInstance } from 'vitest'
import { auditFile, auditRows, type AuditFile } from '#shared/degree/auditFile'
import { recordFile } from '#shared/record/recordShape'
import { recordFrom } from '#shared/files'
import { readTrial } from '#shared/degree/trial'
import { compileProgram } from '#core/degree'
import { listsFor } from '#shared/catalog/context'
import { catalog, courses, lists, programs } from '../../demo/catalog'
import { main } from '../../tools/cli/main'
import { schemas } from '../../tools/schemas'

const ROOT = join(import.meta.dirname, '..', '..')
const PROGRAM = join(ROOT, 'demo/programs/envd.json')
const LISTS = join(ROOT, 'demo/programs/lists.json')
let folder: string
const file = (name: string) => join(folder, name)

const record = {
  format: 'ridgeway record 1',
  name: 'Somebody',
  record: [
    { course: 'ENDA 110', term: 'AU25', credits: 3, grade: 'B+' },
    { course: 'ENVI 101', term: 'AU25', credits: 4, grade: 'A' },
    { course: 'ENDA 120', term: 'SP26', credits: 3, grade: null },
    { course: 'ARTS 110', term: 'SP26', credits: 3, grade: 'F' }
  ],
  exceptions: [{ kind: 'waiver', program: 'ENVD', need: 'speaking', reason: 'Speaks for a living' }]
} as const

/** In a process of its own, as somebody calls it. */
function alone(...args: string[]) {
  const done = spawnSync(process.execPath, [join(ROOT, 'tools/ridgeway.mjs'), ...args], {
    encoding: 'utf8',
    cwd: ROOT
  })
  return { code: done.status, out: done.stdout, err: done.stderr }
}

/** The same command within this process, which starts two seconds sooner. */
async function ridgeway(...args: string[]) {
  const lines = (told: MockInstance<(line: string) => void>) =>
    told.mock.calls.map(([line]) => `${line}\n`).join('')
  const out = vi.spyOn(console, 'log').mockImplementation(() => undefined)
  const err = vi.spyOn(console, 'error').mockImplementation(() => undefined)
  try {
    const code = await main(args)
    return { code, out: lines(out), err: lines(err) }
  } finally {
    out.mockRestore()
    err.mockRestore()
  }
}

beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'ridgeway-cli-'))
  const plain = courses.map(({ description: _, ...course }) => course)
  writeFileSync(file('catalog.json'), JSON.stringify({ format: 'ridgeway catalog 1', courses: plain }))
  writeFileSync(file('record.json'), JSON.stringify(record))
  mkdirSync(file('many'))
  for (let i = 0; i < 60; i++)
    writeFileSync(join(folder, 'many', `r${String(i).padStart(2, '0')}.json`), JSON.stringify(record))
})
afterAll(() => rmSync(folder, { recursive: true, force: true }))

describe('ridgeway', () => {
  it.each(['check', 'audit', 'fill', 'checkroute', 'weeks'])(
    '%s --help says how it is called',
    async (name) => {
      const { code, out } = await ridgeway(name, '--help')
      expect(code).toBe(0)
      expect(out).toContain(`ridgeway ${name} `)
      expect(out).toContain('Exit codes: 0 done')
      const all = await ridgeway('--help')
      expect(all.out).toContain(out.split('Exit codes')[0]!.trim())
    }
  )
  it('takes no command from what every object has', async () => {
    expect((await ridgeway('constructor')).code).toBe(2)
  })
  it('ends in silence where nobody reads on', () => {
    const command = `"${process.execPath}" "${join(ROOT, 'tools/ridgeway.mjs')}" help | true; echo "${'$'}{PIPESTATUS[0]}"`
    const done = spawnSync('bash', ['-c', command], { encoding: 'utf8', cwd: ROOT })
    expect({ out: done.stdout, err: done.stderr }).toEqual({ out: '0\n', err: '' })
  })
})

describe('ridgeway check', () => {
  it('finds no fault in the demo', () => {
    const names = ['envd', 'heri', 'geof', 'stat-minor', 'field-ethics', 'lists'].map((name) =>
      join(ROOT, `demo/programs/${name}.json`)
    )
    const { code, out, err } = alone('check', file('catalog.json'), file('record.json'), ...names)
    expect(err).toBe('')
    expect({ code, out }).toEqual({ code: 0, out: '8 files, no fault.\n' })
  })
  it('names file, path and rule of a fault, and ends with 1', () => {
    const wrong = readFileSync(PROGRAM, 'utf8').replace('"SPCH *"', '"SPCH 900-999"')
    writeFileSync(file('wrong.json'), wrong)
    const { code, err } = alone('check', file('catalog.json'), LISTS, file('wrong.json'))
    expect(code).toBe(1)
    expect(err).toContain(
      'wrong.json: ENVD/writing/speaking: asks for 1 courses, and "SPCH 900-999" can give 0 at most'
    )
  })
})

describe('ridgeway audit', () => {
  const args = (...more: string[]) => [
    'audit',
    '--catalog',
    file('catalog.json'),
    '--program',
    PROGRAM,
    '--lists',
    LISTS,
    ...more
  ]
  const audit = (...more: string[]) => ridgeway(...args(...more))
  it('prints, as JSON, what the core says', async () => {
    const { code, out } = await audit('--record', file('record.json'), '--json')
    expect(code).toBe(0)
    const spec = programs.find((one) => one.code === 'ENVD')!
    const program = compileProgram(spec, { lists: listsFor(lists, spec.catalogYear) })
    const content = recordFrom(recordFile.parse(record), catalog.scale)
    const { audits, attempts } = readTrial(content, [program], catalog, [
      { code: 'AU25' },
      { code: 'SP26' }
    ] as never)
    expect(JSON.parse(out)).toEqual(JSON.parse(JSON.stringify(auditFile(audits, attempts, 'Somebody'))))
    const told = JSON.parse(out) as AuditFile
    expect(told.programs[0]!.amounts).toMatchObject({ earned: 7, underWay: 3 })
    expect(told.idle).toMatchObject([{ course: 'ARTS 110', why: 'failed' }])
    const waived = told.programs[0]!.areas.flatMap((area) => area.needs).find(
      (need) => need.id === 'speaking'
    )
    expect(waived).toMatchObject({ state: 'met', waived: { reason: 'Speaks for a living' } })
    const rows = auditRows(told)
    expect(rows.find((row) => row.course === 'ENDA 110')).toMatchObject({
      program: 'ENVD',
      area: 'Data core',
      grade: 'B+'
    })
    expect(rows.filter((row) => row.note === 'still needed').length).toBeGreaterThan(10)
  })
  it('prints a tree for people', async () => {
    const { code, out } = await audit('--record', file('record.json'))
    expect(code).toBe(0)
    expect(out).toContain('BSc Environmental Data, catalog 2025-26')
    expect(out).toContain('The Living Landscape: met, ENVI 101 A')
  })
  it('reads a folder with two workers: every record once, in full', () => {
    const { code, out, err } = alone(...args('--batch', file('many'), '--workers', '2', '--json'))
    expect({ code, err }).toEqual({ code: 0, err: '' })
    const lines = out
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as AuditFile & { file: string })
    expect(new Set(lines.map((line) => line.file)).size).toBe(60)
    expect(lines.every((line) => line.programs[0]!.amounts.earned === 7)).toBe(true)
  })
  it('goes on past a record that is wrong, names it, and ends with 1', () => {
    mkdirSync(file('some'), { recursive: true })
    writeFileSync(join(folder, 'some', 'good.json'), JSON.stringify(record))
    writeFileSync(join(folder, 'some', 'bad.json'), '{')
    const { code, out, err } = alone(...args('--batch', file('some')))
    expect(code).toBe(1)
    expect(out).toContain('good.json: 7 earned')
    expect(err).toContain('bad.json: is not JSON')
  })
  it.each([
    [['audit'], 2, 'Name a catalog with --catalog.'],
    [
      ['audit', '--catalog', 'x', '--program', 'y'],
      2,
      'Name one record with --record, or a folder of them with --batch.'
    ],
    [['audit', '--catalogue', 'x'], 2, "Unknown option '--catalogue'"],
    [
      ['audit', '--catalog', '/nowhere.json', '--program', 'y', '--record', 'z'],
      1,
      '/nowhere.json cannot be read: there is no such file.'
    ],
    [['check'], 2, 'Name the files to check.'],
    [['guess'], 2, 'There is no command "guess".']
  ])('says what is wrong with the call: %o', async (args, code, message) => {
    const done = await ridgeway(...args)
    expect(done.code).toBe(code)
    expect(done.err).toContain(message)
  })
})

describe('the published schemas', () => {
  it('are those of the shapes that read the files', () => {
    const made = schemas()
    expect(made.size).toBe(9)
    for (const [name, text] of made) expect(readFileSync(join(ROOT, 'docs/schemas', name), 'utf8')).toBe(text)
  })
})

describe('ridgeway fill', () => {
  const files = () => ['--catalog', file('catalog.json'), '--program', PROGRAM, '--lists', LISTS]
  const proposed = async (...args: string[]) => {
    const { code, out, err } = await ridgeway('fill', ...files(), ...args, '--json')
    expect({ code, err }).toEqual({ code: 0, err: '' })
    return JSON.parse(out) as {
      finish: string
      courses: { course: string; term: string; credits: number }[]
    } & Record<string, unknown>
  }
  it('plans a degree from an empty record so that nothing is open and nothing is wrong', async () => {
    writeFileSync(
      file('empty.json'),
      JSON.stringify({ format: 'ridgeway record 1', record: [], tests: { MATH: 80 } })
    )
    const answer = await proposed('--record', file('empty.json'), '--from', 'AU27', '--terms', '10')
    expect(answer).toMatchObject({ format: 'ridgeway proposal 1', left: [], conflict: [] })
    expect(answer.courses.reduce((sum, one) => sum + one.credits, 0)).toBeGreaterThanOrEqual(120)
    const planned = answer.courses.map(({ course, term, credits }) => ({ course, term, credits }))
    writeFileSync(file('route.json'), JSON.stringify({ format: 'ridgeway route 1', planned }))
    const checked = await ridgeway(
      'checkroute',
      ...files(),
      '--record',
      file('empty.json'),
      '--route',
      file('route.json'),
      '--from',
      'AU27',
      '--terms',
      '10'
    )
    expect(checked).toMatchObject({ code: 0, out: 'No findings.\n' })
  })
  it('leaves what is planned where it is, and keeps to the limits', async () => {
    const route = { format: 'ridgeway route 1', planned: [{ course: 'ENDA 240', term: 'SP27', credits: 4 }] }
    writeFileSync(file('route.json'), JSON.stringify(route))
    const limits = { format: 'ridgeway limits 1', credits: 15, terms: [{ term: 'SP28', away: 'exchange' }] }
    writeFileSync(file('limits.json'), JSON.stringify(limits))
    const args = ['--route', file('route.json'), '--limits', file('limits.json'), '--terms', '12']
    const { courses: found } = await proposed('--record', file('record.json'), ...args)
    expect(found.map((one) => one.course)).not.toContain('ENDA 240')
    expect(found.filter((one) => one.term === 'SP28')).toEqual([])
    const load = (term: string) =>
      found.reduce((sum, one) => sum + (one.term === term ? one.credits : 0), term === 'SP27' ? 4 : 0)
    for (const term of new Set(found.map((one) => one.term))) expect(load(term)).toBeLessThanOrEqual(15)
  })
  it('names what cannot hold together when the terms are too few', async () => {
    const { code, out } = await ridgeway('fill', ...files(), '--record', file('record.json'), '--terms', '2')
    expect(code).toBe(3)
    expect(out).toMatch(/^(These terms do not hold all that is needed|.* within these terms)\. Still open: /m)
    expect(out).not.toContain('Finishes in')
  })
  it('says what is wrong with a file and with the call', async () => {
    writeFileSync(file('limits.json'), JSON.stringify({ format: 'ridgeway limits 1', hours: 500 }))
    const wrong = await ridgeway(
      'fill',
      ...files(),
      '--record',
      file('record.json'),
      '--limits',
      file('limits.json')
    )
    expect(wrong.code).toBe(1)
    expect(wrong.err).toContain('hours')
    const call = await ridgeway('fill', ...files(), '--record', file('record.json'), '--from', 'soon')
    expect(call.code).toBe(2)
  })
})

describe('an institution with terms and grades of its own', () => {
  const QUARTERS = [
    ['Q1X28', 'autumn', '2028-09-18', '2028-12-08'],
    ['Q2X29', 'winter', '2029-01-08', '2029-03-23'],
    ['Q3X29', 'spring', '2029-04-02', '2029-06-15']
  ] as const
  const own = (name: string, content: object) => {
    writeFileSync(file(`own-${name}.json`), JSON.stringify(content))
    return file(`own-${name}.json`)
  }
  const call = (record: object[], terms: object[] | undefined) => [
    ...['fill', '--json', '--record', own('record', { format: 'ridgeway record 1', record })],
    '--catalog',
    own('catalog', {
      format: 'ridgeway catalog 1',
      grades: [
        { grade: 'A+', points: 4.3, result: 'earned', rank: 4.3 },
        { grade: 'S', points: null, result: 'earned', rank: 2 }
      ],
      courses: [
        { code: 'EAU 101', title: 'Sources', credits: 4 },
        {
          ...{ code: 'EAU 201', title: 'Nappes', credits: 4, prerequisite: 'EAU 101 (S)' },
          offered: { seasons: ['winter'], years: 'every' }
        }
      ],
      ...(terms && { terms })
    }),
    '--program',
    own('program', {
      format: 'ridgeway program 1',
      program: {
        ...{ code: 'HYDR', title: 'Hydrologie', shortTitle: 'Hydr.', kind: 'degree', catalogYear: '2028-29' },
        credits: 8,
        areas: [
          {
            ...{ id: 'eau', title: 'Eaux' },
            needs: [
              { id: 'two', title: 'Deux', measure: 'courses', amount: 2, credits: 8, from: 'EAU 101, 201' }
            ]
          }
        ]
      }
    })
  ]
  const terms = QUARTERS.map(([code, season, start, end]) => ({
    ...{ code, name: code, season, start, end, year: Number(start.slice(0, 4)) }
  }))

  it('is planned in them: the term after the last one, and what runs in winter in winter', async () => {
    const taken = [{ course: 'EAU 101', term: 'Q1X28', credits: 4, grade: 'A+' }]
    const { code, out, err } = await ridgeway(...call(taken, terms))
    expect({ code, err }).toEqual({ code: 0, err: '' })
    expect(JSON.parse(out)).toMatchObject({
      finish: 'Q2X29',
      courses: [{ course: 'EAU 201', term: 'Q2X29' }]
    })
  })

  it('has to bring the dates of terms that are named in its own way, and grades that its rules name', async () => {
    const taken = [{ course: 'EAU 101', term: 'Q1X28', credits: 4, grade: 'A+' }]
    const without = await ridgeway(...call(taken, undefined))
    expect(without.code).toBe(1)
    expect(without.err).toContain('terms: has to bring the dates of Q1X28')
    const strange = await ridgeway(...call([{ ...taken[0], grade: 'A' }], terms))
    expect(strange.err).toContain('the grade scale has no "A"')
  })
})

describe('ridgeway checkroute', () => {
  it('names each finding with its ways out', async () => {
    const route = { format: 'ridgeway route 1', planned: [{ course: 'ENDA 490', term: 'AU27', credits: 4 }] }
    writeFileSync(file('route.json'), JSON.stringify(route))
    const files = ['--catalog', file('catalog.json'), '--program', PROGRAM, '--lists', LISTS]
    const { out } = await ridgeway(
      'checkroute',
      ...files,
      '--record',
      file('record.json'),
      '--route',
      file('route.json')
    )
    expect(out).toContain('ENDA 490 in AU27 needs ENDA 480 before it.')
    expect(out).toContain('Take ENDA 490 off the route')
  })
})
