/**
 * How far a want is, as a small state machine. First it is said how firmly the want will be met;
 * then its pieces come in a fixed order, and each is taken or passed.
 *
 *     turn     0        1        2
 *     earned  ── 0 ─take─ 1 ─take─ 2    a state is the label and what has been taken, capped at what is
 *              \   \pass  0 ─take─ 1    asked for; each turn numbers its own states from 0
 *     planned ── 1 ...
 *
 * A want that is said to be met by a label takes no softer piece: its credit would be pure waste. A label
 * that can no longer be kept gives way to the next softer one. Costs are packed tuples: what the label
 * costs in the end, and the waste of each step.
 */
import { LEVELS, weightIn, type Piece, type Problem, type Want } from './problem'

/** What has been taken, or could still be. */
interface Amount {
  sum: number
  /** Distinct subjects, as bits. */
  subjects: number
  parts: readonly number[]
}

interface State extends Amount {
  label: number
}

/** Where the states of a turn lead; NONE where the piece cannot be taken. */
interface Turn {
  pass: Int32Array
  take: Int32Array
  waste: Int32Array
  value: Float64Array
}

export const NONE = -1
const SUBJECTS_MOST = 31
const ALL_BITS = 0x7fffffff

export class WantMachine {
  /** How many states it may start in, the firmest label first. */
  readonly starts: number
  /** One for each piece. */
  private readonly turns: Turn[] = []
  /** The cost of the labels in the last states. */
  private readonly last: Float64Array
  private readonly want: Want
  private readonly pieces: readonly Piece[]
  private readonly subjectBit = new Map<number, number>()
  /** By label, then by turn: what the pieces from it on could still give. */
  private readonly ahead: readonly (readonly Amount[])[]
  private fresh = false

  /** What taking a piece costs beside its price, by turn: the prices of caps. Whole numbers. */
  readonly dues: Float64Array

  /** `own` are the want's pieces in the order in which they are decided; `prices` are by piece, whole. */
  constructor(
    problem: Problem,
    w: number,
    readonly own: readonly number[],
    labelCost: readonly number[],
    private readonly prices: Float64Array
  ) {
    const want = (this.want = problem.wants[w]!)
    this.pieces = own.map((p) => problem.pieces[p]!)
    this.dues = new Float64Array(own.length)
    if (want.subjects)
      for (const { subject } of this.pieces)
        if (!this.subjectBit.has(subject)) this.subjectBit.set(subject, this.subjectBit.size)
    if (this.subjectBit.size > SUBJECTS_MOST)
      throw new RangeError(`courses of more than ${SUBJECTS_MOST} subjects for one need that counts them`)
    const nothing: Amount = { sum: 0, subjects: 0, parts: want.including.map(() => 0) }
    this.ahead = Array.from({ length: LEVELS }, (_, label) => {
      const sums = [nothing]
      for (let k = own.length - 1; k >= 0; k--)
        sums.unshift(this.pieces[k]!.firmness > label ? sums[0]! : this.with(sums[0]!, k))
      return sums
    })
    // A label that no piece of its own firmness brings is that of the firmer one; the softest one that
    // is brought takes every piece, so it gives way to an open want without anything lost.
    const brought = new Set(this.pieces.map((piece) => piece.firmness))
    let layer = new Layer()
    for (let label = 0; label < LEVELS; label++)
      if (brought.has(label)) layer.number(this.kept({ ...nothing, label }, 0))
    if (!brought.size) layer.number(this.kept({ ...nothing, label: 0 }, 0))
    this.starts = layer.states.length
    for (let k = 0; k < own.length; k++) {
      const next = new Layer()
      const n = layer.states.length
      const turn = {
        pass: new Int32Array(n),
        take: new Int32Array(n),
        waste: new Int32Array(n),
        value: new Float64Array(n)
      }
      layer.states.forEach((state, i) => {
        turn.pass[i] = next.number(this.kept(state, k + 1))
        const taken = this.taking(state, k)
        turn.take[i] = taken ? next.number(this.kept(taken, k + 1)) : NONE
        if (taken) turn.waste[i] = Math.max(0, state.sum + weightIn(want, this.pieces[k]!) - want.amount)
      })
      this.turns.push(turn)
      layer = next
    }
    this.last = Float64Array.from(layer.states, (state) => labelCost[state.label]!)
  }

  /** From a state before the k-th piece, the piece goes elsewhere. */
  pass(state: number, k: number): number {
    return this.turns[k]!.pass[state]!
  }

  /** The piece counts here; NONE when it cannot. */
  take(state: number, k: number): number {
    return this.turns[k]!.take[state]!
  }

  /** Units beyond what is asked for, if the piece is taken. */
  waste(state: number, k: number): number {
    return this.turns[k]!.waste[state]!
  }

  /** The least that the want costs from a state before the k-th piece, the prices of its pieces included. */
  value(state: number, k: number): number {
    if (!this.fresh) this.refresh()
    return (this.turns[k]?.value ?? this.last)[state]!
  }

  valueAtStart(): number {
    let least = Infinity
    for (let state = 0; state < this.starts; state++) least = Math.min(least, this.value(state, 0))
    return least
  }

  /** Prices have changed. */
  forget(): void {
    this.fresh = false
  }

