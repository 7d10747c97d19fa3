/**
 * `npm run bench`: medians of the hot computations, each beside a plain reference in the same run.
 *
 * References: for the audit, trying every assignment of a small case by brute force; for the clash
 * test, writing out the dates of both meetings and comparing.
 */
import { Catalog, type Course } from '#core/catalog'
import {
  auditProgram,
  compileProgram,
  takingsOf,
  type NeedSpec,
  type Program,
  type RecordEntry,
  type Taking
} from '#core/degree'
import { courseCode, termCode } from '#core/ids'
import { clashOf, datesOf, type Meeting } from '#core/week'
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

/** Largest number of takings that can be placed, by trying everything. */
function bruteForce(program: Program, takings: readonly Taking[], catalog: Catalog): number {
  const free = new Set(program.needs.map((need) => need.id))
  const go = (i: number): number => {
    if (i === takings.length) return 0
    let best = go(i + 1)
    for (const need of program.needs) {
      if (!free.has(need.id) || !need.set.has(catalog.course(takings[i]!.course))) continue
      free.delete(need.id)
      best = Math.max(best, 1 + go(i + 1))
      free.add(need.id)
    }
    return best
  }
  return go(0)
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

const small = audits(8, 6, 2000)
const smallCases = Array.from({ length: 50 }, (_, i) => world(1000 + i, 8, 6))
const brute = measure(200, (i) => {
  const { program, record, catalog } = smallCases[i % smallCases.length]!
  return bruteForce(program, takingsOf({ catalog, record, held: [], planned: [] }, []).counted, catalog)
})
const large = audits(60, 40, 1000)

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
  {
    what: 'audit, 8 courses, 6 needs',
    ...small,
    ratio: `${(brute.median / small.median).toFixed(1)} times faster than brute force`
  },
  { what: 'audit, 60 courses, 40 needs', ...large, ratio: '' },
  {
    what: `clash test, ${PAIRS} pairs`,
    ...clash,
    ratio: `${(written.median / clash.median).toFixed(1)} times faster than dates written out`
  }
])
console.log(`memory ${(process.memoryUsage().heapUsed / 2 ** 20).toFixed(0)} MB`)
