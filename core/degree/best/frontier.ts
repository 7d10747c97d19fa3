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
 * 1992), with the bound of `prices`: what cannot come up to better than the best reading known, found by
 * a narrow first pass, is dropped.
 *
 * Bound: `effort.most` states; where they do not suffice, the best reading seen stands, not proved.
 */
import type { Effort } from './effort'
import { inOrderOfFrontier } from './elimination'
import type { Score } from './labels'
import { Packing } from './packing'
import { Prices } from './lagrangian'
import {
  couldGive,
  firmestOf,
  LEVELS,
  NOWHERE,
  POSSIBLE,
  useOf,
  type Demand,
  type Opens,
  type Piece,
  type Problem
} from './problem'
import type { Turn, WantMachine } from './needAutomaton'
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

/** What is decided at once. */
interface Item {
  /** Pieces, each with what its wants make of it; none where a label is said. */
  pieces: readonly { p: number; places: readonly Place[] }[]
  /** A want with a choice of labels, said before its first piece. */
  label: { want: number; slot: number } | undefined
  /** Slots of wants that are active afterwards, and of those that are over. */
  kept: readonly number[]
  over: readonly number[]
  /** For each kept slot the number of its states, then those of caps and shares. */
  radix: readonly number[]
  /** Whether a state's key fits a whole number. */
  numbered: boolean
  /** What is still to come of each cap and share. */
  capLeft: readonly number[]
  shareLeft: readonly number[]
  /** What is still to come for each demand by each status, that of the softer ones included. */
  demandLeft: readonly (readonly number[])[]
}

/** A want that would take a piece. */
interface Place {
  want: number
  slot: number
  machine: WantMachine
  turn: Turn
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
  frontier.prices.improve()
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
  readonly prices: Prices
  /** The pieces as they are decided. */
  private readonly order: readonly number[]
  private readonly items: readonly Item[]
  private readonly slots: number

  constructor(
    private readonly problem: Problem,
    private readonly packing: Packing,
    private readonly effort: Effort,
    from?: Prices
  ) {
    const inside: number[][] = problem.wants.map(() => [])
    problem.pieces.forEach((piece, p) => piece.wants.forEach((w) => inside[w]!.push(p)))
    const groups = inOrderOfFrontier(problem, inside)
    this.order = groups.flat()
    const at = new Int32Array(this.order.length)
    this.order.forEach((p, i) => (at[p] = i))
    for (const own of inside) own.sort((a, b) => at[a]! - at[b]!)
    this.prices = new Prices(problem, packing, inside, from)
    ;({ items: this.items, slots: this.slots } = this.itemsOf(groups, inside))
  }

  /** The same question and prices, without the places that no reading of less than this cost can use. */
  narrowed(most: number): Frontier {
    return new Frontier(this.prices.narrowed(most), this.packing, this.effort, this.prices)
  }

  private itemsOf(groups: readonly (readonly number[])[], inside: readonly (readonly number[])[]) {
    const { pieces, wants, caps, shares, demands = [] } = this.problem
    const { machines } = this.prices
    const slotOf = wants.map(() => -1)
    const decided = wants.map(() => 0)
    const free: number[] = []
    let slots = 0
    const capLeft = caps.map((cap) => [...cap.pieces].reduce((sum, p) => sum + useOf(cap, pieces[p]!), 0))
    const shareLeft = shares.map((share) =>
      share.pairs.reduce((sum, { one }) => sum + heaviest(pieces, one), 0)
    )
    const demandLeft = demands.map((demand) => couldGive(pieces, demand, demand.pieces.keys()))
    const active = new Set<number>()
    const items: Item[] = []
    const push = (some: Pick<Item, 'pieces' | 'label' | 'over'>) => {
      const kept = [...active]
      const radix = [
        ...kept.map((w) => machines[w]!.statesAt(decided[w]!)),
        ...caps.map((cap) => cap.most + 1),
        ...shares.map((share) => share.most + 1),
        ...demands.map((demand) => (demand.least + 1) ** POSSIBLE)
      ]
      items.push({
        ...some,
        kept: kept.map((w) => slotOf[w]!),
        radix,
        numbered: radix.reduce((product, n) => product * n, 1) < Number.MAX_SAFE_INTEGER,
        capLeft: [...capLeft],
        shareLeft: [...shareLeft],
        demandLeft: demandLeft.map((left) => [...left])
      })
    }
    for (const group of groups) {
      const here = [...new Set(group.flatMap((p) => pieces[p]!.wants))]
      for (const want of here) {
        if (active.has(want)) continue
        active.add(want)
        slotOf[want] = free.pop() ?? slots++
        if (machines[want]!.starts > 1) push({ pieces: [], label: { want, slot: slotOf[want]! }, over: [] })
      }
      const own = group.map((p) => ({
        p,
        places: pieces[p]!.wants.map((want) => ({
          want,
          slot: slotOf[want]!,
          machine: machines[want]!,
          turn: machines[want]!.turns[decided[want]!++]!
        }))
      }))
      for (const p of group) {
        caps.forEach((cap, c) => cap.pieces.has(p) && (capLeft[c]! -= useOf(cap, pieces[p]!)))
        shares.forEach((share, s) => {
          for (const { one } of share.pairs) if (one[0] === p) shareLeft[s]! -= heaviest(pieces, one)
        })
      }
      demands.forEach((demand, d) => {
        couldGive(pieces, demand, group).forEach((gives, level) => (demandLeft[d]![level]! -= gives))
      })
      const done = here.filter((w) => decided[w] === inside[w]!.length)
      for (const w of done) active.delete(w)
      push({ pieces: own, label: undefined, over: done.map((w) => slotOf[w]!) })
      for (const w of done) free.push(slotOf[w]!)
    }
    return { items, slots }
  }

