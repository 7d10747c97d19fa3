// oxlint-disable max-lines -- a function for each row of one table
/**
 * `npm run bench`: medians of the hot computations, each beside a plain reference in the same run.
 *
 * References: for the best reading, a general MILP solver; for the clash test, writing out the dates of
 * both meetings and comparing.
 */
import { spawn } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import loadHighs from 'highs'
import { Catalog, type Course } from '#core/catalog'
import {
  auditProgram,
  auditRecord,
  compileProgram,
  attemptsOf,
  type NeedSpec,
  type PlannedCourse,
  type Program,
  type ProgramSpec,
  type RecordEntry
} from '#core/degree'
import { fillQuestion } from '#core/fill'
import { courseCode, termCode } from '#core/ids'
import { checkRoute, blockers, slackOf } from '#core/route'
import { CourseSearch } from '#shared/catalog/courseSearch'
import { filledOf } from '#shared/route/filling'
import { listsFor } from '#shared/catalog/context'
import { solverOf } from '#shared/route/solver'
import { NO_LIMITS, trialContext } from '#shared/degree/trial'
import { clashOf, datesOf, type Meeting } from '#core/week'
import { questionOf } from '../core/degree/testing/question'
import { solve } from '../core/degree/best/testing/search'
import { degreeOf, earliestOf, rereadOf } from '../core/fill/testing/degrees'
import { caseFrom, type Case } from '../core/degree/best/testing/cases'
import { judge } from '../core/degree/best/testing/judge'
import {
  catalog as demoCatalog,
  courses as demoCourses,
  lists,
  programs as demoPrograms
} from '../demo/catalog'
import { terms as demoTerms } from '../demo/college'
import { OfferBuilder } from '../demo/offer'
import { PeopleBuilder } from '../demo/people'
import type { DemoStudent } from '../demo/student'
import { Random } from '../demo/random'
import { isBuilt, redraw } from './benchBrowser'
import { largeTerm } from './benchSections'
import { sectionRows, weeksRows } from './benchWeeks'

const SUBJECTS = ['ENVI', 'STAT', 'HYDR', 'ARTS', 'SOIL', 'MATH', 'GEOS', 'HERI', 'CSCI', 'WRIT']
const NUMBERS = [101, 102, 110, 120, 201, 205, 210, 220, 230, 240, 301, 310, 320, 330, 340, 401, 410, 420]

/** A college of 180 courses, and a degree of 40 needs of the kinds programs have; areas reach into each other. */
function college(): { courses: Course[]; spec: ProgramSpec } {
  const courses = SUBJECTS.flatMap((subject, s) =>
    NUMBERS.map((number, n): Course => ({
      code: courseCode(`${subject} ${number}`),
      title: `Course ${number}`,
      credits: (s + n) % 4 === 0 ? 4 : 3,
      creditsMost: (s + n) % 4 === 0 ? 4 : 3,
      level: 'undergraduate',
      yearLevel: Math.floor(number / 100),
      offered: { seasons: ['autumn', 'spring'], years: 'every' },
      prerequisite: '',
      categories: [`family-${'abcde'[(s + n) % 5]}`],
      equivalents: [],
      exclusive: [],
      repeatable: false
    }))
  )
  const areas = SUBJECTS.map((subject, i) => {
    const next = SUBJECTS[(i + 1) % SUBJECTS.length]!
    const need = (k: number, from: string, over: Partial<NeedSpec>): NeedSpec => ({
      id: `n-${i}-${k}`,
      title: `need ${i}.${k}`,
      measure: 'courses',
      amount: 1,
      credits: 3,
      from,
      ...over
    })
    return {
      id: `area-${i}`,
      title: `Area ${i}`,
      needs: [
        need(1, `${subject} 101, 102`, { amount: 2, credits: 6 }),
        need(2, `${subject} 201, 205, 210 or ${next} 205`, {}),
        need(3, `${subject} 200+`, { measure: 'credits', amount: 6, credits: 6 }),
        need(4, i < 5 ? `category family-${'abcde'[i]}` : `${subject} 110, 120 or ${next} 110`, {})
      ]
    }
  })
  const title = 'Bench'
  const spec: ProgramSpec = {
    code: 'BENCH',
    title,
    shortTitle: title,
    kind: 'degree',
    catalogYear: '2025-26',
    credits: 180,
    areas
  }
  return { courses, spec }
}

