/**
 * The search for a filling within given terms: courses for the demands, then terms for the courses.
 *
 * Depth first with propagation. A course has a set of terms in which it may stand, and is in, out or
 * open. From the rules follow earliest and latest terms (critical path, Kelley and Walker 1959); the
 * courses that can only stand within a span of terms must have room there. Complete: where it ends
 * without a filling and without reaching its limit, there is none.
 */
import {
  findingsOf,
  isLegal,
  NOT_TAKEN,
  worth,
  type FillCourse,
  type FillProblem,
  type FillRule
} from './problem'

export interface SearchEffort {
  steps: number
  most: number
  /** Told now and then; true stops the search as its limit would. */
  stopped?: (steps: number) => boolean
}

export type SearchAnswer = { kind: 'found'; term: number[] } | { kind: 'none' } | { kind: 'limit' }

const OPEN = 0
const IN = 1
const OUT = 2
const NEVER = 99
const TELL_EVERY = 256
/** To compare demands in units with those in courses. */
const UNITS_OF_A_COURSE = 6

class LimitReached extends Error {
  constructor(readonly forGood = false) {
    super()
  }
}

/** Steps of the first run; each further one has half as many again. */
const FIRST_RUN = 400
const LONGER = 1.5

/**
 * Terms up to `last` are used; those of `spared` are to have no finding. Begins anew again and again, for
 * longer each time: courses and demands that made earlier runs fail are treated with more care.
 */
export function search(
  problem: FillProblem,
  last: number,
  spared: readonly boolean[],
  effort: SearchEffort
): SearchAnswer {
  const blame: Blame = {
    courses: new Float64Array(problem.courses.length),
    demands: new Float64Array(problem.demands.length)
  }
  for (let run = FIRST_RUN; ; run *= LONGER) {
    const until = Math.min(effort.most, effort.steps + run)
    try {
      const term = new Search(problem, last, spared, blame, effort, until).run()
      return term ? { kind: 'found', term } : { kind: 'none' }
    } catch (error) {
      if (!(error instanceof LimitReached)) throw error
      if (error.forGood || effort.steps >= effort.most) return { kind: 'limit' }
    }
  }
}

/** How often courses and demands were in the way. */
interface Blame {
  courses: Float64Array
  demands: Float64Array
}

/** The last term before which no search has to begin: every demand's courses have to come so far. */
export function earliestFinish(problem: FillProblem): number {
  const { terms, courses, demands } = problem
  const blame = { courses: new Float64Array(courses.length), demands: new Float64Array(demands.length) }
  const spared = terms.map(() => false)
  return new Search(problem, terms.length - 1, spared, blame, { steps: 0, most: 1 }, 1).earliest()
}

class Search {
  private readonly n: number
  private readonly state: Uint8Array
  private readonly terms: Int32Array
  /** What a demand still lacks. */
  private readonly lacks: number[]
  /** By demand, the courses that could serve it, the most promising first. */
  private readonly servers: number[][]
  /** By course and layer, whether it serves there; by course and demand, whether that is given up. */
  private readonly serves: Uint8Array
  private readonly given: Uint8Array
  private readonly layers: number
  /** Room in each term for all that is not placed. */
  private readonly room: readonly number[]
  private readonly signature: readonly string[]
  /** Units that could be reached before each term. */
  private readonly reach: number[]
  private readonly back: (() => void)[] = []
  /** Choices of courses for which there are no terms. */
  private readonly failed = new Set<string>()
  private scheduling = false

