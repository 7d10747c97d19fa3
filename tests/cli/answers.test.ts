/** Small cases of each kind of answer, worked out by hand from `docs/answers.md`, put to the command. */
import { mkdtempSync, mkdirSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { main } from '../../tools/cli/main'

let folder: string
beforeAll(() => (folder = mkdtempSync(join(tmpdir(), 'ridgeway-answers-'))))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

const TERMS = ['AU25', 'SP26', 'AU26', 'SP27', 'AU27', 'SP28'].map((code) => {
  const autumn = code.startsWith('AU')
  const year = 2000 + Number(code.slice(2))
  const [start, end] = autumn ? ['08-30', '12-17'] : ['01-15', '05-15']
  const season = autumn ? 'autumn' : 'spring'
  return { code, name: code, season, year, start: `${year}-${start}`, end: `${year}-${end}` }
})
type Courses = Record<string, object>
const catalog = (courses: Courses) => ({
  format: 'ridgeway catalog 1',
  terms: TERMS,
  courses: Object.entries(courses).map(([code, over]) => ({ code, title: code, credits: 3, ...over }))
})
const need = (id: string, from: string, over: object = {}) => ({
  id,
  title: id,
  measure: 'courses',
  amount: 1,
  credits: 3,
  from,
  ...over
})
const program = (credits: number, needs: object[], over: object = {}) => ({
  format: 'ridgeway program 1',
  program: {
    code: 'DEG',
    title: 'Degree',
    shortTitle: 'Degree',
    kind: 'degree',
    catalogYear: '2025-26',
    credits,
    areas: [{ id: 'a', title: 'a', needs }],
    ...over
  }
})
const taken = (course: string, grade: string | null, term = 'AU25') => ({ course, term, credits: 3, grade })
const plan = (course: string, term: string) => ({ course, term, credits: 3 })
const record = (list: object[], planned: object[] = []) => ({
  format: 'ridgeway record 1',
  record: list,
  planned
})

async function run(command: string, files: Record<string, object | object[]>, ...more: string[]) {
  const args = Object.entries(files).flatMap(([name, value]) =>
    [value].flat().flatMap((one, i) => {
      const path = join(folder, `${name}${i}.json`)
      writeFileSync(path, JSON.stringify(one))
      return [`--${name}`, path]
    })
  )
  const [out, err] = (['log', 'error'] as const).map((name) => {
    const lines: string[] = []
    vi.spyOn(console, name).mockImplementation((line: string) => void lines.push(line))
    return lines
  })
  const code = await main([command, ...args, '--json', ...more])
  vi.restoreAllMocks()
  return { code, said: out!.length ? JSON.parse(out!.join('\n')) : undefined, err: err!.join('\n') }
}

describe('the best reading', () => {
  const read = async (files: Record<string, object | object[]>) => {
    const { said } = await run('audit', files)
    return said.programs.map((one: { areas: { needs: object[] }[]; conditions: object[] }) => ({
      needs: Object.fromEntries(
        one.areas
          .flatMap((area) => area.needs as { id: string; state: string; courses: { course: string }[] }[])
          .map(({ id, state, courses }) => [id, [state, ...courses.map(({ course }) => course)].join(' ')])
      ),
      conditions: one.conditions
    }))
  }
  const asked = program(3, [need('x', 'AAA 101', { leastGrade: 'C' })])
  it('counts the repeat of a course whose grade is too low, as firm as it is', async () => {
    const courses = catalog({ 'AAA 101': {} })
    const low = taken('AAA 101', 'D')
    const [underWay] = await read({
      catalog: courses,
      program: asked,
      record: record([low, taken('AAA 101', null, 'SP27')])
    })
    expect(underWay.needs).toEqual({ x: 'underWay AAA 101' })
    const [ahead] = await read({
      catalog: courses,
      program: asked,
      record: record([low], [plan('AAA 101', 'AU27')])
    })
    expect(ahead.needs).toEqual({ x: 'mapped AAA 101' })
    const plain = program(3, [need('x', 'AAA 101')])
    const [enough] = await read({
      catalog: courses,
      program: plain,
      record: record([low], [plan('AAA 101', 'AU27')])
    })
    expect(enough.needs).toEqual({ x: 'met AAA 101' })
  })
  it('spends no course on a need where another could never be completed without it', async () => {
    const courses = catalog({ 'AAA 101': {}, 'AAA 102': {}, 'AAA 103': {}, 'BBB 101': {} })
    const two = { amount: 2, credits: 6 }
    const [degree] = await read({
      catalog: courses,
      program: program(12, [need('x', 'AAA *', two), need('y', 'AAA 101 or BBB 101', two)]),
      record: record([taken('AAA 101', 'B'), taken('AAA 102', 'B')])
    })
    expect(degree.needs).toEqual({ x: 'needed AAA 102', y: 'needed AAA 101' })
  })
  it('shares with another program no more than it may, over all areas together', async () => {
    const degree = program(3, [], {
      areas: [
        { id: 'a', title: 'a', needs: [need('x', 'AAA 101')] },
        { id: 'g', title: 'g', needs: [need('z', 'AAA 102')], shares: { with: ['a'], credits: 3 } }
      ]
    })
    const minor = program(6, [need('m1', 'AAA 101'), need('m2', 'AAA 102')], {
      code: 'MIN',
      kind: 'minor',
      mayShare: 3
    })
    const both = await read({
      catalog: catalog({ 'AAA 101': {}, 'AAA 102': {} }),
      program: [degree, minor],
      record: record([taken('AAA 101', 'B'), taken('AAA 102', 'B')])
    })
    expect(both[0].needs).toEqual({ x: 'met AAA 101', z: 'met AAA 102' })
    expect(Object.values(both[1].needs)).toEqual(['met AAA 101', 'needed'])
  })
  it('keeps of courses that exclude each other the one that closes a need', async () => {
    const courses = catalog({
      'AAA 101': {},
      'AAA 102': { exclusive: ['BBB 101'] },
      'BBB 101': { credits: 1.5 },
      'BBB 102': { credits: 4 }
    })
    const credits = (amount: number) => ({ measure: 'credits', amount, credits: amount })
    const [degree] = await read({
      catalog: courses,
      program: program(9, [need('x', 'AAA *', credits(5)), need('y', 'BBB *', credits(4))]),
      record: record([taken('AAA 101', 'B')], [plan('BBB 101', 'AU27'), plan('AAA 102', 'AU27')])
    })
    expect(degree.needs).toEqual({ x: 'mapped AAA 101 AAA 102', y: 'needed' })
  })
  it('keeps room for a part that is still missing, and says that it is needed', async () => {
    const { said } = await run('audit', {
      catalog: catalog({ 'AAA 101': {}, 'AAA 102': {}, 'AAA 301': {} }),
      program: program(6, [
        need('x', 'AAA *', { amount: 2, credits: 6, including: [{ from: 'AAA 300+', amount: 1 }] })
      ]),
      record: record([taken('AAA 101', 'B'), taken('AAA 102', 'B')])
    })
    expect(said.programs[0].amounts).toMatchObject({ earned: 3, needed: 3 })
    expect(said.programs[0].outside).toMatchObject([{ course: 'AAA 102', why: 'otherKind' }])
    const credits = await run('audit', {
      catalog: catalog({ 'AAA 101': {}, 'AAA 102': {}, 'AAA 301': {} }),
      program: program(6, [
        need('x', 'AAA *', {
          measure: 'credits',
          amount: 6,
          credits: 6,
          including: [{ from: 'AAA 300+', amount: 3 }]
        })
      ]),
      record: record([taken('AAA 101', 'B'), taken('AAA 102', 'B')])
    })
    expect(credits.said.programs[0].amounts).toMatchObject({ earned: 3, needed: 3 })
  })
  it('of equally good readings takes the one that meets a condition on what counts', async () => {
    const levels = { 'AAA 101': { yearLevel: 1 }, 'AAA 102': { yearLevel: 1 }, 'AAA 301': { yearLevel: 3 } }
    const [degree] = await read({
      catalog: catalog(levels),
      program: program(6, [need('x', 'AAA *', { measure: 'credits', amount: 6, credits: 6 })], {
        conditions: [{ id: 'u', title: 'u', asks: 'credits', least: 3, from: 'level 300+', counting: true }]
      }),
      record: record(['AAA 101', 'AAA 102', 'AAA 301'].map((code) => taken(code, 'B')))
    })
    expect(degree.conditions).toMatchObject([{ id: 'u', status: 'earned' }])
    expect(degree.needs.x).toBe('met AAA 101 AAA 301')
  })
  it('goes on with a batch past an entry that is no file', async () => {
    const batch = join(folder, 'batch')
    mkdirSync(join(batch, 'b.json'), { recursive: true })
    writeFileSync(join(batch, 'a.json'), JSON.stringify(record([taken('AAA 101', 'B')])))
    const lines: string[] = []
    const out = vi.spyOn(process.stdout, 'write').mockImplementation((text) => lines.push(String(text)) > 0)
    const files = { catalog: catalog({ 'AAA 101': {} }), program: program(3, [need('x', 'AAA 101')]) }
    const { code, err } = await run('audit', files, '--batch', batch, '--workers', '1')
    out.mockRestore()
    expect([code, lines.length]).toEqual([1, 1])
    expect(err).toContain('b.json cannot be read: it is a folder.')
  })
  it('reads a file with a mark at its front, and refuses a level that is none', async () => {
    const path = join(folder, 'marked.json')
    writeFileSync(path, `\uFEFF${JSON.stringify(catalog({ 'AAA 101': {} }))}`)
    const rest = { program: asked, record: record([]) }
    expect((await run('audit', rest, '--catalog', path)).code).toBe(0)
    const wrong = program(3, [need('x', 'level 3+')])
    const { code, err } = await run('audit', { ...rest, program: wrong }, '--catalog', path)
    expect(code).toBe(1)
    expect(err).toContain('"3" is not a level: levels are 100, 200 and so on')
  })
})

describe('the earliest finish', () => {
  const either = { 'AAA 101': { offered: { seasons: ['spring'] } }, 'BBB 101': {} }
  const branch = (id: string, from: string) => ({ id, title: id, needs: [need(`${id}n`, from)] })
  const choice = { id: 'c', title: 'c', choose: 1, of: [branch('one', 'AAA 101'), branch('two', 'BBB 101')] }
  const fill = (files: Record<string, object | object[]>, ...more: string[]) =>
    run('fill', files, '--from', 'AU26', ...more)
  it('decides branches together with terms', async () => {
    const { said } = await fill({
      catalog: catalog(either),
      program: program(3, [choice]),
      record: record([])
    })
    expect([said.ended, said.finish, said.courses[0].course]).toEqual(['proved', 'AU26', 'BBB 101'])
  })
  it('takes the branch that can be taken', async () => {
    const { said } = await fill({
      catalog: catalog({ 'AAA 101': { prerequisite: 'test MATH >= 90' }, 'BBB 101': {} }),
      program: program(3, [choice]),
      record: record([])
    })
    expect([said.ended, said.finish]).toEqual(['proved', 'AU26'])
  })
  it('repeats a course whose grade is too low, for a need or for what asks for it', async () => {
    const courses = catalog({ 'AAA 101': {}, 'BBB 101': { prerequisite: 'AAA 101 (C)' } })
    const low = record([taken('AAA 101', 'D')])
    const forNeed = await fill({
      catalog: courses,
      program: program(3, [need('x', 'AAA 101', { leastGrade: 'C' })]),
      record: low
    })
    expect([forNeed.said.ended, forNeed.said.finish]).toEqual(['proved', 'AU26'])
    const before = await fill({ catalog: courses, program: program(3, [need('y', 'BBB 101')]), record: low })
    expect(
      before.said.courses.map((one: { course: string; term: string }) => [one.course, one.term])
    ).toEqual([
      ['AAA 101', 'AU26'],
      ['BBB 101', 'SP27']
    ])
    const route = { format: 'ridgeway route 1', planned: [plan('AAA 101', 'AU26'), plan('BBB 101', 'SP27')] }
    const checked = await run('checkroute', {
      catalog: courses,
      program: program(3, [need('y', 'BBB 101')]),
      record: low,
      route
    })
    expect(checked.said.findings).toEqual([])
  })
  it('proposes nothing whose prerequisite it would itself exclude', async () => {
    const { said } = await fill({
      catalog: catalog({ 'AAA 101': {}, 'BBB 101': { prerequisite: 'AAA 101', exclusive: ['AAA 101'] } }),
      program: program(3, [need('x', 'BBB 101')]),
      record: record([])
    })
    expect([said.ended, said.left]).toEqual(['impossible', ['x']])
  })
  it('begins with the first term of the catalog where a record is empty', async () => {
    const { said } = await run('fill', {
      catalog: catalog({ 'AAA 101': {} }),
      program: program(3, [need('x', 'AAA 101')]),
      record: record([])
    })
    expect(said.finish).toBe('AU25')
  })
})

describe('the checks of a route', () => {
  it('count its own earlier courses, whatever term is the first to be planned', async () => {
    const files = {
      catalog: catalog({ 'AAA 101': {}, 'AAA 102': { prerequisite: 'AAA 101' } }),
      program: program(3, [need('x', 'AAA 102')]),
      record: record([]),
      route: { format: 'ridgeway route 1', planned: [plan('AAA 101', 'AU26'), plan('AAA 102', 'AU27')] }
    }
    const codes = async (...more: string[]) => {
      const { said } = await run('checkroute', files, ...more)
      return said.findings.map((one: { code: string }) => one.code)
    }
    expect(await codes()).toEqual([])
    expect(await codes('--from', 'AU27')).toEqual([])
  })
})
