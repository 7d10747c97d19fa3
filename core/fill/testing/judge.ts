/**
 * The same question put to a general MILP solver (HiGHS): the earliest finish, then the fewest findings.
 * It shares no code with the search it judges, only the types of the question.
 */
import type { Highs } from 'highs'
import type { FillProblem, FillRule } from '../problem'

type Terms = [factor: number, name: string][]

/** Undefined when the demands cannot all be met. */
export function judgeFill(
  highs: Highs,
  problem: FillProblem,
  leaveOut?: number
): { finish: number; findings: number } | undefined {
  const { terms, courses, demands } = problem
  const last = terms.length - 1
  const rows: string[] = []
  const binary = new Set<string>()
  const text = ([factor, name]: [number, string]) => `${factor < 0 ? '-' : '+'} ${Math.abs(factor)} ${name}`
  const row = (sum: Terms, sign: '<=' | '>=' | '=', right: number) => {
    // A name comes once in a row.
    const merged = new Map<string, number>()
    for (const [factor, name] of sum) merged.set(name, (merged.get(name) ?? 0) + factor)
    rows.push(
      ` c${rows.length}: ${[...merged].map(([name, f]) => text([f, name])).join(' ')} ${sign} ${right}`
    )
  }
  const yes = (name: string) => (binary.add(name), name)
  const at = (c: number, t: number) => yes(`x${c}_${t}`)
  const open = (c: number) => terms.flatMap((_, t) => (courses[c]!.terms & (1 << t) ? [t] : []))

  courses.forEach((course, c) => {
    const where = open(c).map((t): [number, string] => [1, at(c, t)])
    if (where.length) row(where, course.placed ? '=' : '<=', 1)
  })
  const load = (t: number): Terms =>
    courses.flatMap((course, c): Terms =>
      !course.placed && course.terms & (1 << t) ? [[course.weight, at(c, t)]] : []
    )
  terms.forEach((term, t) => {
    if (load(t).length) row(load(t), '<=', term.room)
  })
  // Rules: a number between 0 and 1 for each part that holds for course c in term t.
  let parts = 0
  const holds = (rule: FillRule, t: number): Terms => {
    if (rule.kind === 'course')
      return open(rule.course)
        .filter((s) => (rule.same ? s <= t : s < t))
        .map((s) => [1, at(rule.course, s)])
    const z = yes(`z${parts++}`)
    if (rule.kind === 'units') {
      const standing = terms.slice(0, t).reduce((sum, one) => sum + one.standing, problem.before)
      const before = terms.slice(0, t).flatMap((_, s) => load(s))
      row([...before, [-rule.units, z]], '>=', -standing)
    } else if (rule.kind === 'all') for (const one of rule.of) row([...holds(one, t), [-1, z]], '>=', 0)
    else row([...rule.of.flatMap((one) => holds(one, t)), [-1, z]], '>=', 0)
    return [[1, z]]
  }
  courses.forEach(({ rule }, c) => {
    if (rule) for (const t of open(c)) row([...holds(rule, t), [-1, at(c, t)]], '>=', 0)
  })
  const taken = (c: number): Terms => open(c).map((t) => [1, at(c, t)])
  demands.forEach((demand, d) => {
    if (d === leaveOut) return
    const own = courses.flatMap((course, c) => (course.demands.includes(d) ? [c] : []))
    const worth = (c: number) => (demand.byCourse ? 1 : courses[c]!.weight)
    row(
      [...own.map((c): [number, string] => [worth(c), yes(`y${c}_${d}`)]), [0, yes('none')]],
      '>=',
      demand.amount
    )
  })
  courses.forEach((course, c) => {
    for (const layer of new Set(course.demands.map((d) => demands[d]!.layer))) {
      const here = course.demands.filter((d) => d !== leaveOut && demands[d]!.layer === layer)
      if (here.length)
        row(
          [
            ...here.map((d): [number, string] => [1, yes(`y${c}_${d}`)]),
            ...taken(c).map(([f, n]): [number, string] => [-f, n])
          ],
          '<=',
          0
        )
    }
  })
  // The finish: used[t] says that something new stands in t or later.
  terms.forEach((_, t) => {
    for (let c = 0; c < courses.length; c++)
      if (!courses[c]!.placed && courses[c]!.terms & (1 << t))
        row(
          [
            [1, yes(`used${t}`)],
            [-1, at(c, t)]
          ],
          '>=',
          0
        )
    if (t > 0)
      row(
        [
          [1, yes(`used${t - 1}`)],
          [-1, yes(`used${t}`)]
        ],
        '>=',
        0
      )
  })
  const ask = (objective: Terms, extra: string[]) => {
    const file = ['Minimize', ` obj: ${objective.map(text).join(' ')}`, 'Subject To', ...rows, ...extra]
    const answer = highs.solve([...file, 'Binary', ...[...binary].map((n) => ` ${n}`), 'End'].join('\n'), {
      mip_rel_gap: 0,
      mip_abs_gap: 0.4
    })
    if (answer.Status === 'Infeasible') return undefined
    if (answer.Status !== 'Optimal') throw new Error(`the judge ended ${answer.Status}`)
    return Math.round(answer.ObjectiveValue)
  }
  const used = ask(
    terms.map((_, t) => [1, yes(`used${t}`)]),
    []
  )
  if (used === undefined) return undefined
  const finish = used - 1
  if (finish < 0) return { finish, findings: 0 }
  // Findings: over the soft limit, or under the least with something there, the last term of all left out.
  const lastStanding = terms.findLastIndex((one) => one.standing > 0)
  const lastUsed = Math.max(finish, lastStanding)
  const extra: string[] = [` fin: ${terms.map((_, t) => text([1, `used${t}`])).join(' ')} <= ${used}`]
  const found: Terms = []
  for (let t = 0; t <= last; t++) {
    const { soft, least, standing, room } = terms[t]!
    const f = yes(`f${t}`)
    found.push([1, f])
    row([...load(t), [-room - standing, f]], '<=', soft - standing)
    if (t === lastUsed || least <= 0) continue
    for (let c = 0; c < courses.length; c++)
      if (!courses[c]!.placed && courses[c]!.terms & (1 << t))
        row([...load(t), [-least, at(c, t)], [least, f]], '>=', -standing)
    if (standing > 0) row([...load(t), [least, f]], '>=', least - standing)
  }
  return { finish, findings: ask(found, extra)! }
}