  constructor(
    private readonly problem: FillProblem,
    private readonly last: number,
    private readonly spared: readonly boolean[],
    private readonly blame: Blame,
    private readonly effort: SearchEffort,
    private readonly until: number
  ) {
    const { courses, terms, demands } = problem
    this.n = courses.length
    const within = 2 ** (last + 1) - 1
    this.state = Uint8Array.from(courses, (course) => (course.placed ? IN : OPEN))
    this.terms = Int32Array.from(courses, (course) => (course.placed ? course.terms : course.terms & within))
    this.lacks = demands.map((demand) => demand.amount)
    this.room = terms.map((one, t) => {
      if (t > last) return 0
      return spared[t] ? Math.min(one.room, Math.max(0, one.soft - one.standing)) : one.room
    })
    this.reach = terms.map(() => 0)
    this.signature = courses.map((course, c) =>
      this.isAskedFor(c)
        ? `${c}`
        : `${course.weight} ${course.terms} ${course.demands.join()} ${JSON.stringify(course.rule)}`
    )
    this.layers = 1 + demands.reduce((most, demand) => Math.max(most, demand.layer), 0)
    this.serves = new Uint8Array(this.n * this.layers)
    this.given = new Uint8Array(this.n * demands.length)
    const all = courses.map((_, c) => c)
    this.servers = demands.map((_, d) => all.filter((c) => courses[c]!.demands.includes(d)))
    this.propagate()
    const most = Math.max(1, ...blame.courses)
    const rank = all.map(
      (c) =>
        this.earliestOf(c) * 100 +
        this.missing(courses[c]!) * 100 +
        courses[c]!.weight +
        (blame.courses[c]! / most) * 1000
    )
    for (const servers of this.servers)
      servers.sort((a, b) => rank[a]! - rank[b]! || courses[a]!.cost - courses[b]!.cost || a - b)
  }

  run(): number[] | undefined {
    return this.step()
      ? [...this.state].map((state, c) => (state === IN ? this.earliestOf(c) : NOT_TAKEN))
      : undefined
  }

  /** A bound on the finish: the demand that is met latest, were each alone; all of them by their units. */
  earliest(): number {
    const { courses, demands, terms } = this.problem
    let bound = -1
    demands.forEach((demand, d) => {
      let lacks = demand.amount
      for (const c of this.servers[d]!.toSorted((a, b) => this.earliestOf(a) - this.earliestOf(b))) {
        if (lacks <= 0) break
        lacks -= worth(demand, courses[c]!)
        bound = Math.max(bound, this.earliestOf(c))
      }
      if (lacks > 0) bound = terms.length
    })
    return bound
  }

  private step(): boolean {
    this.effort.steps++
    if (this.effort.steps > this.until) throw new LimitReached()
    if (this.effort.steps % TELL_EVERY === 0 && this.effort.stopped?.(this.effort.steps))
      throw new LimitReached(true)
    const mark = this.back.length
    if (this.propagate() && this.branch()) return true
    this.undo(mark)
    return false
  }

  private branch(): boolean {
    const demand = this.tightest()
    if (demand !== undefined) return this.serve(demand)
    const lacking = this.lackingLeaf()
    if (lacking === 'impossible') return false
    if (lacking !== undefined)
      return this.either(
        () => this.set(lacking, IN),
        () => this.set(lacking, OUT)
      )
    return this.scheduleAnew()
  }

  /** Which demand a course serves makes no difference any more: the same courses are tried once. */
  private scheduleAnew(): boolean {
    if (this.scheduling) return this.schedule()
    const chosen = String.fromCharCode(...this.state.map((state) => (state === IN ? 1 : 0)))
    if (this.failed.has(chosen)) return false
    this.scheduling = true
    const done = this.schedule()
    this.scheduling = false
    if (!done) this.failed.add(chosen)
    return done
  }

  /** The unmet demand with the fewest courses to spare. */
  private tightest(): number | undefined {
    let found: number | undefined
    let least = Infinity
    for (let d = 0; d < this.lacks.length; d++) {
      if (this.lacks[d]! <= 0) continue
      const demand = this.problem.demands[d]!
      const spare =
        (this.supply(d) - this.lacks[d]!) /
        (demand.byCourse ? 1 : UNITS_OF_A_COURSE) /
        (1 + this.blame.demands[d]!)
      if (spare < least) {
        least = spare
        found = d
      }
    }
    return found
  }

