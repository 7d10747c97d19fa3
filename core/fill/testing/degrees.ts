/**
 * Random degrees of some dozens of courses, and the earliest finish of each by a general solver in another form: one
 * model that minimizes the last term itself, with what stands before what as differences of terms (Pritsker, Watters
 * and Wolfe 1969), where filling asks term after term whether everything can be met, in cumulative form. Both are solved
 * by HiGHS; they share no row.
 */
import type { Highs } from 'highs'
import { Catalog, type Course } from '../../catalog'
import { auditRecord, type NeedSpec, type PlannedCourse } from '../../degree'
import { dice } from '../../degree/best/testing/cases'
import type { RouteContext } from '../../route'
import { course, program, term } from '../../testing/build'

export const DEGREE_TERMS = ['AU27', 'SP28', 'AU28', 'SP29', 'AU29', 'SP30', 'AU30', 'SP31'].map((code) =>
  term(code)
)
const SUBJECTS = ['AAA', 'BBB', 'CCC', 'DDD'] as const

export interface Degree {
  courses: Course[]
  /** For each course the ways to be ready for it: of each inner list one has to come before. */
  before: Map<string, string[][]>
  needs: { codes: string[]; byCourse: boolean; amount: number }[]
  load: number
}

/** About as many courses as asked, in levels, each built on earlier ones; needs of lists and of subjects. */
export function degreeOf(seed: number, size: number): Degree {
  const roll = dice(seed)
  const below = (n: number) => Math.floor(roll() * n)
  const pick = <T>(list: readonly T[]): T => list[below(list.length)]!
  const seasons = [['autumn', 'spring'], ['autumn', 'spring'], ['autumn'], ['spring']] as const
  const before = new Map<string, string[][]>()
  const courses: Course[] = []
  for (let i = 0; i < size; i++) {
    const code = `${SUBJECTS[i % SUBJECTS.length]!} ${101 + Math.floor((i * 4) / size) * 100 + i}`
    const earlier = courses.map((one) => one.code as string)
    const rule: string[][] = []
    if (earlier.length > 3 && below(10) < 6) rule.push([pick(earlier), ...(below(3) ? [] : [pick(earlier)])])
    if (rule.length && below(10) < 3) rule.push([pick(earlier)])
    const parts = rule.map((some) => `(${[...new Set(some)].join(' or ')})`)
    before.set(code, rule)
    courses.push(
      course(code, {
        credits: pick([3, 3, 3, 4]),
        prerequisite: parts.join(' and '),
        offered: { seasons: [...pick(seasons)], years: 'every' }
      })
    )
  }
  const all = courses.map((one) => one.code as string)
  const needs = Array.from({ length: 4 + below(4) }, (_, n) => {
    if (n % 3 === 2) {
      const subject = pick(SUBJECTS)
      const amount = pick([6, 9, 12])
      return { codes: all.filter((code) => code.startsWith(subject)), byCourse: false, amount }
    }
    const codes = [...new Set(Array.from({ length: 2 + below(5) }, () => pick(all)))]
    return { codes, byCourse: true, amount: 1 + below(codes.length) }
  })
  return { courses, before, needs, load: pick([9, 12, 15]) }
}