/** Records of 60 courses, the lower numbers likelier. */
function recordFrom(seed: number, courses: readonly Course[]): RecordEntry[] {
  const random = new Random(seed)
  const drawn = courses
    .map((course) => ({ course, rank: random.next() ** (course.yearLevel < 3 ? 0.5 : 1.5) }))
    .sort((a, b) => b.rank - a.rank)
  return drawn.slice(0, 60).map(({ course }, i) => ({
    course: course.code,
    term: termCode(i < 45 ? 'AU26' : 'SP27'),
    credits: course.credits,
    grade: i < 45 ? 'B' : null,
    origin: 'here'
  }))
}

const bench = college()
const catalog = new Catalog(bench.courses)
const program: Program = compileProgram(bench.spec)

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

const ratio = (a: { median: number }, b: { median: number }) => (a.median / b.median).toFixed(0)

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

// The demo college: programs and records as colleges have them, not made to be hard.
const luck = new Random(20270409)
const { students: people } = new PeopleBuilder(luck, new OfferBuilder(luck).build()).build()
const compiled = new Map(
  demoPrograms.map((one) => [one.code, compileProgram(one, { lists: listsFor(lists, one.catalogYear) })])
)
const recordOf = ({ record }: DemoStudent): RecordEntry[] =>
  record.map(({ course, term, ...rest }) => ({
    ...rest,
    course: courseCode(course),
    term: term === null ? null : termCode(term)
  }))
const plannedBy = ({ planned }: DemoStudent): PlannedCourse[] =>
  planned.map(({ course, term }) => {
    const code = courseCode(course)
    const { credits } = demoCatalog.course(code)
    return { course: code, term: termCode(term), credits, note: null, locked: false }
  })
const asked = people.map((student) => ({
  programs: student.programs.map((code) => compiled.get(code)!),
  input: { catalog: demoCatalog, record: recordOf(student), held: [], planned: plannedBy(student) }
}))
const ordered = demoTerms.map(({ code }) => ({ code: termCode(code) }))
const ordinary = measure(1000, (i) => {
  const { programs, input } = asked[i % asked.length]!
  return auditRecord(programs, input, ordered)
})

const records = Array.from({ length: 100 }, (_, i) => recordFrom(1000 + i, bench.courses))
const whole = measure(1000, (i) =>
  auditProgram(
    program,
    attemptsOf({ catalog, record: records[i % 100]!, held: [], planned: [] }, []),
    catalog
  )
)
/** The questions behind those audits, as the search and the solver see them. */
const real = records.map((record): Case => {
  const { counted } = attemptsOf({ catalog, record, held: [], planned: [] }, [])
  return questionOf([program], counted, catalog)
})
const realSearch = measure(1000, (i) => solve(real[i % 100]!.problem, real[i % 100]!.root))
const sized = questions(60, 100, 60, 40)
const search = measure(60, (i) => solve(sized[i % 60]!.problem, sized[i % 60]!.root))
const highs = await loadHighs()
const realSolver = measure(40, (i) => judge(highs, real[i]!.problem, real[i]!.root))
const solver = measure(60, (i) => judge(highs, sized[i % 60]!.problem, sized[i % 60]!.root))

/** Less than the search allows itself, so that the run ends soon. */
const WORST_STATES = 40_000
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
const hard = measure(6, (i) => ended[solve(worst[i]!.problem, worst[i]!.root, WORST_STATES).ended]++)

const dated = demoTerms.map((term) => ({ ...term, start: term.startsOn, end: term.endsOn }))
/** Every degree of the demo filled from an empty record, without summers and with them; each once, some take seconds. */
const filling = demoPrograms
  .filter((spec) => spec.kind === 'degree')
  .map((spec) => {
    const programs = [compiled.get(spec.code)!]
    const content = {
      name: 'Nobody',
      record: [],
      held: [],
      planned: [],
      tests: {},
      milestones: [],
      exceptions: [],
      standing: 'freshman' as const
    }
    const plannable = new Set<string>(
      demoTerms.filter((term) => term.startsOn > '2027-08').map((term) => term.code)
    )
    const contextWith = (planned: readonly PlannedCourse[]) =>
      trialContext(
        content,
        { programs, catalog: demoCatalog, terms: dated },
        { planned, carry: NO_LIMITS, plannable }
      )
    const reread = (planned: readonly PlannedCourse[]) => {
      const context = contextWith(planned)
      return { audits: [...context.audits], context }
    }
    const runs = [false, true].map((summers) => {
      const started = performance.now()
      const question = fillQuestion(contextWith([]), {
        summers,
        subjects: new Set(),
        level: 'undergraduate'
      })
      const { answer } = filledOf(question, [], reread, { solve: solverOf(highs) })
      const proved = answer.kind === 'filled' && answer.proved
      return { took: performance.now() - started, proved }
    })
    return {
      what: `filling ${spec.shortTitle} from an empty record, without summers and with them`,
      median: Math.min(...runs.map((run) => run.took)),
      p99: Math.max(...runs.map((run) => run.took)),
      ratio: `${runs.filter((run) => run.proved).length} of ${runs.length} proved`
    }
  })