  private supply(d: number): number {
    const demand = this.problem.demands[d]!
    let sum = 0
    for (const c of this.servers[d]!) if (this.mayServe(c, d)) sum += worth(demand, this.problem.courses[c]!)
    return sum
  }

  private mayServe(c: number, d: number): boolean {
    return (
      this.state[c] !== OUT &&
      this.given[c * this.lacks.length + d] === 0 &&
      this.serves[c * this.layers + this.problem.demands[d]!.layer] === 0
    )
  }

  /** The most promising course serves the demand; or it does not, nor those that are like it. */
  private serve(d: number): boolean {
    const demand = this.problem.demands[d]!
    const may = this.servers[d]!.filter((c) => this.mayServe(c, d))
    // A course that is in anyway costs nothing more.
    const c = may.find((one) => this.state[one] === IN) ?? may[0]
    if (c === undefined) return false
    return this.either(
      () => {
        this.set(c, IN)
        this.mark(this.serves, c * this.layers + demand.layer)
        const gives = worth(demand, this.problem.courses[c]!)
        this.lacks[d]! -= gives
        this.back.push(() => (this.lacks[d]! += gives))
      },
      () => {
        for (const one of may)
          if (one === c || (one > c && this.state[one] === OPEN && this.signature[one] === this.signature[c]))
            this.mark(this.given, one * this.lacks.length + d)
      }
    )
  }

  /** A course that one in has to have before it, and that is not in yet. */
  private lackingLeaf(): number | 'impossible' | undefined {
    for (let c = 0; c < this.n; c++) {
      const { rule } = this.problem.courses[c]!
      if (this.state[c] !== IN || !rule || this.isProvided(rule)) continue
      return this.firstOpen(rule) ?? 'impossible'
    }
    return undefined
  }

  private isProvided(rule: FillRule): boolean {
    if (rule.kind === 'all') return rule.of.every((one) => this.isProvided(one))
    if (rule.kind === 'any') return rule.of.some((one) => this.isProvided(one))
    if (rule.kind === 'units') return true
    return rule.kind === 'course' && this.state[rule.course] === IN
  }

  private firstOpen(rule: FillRule): number | undefined {
    if (rule.kind === 'units') return undefined
    if (rule.kind === 'course') return this.state[rule.course] === OPEN ? rule.course : undefined
    const candidates = rule.of.flatMap((one) => (this.isProvided(one) ? [] : (this.firstOpen(one) ?? [])))
    return candidates.sort((a, b) => this.earliestOf(a) - this.earliestOf(b))[0]
  }

  /** Everything is chosen: terms for the courses, the most urgent first, each as early as it may. */
  private schedule(): boolean {
    for (let c = 0; c < this.n; c++) if (this.state[c] === OPEN) this.set(c, OUT)
    if (!this.propagate()) return false
    let chosen: number | undefined
    let least = Infinity
    for (let c = 0; c < this.n; c++) {
      if (this.state[c] !== IN || isSingle(this.terms[c]!)) continue
      const urgency =
        latest(this.terms[c]!) * 1000 + this.earliestOf(c) * 100 - this.problem.courses[c]!.weight
      if (urgency < least) {
        least = urgency
        chosen = c
      }
    }
    if (chosen === undefined) return this.isFine()
    const c = chosen
    const first = this.earliestOf(c)
    return this.either(
      () => this.narrow(c, 1 << first),
      () => this.narrow(c, this.terms[c]! & ~(1 << first))
    )
  }

  private isFine(): boolean {
    const term = [...this.state].map((state, c) => (state === IN ? this.earliestOf(c) : NOT_TAKEN))
    return isLegal(this.problem, term) && findingsOf(this.problem, term).every((t) => !this.spared[t])
  }

  private either(first: () => void, second: () => void): boolean {
    const mark = this.back.length
    first()
    if (this.step()) return true
    this.undo(mark)
    second()
    return this.step()
  }