  private refresh(): void {
    this.fresh = true
    let after = this.last
    for (let k = this.own.length - 1; k >= 0; k--) {
      const { pass, take, waste, value } = this.turns[k]!
      const price = this.price(k)
      for (let i = 0; i < value.length; i++) {
        const without = after[pass[i]!]!
        value[i] = take[i] === NONE ? without : Math.min(without, after[take[i]!]! + waste[i]! + price)
      }
      after = value
    }
  }

  /** The pieces that the want would take by itself, at the prices. */
  cheapest(): number[] {
    const mine: number[] = []
    const least = this.valueAtStart()
    let state = 0
    while (this.value(state, 0) !== least) state++
    this.own.forEach((p, k) => {
      const passed = this.pass(state, k)
      const taken = this.take(state, k)
      const takes =
        taken !== NONE &&
        this.waste(state, k) + this.price(k) + this.value(taken, k + 1) < this.value(passed, k + 1)
      if (takes) mine.push(p)
      state = takes ? taken : passed
    })
    return mine
  }

  /** How much less the want costs with the k-th piece for nothing than without it; below zero for none. */
  gain(k: number): number {
    const { taken, passed } = this.ends(this.costsBefore(k), k)
    return passed - (taken - this.prices[this.own[k]!]!)
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
    let passed = Infinity
    let taken = Infinity
    for (let state = 0; state < costs.length; state++) {
      passed = Math.min(passed, costs[state]! + this.value(this.pass(state, k), k + 1))
      const next = this.take(state, k)
      if (next !== NONE)
        taken = Math.min(
          taken,
          costs[state]! + this.waste(state, k) + this.price(k) + this.value(next, k + 1)
        )
    }
    return { taken, passed }
  }

  private costsBefore(k: number): Float64Array {
    let costs = new Float64Array(this.starts)
    for (let i = 0; i < k; i++) costs = this.costsAfter(costs, i)
    return costs
  }

  /** The least at which each state of the next turn is reached. */
  private costsAfter(costs: Float64Array, k: number): Float64Array<ArrayBuffer> {
    const { pass, take, waste } = this.turns[k]!
    const price = this.price(k)
    const next = new Float64Array((this.turns[k + 1]?.value ?? this.last).length).fill(Infinity)
    for (let state = 0; state < costs.length; state++) {
      const cost = costs[state]!
      if (cost < next[pass[state]!]!) next[pass[state]!] = cost
      if (take[state] === NONE) continue
      const paid = cost + waste[state]! + price
      if (paid < next[take[state]!]!) next[take[state]!] = paid
    }
    return next
  }

  private price(k: number): number {
    return this.prices[this.own[k]!]! + this.dues[k]!
  }

  private taking(state: State, k: number): State | undefined {
    const { label, sum } = state
    const { amount, byCourse } = this.want
    if (byCourse && sum >= amount) return undefined
    if (this.pieces[k]!.firmness > label && weightIn(this.want, this.pieces[k]!) > 0) return undefined
    return { label, ...this.with(state, k) }
  }

  private with(amount: Amount, k: number): Amount {
    const { want } = this
    const piece = this.pieces[k]!
    const weight = weightIn(want, piece)
    return {
      sum: Math.min(want.amount, amount.sum + weight),
      subjects: want.subjects ? amount.subjects | (1 << this.subjectBit.get(piece.subject)!) : 0,
      parts: amount.parts.map((there, i) => {
        const { least, pieces } = want.including[i]!
        return pieces.has(this.own[k]!) ? Math.min(least, there + weight) : there
      })
    }
  }

  /** The state before the k-th piece with the firmest label that can still be kept, and no idle detail. */
  private kept(state: State, k: number): State {
    let { label } = state
    while (label < LEVELS && !this.inReach(state, label, k)) label++
    if (label === LEVELS) return { label, sum: state.sum, subjects: 0, parts: [] }
    const subjects =
      this.want.subjects && bits(state.subjects) >= this.want.subjects ? ALL_BITS : state.subjects
    return { label, sum: state.sum, subjects, parts: state.parts }
  }

  private inReach({ sum, subjects, parts }: State, label: number, k: number): boolean {
    const { want } = this
    const left = this.ahead[label]![k]!
    const room = want.byCourse ? want.amount - sum : Infinity
    if (sum + left.sum < want.amount) return false
    if (want.subjects - bits(subjects) > room || bits(subjects | left.subjects) < want.subjects) return false
    return want.including.every(({ least }, i) => {
      const missing = least - parts[i]!
      return missing <= room && missing <= left.parts[i]!
    })
  }
}

/** The states of one turn, numbered as they come. */
class Layer {
  readonly states: State[] = []
  private readonly ids = new Map<number | string, number>()

  number(state: State): number {
    const { label, sum, subjects, parts } = state
    const short = sum * (LEVELS + 1) + label
    const key = subjects || parts.length ? `${short} ${subjects} ${parts.join('.')}` : short
    const found = this.ids.get(key)
    if (found !== undefined) return found
    const id = this.states.push(state) - 1
    this.ids.set(key, id)
    return id
  }
}

function bits(mask: number): number {
  let left = mask
  let count = 0
  for (; left; count++) left &= left - 1
  return count
}