/** Random degrees by size, filled, each beside another form of the question put to the same solver. */
const fillingBySize = [40, 60].map((size) => {
  const runs = Array.from({ length: 10 }, (_, i) => {
    const degree = degreeOf(9000 + i, size)
    const reread = rereadOf(degree)
    const started = performance.now()
    const question = fillQuestion(reread([]).context, {
      summers: false,
      subjects: new Set(),
      level: 'undergraduate'
    })
    const { answer } = filledOf(question, [], reread, { solve: solverOf(highs) })
    const between = performance.now()
    earliestOf(highs, degree)
    const settled = 'proved' in answer && answer.proved
    return { took: between - started, other: performance.now() - between, settled }
  })
  const sorted = (values: number[]) => values.sort((a, b) => a - b)
  const took = sorted(runs.map((run) => run.took))
  const other = sorted(runs.map((run) => run.other))
  const settled = runs.filter((run) => run.settled).length
  return {
    what: `filling a random degree of ${size} courses, eight terms`,
    median: took[Math.floor(took.length / 2)]!,
    p99: took.at(-1)!,
    ratio: `${settled} of ${runs.length} settled; the finish alone in another form ${other[Math.floor(other.length / 2)]!.toFixed(0)} ms`
  }
})

// A catalog of 5,000 courses, found by a word with a slip in it.
const TITLES = ['Rivers', 'Landscapes', 'Inference', 'Databases', 'Archives', 'Regression', 'Soils', 'Cities']
const large = Array.from({ length: 5000 }, (_, i): Course => ({
  ...bench.courses[i % bench.courses.length]!,
  code: courseCode(
    `${'ABCDEFGHIJKLMNOPQRSTUVWXYZ'[i % 26]!}${SUBJECTS[i % SUBJECTS.length]!.slice(0, 3)} ${100 + (i % 400)}${'ABCDEFGHJKLM'[i % 12]!}`
  ),
  title: `${TITLES[i % 8]!} and ${TITLES[(i * 5 + 3) % 8]!} ${i}`
}))
const unique = [...new Map(large.map((course) => [course.code, course])).values()]
const texts = demoCourses.map((one) => one.description)
const finder = await CourseSearch.make(
  unique,
  ({ code }) => ({ description: texts[Number(code.slice(5, 8)) % texts.length]! }),
  () => Promise.resolve()
)
const asks = [
  'regresion',
  'meadow laboratory',
  'landscpes rivers',
  'envi310',
  '94',
  'soils',
  'AENV 120, BSTA 301'
]
const finding = measure(60, (i) => finder.find(asks[i % asks.length]!, 9))

// The checks of the demo students' routes, and where a course that is lifted may stand.
const contexts = people
  .filter((student) => student.planned.length > 4)
  .slice(0, 60)
  .map((student) =>
    trialContext(
      {
        name: student.name,
        standing: student.standing,
        record: recordOf(student),
        held: [],
        planned: [],
        tests: {},
        milestones: [],
        exceptions: []
      },
      {
        programs: student.programs.map((code) => compiled.get(code)!),
        catalog: demoCatalog,
        terms: dated
      },
      {
        planned: plannedBy(student),
        carry: NO_LIMITS,
        plannable: new Set(demoTerms.filter((term) => term.startsOn > '2027-04-09').map((term) => term.code))
      }
    )
  )
const contextOf = (i: number) => contexts[i % contexts.length]!
const checked = measure(300, (i) => checkRoute(contextOf(i)))
const lifted = measure(1000, (i) => {
  const context = contextOf(i)
  const course = context.planned[i % context.planned.length]!.course
  return context.terms.map((term) => blockers(context, course, term))
})
const slack = measure(300, (i) => slackOf(contextOf(i)))

const foundWeeks = await weeksRows()
const weeks = [...foundWeeks.rows, ...sectionRows()]

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
    building: null,
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

