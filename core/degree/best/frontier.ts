// oxlint-disable max-lines -- one search, whose steps share the state at hand
/**
 * The exact search: dynamic programming along a frontier of wants.
 *
 * Pieces are decided one after another. A want is *active* from its first piece to its last; all that
 * the pieces still to come need to know of those decided is how far each active want is, and what is
 * left of caps and shares:
 *
 *     pieces  p3  p0 | p7  p1  p4         decided | to come
 *     want 0  ●───●──┼──●                 active: 0 and 2
 *     want 1  ●───●  |                    over: its cost is settled
 *     want 2      ●──┼──────●───●
 *
 * Of two partial readings with the same such state the one with the better tuple is kept, of equal ones
 * the one that came first. Method: Bellman (1957) on a vertex separation of the pieces (Kinnersley
 * 1992), with the bound of `multipliers`: what cannot come up to better than the best reading known, found by
 * a narrow first pass, is dropped.
 *
 * Bound: `effort.most` states; where they do not suffice, the best reading seen stands, not proved.
 */
import { DemandTally } from './demandTally'
import type { Effort } from './effort'
import { inOrderOfFrontier } from './elimination'
import { FrontierItems, keyOf, type Item } from './frontierItems'
import type { Score } from './labels'
import { Packing } from './packing'
import { Multipliers } from './lagrangian'
import { NOWHERE, useOf, type Opens, type Problem } from './problem'
import { NONE } from './transitionTable'

export interface Answer {
  /** The best reading there is, or the best one seen when the limit came first. */
  best: (Score & { place: number[] }) | undefined
  proved: boolean
  /** No reading leaves fewer open. */
  bound: Opens
}

/** States kept at each piece, pass after pass, until none has to be dropped. The first always ends. */
const WIDTHS = [8, 64, 512, 4096, Infinity] as const

interface State {
  /** By slot, of each active want the state of its machine; 0 in slots not used. */
  wants: readonly number[]
  caps: readonly number[]
  shares: readonly number[]
  /** Of each demand how much is there by status, as one number; 0 for one that is over. */
  demands: readonly number[]
  /** The packed tuple of what is settled, and the best that the rest could be. */
  bound: number
  /** The decisions, last first. */
  made: Decisions | undefined
}

/** Where the pieces of one item went: wants, or NOWHERE. */
interface Decisions {
  to: readonly number[]
  before: Decisions | undefined
}

interface Pass {
  best: { bound: number; place: number[] } | undefined
  /** No state was dropped for want of width. */
  complete: boolean
}

/** What the expansion of a layer works with; wants and decisions are those at hand. */
interface Work {
  item: Item
  i: number
  from: State
  most: number
  wants: number[]
  to: number[]
  next: Map<number | string, State>
}

/**
 * The best reading of a question in which all wants are asked for; none when every reading is worse
 * than `notWorse`.
 * @throws RangeError when the numbers of the question are too large to be packed.
 */
export function alongFrontier(problem: Problem, effort: Effort, notWorse?: Score): Answer {
  const packing = new Packing(problem)
  let most = notWorse ? packing.above(notWorse) : Infinity
  let frontier = new Frontier(problem, packing, effort)
  frontier.multipliers.improve()
  const floor = frontier.floor()
  let best: Pass['best']
  let proved = false
  for (const width of WIDTHS) {
    const pass = frontier.pass(most, width)
    if (!pass) break
    best = pass.best ?? best
    most = best?.bound ?? most
    proved = pass.complete || most <= floor
    if (proved) break
    if (pass.best) frontier = frontier.narrowed(most)
  }
  return {
    best: best && { place: best.place, ...packing.unpack(best.bound) },
    proved,
    bound: packing.unpack(proved && best ? best.bound : Math.max(0, floor)).opens
  }
}

class Frontier {
  readonly multipliers: Multipliers
  /** The pieces as they are decided. */
  private readonly order: readonly number[]
  private readonly items: readonly Item[]
  private readonly slots: number
  private readonly tally: DemandTally

