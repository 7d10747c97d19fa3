/**
 * The best filling there is: the earliest finish; then the fewest findings, the courses that suit best, and
 * terms as an advisor would lay them: what others wait for early, the loads even.
 *
 * Of each it is said whether it is proved. The finish is, where every earlier one was shown by the solver to be
 * out of reach, over every reading of what is taken and every branch.
 */
import { conflictOf, type Asked } from './conflict'
import { LinearModel, type Limits, type Solved, type Sum } from './linear'
import { shortOf, type ModelOptions } from './model'
import { NOT_TAKEN, TERMS_MOST, termsIn, type Filling, type FillProblem, type NotTogether } from './problem'
import type { FillAnswer, FillEffort, NoneBetter } from './answer'
import { Preferences } from './preferences'
import { ReadingRows } from './readingRows'
import { ScheduleRows } from './scheduleRows'
import { fillingOf, freed } from './fillings'

/** Finding out whether there is a filling at all; making one good. Nodes end them alike everywhere, before the seconds do. */
const PROOF: Limits = { gap: 0.01, nodes: 20_000, seconds: 20 }
const TASTE: Limits = { gap: 0.02, nodes: 300, seconds: 10 }
const LEAST: Limits = { gap: 0, nodes: 300, seconds: 4 }
/** Finding any answer at all, near or far from the best. */
const ANY: Limits = { gap: 1, nodes: 300, seconds: 4 }
const LAYING: Limits = { gap: 0.001, nodes: 1000, seconds: 4 }
/** Fillings looked at, at most, until one has no fault. */
const LOOKS_MOST = 16

/** @throws RangeError for more terms than a set of bits holds. */
export function fill(problem: FillProblem, effort: FillEffort): FillAnswer {
  if (problem.terms.length > TERMS_MOST)
    throw new RangeError(`a route of ${problem.terms.length} terms is too long to fill`)
  return new Search(problem, effort).answer()
}

interface Found {
  last: number
  /** No earlier term will do. */
  proved: boolean
  answer: Answer
  /** The answer was asked for courses that suit. */
  suits: boolean
}

export type Answer = Extract<Solved, { kind: 'solved' }>

class Search {
  private models = 0
  private readonly notTogether: NotTogether[] = []
  private readonly barred: NotTogether[] = []
  private unmended = new Set<number>()
  private short: number[] | undefined
  /** Courses were barred or wants raised, so that a later finish is no proof. */
  private narrowed = false

  constructor(
    private problem: FillProblem,
    private readonly effort: FillEffort
  ) {}

  answer(): FillAnswer {
    const last = this.problem.terms.length - 1
    if (last < 0)
      return {
        kind: 'partly',
        proved: true,
        filling: this.nothing(),
        conflict: this.asked(),
        smallest: this.asked().length === 1,
        models: 0
      }
    this.unmended = this.beyondMending()
    let bound = 0
    let proved = true
    for (let looks = 0; looks < LOOKS_MOST; looks++) {
      const found = this.earliest(bound)
      if (found === 'none')
        return this.effort.wholeOnly
          ? { kind: 'impossible', models: this.models }
          : this.partly(!this.narrowed)
      if (found === 'unknown') break
      // A fault that is more than a set of courses without a week may bar more than it has to.
      proved &&= found.proved && !(this.narrowed && found.last > bound)
      if (proved) bound = found.last
      const good = this.settled(found)
      if (good) return { kind: 'filled', ...good, bound, proved, models: this.models }
    }
    return { kind: 'unknown', bound, models: this.models }
  }

  /** The first term by which everything can be met, from `from` on, and a filling that does. */
  private earliest(from: number): Found | 'none' | 'unknown' {
    let proved = true
    for (let last = from; last < this.problem.terms.length; last++) {
      // By a term that nothing can be placed in, or stands in, no more is met than by the one before it.
      if (last > from && !this.isOfUse(last)) continue
      const asked = this.ask(last, TASTE, (model) => this.prefer(model, last).taste())
      const answer = asked.kind === 'unknown' ? this.ask(last, PROOF) : asked
      if (answer.kind === 'unknown') proved = false
      if (answer.kind !== 'solved') continue
      this.effort.told?.(this.models, last)
      return { last, proved, answer, suits: asked.kind === 'solved' }
    }
    return proved ? 'none' : 'unknown'
  }

