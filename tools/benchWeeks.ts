/** Speed of finding weeks and sections, against HiGHS and plain depth-first search in the same run. */
import loadHighs from 'highs'
import { countWeeks, findQuestion, withWishes, bestWeeks, type FindQuestion, type Want } from '#core/find'
import { judgeWeeks } from '../core/find/testing/judge'
import { termCase } from '../core/find/testing/terms'
import { sectionTests, filterByFacets, type FoundSection } from '#core/search'
import { courseCode } from '#core/ids'
import { optionsAmong, type Section } from '#core/week'
import { course as courseOf } from '../core/testing/build'
import { haystackOf, isTyped, readTyped } from '#shared/sections/sectionQuery'

export interface BenchRow {
  what: string
  median: number
  p99: number
  ratio: string
}

const TOP = 50
const WISHES: Want['wishes'] = [
  { kind: 'fewestDays' },
  { kind: 'startsAfter', time: 600 },
  { kind: 'seatsSafe' },
  { kind: 'fewestHoursBetween' }
]
const timed = (work: () => unknown): number => {
  const from = performance.now()
  work()
  return performance.now() - from
}
function spread(times: number[]): { median: number; p99: number } {
  const sorted = [...times].sort((a, b) => a - b)
  return { median: sorted[Math.floor(sorted.length / 2)]!, p99: sorted.at(-1)! }
}
const faster = (slow: { median: number }, fast: { median: number }) => (slow.median / fast.median).toFixed(0)

/** Every week, one option after the other, without bounds; stopped after so many. */
function plainSearch({ problem }: FindQuestion, most: number): { weeks: number; ended: boolean } {
  const byCourse = Array.from({ length: problem.courses }, (_, c) =>
    problem.options.flatMap((one, o) => (one.course === c ? [o] : []))
  )
  const kept = new Set(problem.kept.flat())
  const clashes = problem.options.map((one) => new Set(one.clashes))
  const order = problem.groups.flatMap((group) => (group.take ? group.courses.slice(0, group.take) : []))
  let weeks = 0
  const go = (i: number, chosen: number[]): void => {
    if (weeks >= most) return
    const course = order[i]
    if (course === undefined) {
      weeks++
      return
    }
    for (const o of byCourse[course]!)
      if (!kept.has(o) && chosen.every((other) => !clashes[o]!.has(other))) go(i + 1, [...chosen, o])
  }
  go(0, [])
  return { weeks, ended: weeks < most }
}

const MOST = 2_000_000

/** A term of a large university has so many sections. */
const SECTIONS = 6000

/** Sections of other courses than those that are asked about, until there are so many in all. */
function among(sections: readonly Section[], all: number): Section[] {
  const others: Section[] = []
  for (let seed = 7000; sections.length + others.length < all; seed++)
    for (const one of termCase(seed, { courses: 40, options: 6, hours: 12, kept: 0 }).sections)
      others.push({
        ...one,
        course: courseCode(`OTHR ${101 + (others.length % 800)}`),
        code: `${seed}${one.code}` as Section['code'],
        parent: one.parent && (`${seed}${one.parent}` as Section['code'])
      })
  return [...sections, ...others.slice(0, Math.max(0, all - sections.length))]
}

