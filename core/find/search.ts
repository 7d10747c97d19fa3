/**
 * The best weeks, depth first with bounds: the course with the fewest options left comes first, and what cannot
 * be better than the last of the best so far is left.
 */
import { leastOf, valueOf } from './measure'
import {
  compareCosts,
  openOptions,
  optionsByCourse,
  OptionSet,
  type FindOption,
  type FindProblem,
  type FoundWeek
} from './problem'

export interface FindEffort {
  /** Steps at most. */
  most?: number
  /** Told the steps now and then, and the best so far; true stops. */
  stopped?: (steps: number, best: readonly FoundWeek[]) => boolean
}

export interface BestWeeks {
  /** The best first; of equals any. */
  weeks: FoundWeek[]
  /** Nothing better was left out. */
  proved: boolean
  steps: number
}

const STEPS = 2_000_000
const TELL = 4096

/** @throws RangeError for a number of weeks below one. */
export function bestWeeks(problem: FindProblem, top: number, effort: FindEffort = {}): BestWeeks {
  if (!(top >= 1)) throw new RangeError(`at least one week has to be asked for, not ${top}`)
  return new Search(problem, top, effort).run()
}

class Search {
  private readonly best: FoundWeek[] = []
  private readonly clashes: OptionSet[]
  private readonly ofCourse: number[][]
  private readonly groupOf: number[]
  private steps = 0
  private ended = false

  constructor(
    private readonly problem: FindProblem,
    private readonly top: number,
    private readonly effort: FindEffort
  ) {
    const { options, courses, groups } = problem
    this.clashes = options.map((one) => OptionSet.of(options.length, one.clashes))
    this.ofCourse = optionsByCourse(problem)
    this.groupOf = Array.from({ length: courses }, (_, c) =>
      groups.findIndex((group) => group.courses.includes(c))
    )
  }

  run(): BestWeeks {
    const { groups, courses } = this.problem
    this.go(
      [],
      Array.from({ length: courses }, (_, c) => c),
      groups.map((group) => group.take),
      openOptions(this.problem)
    )
    return { weeks: this.best, proved: !this.ended, steps: this.steps }
  }

  /** `left`: courses not decided; `wanted`: how many each group still takes. */
  private go(chosen: number[], left: readonly number[], wanted: readonly number[], open: OptionSet): void {
    if (this.ended) return
    this.steps++
    if (this.steps > (this.effort.most ?? STEPS)) this.ended = true
    if (this.steps % TELL === 0 && this.effort.stopped?.(this.steps, this.best)) this.ended = true
    const options = this.problem.options
    const still = left.filter((course) => wanted[this.groupOf[course]!]! > 0)
    const room = still.map((course) => ({
      course,
      options: this.ofCourse[course]!.filter((o) => open.has(o))
    }))
    // Of each group enough courses have to have an option left.
    const able = wanted.map(() => 0)
    for (const one of room) if (one.options.length) able[this.groupOf[one.course]!]!++
    if (wanted.some((take, g) => able[g]! < take)) return
    const must = room.filter(({ course }) => able[this.groupOf[course]!] === wanted[this.groupOf[course]!])
    const bound = this.boundOf(
      chosen.map((o) => options[o]!),
      must.filter((one) => one.options.length).map((one) => one.options.map((o) => options[o]!))
    )
    if (this.isBeaten(bound)) return
    if (wanted.every((take) => take === 0)) return this.keep(chosen)
    const next = (must.some((one) => one.options.length) ? must : room)
      .filter((one) => one.options.length)
      .reduce((a, b) => (b.options.length < a.options.length ? b : a))
    const rest = still.filter((course) => course !== next.course)
    const group = this.groupOf[next.course]!
    const fewer = wanted.map((take, g) => (g === group ? take - 1 : take))
    const children = next.options
      .map((o) => ({ o, costs: this.costsOf([...chosen, o]) }))
      .sort((a, b) => compareCosts(a.costs, b.costs))
    for (const { o } of children) this.go([...chosen, o], rest, fewer, open.without(this.clashes[o]!))
    // Without this course, where the group can do so.
    if (able[group]! > wanted[group]!) this.go(chosen, rest, wanted, open)
  }

  private costsOf(chosen: readonly number[]): number[] {
    const taken = chosen.map((o) => this.problem.options[o]!)
    return this.problem.measures.map((measure, m) => valueOf(measure, m, taken))
  }

  private boundOf(chosen: readonly FindOption[], more: readonly (readonly FindOption[])[]): number[] {
    return this.problem.measures.map((measure, m) => leastOf(measure, m, chosen, more))
  }

  private isBeaten(bound: readonly number[]): boolean {
    return this.best.length === this.top && compareCosts(bound, this.best.at(-1)!.costs) >= 0
  }

  private keep(chosen: readonly number[]): void {
    const week = { options: chosen.toSorted((a, b) => a - b), costs: this.costsOf(chosen) }
    const after = this.best.findIndex((one) => compareCosts(week.costs, one.costs) < 0)
    this.best.splice(after < 0 ? this.best.length : after, 0, week)
    if (this.best.length > this.top) this.best.pop()
  }
}
