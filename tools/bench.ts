/**
 * `npm run bench`: medians of the hot computations, each beside a plain reference in the same run.
 *
 * References: for the best reading, a general MILP solver; for the clash test, writing out the dates of
 * both meetings and comparing.
 */
import loadHighs from 'highs'
import { Catalog, type Course } from '#core/catalog'
import {
  auditProgram,
  compileProgram,
  takingsOf,
  type NeedSpec,
  type Program,
  type RecordEntry
} from '#core/degree'
import { courseCode, termCode } from '#core/ids'
import { clashOf, datesOf, type Meeting } from '#core/week'
import { solve } from '../core/degree/best/testing/search'
import { caseFrom, type Case } from '../core/degree/best/testing/cases'
import { judge } from '../core/degree/best/testing/judge'
import { Random } from '../demo/random'

const SUBJECTS = ['ENVI', 'STAT', 'HYDR', 'ARTS', 'SOIL', 'MATH']

function world(
  seed: number,
  courses: number,
  needs: number
): { program: Program; record: RecordEntry[]; catalog: Catalog } {
  const random = new Random(seed)
  const all = Array.from({ length: Math.max(courses * 2, 20) }, (_, i): Course => ({
    code: courseCode(`${SUBJECTS[i % SUBJECTS.length]} ${100 + i}`),
    title: `Course ${i}`,
    credits: 3,
    creditsMost: 3,
    level: 'undergraduate',
    yearLevel: 1 + (i % 4),
    offered: { seasons: ['autumn', 'spring'], years: 'every' },
    prerequisite: '',
    categories: [],
    equivalents: [],
    repeatable: false
  }))
  const specs = Array.from({ length: needs }, (_, i): NeedSpec => {
    const from = Array.from({ length: 2 + random.below(5) }, () => random.pick(all).code).join(' or ')
    return { id: `n${i}`, title: `need ${i}`, measure: 'courses', amount: 1, credits: 3, from }
  })
  const program = compileProgram({
    code: 'BENCH',
    title: 'Bench',
    shortTitle: 'Bench',
    kind: 'degree',
    catalogYear: '2025-26',
    credits: 3 * needs,
    areas: [{ id: 'all', title: 'All', needs: specs }]
  })
  const record = random
    .shuffled(all)
    .slice(0, courses)
    .map((course): RecordEntry => ({
      course: course.code,
      term: termCode('AU26'),
      credits: 3,
      grade: 'B',
      origin: 'here'
    }))
  return { program, record, catalog: new Catalog(all) }
}

interface Row {
  what: string
  median: number
  p99: number
  ratio: string
}

function measure(runs: number, work: (i: number) => unknown): { median: number; p99: number } {
  for (let i = 0; i < Math.min(runs, 20); i++) work(i)
  const times = Array.from({ length: runs }, (_, i) => {
    const started = performance.now()
    work(i)
    return performance.now() - started
  }).sort((a, b) => a - b)
  return { median: times[Math.floor(runs / 2)]!, p99: times[Math.floor(runs * 0.99)]! }
}

function audits(courses: number, needs: number, runs: number) {
  const cases = Array.from({ length: 50 }, (_, i) => world(1000 + i, courses, needs))
  return measure(runs, (i) => {
    const { program, record, catalog } = cases[i % cases.length]!
    return auditProgram(program, takingsOf({ catalog, record, held: [], planned: [] }, []), catalog)
  })
}

function table(rows: Row[]): void {
  const cells = [
    ['', 'median ms', 'p99 ms', 'against'],
    ...rows.map((r) => [r.what, r.median.toFixed(4), r.p99.toFixed(4), r.ratio])
  ]
  const widths = cells[0]!.map((_, i) => Math.max(...cells.map((row) => row[i]!.length)))
  for (const row of cells)
    console.log(row.map((cell, i) => (i ? cell.padStart(widths[i]!) : cell.padEnd(widths[i]!))).join('   '))
}

