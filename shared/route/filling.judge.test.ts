/**
 * Filling judged by trying everything: which courses left complete the degree by some reading, and in which terms they
 * could stand, worked out from what `docs/answers.md` says, apart from what is judged.
 */
import loadHighs from 'highs'
import { beforeAll, expect, it } from 'vitest'
import { Catalog } from '#core/catalog'
import { auditRecord, compileProgram, gradedAttempts, NOTHING_BESIDE, type PlannedCourse } from '#core/degree'
import { fillQuestion, type Solve } from '#core/fill'
import { checkRoute, type RouteContext } from '#core/route'
import { dice } from '../../core/degree/best/testing/cases'
import { recordCase, type RecordCase } from '../../core/degree/testing/recordCases'
import { RecordJudge } from '../../core/degree/testing/recordJudge'
import { term } from '../../core/testing/build'
import { LONG } from '../../tests/long'
import { filledOf } from './filling'
import { isHard } from './fillingFaults'
import { solverOf } from './solver'

const TERMS = ['AU26', 'SP27', 'AU27', 'SP28', 'AU28', 'SP29'].map((code) => term(code))
const AHEAD = ['SP28', 'AU28', 'SP29']
const SEASONS = [['autumn', 'spring'], ['autumn', 'spring'], ['autumn'], ['spring']] as const

/** A record with seasons, loads, and prerequisites of more kinds. */
function caseOf(seed: number): RecordCase & { load: number } {
  const one = recordCase(seed)
  const roll = dice(seed + 77)
  const below = (n: number) => Math.floor(roll() * n)
  const { courses } = one.catalog
  const catalog = new Catalog(
    courses.map((own) => {
      const seasons = [...SEASONS[below(4)]!]
      const other = courses[below(courses.length)]!.code
      const kind = below(10)
      const others = courses.flatMap(({ code }) => (code !== own.code && below(2) ? [code] : [])).slice(0, 3)
      const more =
        kind === 0
          ? { prerequisite: '6 credits' }
          : kind === 1 && other !== own.code
            ? { prerequisite: `${other} (C)` }
            : kind === 2 && other !== own.code
              ? { prerequisite: `with ${other}` }
              : kind === 3 && others.length > 2
                ? { prerequisite: `2 of (${others.join(', ')})` }
                : kind === 4
                  ? { prerequisite: `average ${[1.5, 2, 2.5, 3][below(4)]}` }
                  : kind === 5 && others.length
                    ? { prerequisite: `average ${[1, 2, 2.5, 3][below(4)]} of (${others.join(', ')})` }
                    : {}
      return { ...own, ...more, offered: { seasons, years: 'every' as const } }
    })
  )
  return { ...one, catalog, load: [6, 9][below(2)]! }
}

