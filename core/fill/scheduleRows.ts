import { leastOf } from '../requisites'
import type { LinearModel, Sum } from './linear'
import { at, times, type Affine, type ModelOptions } from './model'
import { termsIn, type FillProblem, type FillRule } from './problem'

/** The rows of courses and terms: where each may stand, what stands before what, and what a term holds. */
export class ScheduleRows {
  /** Of an amount of credits and a term, the variable that says they are reached before it. */
  private readonly reached = new Map<string, string>()
  private parts = 0

  constructor(
    private readonly model: LinearModel,
    private readonly problem: FillProblem,
    private readonly options: ModelOptions
  ) {}

  write(): void {
    this.onceEach()
    this.withinTerms()
    this.rules()
    this.apart()
  }

  private times(c: number): readonly number[] {
    return termsIn(this.problem.courses[c]!.terms, this.options.last)
  }

  private taken(c: number): Sum {
    return this.times(c).map((t) => [1, at(c, t)] as const)
  }

  private onceEach(): void {
    this.problem.courses.forEach((course, c) => {
      if (course.placed) return
      const where = this.times(c).map((t) => [1, this.model.binary(at(c, t))] as const)
      if (where.length) this.model.row(where, '<=', 1)
    })
  }

  private withinTerms(): void {
    for (let t = 0; t <= this.options.last; t++)
      this.model.row(this.added(t), '<=', this.problem.terms[t]!.room)
  }

  private added(t: number, worth: 'credits' | 'adds' = 'credits'): Sum {
    return this.problem.courses.flatMap((course, c) =>
      !course.placed && course.terms & (1 << t) ? [[course[worth], at(c, t)] as const] : []
    )
  }

  /** 1 where course `c` is taken by the end of term `t`. */
  private by(c: number, t: number): Affine {
    const course = this.problem.courses[c]!
    if (course.placed) return { sum: [], constant: termsIn(course.terms, t).length ? 1 : 0 }
    return { sum: this.times(c).flatMap((s) => (s <= t ? [[1, at(c, s)] as const] : [])), constant: 0 }
  }

  /** Whether so many credits are reached before a term; once they are, they stay so. */
  private reachedBefore(credits: number, t: number): Affine {
    const { terms, before } = this.problem
    const standing = terms.slice(0, t).reduce((sum, one) => sum + one.credited, before)
    if (standing >= credits) return { sum: [], constant: 1 }
    const key = `${credits} ${t}`
    const known = this.reached.get(key)
    if (known) return { sum: [[1, known]], constant: 0 }
    const name = this.model.binary(`u${this.reached.size}`)
    this.reached.set(key, name)
    const taken = Array.from({ length: t }, (_, s) => this.added(s, 'adds')).flat()
    this.model.row([...taken, [standing - credits, name]], '>=', 0)
    const earlier = this.reached.get(`${credits} ${t - 1}`)
    const row: Sum = [[1, name]]
    if (earlier) this.model.row([...row, [-1, earlier]], '>=', 0)
    return { sum: row, constant: 0 }
  }

  /** How far the rule holds for a course in term `t`: 0, or 1 and more. */
  private holds(rule: FillRule, t: number): Affine {
    if (rule.kind === 'course') return this.by(rule.course, rule.same ? t : t - 1)
    if (rule.kind === 'credits') return this.reachedBefore(rule.credits, t)
    const inside = rule.of.map((one) => this.holds(one, t))
    if (rule.kind === 'any')
      return {
        sum: inside.flatMap((one) => one.sum),
        constant: inside.reduce((sum, one) => sum + one.constant, 0)
      }
    return {
      sum: [[1, rule.kind === 'some' ? this.enough(inside, leastOf(rule)) : this.all(inside)]],
      constant: 0
    }
  }

  /** 1 only where that many parts hold, each counted once, however many courses it holds by. */
  private enough(parts: readonly Affine[], least: number): string {
    const each = parts.map(({ sum, constant }) => {
      const one = this.model.upTo(`v${this.parts++}`, 1)
      this.model.row([[1, one], ...times(-1, sum)], '<=', constant)
      return [-1, one] as const
    })
    const enough = this.model.binary(`v${this.parts++}`)
    this.model.row([[least, enough], ...each], '<=', 0)
    return enough
  }

  private all(parts: readonly Affine[]): string {
    const all = this.model.upTo(`v${this.parts++}`, 1)
    for (const one of parts) this.model.row([[1, all], ...times(-1, one.sum)], '<=', one.constant)
    return all
  }

  /** `taken` only where the rule holds; of several parts a row for each. */
  private need(taken: Affine, rule: FillRule, t: number): void {
    if (rule.kind === 'all') {
      for (const one of rule.of) this.need(taken, one, t)
      return
    }
    const right = this.holds(rule, t)
    this.model.row([...taken.sum, ...times(-1, right.sum)], '<=', right.constant - taken.constant)
  }

  private rules(): void {
    const { courses, terms } = this.problem
    courses.forEach(({ rule, placed, terms: bits }, c) => {
      if (!rule) return
      if (placed) {
        const [t] = termsIn(bits, terms.length - 1)
        if (t !== undefined && !this.options.unmended.has(c)) this.need({ sum: [], constant: 1 }, rule, t)
      } else for (const t of this.times(c)) this.need(this.by(c, t), rule, t)
    })
  }

  /** Courses that exclude each other, do not go together in a term, or are kept out of one. */
  private apart(): void {
    const { courses } = this.problem
    const { last, notTogether, barred } = this.options
    courses.forEach(({ excludes }, c) => {
      for (const other of excludes)
        if (other > c && !courses[c]!.placed && !courses[other]!.placed)
          this.model.row([...this.taken(c), ...this.taken(other)], '<=', 1)
    })
    for (const { term, courses: some } of notTogether) {
      if (term > last) continue
      const free = some.filter((c) => !courses[c]!.placed)
      this.model.row(
        free.map((c) => [1, at(c, term)] as const),
        '<=',
        free.length - 1
      )
    }
    for (const { term, courses: some } of barred)
      if (term <= last) for (const c of some) this.model.row([[1, at(c, term)]], '<=', 0)
  }
}