  constructor(
    private readonly problem: Problem,
    private readonly packing: Packing,
    private readonly effort: Effort,
    from?: Multipliers
  ) {
    const inside: number[][] = problem.wants.map(() => [])
    problem.pieces.forEach((piece, p) => piece.wants.forEach((w) => inside[w]!.push(p)))
    const groups = inOrderOfFrontier(problem, inside)
    this.order = groups.flat()
    const at = new Int32Array(this.order.length)
    this.order.forEach((p, i) => (at[p] = i))
    for (const own of inside) own.sort((a, b) => at[a]! - at[b]!)
    this.multipliers = new Multipliers(problem, packing, inside, from)
    this.tally = new DemandTally(problem, packing)
    ;({ items: this.items, slots: this.slots } = new FrontierItems(problem, this.multipliers, groups, inside))
  }

  /** The same question and multipliers, without the places that no reading of less than this cost can use. */
  narrowed(most: number): Frontier {
    return new Frontier(this.multipliers.narrowed(most), this.packing, this.effort, this.multipliers)
  }

  /**
   * One pass over all items, for readings that cost less than `most`. With a `width` only the most
   * promising states are kept. Undefined when the effort did not suffice.
   */
  pass(most: number, width: number): Pass | undefined {
    const { problem, effort } = this
    for (const machine of this.multipliers.machines) machine.settle()
    let layer: State[] = [
      {
        wants: Array.from({ length: this.slots }, () => 0),
        caps: problem.caps.map(() => 0),
        shares: problem.shares.map(() => 0),
        demands: (problem.demands ?? []).map(() => 0),
        bound: this.floor(),
        made: undefined
      }
    ]
    if (layer[0]!.bound >= most) return { best: undefined, complete: true }
    let complete = true
    for (let i = 0; i < this.items.length; i++) {
      const item = this.items[i]!
      const work: Work = { item, i, most, from: layer[0]!, wants: [], to: [], next: new Map() }
      for (const from of layer) {
        effort.steps++
        if (width > WIDTHS[0] && effort.steps > effort.most) return undefined
        work.from = from
        if (item.label) this.say(work, item.label)
        else this.expand(work)
      }
      layer = [...work.next.values()]
      if (!layer.length) break
      if (layer.length > width) {
        complete = false
        layer.sort((a, b) => a.bound - b.bound)
        layer.length = width
      }
    }
    let best: State | undefined
    for (const state of layer) if (!best || state.bound < best.bound) best = state
    return { best: best && { bound: best.bound, place: this.placesOf(best) }, complete }
  }

  private placesOf(state: State): number[] {
    const place = this.problem.pieces.map(() => NOWHERE)
    let at = this.order.length
    for (let { made } = state; made; made = made.before)
      for (let n = made.to.length - 1; n >= 0; n--) place[this.order[--at]!] = made.to[n]!
    return place
  }

  /** Every label that a want could have. */
  private say(work: Work, { want, slot }: { want: number; slot: number }): void {
    const { from } = work
    const machine = this.multipliers.machines[want]!
    const rest = from.bound - machine.valueAtStart()
    work.wants = from.wants.slice()
    for (let start = 0; start < machine.starts; start++) {
      const bound = rest + machine.value(start)
      if (bound >= work.most) continue
      work.wants[slot] = start
      this.keep(work, bound, from.caps, from.shares, from.demands)
    }
  }

  /** All ways to decide pieces from a state. */
  private expand(work: Work): void {
    work.wants = work.from.wants.slice()
    this.decide(work, 0, work.from.bound)
  }

  /** The n-th piece of the item and those after it; leaves the wants as they were. */
  private decide(work: Work, n: number, bound: number): void {
    if (n === work.item.pieces.length) return this.settle(work, bound)
    const { wants, to, most } = work
    const { p, places } = work.item.pieces[n]!
    const before: number[] = []
    let without = bound + this.multipliers.ofPiece[p]!
    for (const { slot, machine, turn } of places) {
      const state = wants[slot]!
      before.push(state)
      wants[slot] = turn.pass[state]!
      without += machine.passing[turn.at + state]!
    }
    for (let j = 0; j < places.length; j++) {
      const { want, slot, machine, turn } = places[j]!
      const taken = turn.take[before[j]!]!
      if (taken === NONE) continue
      const cost = without + machine.attempt[turn.at + before[j]!]!
      if (cost >= most) continue
      const passed = wants[slot]!
      wants[slot] = taken
      to[n] = want
      this.decide(work, n + 1, cost)
      wants[slot] = passed
    }
    if (without < most) {
      to[n] = NOWHERE
      this.decide(work, n + 1, without)
    }
    for (let j = 0; j < places.length; j++) wants[places[j]!.slot] = before[j]!
  }