  private isOfUse(term: number): boolean {
    const bit = 1 << term
    return (
      this.problem.courses.some(({ terms }) => terms & bit) ||
      this.problem.holders.some((one) => 'at' in one && one.at === term)
    )
  }

  /** A good filling by that term without a fault; undefined where the faults found ask for another search. */
  private settled({
    last,
    answer: first,
    suits
  }: Found): { filling: Filling; better: NoneBetter } | undefined {
    if (!suits) {
      const laid = this.laid(fillingOf(this.problem, first, last), last)
      const better = { findings: false, courses: false, laying: false }
      return this.isSound(laid.filling) ? { filling: laid.filling, better } : undefined
    }
    let chosen = first
    let findings = true
    if (this.findingsIn(first) > 0) {
      // Fewer findings come before courses that suit.
      const least = this.ask(last, LEAST, (model) => this.prefer(model, last).fewestFindings())
      findings = least.kind === 'solved' && least.best
      if (least.kind === 'solved' && this.findingsIn(least) < this.findingsIn(first)) {
        const again = this.ask(last, TASTE, (model) => this.prefer(model, last).taste(this.findingsIn(least)))
        chosen = again.kind === 'solved' ? again : { ...least, best: false }
      }
    }
    // However the courses are laid then, there are no more findings.
    const laid = this.laid(fillingOf(this.problem, chosen, last), last, this.findingsIn(chosen))
    // Where courses were barred or wants raised, what was left out was not looked at.
    const all = !this.narrowed
    const better = { findings: all && findings, courses: all && chosen.best, laying: all && laid.best }
    return this.isSound(laid.filling) ? { filling: laid.filling, better } : undefined
  }

  private prefer(model: LinearModel, last: number): Preferences {
    return new Preferences(model, this.problem, last)
  }

  private findingsIn(answer: Answer): number {
    const names = this.problem.terms.flatMap((_, t) => [`o${t}`, `l${t}`])
    return names.reduce((sum, name) => sum + Math.round(answer.value(name)), 0)
  }

  /** Whether the filling has no fault; those it has are kept in mind. */
  private isSound(filling: Filling): boolean {
    const faults = this.effort.inspect?.(filling)
    if (!faults) return true
    this.notTogether.push(...faults.notTogether)
    this.barred.push(...faults.barred)
    // Where not everything can be met, which needs stay open is for the audit to say.
    const asksMore = faults.more.size > 0 && !this.short
    if (asksMore) {
      const { reading } = this.problem
      const wants = reading.wants.map((want, w) => ({
        ...want,
        amount: want.amount + (faults.more.get(w) ?? 0)
      }))
      this.problem = { ...this.problem, reading: { ...reading, wants } }
    }
    this.narrowed ||= faults.barred.length > 0 || asksMore
    return !faults.notTogether.length && !faults.barred.length && !asksMore
  }

  /** The filling that leaves least open, and what cannot be met together. */
  private partly(proved: boolean): FillAnswer {
    const { wants } = this.problem.reading
    const none = { wants: [], smallest: false }
    let conflict: ReturnType<typeof conflictOf> | undefined
    const ended = (filling: Filling): FillAnswer => {
      const { wants: some, smallest } = conflict ?? (proved ? this.conflict([]) : none)
      return { kind: 'partly', proved, filling, conflict: some, smallest, models: this.models }
    }
    for (let looks = 0; looks < LOOKS_MOST; looks++) {
      const least = this.askShort(new Set(), PROOF)
      if (least.kind !== 'solved') break
      if (proved) conflict ??= this.conflict([this.metIn(least)])
      this.short = wants.map((want, w) => (want.amount > 0 ? Math.ceil(least.value(shortOf(w)) - 1e-6) : 0))
      const found = this.earliest(0)
      const good = typeof found === 'string' ? undefined : this.settled(found)
      if (good) return ended(good.filling)
    }
    return ended(this.nothing())
  }