  /** Draws every simple conclusion; false when one of them cannot hold. */
  private propagate(): boolean {
    const { courses } = this.problem
    for (let changed = true; changed;) {
      changed = false
      this.reckonReach()
      for (let c = 0; c < this.n; c++) {
        if (this.state[c] === OUT) continue
        const { rule, placed } = courses[c]!
        if (placed && !rule) continue
        const from = rule ? this.earliestBy(rule) : 0
        const later = from >= NEVER ? 0 : this.terms[c]! & ~(2 ** from - 1)
        if (later !== this.terms[c]) {
          this.narrow(c, later)
          changed = true
        }
        if (later === 0) {
          if (this.state[c] === IN) return false
          this.set(c, OUT)
        } else if (this.state[c] === IN && rule) {
          const forced = this.force(rule, latest(later))
          if (forced === 'impossible') return false
          if (forced) changed = true
        }
      }
    }
    return this.hasSupply() && this.hasRoom()
  }

  /** What could be taken before each term, as far as there is room. */
  private reckonReach(): void {
    const { before, terms, courses } = this.problem
    const fresh = terms.map(() => 0)
    for (let c = 0; c < this.n; c++) {
      const at = this.earliestOf(c)
      if (this.state[c] !== OUT && !courses[c]!.placed && at < terms.length) fresh[at]! += courses[c]!.weight
    }
    let standing = before
    let taken = 0
    let offered = 0
    terms.forEach((term, t) => {
      this.reach[t] = standing + taken
      offered += fresh[t]!
      taken = Math.min(taken + this.room[t]!, offered)
      standing += term.standing
    })
  }

  /** What a rule asks of others, when its course is in and stands in `by` at the latest. */
  private force(rule: FillRule, by: number): boolean | 'impossible' {
    if (rule.kind === 'units') return false
    if (rule.kind === 'course') {
      const { course, same } = rule
      if (this.state[course] === OUT) return 'impossible'
      const before = 2 ** (same ? by + 1 : by) - 1
      const narrowed = this.terms[course]! & before
      if (this.problem.courses[course]!.placed) return narrowed ? false : 'impossible'
      const changes = this.state[course] !== IN || narrowed !== this.terms[course]
      if (!narrowed) return 'impossible'
      if (this.state[course] !== IN) this.set(course, IN)
      if (narrowed !== this.terms[course]) this.narrow(course, narrowed)
      return changes
    }
    if (rule.kind === 'any') {
      const alive = rule.of.filter((one) => this.earliestBy(one) <= by)
      if (!alive.length) return 'impossible'
      return alive.length === 1 ? this.force(alive[0]!, by) : false
    }
    let changed = false
    for (const one of rule.of) {
      const forced = this.force(one, by)
      if (forced === 'impossible') return forced
      changed ||= forced
    }
    return changed
  }

  private hasSupply(): boolean {
    for (let d = 0; d < this.lacks.length; d++)
      if (this.lacks[d]! > 0 && this.supply(d) < this.lacks[d]!) {
        this.blame.demands[d]!++
        return false
      }
    return true
  }

  /** What can only stand within certain terms has room in them: courses that are in, and unmet demands. */
  private hasRoom(): boolean {
    const { courses } = this.problem
    const mine: number[] = []
    for (let c = 0; c < this.n; c++) if (this.state[c] === IN && !courses[c]!.placed) mine.push(c)
    const unmet = this.unmet(mine)
    // Spans of terms, and those that some course or demand is bound to, such as every autumn.
    const spans = new Set<number>()
    for (let from = 0; from <= this.last; from++)
      for (let to = from; to <= this.last; to++) spans.add(2 ** (to + 1) - 2 ** from)
    for (const c of mine) spans.add(this.terms[c]!)
    for (const layer of unmet) for (const demand of layer.demands) spans.add(demand.terms)
    for (const span of spans) {
      let room = 0
      for (let t = 0; t <= this.last; t++) if (span & (1 << t)) room += this.room[t]!
      let asked = 0
      for (const c of mine) if ((this.terms[c]! & ~span) === 0) asked += courses[c]!.weight
      let more = 0
      for (const layer of unmet) {
        let here = -layer.spare
        for (const demand of layer.demands) if ((demand.terms & ~span) === 0) here += demand.units
        more = Math.max(more, here)
      }
      if (asked + more > room) {
        for (const c of mine) if ((this.terms[c]! & ~span) === 0) this.blame.courses[c]!++
        return false
      }
    }
    return true
  }