/** The first last term by the solver; undefined where there is none, `open` where its limit came first. */
export function earliestOf(
  highs: Highs,
  { courses, before, needs, load }: Degree
): number | 'open' | undefined {
  const rows: string[] = []
  const binary: string[] = []
  const last = DEGREE_TERMS.length - 1
  const number = new Map(courses.map((one, c) => [one.code as string, c]))
  const row = (terms: readonly [number, string][], sign: string, right: number) => {
    const merged = new Map<string, number>()
    for (const [factor, name] of terms) merged.set(name, (merged.get(name) ?? 0) + factor)
    const text = [...merged].map(([name, factor]) => `${factor < 0 ? '-' : '+'} ${Math.abs(factor)} ${name}`)
    rows.push(` c${rows.length}: ${text.join('\n  ')} ${sign} ${right}`)
  }
  const x = (c: number, t: number) => `x${c}_${t}`
  const runs = (one: Course, t: number) => one.offered.seasons.includes(DEGREE_TERMS[t]!.season)
  const taken = (c: number): [number, string][] => times(c).map((t) => [1, x(c, t)])
  const at = (c: number, factor: number): [number, string][] => times(c).map((t) => [factor * t, x(c, t)])
  const times = (c: number) => DEGREE_TERMS.map((_, t) => t).filter((t) => runs(courses[c]!, t))
  courses.forEach((_, c) => {
    for (const t of times(c)) binary.push(x(c, t))
    row(taken(c), '<=', 1)
    row([...at(c, 1), [-1, 'last']], '<=', 0)
  })
  for (let t = 0; t <= last; t++) {
    const here = courses.flatMap((one, c): [number, string][] =>
      runs(one, t) ? [[one.credits, x(c, t)]] : []
    )
    if (here.length) row(here, '<=', load)
  }
  courses.forEach((one, c) => {
    before.get(one.code)!.forEach((some, r) => {
      // One of them is the one that is relied on, and it stands at least a term before.
      const chosen = [...new Set(some)].map((code, i) => ({ p: number.get(code)!, name: `d${c}_${r}_${i}` }))
      for (const { p, name } of chosen) {
        binary.push(name)
        row([[1, name], ...taken(p).map(([f, n]): [number, string] => [-f, n])], '<=', 0)
        row(
          [
            ...at(p, 1),
            ...at(c, -1),
            [DEGREE_TERMS.length, name],
            ...taken(c).map(([f, n]): [number, string] => [f * DEGREE_TERMS.length, n])
          ],
          '<=',
          2 * DEGREE_TERMS.length - 1
        )
      }
      row([...taken(c), ...chosen.map(({ name }): [number, string] => [-1, name])], '<=', 0)
    })
  })
  courses.forEach((one, c) => {
    const where = needs.flatMap(({ codes }, n) => (codes.includes(one.code) ? [`z${c}_${n}`] : []))
    binary.push(...where)
    if (where.length)
      row(
        [
          ...where.map((name): [number, string] => [1, name]),
          ...taken(c).map(([f, n]): [number, string] => [-f, n])
        ],
        '<=',
        0
      )
  })
  needs.forEach(({ codes, byCourse, amount }, n) => {
    const sum = codes.map((code): [number, string] => {
      const c = number.get(code)!
      return [byCourse ? 1 : courses[c]!.credits, `z${c}_${n}`]
    })
    row(sum, '>=', amount)
  })
  const text = `Minimize\n obj: last\nSubject To\n${rows.join('\n')}\nBounds\n 0 <= last <= ${last}\nBinary\n ${binary.join('\n ')}\nEnd\n`
  const answer = highs.solve(text, { time_limit: 60, mip_rel_gap: 0.01 })
  if (answer.Status === 'Infeasible') return undefined
  return answer.Status === 'Optimal' ? Math.round(answer.ObjectiveValue) : 'open'
}

/** The degree as a program from an empty record, read anew with whatever is planned. */
export function rereadOf({ courses, needs, load }: Degree) {
  const catalog = new Catalog(courses)
  const specs = needs.map(({ codes, byCourse, amount }, n): Partial<NeedSpec> & { from: string } => ({
    id: `n${n}`,
    measure: byCourse ? 'courses' : 'credits',
    amount,
    credits: byCourse ? 3 * amount : amount,
    from: codes.join(' or ')
  }))
  const programs = [program(...specs)]
  return (planned: readonly PlannedCourse[]) => {
    const input = { catalog, record: [], held: [], planned }
    const { attempts, audits } = auditRecord(programs, input, DEGREE_TERMS)
    const context: RouteContext = {
      catalog,
      terms: DEGREE_TERMS,
      plannable: new Set(DEGREE_TERMS.map((one) => one.code)),
      student: { standing: 'freshman', programs: [], tests: {}, graded: [] },
      attempts,
      planned,
      running: new Map(),
      loadMost: () => load,
      audits
    }
    return { audits, context }
  }
}