/** The first term ahead by which everything can be met; -1 where it is already, undefined where it cannot be. */
function judged({ catalog, record, held, planned, load, specs }: ReturnType<typeof caseOf>) {
  const judge = new RecordJudge({ catalog, record, held, planned, specs })
  if (judge.completes(judge.with([]))) return -1
  const course = (code: string) => catalog.courses.find((one) => one.code === code)!
  const names = (a: string, b: string) => course(a).equivalents.some((code) => code === b)
  const alike = (a: string, b: string) => a === b || (names(a, b) && names(b, a))
  const bars = (a: string, b: string) =>
    catalog.courses.some((one) => alike(one.code, a) && one.exclusive.some((code) => alike(code, b)))
  const excludes = (a: string, b: string) => bars(a, b) || bars(b, a)
  const passed = record.filter((one) => one.grade !== null && one.grade !== 'F')
  const ahead = [
    ...record.filter((one) => one.grade === null).map((one) => ({ ...one, at: -1 })),
    ...held.map((one) => ({ ...one, at: -1 })),
    ...planned.map((one) => ({ ...one, at: AHEAD.indexOf(one.term) }))
  ]
  const there = [...passed.map((one) => one.course), ...ahead.map((one) => one.course)]
  const ofCode = (code: string) => judge.with([]).find((one) => one.code === code)
  /** Whether a course that is earned has too low a grade where another, as which it counts, would do. */
  const isTooLow = (code: string, again: string) =>
    // For a course that asks for a grade of it,
    catalog.courses.some(({ prerequisite }) => {
      const asked = /^([A-Z]+ \d+) \(.\)$/.exec(prerequisite)?.[1]
      const is = (one: string) => asked === one || names(one, asked!)
      return asked !== undefined && is(code) && is(again)
    }) ||
    // or for a need.
    judge.needs.some((need) => {
      const both = [ofCode(code), judge.with([again]).find((one) => one.code === again)]
      const takes = both.every((one) => one && judge.accepts({ ...need, leastGrade: undefined }, one))
      return need.leastGrade && takes
    })
  const left = catalog.courses
    .map((one) => one.code)
    .filter(
      (code) =>
        !ahead.some((one) => alike(one.course, code)) &&
        !there.some((one) => excludes(one, code)) &&
        // Repeated is what is not good enough for some need that would take it.
        !passed
          // Of two that are one course one counts.
          .filter((one) => ofCode(one.course))
          .some((one) => alike(one.course, code) && (one.grade !== 'D' || !isTooLow(one.course, code)))
    )
  const room = AHEAD.map(
    (_, t) => load - ahead.filter((one) => one.at === t).reduce((sum, one) => sum + one.credits, 0)
  )
  const points: Record<string, number> = { B: 3, C: 2, D: 1 }
  const counted = judge
    .with([])
    .filter((one, i, all) => !all.slice(0, i).some((other) => excludes(one.code, other.code)))
  /** What adds credits before a term: there, or added. */
  const adding = (t: number, at: ReadonlyMap<string, number>) => [
    ...counted
      .filter((one) => !one.repeat && (one.level < 3 || ahead.some((p) => p.course === one.code && p.at < t)))
      .map(({ code, credits, grade }) => ({ code, credits, isOpen: grade === null })),
    ...[...at]
      .filter(([other, s]) => s < t && !passed.some((p) => alike(p.course, other)))
      .map(([code]) => ({ code, credits: course(code).credits, isOpen: true }))
  ]
  const here = record.filter((one) => one.grade !== null && one.origin === 'here')
  /** What enters an average: of what was taken here and counts as one the best; what was failed until one of it is passed. */
  const averaged = here.filter((one, i) =>
    here.every((other, k) => {
      if (k === i || !alike(other.course, one.course)) return true
      const [own, others] = [points[one.grade!] ?? 0, points[other.grade!] ?? 0]
      return own > others || (own === others && (own === 0 || i < k))
    })
  )
  /** Whether what a course asks for is there when its term begins; `at` says where the courses added stand. */
  const holds = (code: string, t: number, at: ReadonlyMap<string, number>): boolean => {
    const rule = course(code).prerequisite
    const two = /^2 of \((.+)\)$/.exec(rule)?.[1]
    // No course is there for itself, as an equivalent of what it asks for.
    const others = new Map([...at].filter(([other]) => other !== code))
    return two ? two.split(', ').filter((one) => has(one, t, others)).length >= 2 : has(rule, t, others)
  }
  const has = (rule: string, t: number, at: ReadonlyMap<string, number>): boolean => {
    if (!rule) return true
    if (rule.startsWith('test')) return false
    const average = /^average ([\d.]+)(?: of \((.+)\))?$/.exec(rule)
    if (average) {
      const of = average[2]?.split(', ')
      const isOf = (code: string) => !of || of.some((one) => code === one || names(code, one))
      const graded = averaged.filter((one) => isOf(one.course))
      const credits = graded.reduce((sum, one) => sum + one.credits, 0)
      const sum = graded.reduce((all, one) => all + one.credits * (points[one.grade!] ?? 0), 0)
      if (credits && Math.round((100 * sum) / credits + 1e-9) >= 100 * Number(average[1])) return true
      return adding(t, at).some((one) => one.isOpen && isOf(one.code))
    }
    if (rule === '6 credits') return adding(t, at).reduce((sum, one) => sum + one.credits, 0) >= 6
    const along = rule.startsWith('with ')
    const [, asked, , least] = /^(?:with )?([A-Z]+ \d+)( \((.)\))?/.exec(rule)!
    const is = (other: string) => other === asked || names(other, asked!)
    if (passed.some((one) => is(one.course) && (!least || points[one.grade!]! >= points[least]!))) return true
    if (ahead.some((one) => is(one.course) && (one.at < t || (along && one.at === t)))) return true
    return [...at].some(([other, s]) => is(other) && (s < t || (along && s === t)))
  }
  const runs = (code: string, t: number) =>
    course(code).offered.seasons.includes(AHEAD[t]!.startsWith('AU') ? 'autumn' : 'spring')
  let best: number | undefined
  for (let bits = 1; bits < 2 ** left.length; bits++) {
    const some = left.filter((_, i) => bits & (1 << i))
    if (some.some((a, i) => some.some((b, k) => k > i && (alike(a, b) || excludes(a, b))))) continue
    /** The first last term in which they can stand. */
    const lay = (i: number, at: Map<string, number>, used: number[]): number | undefined => {
      if (i === some.length)
        return some.every((code) => holds(code, at.get(code)!, at)) ? Math.max(...at.values()) : undefined
      let found: number | undefined
      for (let t = 0; t < (best ?? AHEAD.length); t++) {
        const { credits } = course(some[i]!)
        if (!runs(some[i]!, t) || used[t]! + credits > room[t]!) continue
        const last = lay(i + 1, new Map(at).set(some[i]!, t), used.with(t, used[t]! + credits))
        if (last !== undefined && (found === undefined || last < found)) found = last
      }
      return found
    }
    const last = lay(
      0,
      new Map(),
      AHEAD.map(() => 0)
    )
    if (last === undefined || (best !== undefined && last >= best)) continue
    if (judge.completes(judge.with(some))) best = last
  }
  return best
}

