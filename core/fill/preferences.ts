import type { LinearModel, Sum } from './linear'
import { at } from './model'
import { NOT_TAKEN, termsIn, type Filling, type FillProblem, type FillRule } from './problem'

/** Against each other: a finding, a term away from where the program suggests, haste by level, by what waits. */
const FINDING = 60
const PULL = 3
const EARLY = 0.05
const LAY_PULL = 2
const TAIL = 0.9
const WAITING = 0.1
const LEVEL = 0.5
const EVEN = 0.6
const FULL = 2

type Cost = Sum[number][]

/** What is preferred among fillings that all do: the objective of a model, and the rows that it needs. */
export class Preferences {
  constructor(
    private readonly model: LinearModel,
    private readonly problem: FillProblem,
    private readonly last: number
  ) {}

  /** Which courses: those that suit, no more credits than needed, where the program suggests them. */
  taste(most = Infinity): void {
    const cost = this.findings(most)
    this.problem.courses.forEach((course, c) => {
      if (course.placed) return
      for (const t of termsIn(course.terms, this.last))
        cost.push([course.cost + PULL * this.apart(c, t) + EARLY * course.early * t, at(c, t)])
    })
    this.model.minimize(cost)
  }

  /** As few terms as can be with too many hours or too few credits. */
  fewestFindings(): void {
    this.model.minimize(this.findings(Infinity))
  }

  /** Terms from where the program suggests the course. */
  private apart(c: number, t: number): number {
    const { pull } = this.problem.courses[c]!
    return pull === undefined ? 0 : Math.abs(t - pull)
  }

  /** Too many hours of study in a term, and too few credits: what each costs. */
  private findings(most: number): Cost {
    const { model, last } = this
    const cost: Cost = []
    this.problem.terms.slice(0, last + 1).forEach((term, t) => {
      const load = this.added(t)
      const all = term.room + term.standing
      if (term.soft < all) {
        const over = model.binary(`o${t}`)
        model.row([...load, [term.soft - all, over]], '<=', term.soft - term.standing)
        cost.push([FINDING, over])
      }
      if (term.least > term.standing && t < last && load.length) {
        const light = model.binary(`l${t}`)
        const used = model.binary(`k${t}`)
        model.row([...load, [-term.room, used]], '<=', 0)
        if (term.standing > 0) model.row([[1, used]], '=', 1)
        model.row([...load, [-term.least, used], [term.least, light]], '>=', -term.standing)
        cost.push([FINDING, light])
      }
    })
    if (cost.length && Number.isFinite(most))
      model.row(
        cost.map(([, name]) => [1, name] as const),
        '<=',
        most
      )
    return cost
  }

  private added(t: number): Sum {
    return this.problem.courses.flatMap(({ placed, terms, credits }, c) =>
      !placed && terms & (1 << t) ? [[credits, at(c, t)] as const] : []
    )
  }

  /** The courses of a filling, each in the term where an advisor would lay it. */
  lay(chosen: Filling, most: number): void {
    const { courses } = this.problem
    const cost = this.findings(most)
    const { tail, waiting } = waitingFor(this.problem, chosen)
    courses.forEach((course, c) => {
      if (!this.isTaken(chosen, c)) return
      const where = termsIn(course.terms, this.last)
      this.model.row(
        where.map((t) => [1, at(c, t)] as const),
        '=',
        1
      )
      const haste = TAIL * tail[c]! + WAITING * waiting[c]! + LEVEL * course.early
      for (const t of where) cost.push([haste * t + LAY_PULL * this.apart(c, t), at(c, t)])
    })
    this.model.minimize([...cost, ...this.evenLoads(chosen)])
  }

  private isTaken(chosen: Filling, c: number): boolean {
    return !this.problem.courses[c]!.placed && chosen[c] !== NOT_TAKEN
  }

  /** What regular terms hold more or less than their even share; nothing is said against a light last one. */
  private evenLoads(chosen: Filling): Cost {
    const { model, problem } = this
    const { courses, terms } = problem
    const cost: Cost = []
    const even = terms
      .slice(0, this.last + 1)
      .flatMap(({ regular, room, standing }, t) => (regular && room + standing > 0 ? [t] : []))
    const total = courses.reduce(
      (sum, { credits }, c) => sum + (this.isTaken(chosen, c) && even.includes(chosen[c]!) ? credits : 0),
      0
    )
    const share = (total + even.reduce((sum, t) => sum + terms[t]!.standing, 0)) / Math.max(1, even.length)
    for (const t of even) {
      const [over, under] = [model.upTo(`e${t}`, 99), model.upTo(`f${t}`, 99)]
      const { standing, full } = terms[t]!
      model.row([...this.added(t), [-1, over]], '<=', share - standing)
      cost.push([EVEN, over])
      if (t === even.at(-1)) continue
      model.row([...this.added(t), [1, under]], '>=', share - standing)
      cost.push([EVEN, under])
      if (full > 0) {
        const part = model.upTo(`g${t}`, 99)
        model.row([...this.added(t), [1, part]], '>=', Math.min(full, share) - standing)
        cost.push([FULL, part])
      }
    }
    return cost
  }
}

/** For each course taken: the longest chain of courses taken that wait for it, and how many wait in all. */
function waitingFor({ courses }: FillProblem, term: Filling): { tail: number[]; waiting: number[] } {
  const tail = courses.map(() => 0)
  const after = courses.map(() => new Set<number>())
  const named = (rule: FillRule): number[] => {
    if (rule.kind === 'course') return term[rule.course] === NOT_TAKEN ? [] : [rule.course]
    return rule.kind === 'credits' ? [] : rule.of.flatMap(named)
  }
  for (let changed = true, pass = 0; changed && pass < courses.length; pass++) {
    changed = false
    courses.forEach(({ rule }, c) => {
      if (!rule || term[c] === NOT_TAKEN) return
      for (const before of named(rule)) {
        const [long, size] = [tail[c]! + 1, after[before]!.size]
        after[before]!.add(c)
        for (const one of after[c]!) if (one !== before) after[before]!.add(one)
        if (long > tail[before]! && long <= courses.length) {
          tail[before] = long
          changed = true
        }
        if (after[before]!.size > size) changed = true
      }
    })
  }
  return { tail, waiting: after.map((one) => one.size) }
}
