/**
 * Filling as a mixed-integer linear model, in the form that general solvers settle quickly.
 *
 * `x` is 1 where a course is taken in a term, `z` where a piece counts toward a want, `a` where a branch is
 * chosen. A course stands after what it needs by cumulative rows: taken by term t only if what it needs is
 * taken before t; of alternatives their sum, of several needs a row each (Bowman 1959, in the tightened form
 * usual in project scheduling). Credits reached are a variable for each amount and term, which once 1 stays 1.
 * Everything is linear, so a course that counts, counts once in its layer, whatever was earned before.
 */
import { weightIn } from '../degree'
import { leastOf } from '../requisites'
import type { LinearModel, Sum } from './linear'
import { termsIn, type FillProblem, type FillRule, type NotTogether } from './problem'

export interface ModelOptions {
  /** The last term that may be used. */
  last: number
  notTogether: readonly NotTogether[]
  /** Courses kept out of a term. */
  barred: readonly NotTogether[]
  /** What each want may fall short of; a want that may fall short at a price has it as a variable. */
  short?: readonly number[]
  /** Placed courses whose own rule may stay unmet. */
  unmended: ReadonlySet<number>
}

export const at = (c: number, t: number) => `x${c}_${t}`
export const shortOf = (w: number) => `s${w}`

/** The rows of courses and terms: where each may stand, what stands before what, and what a term holds. */
export function schedule(model: LinearModel, problem: FillProblem, options: ModelOptions): void {
  const { terms, courses } = problem
  const { last } = options
  const times = (c: number) => termsIn(courses[c]!.terms, last)
  courses.forEach((course, c) => {
    if (course.placed) return
    const where = times(c).map((t) => [1, model.binary(at(c, t))] as const)
    if (where.length) model.row(where, '<=', 1)
  })
  /** 1 where course `c` is taken by the end of term `t`. */
  const by = (c: number, t: number): { sum: Sum; constant: number } => {
    const course = courses[c]!
    if (course.placed) return { sum: [], constant: termsIn(course.terms, t).length ? 1 : 0 }
    return { sum: times(c).flatMap((s) => (s <= t ? [[1, at(c, s)] as const] : [])), constant: 0 }
  }
  const added = (t: number, worth: 'credits' | 'adds' = 'credits'): Sum =>
    courses.flatMap((course, c) =>
      !course.placed && course.terms & (1 << t) ? [[course[worth], at(c, t)] as const] : []
    )
  for (let t = 0; t <= last; t++) model.row(added(t), '<=', terms[t]!.room)

  /** Whether so many credits are reached before a term; once they are, they stay so. */
  const reached = new Map<string, string>()
  const reachedBefore = (credits: number, t: number): { sum: Sum; constant: number } => {
    const standing = terms.slice(0, t).reduce((sum, one) => sum + one.credited, problem.before)
    if (standing >= credits) return { sum: [], constant: 1 }
    const key = `${credits} ${t}`
    if (!reached.has(key)) {
      const name = model.binary(`u${reached.size}`)
      reached.set(key, name)
      const before = Array.from({ length: t }, (_, s) => added(s, 'adds')).flat()
      model.row([...before, [standing - credits, name]], '>=', 0)
      const earlier = reached.get(`${credits} ${t - 1}`)
      if (earlier)
        model.row(
          [
            [1, name],
            [-1, earlier]
          ],
          '>=',
          0
        )
    }
    return { sum: [[1, reached.get(key)!]], constant: 0 }
  }
  let parts = 0
  /** How far the rule holds for a course in term `t`: 0, or 1 and more. */
  const holds = (rule: FillRule, t: number): { sum: Sum; constant: number } => {
    if (rule.kind === 'course') return by(rule.course, rule.same ? t : t - 1)
    if (rule.kind === 'credits') return reachedBefore(rule.credits, t)
    const inside = rule.of.map((one) => holds(one, t))
    if (rule.kind === 'any')
      return {
        sum: inside.flatMap((one) => one.sum),
        constant: inside.reduce((sum, one) => sum + one.constant, 0)
      }
    if (rule.kind === 'some') {
      // Each part once, however many courses it holds by.
      const each = inside.map(({ sum, constant }) => {
        const one = model.upTo(`v${parts++}`, 1)
        model.row([[1, one], ...sum.map(([f, n]) => [-f, n] as const)], '<=', constant)
        return [-1, one] as const
      })
      const enough = model.binary(`v${parts++}`)
      model.row([[leastOf(rule), enough], ...each], '<=', 0)
      return { sum: [[1, enough]], constant: 0 }
    }
    const all = model.upTo(`v${parts++}`, 1)
    for (const one of inside)
      model.row([[1, all], ...one.sum.map(([f, n]) => [-f, n] as const)], '<=', one.constant)
    return { sum: [[1, all]], constant: 0 }
  }
  /** `taken` only where the rule holds; of several parts a row for each. */
  const need = (taken: Sum, constant: number, rule: FillRule, t: number): void => {
    if (rule.kind === 'all') {
      for (const one of rule.of) need(taken, constant, one, t)
      return
    }
    const right = holds(rule, t)
    model.row([...taken, ...right.sum.map(([f, n]) => [-f, n] as const)], '<=', right.constant - constant)
  }
  courses.forEach(({ rule, placed, terms: bits }, c) => {
    if (!rule) return
    if (placed) {
      const [t] = termsIn(bits, terms.length - 1)
      if (t !== undefined && !options.unmended.has(c)) need([], 1, rule, t)
    } else for (const t of times(c)) need(by(c, t).sum, 0, rule, t)
  })
  const taken = (c: number): Sum => times(c).map((t) => [1, at(c, t)] as const)
  courses.forEach(({ excludes }, c) => {
    for (const other of excludes)
      if (other > c && !courses[c]!.placed && !courses[other]!.placed)
        model.row([...taken(c), ...taken(other)], '<=', 1)
  })
  for (const { term, courses: some } of options.notTogether) {
    if (term > last) continue
    const free = some.filter((c) => !courses[c]!.placed)
    model.row(
      free.map((c) => [1, at(c, term)] as const),
      '<=',
      free.length - 1
    )
  }
  for (const { term, courses: some } of options.barred)
    if (term <= last) for (const c of some) model.row([[1, at(c, term)]], '<=', 0)
}