  /** As much met as can be, of these wants all. */
  private askShort(met: ReadonlySet<number>, limits: Limits): Solved {
    const { wants } = this.problem.reading
    this.short = wants.map((want, w) => (met.has(w) ? 0 : want.amount))
    const price = wants.flatMap((want, w): Sum => [
      [100 / Math.max(1, want.amount), shortOf(w)],
      [10, shortOf(w)]
    ])
    return this.ask(this.problem.terms.length - 1, limits, (model) => model.minimize(price))
  }

  /** The wants that fall short of nothing. */
  private metIn(answer: Answer): Set<number> {
    return new Set(this.asked().filter((w) => answer.value(shortOf(w)) < 1e-6))
  }

  private nothing(): Filling {
    return this.problem.courses.map(({ placed, terms }) =>
      placed ? (termsIn(terms, this.problem.terms.length - 1)[0] ?? NOT_TAKEN) : NOT_TAKEN
    )
  }

  private asked(): number[] {
    return this.problem.reading.wants.flatMap((want, w) => (want.amount > 0 ? [w] : []))
  }

  /** Placed courses whose rule nothing that is added can meet. */
  private beyondMending(): Set<number> {
    const found = new Set<number>()
    const last = this.problem.terms.length - 1
    const placed = this.problem.courses.flatMap(({ placed, rule }, c) => (placed && rule ? [c] : []))
    for (const c of placed) {
      const model = new LinearModel()
      const others = new Set(placed.filter((one) => one !== c))
      new ScheduleRows(model, this.problem, { ...this.options(last), unmended: others }).write()
      if (this.run(model, PROOF).kind === 'infeasible') found.add(c)
    }
    return found
  }

  private options(last: number): ModelOptions {
    const { notTogether, barred, unmended, short } = this
    return { last, notTogether, barred, unmended, ...(short && { short }) }
  }

  private ask(
    last: number,
    limits: Limits,
    prefer?: (model: LinearModel) => void,
    without?: ReadonlySet<number>
  ): Solved {
    const model = new LinearModel()
    const problem = without ? freed(this.problem, without) : this.problem
    new ScheduleRows(model, problem, this.options(last)).write()
    new ReadingRows(model, problem, this.options(last)).write()
    prefer?.(model)
    return this.run(model, limits)
  }

  private run(model: LinearModel, limits: Limits): Solved {
    this.models++
    const answer = this.effort.solve(model, limits)
    this.effort.told?.(this.models)
    return answer
  }

  /** The same courses, laid over the terms as an advisor would. */
  private laid(chosen: Filling, last: number, most = Infinity): { filling: Filling; best: boolean } {
    const { courses } = this.problem
    const some: FillProblem = {
      ...this.problem,
      courses: courses.map((course, c) =>
        course.placed || chosen[c] !== NOT_TAKEN ? course : { ...course, terms: 0 }
      )
    }
    const model = new LinearModel()
    new ScheduleRows(model, some, this.options(last)).write()
    new Preferences(model, some, last).lay(chosen, most)
    const answer = this.run(model, LAYING)
    return answer.kind === 'solved'
      ? { filling: fillingOf(some, answer, last), best: answer.best }
      : { filling: chosen, best: false }
  }

  /** Wants that cannot be met together; `known` are sets that can. */
  private conflict(known: readonly ReadonlySet<number>[]): ReturnType<typeof conflictOf> {
    const last = this.problem.terms.length - 1
    const all = this.asked()
    return conflictOf(all, known, (some): Asked => {
      const part = this.askShort(new Set(some), ANY)
      this.short = undefined
      if (part.kind === 'solved') return { met: this.metIn(part) }
      const others = new Set(all.filter((w) => !some.includes(w)))
      const answer = this.ask(last, PROOF, undefined, others)
      if (answer.kind === 'solved') return { met: new Set(some) }
      return answer.kind === 'infeasible' ? 'cannot' : 'unknown'
    })
  }
}