  /** By layer: what unmet demands ask for at least and where, and what courses that are in could give them. */
  private unmet(mine: readonly number[]) {
    const { courses, demands } = this.problem
    return Array.from({ length: this.layers }, (_, layer) => {
      let spare = 0
      for (const c of mine) if (!this.serves[c * this.layers + layer]) spare += courses[c]!.weight
      const asked = demands.flatMap((demand, d) => {
        if (demand.layer !== layer || this.lacks[d]! <= 0) return []
        let terms = 0
        const weights: number[] = []
        for (const c of this.servers[d]!) {
          if (!this.mayServe(c, d)) continue
          terms |= this.terms[c]!
          weights.push(courses[c]!.weight)
        }
        if (!demand.byCourse) return [{ terms, units: this.lacks[d]! }]
        const lightest = weights.sort((a, b) => a - b).slice(0, this.lacks[d])
        return [{ terms, units: lightest.reduce((sum, weight) => sum + weight, 0) }]
      })
      return { spare, demands: asked }
    })
  }

  private earliestOf(c: number): number {
    const terms = this.terms[c]!
    return terms === 0 ? NEVER : 31 - Math.clz32(terms & -terms)
  }

  /** The first term before which the rule could hold. */
  private earliestBy(rule: FillRule): number {
    switch (rule.kind) {
      case 'course':
        if (this.state[rule.course] === OUT) return NEVER
        return Math.min(NEVER, this.earliestOf(rule.course) + (rule.same ? 0 : 1))
      case 'units': {
        const at = this.reach.findIndex((units) => units >= rule.units)
        return at < 0 ? NEVER : at
      }
      case 'all':
        return rule.of.reduce((latestOne, one) => Math.max(latestOne, this.earliestBy(one)), 0)
      case 'any':
        return rule.of.reduce((earliest, one) => Math.min(earliest, this.earliestBy(one)), NEVER)
    }
  }

  /** How many further courses it takes to be allowed this one. */
  private missing(course: FillCourse): number {
    const count = (rule: FillRule): number => {
      if (rule.kind === 'units') return 0
      if (rule.kind === 'course') return this.state[rule.course] === IN ? 0 : 1
      const inside = rule.of.map(count)
      return rule.kind === 'all' ? inside.reduce((a, b) => a + b, 0) : Math.min(NEVER, ...inside)
    }
    return course.rule ? count(course.rule) : 0
  }

  /** Whether some other course asks for it. */
  private isAskedFor(c: number): boolean {
    const names = (rule: FillRule): boolean =>
      rule.kind === 'course' ? rule.course === c : rule.kind !== 'units' && rule.of.some(names)
    return this.problem.courses.some((course) => course.rule && names(course.rule))
  }

  private set(c: number, state: number): void {
    const before = this.state[c]!
    if (before === state) return
    this.state[c] = state
    this.back.push(() => (this.state[c] = before))
  }

  private narrow(c: number, terms: number): void {
    const before = this.terms[c]!
    this.terms[c] = terms
    this.back.push(() => (this.terms[c] = before))
  }

  private mark(list: Uint8Array, at: number): void {
    if (list[at]) return
    list[at] = 1
    this.back.push(() => (list[at] = 0))
  }

  private undo(mark: number): void {
    while (this.back.length > mark) this.back.pop()!()
  }
}

function isSingle(terms: number): boolean {
  return (terms & (terms - 1)) === 0
}

function latest(terms: number): number {
  return 31 - Math.clz32(terms)
}