/** Whether a prerequisite asks for credits or an average while courses that are there exclude each other. */
function restsOnExcluded({ catalog, record, held, planned }: RecordCase): boolean {
  const there = new Set(
    [...record.filter((one) => one.grade !== 'F'), ...held, ...planned].map((one) => one.course)
  )
  return (
    catalog.courses.some((one) => /^average|credits$/.test(one.prerequisite)) &&
    catalog.courses.some((one) => there.has(one.code) && one.exclusive.some((other) => there.has(other)))
  )
}

let solve: Solve
beforeAll(async () => {
  solve = solverOf(await loadHighs())
})

const CASES = LONG ? 4000 : 40
/** On which the search was wrong once. */
const ONCE_WRONG = [14_915]
it(
  `the earliest finish is that of trying everything (${CASES} small records, from seed 1)`,
  { timeout: 900_000 },
  () => {
    const seen = { done: 0, filled: 0, late: 0, impossible: 0, unproved: 0 }
    for (const seed of [...Array.from({ length: CASES }, (_, i) => i + 1), ...ONCE_WRONG]) {
      const one = caseOf(seed)
      const programs = one.specs.map((spec) => compileProgram(spec))
      const reread = (planned: readonly PlannedCourse[]) => {
        const { attempts, audits } = auditRecord(programs, { ...one, planned }, TERMS, {
          beside: NOTHING_BESIDE
        })
        const context: RouteContext = {
          catalog: one.catalog,
          terms: TERMS,
          plannable: new Set(AHEAD),
          student: {
            standing: 'freshman',
            programs: programs.map(({ spec }) => spec.code),
            tests: {},
            graded: gradedAttempts(attempts)
          },
          attempts,
          planned,
          running: new Map(),
          loadMost: () => one.load,
          audits
        }
        return { audits, context }
      }
      const best = judged(one)
      const before = reread(one.planned).context
      // What is planned without its prerequisite asks for it too: another question than how early.
      // Of courses that exclude each other the reading says which one counts, and so gives credits and is in an average.
      if (
        best === -1 ||
        restsOnExcluded(one) ||
        checkRoute(before).some((found) => found.code.endsWith('requisite'))
      ) {
        seen.done++
        continue
      }
      const question = fillQuestion(before, {
        summers: false,
        subjects: new Set(),
        level: 'undergraduate'
      })
      const { answer, proposal } = filledOf(question, one.planned, reread, { solve })
      const planned = (proposal?.courses ?? []).map((p) => p.planned)
      if (best === undefined) {
        expect({ seed, kind: answer.kind, finish: proposal?.finish?.code }).toEqual({
          seed,
          kind: 'partly',
          finish: undefined
        })
        seen.impossible++
      } else {
        expect({ seed, finish: proposal?.finish?.code }).toEqual({ seed, finish: AHEAD[best] })
        seen.filled++
        if (best > 0) seen.late++
        if (!proposal!.proved) seen.unproved++
      }
      const { context } = reread([...one.planned, ...planned])
      const added = new Set(planned.map((p) => `${p.course} ${p.term}`))
      const wrong = checkRoute(context).filter(
        (found) => isHard(found) && 'course' in found && added.has(`${found.course} ${found.term}`)
      )
      expect({ seed, wrong }).toEqual({ seed, wrong: [] })
    }
    expect(seen.unproved).toBeLessThanOrEqual(CASES / 50)
    for (const often of [seen.filled, seen.late, seen.impossible]) expect(often).toBeGreaterThan(CASES / 12)
  }
)