export async function weeksRows(): Promise<{ rows: BenchRow[]; memory: string }> {
  const highs = await loadHighs()
  const rows: BenchRow[] = []
  const resident = () => process.memoryUsage.rss() / 2 ** 20
  const before = resident()
  let most = before
  for (const [courses, perCourse, runs, all] of [
    [5, 8, 9, 0],
    [7, 12, 7, 0],
    [7, 12, 7, SECTIONS],
    [8, 25, 5, 0]
  ] as const) {
    const name = `${courses} courses of ${perCourse} options${all ? ` in a term of ${all} sections` : ''}`
    const cases = Array.from({ length: runs }, (_, i) =>
      // A term made to be full: every course has all its options, at every hour of the day.
      termCase(300 + i, { courses, options: perCourse, hours: 9, kept: 1, every: true })
    ).map((one) => ({ ...one, sections: all ? among(one.sections, all) : one.sections }))
    const questions = cases.map(({ sections, want, holidays }) =>
      findQuestion(sections, { ...want, wishes: WISHES }, holidays)
    )
    const asking = spread(
      cases.map(({ sections, want, holidays }) =>
        timed(() => findQuestion(sections, { ...want, wishes: WISHES }, holidays))
      )
    )
    let proved = 0
    const best = spread(
      questions.map(({ problem }) =>
        timed(() => {
          if (bestWeeks(problem, TOP).proved) proved++
          most = Math.max(most, resident())
        })
      )
    )
    const moved = [WISHES[2]!, WISHES[0]!, WISHES[1]!, WISHES[3]!]
    const again = spread(
      questions.map((question, i) =>
        timed(() => bestWeeks(withWishes(question, { wishes: moved }, cases[i]!.holidays).problem, TOP))
      )
    )
    const counts: (number | undefined)[] = []
    const counting = spread(questions.map(({ problem }) => timed(() => counts.push(countWeeks(problem)))))
    // What HiGHS can be asked: sums over options, and days; the single best week.
    const simple: Want['wishes'] = [{ kind: 'fewestDays' }, { kind: 'seatsSafe' }]
    const asked = questions
      .slice(0, 3)
      .map((question, i) => withWishes(question, { wishes: simple }, cases[i]!.holidays).problem)
    const own = spread(asked.map((problem) => timed(() => bestWeeks(problem, 1))))
    const solver = spread(asked.map((problem) => timed(() => judgeWeeks(highs, problem))))
    const searched: ReturnType<typeof plainSearch>[] = []
    const plain = spread(
      questions.slice(0, 3).map((question) => timed(() => searched.push(plainSearch(question, MOST))))
    )
    const known = counts.filter((n) => n !== undefined)
    rows.push(
      { what: `the question, ${name}`, ...asking, ratio: '' },
      { what: `best ${TOP} with proof`, ...best, ratio: `${proved} of ${runs} proved` },
      { what: 'the same after a wish moved', ...again, ratio: '' },
      {
        what: 'exact count',
        ...counting,
        ratio: `${known.length} of ${runs} counted, up to ${Math.max(0, ...known).toLocaleString('en')}`
      },
      {
        what: 'one best week by two wishes',
        ...own,
        ratio: `${faster(solver, own)} times faster than HiGHS`
      },
      { what: 'the same by HiGHS', ...solver, ratio: '' },
      {
        what: 'every week by plain depth-first search',
        ...plain,
        ratio: searched.every((one) => one.ended)
          ? `${faster(plain, best)} times slower than the best ${TOP}`
          : `stopped after ${MOST.toLocaleString('en')} weeks, ${faster(plain, best)} times slower by then`
      }
    )
  }
  return {
    rows,
    memory: `resident while finding weeks: ${most.toFixed(0)} MB at most, ${before.toFixed(0)} MB before`
  }
}

/** A term of a large university: 6,000 sections, looked through for what is typed and asked. */
export function sectionRows(): BenchRow[] {
  const sections: Section[] = []
  for (let seed = 1; sections.length < SECTIONS; seed++)
    sections.push(
      ...termCase(seed, { courses: 40, options: 6, hours: 12, kept: 0 }).sections.map((one) => ({
        ...one,
        code: `${seed}${one.code}` as Section['code'],
        parent: one.parent && (`${seed}${one.parent}` as Section['code'])
      }))
    )
  const known = courseOf('TEST 101')
  const items = sections.slice(0, SECTIONS).map((main): FoundSection & { haystack: string } => ({
    main,
    options: optionsAmong([{ ...main, parent: null }]),
    course: known,
    college: '',
    serves: [],
    atOnce: 0,
    refusals: [],
    fits: true,
    haystack: haystackOf(main, 'A course of this name', 'Subject', [])
  }))
  const tests = sectionTests({
    days: { of: [2, 4], only: true },
    seats: 'open',
    after: 540,
    modes: ['inPerson']
  })
  let kept = 0
  const times = Array.from({ length: 40 }, () =>
    timed(() => {
      const typed = readTyped('test TR 9-5')
      kept = filterByFacets(
        items.filter((one) => isTyped(one.haystack, one.main, typed)),
        tests
      ).kept.length
    })
  )
  return [
    {
      what: `sections found among ${items.length}, by words, hours and four filters`,
      ...spread(times),
      ratio: `${kept} found`
    }
  ]
}
