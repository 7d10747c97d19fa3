import type { Item } from './frontierItems'
import type { Packing } from './packing'
import { couldGive, firmestOf, LEVELS, POSSIBLE, type Demand, type Problem } from './problem'

/** What demands cost along the frontier: how much of each is there by status, kept as one number in a state. */
export class DemandTally {
  private readonly demands: readonly Demand[]
  /** Before the first item: what all pieces could give each demand. */
  private readonly all: readonly (readonly number[])[]

  constructor(
    private readonly problem: Problem,
    private readonly packing: Packing
  ) {
    this.demands = problem.demands ?? []
    this.all = this.demands.map((demand) => couldGive(problem.pieces, demand, demand.pieces.keys()))
  }

  /** No reading pays less for demands. */
  floor(): number {
    const none = Array.from({ length: POSSIBLE }, () => 0)
    return this.demands.reduce((sum, demand, d) => sum + this.cost(demand, none, this.all[d]!), 0)
  }

  /**
   * What is there of each demand once the pieces of an item went `to` wants, and what that costs more than before it.
   * `there` as of before; `earlier`: the item before, undefined for the first.
   */
  after(
    item: Item,
    earlier: Item | undefined,
    to: readonly number[],
    there: readonly number[]
  ): { now: readonly number[]; costs: number } {
    let costs = 0
    const now = this.demands.map((demand, d) => {
      const left = item.demandLeft[d]!
      const before = earlier?.demandLeft[d] ?? this.all[d]!
      if (before.every((gives) => gives === 0)) return 0
      const had = digitsOf(there[d]!, demand.least + 1)
      const counted = item.pieces.flatMap(({ p }, n) => (demand.wants.has(to[n]!) ? [p] : []))
      const then = this.giving(demand, counted).map((gives, level) =>
        Math.min(demand.least, had[level]! + gives)
      )
      costs += this.cost(demand, then, left) - this.cost(demand, had, before)
      return left.every((gives) => gives === 0) ? 0 : numberFrom(then, demand.least + 1)
    })
    return { now, costs }
  }

  /** What pieces give a demand, each course once by its firmest piece; by status, the firmer ones included. */
  private giving({ pieces: own }: Demand, group: Iterable<number>): number[] {
    const firmest = firmestOf(this.problem.pieces, own, group)
    return Array.from({ length: POSSIBLE }, (_, level) => {
      let sum = 0
      for (const { status, weight } of firmest) if (status <= level) sum += weight
      return sum
    })
  }

  /** What a demand costs at least, with so much there and so much to come. */
  private cost({ least }: Demand, there: readonly number[], left: readonly number[]): number {
    let label = 0
    while (label < POSSIBLE && there[label]! + left[label]! < least) label++
    return this.packing.demandCost[label === POSSIBLE ? LEVELS : label]!
  }
}

function numberFrom(digits: readonly number[], base: number): number {
  return digits.reduce((number, digit) => number * base + digit, 0)
}

function digitsOf(number: number, base: number): number[] {
  const digits: number[] = []
  for (let rest = number; digits.length < POSSIBLE; rest = Math.floor(rest / base))
    digits.unshift(rest % base)
  return digits
}
