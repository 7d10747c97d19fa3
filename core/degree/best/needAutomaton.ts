/**
 * What a want costs by itself: its table of states, and at the present multipliers the least cost from each.
 * Costs are packed tuples: what the label costs in the end, the waste and the order of each step.
 */
import type { Packing } from './packing'
import { POSSIBLE, type Problem } from './problem'
import { NONE, tableOf, type TableTurn } from './transitionTable'

/** A turn of the table, and where its states begin in the machine's arrays of costs. */
export interface Turn extends TableTurn {
  readonly at: number
  /** What taking the piece costs beside waste and multipliers; below zero but for pieces that stand in. */
  readonly saving: number
}

export class NeedAutomaton {
  readonly starts: number
  /** One for each piece. */
  readonly turns: readonly Turn[]
  /** By state, turn after turn and then the last ones: the least that the want costs from there on. */
  private readonly values: Float64Array
  /** By state, how much more that is when the piece is passed. */
  readonly passing: Float64Array
  /** By state, how much more it is to take the piece than to pass it, its own multiplier left out. */
  readonly attempt: Float64Array
  /** What taking a piece costs beside its multiplier, by turn: the multipliers of caps. Whole numbers. */
  readonly dues: Float64Array
  private readonly wasteCost: number
  private fresh = false
  private mine: readonly number[] | undefined

  /** `own` are the want's pieces in the order in which they are decided; `multipliers` are by piece, whole. */
  constructor(
    problem: Problem,
    w: number,
    readonly own: readonly number[],
    packing: Packing,
    private readonly multipliers: Float64Array
  ) {
    const table = tableOf(problem, w, own)
    this.starts = table.starts
    this.wasteCost = packing.wasteCost
    let at = 0
    this.turns = table.turns.map((turn, k): Turn => {
      const { states, pass, take, waste } = turn
      at += states
      const saving = packing.saving(problem.pieces[own[k]!]!, own[k]!, w)
      return { states, pass, take, waste, at: at - states, saving }
    })
    this.values = new Float64Array(at + table.labels.length)
    const { endless, leftover, closing } = problem.wants[w]!
    table.labels.forEach((label, i) => {
      const met = endless ? Math.min(label, POSSIBLE) : label
      if (leftover) this.values[at + i] = closing && label > 0 ? packing.closingCost : 0
      else this.values[at + i] = packing.labelCost[met]!
    })
    this.passing = new Float64Array(at)
    this.attempt = new Float64Array(at)
    this.dues = new Float64Array(own.length)
  }

  /** How many states there are before the k-th piece, and after the last. */
  statesAt(k: number): number {
    return this.turns[k]?.states ?? this.values.length - this.after(k - 1)
  }

  /** The least that the want costs from a state before its first piece. */
  value(start: number): number {
    this.refresh()
    return this.values[start]!
  }

  valueAtStart(): number {
    this.refresh()
    let least = this.values[0]!
    for (let state = 1; state < this.starts; state++) least = Math.min(least, this.values[state]!)
    return least
  }

  /** Multipliers have changed. */
  forget(): void {
    this.fresh = false
    this.mine = undefined
  }

  private refresh(): void {
    if (this.fresh) return
    this.fresh = true
    const { values, turns, wasteCost } = this
    for (let k = turns.length - 1; k >= 0; k--) {
      const { at, states, pass, take, waste, saving } = turns[k]!
      const after = at + states
      const multiplier = saving + this.multiplier(k)
      for (let i = 0; i < states; i++) {
        const without = values[after + pass[i]!]!
        values[at + i] =
          take[i] === NONE
            ? without
            : Math.min(without, values[after + take[i]!]! + waste[i]! * wasteCost + multiplier)
      }
    }
  }

  /** Works out what passing and taking mean at the present multipliers. */
  settle(): void {
    this.refresh()
    const { values, turns, wasteCost } = this
    for (let k = 0; k < turns.length; k++) {
      const { at, states, pass, take, waste, saving } = turns[k]!
      const after = at + states
      const own = saving + this.dues[k]!
      for (let i = 0; i < states; i++) {
        const without = values[after + pass[i]!]!
        this.passing[at + i] = without - values[at + i]!
        if (take[i] !== NONE)
          this.attempt[at + i] = waste[i]! * wasteCost + own + values[after + take[i]!]! - without
      }
    }
  }

  /** The pieces that the want would take by itself, at the multipliers. */
  cheapest(): readonly number[] {
    if (this.mine) return this.mine
    const mine: number[] = []
    const least = this.valueAtStart()
    let state = 0
    while (this.values[state] !== least) state++
    for (let k = 0; k < this.turns.length; k++) {
      const { pass, take } = this.turns[k]!
      const after = this.after(k)
      const taken = take[state]!
      const takes =
        taken !== NONE &&
        this.costOf(state, k) + this.values[after + taken]! < this.values[after + pass[state]!]!
      if (takes) mine.push(this.own[k]!)
      state = takes ? taken : pass[state]!
    }
    this.mine = mine
    return mine
  }

  /** How much less the want costs with the k-th piece for nothing than without it; below zero for none. */
  gain(k: number): number {
    let costs = new Float64Array(this.starts)
    for (let i = 0; i < k; i++) costs = this.costsAfter(costs, i)
    const { taken, passed } = this.ends(costs, k)
    return passed - (taken - this.multipliers[this.own[k]!]!)
  }

  /** By turn, the least that the want costs when the piece is taken, and when it is passed. */
  extremes(): { taken: number; passed: number }[] {
    let costs = new Float64Array(this.starts)
    return this.own.map((_, k) => {
      const here = this.ends(costs, k)
      costs = this.costsAfter(costs, k)
      return here
    })
  }

  private ends(costs: Float64Array, k: number): { taken: number; passed: number } {
    this.refresh()
    const { pass, take } = this.turns[k]!
    const after = this.after(k)
    let passed = Infinity
    let taken = Infinity
    for (let state = 0; state < costs.length; state++) {
      passed = Math.min(passed, costs[state]! + this.values[after + pass[state]!]!)
      if (take[state] !== NONE)
        taken = Math.min(taken, costs[state]! + this.costOf(state, k) + this.values[after + take[state]!]!)
    }
    return { taken, passed }
  }

  /** The least at which each state of the next turn is reached. */
  private costsAfter(costs: Float64Array, k: number): Float64Array<ArrayBuffer> {
    const { pass, take } = this.turns[k]!
    const next = new Float64Array(this.statesAt(k + 1)).fill(Infinity)
    for (let state = 0; state < costs.length; state++) {
      const here = costs[state]!
      if (here < next[pass[state]!]!) next[pass[state]!] = here
      if (take[state] === NONE) continue
      const paid = here + this.costOf(state, k)
      if (paid < next[take[state]!]!) next[take[state]!] = paid
    }
    return next
  }

  /** What it costs to take the k-th piece, multipliers included. */
  private costOf(state: number, k: number): number {
    const { waste, saving } = this.turns[k]!
    return waste[state]! * this.wasteCost + saving + this.multiplier(k)
  }

  /** Where the states after the k-th piece begin. */
  private after(k: number): number {
    const turn = this.turns[k]
    return turn ? turn.at + turn.states : 0
  }

  private multiplier(k: number): number {
    return this.multipliers[this.own[k]!]! + this.dues[k]!
  }
}