  private settle(work: Work, settled: number): void {
    const { caps, shares, demands } = this.problem
    if (!caps.length && !shares.length && !demands?.length) return this.keep(work, settled, [], [], [])
    const capsNow = this.capsAfter(work)
    const sharesNow = capsNow && this.sharesAfter(work)
    if (!capsNow || !sharesNow) return
    const { now, costs } = this.tally.after(work.item, this.items[work.i - 1], work.to, work.from.demands)
    const bound = settled + this.closeCaps(work, capsNow) + costs
    if (bound < work.most) this.keep(work, bound, capsNow, sharesNow, now)
  }

  /** Adds the state at hand where no equal one is as good. */
  private keep(
    work: Work,
    bound: number,
    caps: readonly number[],
    shares: readonly number[],
    demands: readonly number[]
  ): void {
    const { item, next, from } = work
    const used = demands.length
      ? [...caps, ...shares, ...demands]
      : shares.length
        ? [...caps, ...shares]
        : caps
    const key = keyOf(item, work.wants, used)
    const known = next.get(key)
    if (known && known.bound <= bound) return
    const wants = work.wants.slice()
    for (const slot of item.over) wants[slot] = 0
    const made = item.label ? from.made : { to: work.to.slice(), before: from.made }
    next.set(key, { wants, caps, shares, demands, bound, made })
  }

  /** What is used of each cap; 0 stands for all that can never bind. Undefined when one is broken. */
  private capsAfter({ item, from, to }: Work): number[] | undefined {
    const { caps, pieces } = this.problem
    const used = [...from.caps]
    for (let c = 0; c < caps.length; c++) {
      const cap = caps[c]!
      item.pieces.forEach(({ p }, n) => {
        if (to[n]! !== NOWHERE && cap.pieces.has(p) && cap.wants.has(to[n]!))
          used[c]! += useOf(cap, pieces[p]!)
      })
      if (used[c]! > cap.most) return undefined
      // A cap that can never bind is one state, but for its multiplier, which the bound still holds.
      if (this.multipliers.ofCap[c] === 0 && used[c]! <= cap.most - item.capLeft[c]!) used[c] = 0
    }
    return used
  }

  /** What the bound took off for the room of caps that are over, to be added again. */
  private closeCaps({ item, i }: Work, used: number[]): number {
    let back = 0
    this.problem.caps.forEach((cap, c) => {
      const before = i > 0 ? this.items[i - 1]!.capLeft[c]! : Infinity
      const multiplier = this.multipliers.ofCap[c]!
      if (multiplier === 0 || item.capLeft[c]! > 0 || before === 0) return
      back += multiplier * (cap.most - used[c]!)
      used[c] = 0
    })
    return back
  }

  private sharesAfter({ item, from, to }: Work): number[] | undefined {
    const { shares, pieces } = this.problem
    if (!shares.length) return []
    const used = [...from.shares]
    const place = new Map(item.pieces.map(({ p }, n) => [p, to[n]!]))
    for (let s = 0; s < shares.length; s++) {
      const share = shares[s]!
      for (const { one, other } of share.pairs) {
        const own = one.find((p) => share.oneSide.has(place.get(p) ?? NOWHERE))
        if (own !== undefined && other.some((p) => share.otherSide.has(place.get(p) ?? NOWHERE)))
          used[s]! += pieces[own]!.weight
      }
      if (used[s]! > share.most) return undefined
      if (used[s]! <= share.most - item.shareLeft[s]!) used[s] = 0
    }
    return used
  }

  /** No reading costs less, demands included. */
  floor(): number {
    return this.multipliers.bound() + this.tally.floor()
  }
}