  /**
   * One pass over all items, for readings that cost less than `most`. With a `width` only the most
   * promising states are kept. Undefined when the effort did not suffice.
   */
  pass(most: number, width: number): Pass | undefined {
    const { problem, effort } = this
    for (const machine of this.prices.machines) machine.settle()
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
    const machine = this.prices.machines[want]!
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
    let without = bound + this.prices.ofPiece[p]!
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
    const { now, costs } = this.demandsAfter(work)
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
    const key = item.numbered ? numberOf(item, work.wants, used) : nameOf(item, work.wants, used)
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
      // A cap that can never bind is one state, but for its price, which the bound still holds.
      if (this.prices.ofCap[c] === 0 && used[c]! <= cap.most - item.capLeft[c]!) used[c] = 0
    }
    return used
  }

  /** What the bound took off for the room of caps that are over, to be added again. */
  private closeCaps({ item, i }: Work, used: number[]): number {
    let back = 0
    this.problem.caps.forEach((cap, c) => {
      const before = i > 0 ? this.items[i - 1]!.capLeft[c]! : Infinity
      const price = this.prices.ofCap[c]!
      if (price === 0 || item.capLeft[c]! > 0 || before === 0) return
      back += price * (cap.most - used[c]!)
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
  private demandCost({ least }: Demand, there: readonly number[], left: readonly number[]): number {
    let label = 0
    while (label < POSSIBLE && there[label]! + left[label]! < least) label++
    return this.packing.demandCost[label === POSSIBLE ? LEVELS : label]!
  }

  /** No reading costs less, demands included. */
  floor(): number {
    const { demands = [] } = this.problem
    const none = Array.from({ length: POSSIBLE }, () => 0)
    return demands.reduce(
      (sum, demand) =>
        sum + this.demandCost(demand, none, couldGive(this.problem.pieces, demand, demand.pieces.keys())),
      this.prices.bound()
    )
  }

  /** What is there of each demand after the item, and what that costs more than before it. */
  private demandsAfter({ item, i, from, to }: Work): { now: readonly number[]; costs: number } {
    const { demands = [] } = this.problem
    let costs = 0
    const now = demands.map((demand, d) => {
      const left = item.demandLeft[d]!
      const before =
        i > 0
          ? this.items[i - 1]!.demandLeft[d]!
          : couldGive(this.problem.pieces, demand, demand.pieces.keys())
      const there = digitsOf(from.demands[d]!, demand.least + 1)
      const isOver = before.every((gives) => gives === 0)
      if (isOver) return 0
      const counted = item.pieces.flatMap(({ p }, n) => (demand.wants.has(to[n]!) ? [p] : []))
      const then = this.giving(demand, counted).map((gives, level) =>
        Math.min(demand.least, there[level]! + gives)
      )
      costs += this.demandCost(demand, then, left) - this.demandCost(demand, there, before)
      return left.every((gives) => gives === 0) ? 0 : numberFrom(then, demand.least + 1)
    })
    return { now, costs }
  }
}

function heaviest(pieces: readonly Piece[], some: readonly number[]): number {
  return Math.max(...some.map((p) => pieces[p]!.weight))
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

function numberOf({ kept, radix }: Item, wants: readonly number[], used: readonly number[]): number {
  let key = 0
  let n = 0
  for (const slot of kept) key = key * radix[n++]! + wants[slot]!
  for (const one of used) key = key * radix[n++]! + one
  return key
}

function nameOf({ kept }: Item, wants: readonly number[], used: readonly number[]): string {
  return `${kept.map((slot) => wants[slot]).join()} ${used.join()}`
}
