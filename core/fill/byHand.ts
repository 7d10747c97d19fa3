/**
 * A legal filling as a person makes one: courses for the demands, the most particular demand first, with
 * what they need before them; then term after term, the courses that most wait for first.
 *
 * Method: list scheduling by longest tail (Hu 1961). Quick, and no proof of anything: where it ends late,
 * the courses that came last are liked less, and it is done again.
 */
import { finishOf, isLegal, NOT_TAKEN, ruleHolds, worth, type FillProblem, type FillRule } from './problem'

const ROUNDS = 80
const DEPTH_MOST = 12
const NEVER = 1e9

/** `first` is told the first legal filling there is. */
export function byHand(problem: FillProblem, first?: (term: number[]) => void): number[] | undefined {
  const dislike = problem.courses.map(() => 0)
  const depth = depths(problem)
  let best: number[] | undefined
  for (let round = 0; round < ROUNDS; round++) {
    const chosen = choose(problem, depth, dislike)
    if (!chosen) return best
    const { term, late } = schedule(problem, chosen)
    const finish = finishOf(problem, term)
    const complete = late.length === 0 && isLegal(problem, term)
    if (complete && !best) first?.(term)
    if (complete && (!best || finish < finishOf(problem, best))) best = term
    const last = complete ? [...chosen].filter((c) => term[c] === finish) : late
    for (const c of last) dislike[c]! += 1 + round / 8
  }
  return best
}

/** The first term in which each course could stand, were there room for everything. */
function depths({ courses, terms }: FillProblem): number[] {
  const depth = courses.map((course) => firstOf(course.terms, 0))
  const after = (rule: FillRule): number => {
    if (rule.kind === 'units') return 0
    if (rule.kind === 'course') return depth[rule.course]! + (rule.same ? 0 : 1)
    const inside = rule.of.map(after)
    return rule.kind === 'all' ? Math.max(0, ...inside) : Math.min(NEVER, ...inside)
  }
  for (let pass = 0; pass <= terms.length; pass++)
    courses.forEach((course, c) => {
      if (!course.placed && course.rule)
        depth[c] = Math.max(depth[c]!, firstOf(course.terms, after(course.rule)))
    })
  return depth
}

/** The first of these terms that is not before another one. */
function firstOf(terms: number, from: number): number {
  for (let t = from; t < 31; t++) if (terms & (1 << t)) return t
  return NEVER
}

/** Courses that meet all demands, with their prerequisites; undefined when some demand cannot be met so. */
function choose(
  problem: FillProblem,
  depth: readonly number[],
  dislike: readonly number[]
): Set<number> | undefined {
  const { courses, demands } = problem
  const chosen = new Set(courses.flatMap((course, c) => (course.placed ? [c] : [])))
  const serving = new Set<string>()
  const servers = demands.map((_, d) =>
    courses.flatMap((course, c) => (course.demands.includes(d) ? [c] : []))
  )
  const order = demands.map((_, d) => d).sort((a, b) => servers[a]!.length - servers[b]!.length || a - b)
  /** Units that the rule still costs; a course that some demand would take costs half. */
  const price = (rule: FillRule, deep = 0): number => {
    if (rule.kind === 'units') return 0
    if (rule.kind === 'course') {
      const course = courses[rule.course]!
      if (chosen.has(rule.course)) return 0
      if (depth[rule.course]! >= NEVER || deep > DEPTH_MOST) return NEVER
      const own = course.demands.length > 1 ? course.weight / 2 : course.weight
      return own + dislike[rule.course]! + (course.rule ? price(course.rule, deep + 1) : 0)
    }
    const inside = rule.of.map((one) => price(one, deep))
    return rule.kind === 'all' ? inside.reduce((sum, one) => sum + one, 0) : Math.min(NEVER, ...inside)
  }
  const bring = (rule: FillRule, deep = 0): void => {
    if (rule.kind === 'units' || deep > DEPTH_MOST) return
    if (rule.kind === 'course') take(rule.course, deep + 1)
    else if (rule.kind === 'all') for (const one of rule.of) bring(one, deep)
    else {
      const cheapest = rule.of.reduce((best, one) => (price(one) < price(best) ? one : best))
      bring(cheapest, deep)
    }
  }
  const take = (c: number, deep = 0): void => {
    if (chosen.has(c)) return
    chosen.add(c)
    const { rule } = courses[c]!
    if (rule) bring(rule, deep)
  }
  for (const c of [...chosen]) if (courses[c]!.rule) bring(courses[c]!.rule!)
  for (const d of order) {
    const demand = demands[d]!
    let { amount: lacks } = demand
    while (lacks > 0) {
      let best: number | undefined
      let least = NEVER
      for (const c of servers[d]!) {
        const course = courses[c]!
        if (serving.has(`${c} ${demand.layer}`) || depth[c]! >= NEVER) continue
        const beyond = Math.max(0, worth(demand, course) - lacks)
        const cost = chosen.has(c)
          ? beyond - 100
          : depth[c]! * 2 + beyond * 3 + course.cost + dislike[c]! + (course.rule ? price(course.rule) : 0)
        if (cost >= least) continue
        least = cost
        best = c
      }
      if (best === undefined) return undefined
      take(best)
      serving.add(`${best} ${demand.layer}`)
      lacks -= worth(demand, courses[best]!)
    }
  }
  return chosen
}

/** Term after term; `late` are those for which there was no term. */
function schedule(problem: FillProblem, chosen: ReadonlySet<number>): { term: number[]; late: number[] } {
  const { courses, terms } = problem
  const tail = tailsOf(problem, chosen)
  const term = courses.map((course) => (course.placed ? firstOf(course.terms, 0) : NOT_TAKEN))
  const waiting = new Set([...chosen].filter((c) => !courses[c]!.placed))
  const reached: number[] = []
  let sum = problem.before
  terms.forEach((one, t) => {
    reached.push(sum)
    let room = one.room
    const may = [...waiting]
      .filter((c) => courses[c]!.terms & (1 << t))
      .sort(
        (a, b) =>
          tail[b]! - tail[a]! ||
          seldom(courses[a]!.terms, t) - seldom(courses[b]!.terms, t) ||
          courses[b]!.weight - courses[a]!.weight ||
          a - b
      )
    // A corequisite may come after the course that asks for it: twice round.
    for (const c of [...may, ...may]) {
      const { weight, rule } = courses[c]!
      if (!waiting.has(c) || weight > room || (rule && !ruleHolds(rule, t, term, reached))) continue
      term[c] = t
      room -= weight
      waiting.delete(c)
    }
    sum += one.standing + one.room - room
  })
  return { term, late: [...waiting] }
}

/** How many more terms there are for it after this one. */
function seldom(terms: number, t: number): number {
  let count = 0
  for (let left = terms >> (t + 1); left; left &= left - 1) count++
  return count
}

/** The longest chain of chosen courses that wait for each one. */
function tailsOf({ courses }: FillProblem, chosen: ReadonlySet<number>): number[] {
  const tail = courses.map(() => 0)
  const named = (rule: FillRule): number[] => {
    if (rule.kind === 'course') return chosen.has(rule.course) ? [rule.course] : []
    return rule.kind === 'units' ? [] : rule.of.flatMap(named)
  }
  for (let pass = 0; pass < DEPTH_MOST; pass++)
    for (const c of chosen) {
      const { rule } = courses[c]!
      if (rule) for (const before of named(rule)) tail[before] = Math.max(tail[before]!, tail[c]! + 1)
    }
  return tail
}