/** Record files through the command, with two worker threads; memory is read while it runs. */
async function batch(
  courses: object,
  spec: object,
  records: readonly object[]
): Promise<{ seconds: number; early: number; late: number }> {
  const students = records.length
  const folder = mkdtempSync(join(tmpdir(), 'ridgeway-bench-'))
  const file = (name: string, value: object) => writeFileSync(join(folder, name), JSON.stringify(value))
  file('catalog', { format: 'ridgeway catalog 1', courses, lists })
  file('program', { format: 'ridgeway program 1', program: spec })
  records.forEach((record, i) => file(`${i}.json`, { format: 'ridgeway record 1', record }))
  const from = performance.now()
  const args = ['audit', '--catalog', join(folder, 'catalog'), '--program', join(folder, 'program')]
  const child = spawn(
    process.execPath,
    [join(import.meta.dirname, 'ridgeway.mjs'), ...args, '--batch', folder, '--workers', '2'],
    { stdio: ['ignore', 'pipe', 'inherit'] }
  )
  const resident = () =>
    Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${child.pid}/status`, 'utf8'))?.[1] ?? 0) / 1024
  let lines = 0
  let [early, late] = [0, 0]
  child.stdout.on('data', (chunk: Buffer) => {
    for (const byte of chunk) if (byte === 10) lines++
    if (!early && lines > students / 4) early = resident()
    if (lines > students * 0.9 && lines < students) late = resident()
  })
  const code = await new Promise((resolve) => child.on('close', resolve))
  const seconds = (performance.now() - from) / 1000
  rmSync(folder, { recursive: true, force: true })
  if (code !== 0 || lines !== students)
    throw new Error(`the batch ended with ${String(code)} after ${lines} records`)
  return { seconds, early, late }
}

table([
  {
    what: `audits of the ${people.length} demo students, from record to areas`,
    ...ordinary,
    ratio: ''
  },
  { what: 'audit of a knotted program, 60 courses, 40 needs, from record to areas', ...whole, ratio: '' },
  {
    what: 'best reading within it',
    ...realSearch,
    ratio: `${ratio(realSolver, realSearch)} times faster than HiGHS`
  },
  { what: 'the same by HiGHS', ...realSolver, ratio: '' },
  {
    what: 'best reading, random and contested, 60 courses, 40 needs',
    ...search,
    ratio: `${ratio(solver, search)} times faster than HiGHS`
  },
  { what: 'the same by HiGHS', ...solver, ratio: '' },
  {
    what: 'worst family, 24 courses, 9 needs',
    ...hard,
    ratio: `${ended.optimal} runs proved, ${ended.limit} at the limit`
  },
  ...filling,
  ...fillingBySize,
  { what: `finding a course among ${unique.length}, descriptions and all`, ...finding, ratio: '' },
  { what: `checks of a route, ${contexts.length} demo students`, ...checked, ratio: '' },
  {
    what: `where a lifted course may stand, ${contexts[0]!.terms.length} terms`,
    ...lifted,
    ratio: `${ratio(checked, lifted)} times less than all checks`
  },
  { what: 'chains and slack of a route', ...slack, ratio: '' },
  ...weeks,
  {
    what: `clash test, ${PAIRS} pairs`,
    ...clash,
    ratio: `${(written.median / clash.median).toFixed(1)} times faster than dates written out`
  }
])
console.log(foundWeeks.memory)
const STUDENTS = 10_000
const many = <T>(from: (i: number) => T) => Array.from({ length: STUDENTS }, (_, i) => from(i))
const majors = people.filter((student) => student.programs[0] === 'ENVD')
const batches = {
  'demo students against their degree': await batch(
    demoCatalog.courses.map((course) => ({ ...course, description: undefined })),
    demoPrograms.find((one) => one.code === 'ENVD')!,
    many((i) => recordOf(majors[i % majors.length]!))
  ),
  'records of 60 courses against the knotted program': await batch(
    bench.courses,
    bench.spec,
    many((i) => recordFrom(i, bench.courses))
  )
}
for (const [what, { seconds, early, late }] of Object.entries(batches))
  console.log(
    `batch of ${STUDENTS} ${what}, two workers: ${seconds.toFixed(1)} s; resident ${early.toFixed(0)} MB after a quarter, ${late.toFixed(0)} MB near the end`
  )
if (isBuilt()) for (const line of [...(await redraw()), ...(await largeTerm())]) console.log(line)
else console.log('pages: not measured, there is no build (npm run build)')