/** The rows of the reading: which attempt counts toward which want, within caps, shares and choices. */
export function reading(model: LinearModel, problem: FillProblem, options: ModelOptions): void {
  const { courses, holders, root } = problem
  const { wants, pieces, caps, shares } = problem.reading
  const { last, short } = options
  const names = new Map<string, string>()
  const into: Sum[][] = wants.map(() => [])
  pieces.forEach((piece, p) => {
    const holder = holders[piece.course]!
    if ('at' in holder && holder.at > last) return
    const counts: Sum = piece.wants.map((w) => {
      const name = model.binary(`z${p}_${w}`)
      names.set(`${p} ${w}`, name)
      into[w]!.push([[weightIn(wants[w]!, piece), name]])
      return [1, name] as const
    })
    if ('at' in holder) model.row(counts, '<=', 1)
    else {
      const taken = termsIn(courses[holder.course]!.terms, last).map(
        (t) => [-1, at(holder.course, t)] as const
      )
      model.row([...counts, ...taken], '<=', 0)
    }
  })
  const counted = (p: number, some: Iterable<number>): Sum =>
    [...some].flatMap((w) => {
      const name = names.get(`${p} ${w}`)
      return name ? [[1, name] as const] : []
    })
  const times = (factor: number, sum: Sum): Sum => sum.map(([f, n]) => [f * factor, n] as const)

  let branches = 0
  const ask = (one: typeof root, active: string | undefined): void => {
    for (const w of one.wants) askWant(w, active)
    for (const { least, of } of one.choices) {
      const names = of.map(() => model.binary(`a${branches++}`))
      const sum: Sum = names.map((name) => [1, name] as const)
      if (active) model.row([...sum, [-least, active]], '=', 0)
      else model.row(sum, '=', least)
      of.forEach((branch, i) => ask(branch, names[i]))
    }
  }
  const askWant = (w: number, active: string | undefined): void => {
    const want = wants[w]!
    const sum = into[w]!.flat()
    /** At least so much where the branch is chosen; `less` says what may be missing. */
    const atLeast = (some: Sum, least: number, less: Sum = []) =>
      active
        ? model.row([...some, ...less, [-least, active]], '>=', 0)
        : model.row([...some, ...less], '>=', least)
    const missing: Sum =
      short === undefined ? [] : [[1, model.upTo(shortOf(w), Math.max(0, Math.min(short[w]!, want.amount)))]]
    if (want.amount > 0) atLeast(sum, want.amount, missing)
    if (want.byCourse) {
      if (active) model.row([...sum, [-want.amount, active]], '<=', 0)
      else model.row(sum, '<=', want.amount)
    }
    for (const part of want.including) {
      const some = [...part.pieces].flatMap((p) => times(weightIn(want, pieces[p]!), counted(p, [w])))
      atLeast(some, part.least, missing)
    }
    if (want.subjects) {
      const bySubject = new Map<number, Sum>()
      pieces.forEach((piece, p) => {
        const here = counted(p, [w])
        if (here.length) bySubject.set(piece.subject, [...(bySubject.get(piece.subject) ?? []), ...here])
      })
      const seen = [...bySubject].map(([subject, some]) => {
        const name = model.upTo(`b${w}_${subject}`, 1)
        model.row([[1, name], ...times(-1, some)], '<=', 0)
        return [1, name] as const
      })
      atLeast(seen, want.subjects, missing)
    }
  }
  ask(root, undefined)

  for (const cap of caps)
    model.row(
      [...cap.pieces].flatMap((p) => times(cap.each ? 1 : pieces[p]!.weight, counted(p, cap.wants))),
      '<=',
      cap.most
    )
  shares.forEach((share, s) => {
    const both = share.pairs.flatMap(({ one, other }, i): Sum => {
      return one.flatMap((p): Sum => {
        const others = other.map((q) => counted(q, share.otherSide)).filter((some) => some.length)
        const own = counted(p, share.oneSide)
        if (!own.length || !others.length) return []
        const name = model.upTo(`h${s}_${i}_${p}`, 1)
        for (const some of others) model.row([...own, ...some, [-1, name]], '<=', 1)
        return [[pieces[p]!.weight, name]]
      })
    })
    model.row(both, '<=', share.most)
  })
}