/** Questions of the given size from fixed seeds, as the search sees them. */
function questions(seeds: number, from: number, courses: number, needs: number): Case[] {
  return Array.from({ length: seeds }, (_, i) =>
    caseFrom(from + i, {
      courses,
      needs,
      breadth: 0.02,
      taken: 0.85,
      // Free choice takes what is left, so it is no part of the contest.
      wide: 0,
      caps: i % 4 === 0 ? 1 : 0,
      shares: i % 3 === 0,
      branches: i % 3 === 1
    })
  )
}

const whole = audits(60, 40, 1000)
const sized = questions(60, 100, 60, 40)
const search = measure(60, (i) => solve(sized[i % 60]!.problem, sized[i % 60]!.root))
const highs = await loadHighs()
const solver = measure(60, (i) => judge(highs, sized[i % 60]!.problem, sized[i % 60]!.root))

// A family built to be hard: every need could take almost any course, and wants several.
const worst = questions(6, 900, 24, 9).map(({ problem, root }): Case => ({
  root,
  problem: {
    ...problem,
    wants: problem.wants.map((want) => (want.byCourse ? { ...want, amount: 3 } : want)),
    pieces: problem.pieces.map((piece, p) => ({
      ...piece,
      wants: problem.wants.map((_, w) => w).filter((w) => (w * 5 + p * 3) % 7 < 3)
    })),
    shares: []
  }
}))
const ended = { optimal: 0, limit: 0 }
const hard = measure(6, (i) => ended[solve(worst[i]!.problem, worst[i]!.root).ended]++)

const STUDENTS = 10_000
const people = Array.from({ length: 50 }, (_, i) => world(1000 + i, 40, 36))
const before = process.memoryUsage().heapUsed
const batchFrom = performance.now()
for (let i = 0; i < STUDENTS; i++) {
  const { program, record, catalog } = people[i % 50]!
  auditProgram(program, takingsOf({ catalog, record, held: [], planned: [] }, []), catalog)
}
const batch = (performance.now() - batchFrom) / 1000
const grown = (process.memoryUsage().heapUsed - before) / 2 ** 20

const random = new Random(7)
const meetings = Array.from({ length: 400 }, (): Meeting => {
  const start = 480 + random.below(40) * 15
  return {
    days: random.pick([[1, 3], [2, 4], [1, 3, 5], [5], [2]] as const),
    start,
    end: start + 75,
    from: '2027-08-30',
    to: '2027-12-17',
    campus: 'HILL',
    room: null
  }
})
const pair = (i: number) => [meetings[i % 400]!, meetings[(i * 7 + 13) % 400]!] as const
const PAIRS = 1000
const clash = measure(200, (run) => {
  for (let i = 0; i < PAIRS; i++) clashOf(...pair(run * PAIRS + i))
})
const written = measure(20, (run) => {
  for (let i = 0; i < PAIRS; i++) {
    const [a, b] = pair(run * PAIRS + i)
    const dates = new Set(datesOf(a))
    if (a.start < b.end && b.start < a.end) datesOf(b).some((date) => dates.has(date))
  }
})

table([
  { what: 'audit from record to areas, 60 courses, 40 needs', ...whole, ratio: '' },
  {
    what: 'best reading, 60 courses, 40 needs, contested',
    ...search,
    ratio: `${(solver.median / search.median).toFixed(0)} times faster than HiGHS`
  },
  { what: 'the same by HiGHS', ...solver, ratio: '' },
  {
    what: 'worst family, 24 courses, 9 needs',
    ...hard,
    ratio: `${ended.optimal} runs proved, ${ended.limit} at the limit`
  },
  {
    what: `clash test, ${PAIRS} pairs`,
    ...clash,
    ratio: `${(written.median / clash.median).toFixed(1)} times faster than dates written out`
  }
])
console.log(
  `batch of ${STUDENTS} audits on one core: ${batch.toFixed(1)} s, heap ${grown >= 0 ? '+' : ''}${grown.toFixed(0)} MB`
)
console.log(`memory ${(process.memoryUsage().heapUsed / 2 ** 20).toFixed(0)} MB`)
