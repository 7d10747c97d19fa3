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
 * the one whose pieces stand earlier in the program's own order, so the last criterion costs nothing
 * extra. Method: Bellman (1957) on a vertex separation of the pieces (Kinnersley 1992), with bounds:
 * every want is taken as met as firmly as its pieces still allow; what cannot come up to a reading
 * found by a narrow first pass is dropped.
 *
 * Tuples are packed into one whole number, digit by digit; nothing is weighed. Bound: `effort.most`
 * states; where they do not suffice, the best reading seen stands, not proved. Where only the order among
 * equals is open, less is spent on it: the reading is then one of the best, the same every time, and may
 * not be the first of them.
 */
import type { Effort } from './effort'
import { inOrderOfFrontier } from './elimination'
import type { Score } from './labels'
import { LEVELS, NOWHERE, type Opens, type Problem } from './problem'
import { NONE, WantMachine } from './wantMachine'

export interface Answer {
  /** The best reading there is, or the best one seen when the limit came first. */
  best: (Score & { place: number[] }) | undefined
  proved: boolean
  /** No reading leaves fewer open. */
  bound: Opens
}

/** States kept at each piece, pass after pass, until none has to be dropped. The first always ends. */
const WIDTHS = [16, 256, 2048, Infinity] as const
/** States spent on the order among readings of which none is better. */
const STATES_FOR_ORDER = 4000
/** Rounds of setting prices, at most. */
const SWEEPS = 3
/** Steps of one size, at most. */
const ROUNDS = 8
/** Stands for NOWHERE in a place under way: after every want. */
const LAST = 0x7fff

interface State {
  /** Of each active want the state of its machine; 0 for the others. */
  wants: number[]
  caps: readonly number[]
  shares: readonly number[]
  /** The packed tuple of what is settled, and the best that the rest could be. */
  bound: number
  place: number[]
}

/** What the expansion of states at one item works with; wants and places are those at hand. */
interface Expansion {
  i: number
  item: readonly number[]
  most: number
  active: readonly number[]
  next: Map<string, State>
  wants: number[]
  place: number[]
}

interface Pass {
  best: State | undefined
  /** No state was dropped for want of width. */
  complete: boolean
}

/** Packs opens and waste so that numbers compare as tuples do. */
class Packing {
  private readonly wasteDigit: number
  private readonly openDigit: number
  readonly labelCost: readonly number[]

  constructor(wants: number, wasteMost: number) {
    this.wasteDigit = wasteMost + 1
    this.openDigit = wants + 1
    const costs = [0]
    for (let l = 0; l < LEVELS; l++)
      costs.push(costs[l]! + this.openDigit ** (LEVELS - 1 - l) * this.wasteDigit)
    this.labelCost = costs
  }

  get fits(): boolean {
    return this.openDigit ** LEVELS * this.wasteDigit < Number.MAX_SAFE_INTEGER
  }

  pack(opens: Opens, waste: number): number {
    return opens.reduce((sum, open) => sum * this.openDigit + open, 0) * this.wasteDigit + waste
  }

  unpack(packed: number): Score {
    const opens: [number, number, number, number] = [0, 0, 0, 0]
    let rest = Math.floor(packed / this.wasteDigit)
    for (let l = LEVELS - 1; l >= 0; l--) {
      opens[l] = rest % this.openDigit
      rest = Math.floor(rest / this.openDigit)
    }
    return { opens, waste: packed % this.wasteDigit }
  }
}

/**
 * The best reading of a question in which all wants are asked for; none when no reading comes up to
 * `notWorse`.
 * @throws RangeError when the numbers of the question are too large to be packed.
 */
export function alongFrontier(problem: Problem, effort: Effort, notWorse?: Score): Answer {
  const packing = packingOf(problem)
  let most = notWorse ? packing.pack(notWorse.opens, notWorse.waste) : Infinity
  let frontier = new Frontier(problem, packing, effort)
  let best: State | undefined
  let complete = false
  let limit = effort.most
  for (const width of WIDTHS) {
    const pass = frontier.pass(most, width, limit)
    if (!pass) break
    const better = pass.best !== undefined && pass.best.bound < most
    if (pass.best) best = pass.best
    if (better) most = best!.bound
    ;({ complete } = pass)
    if (complete) break
    if (width === WIDTHS[0]) frontier.setPrices()
    if (better || width === WIDTHS[0]) frontier = frontier.narrowed(most)
    // Nothing is better; what is left is the order among equals, which is not worth as much.
    if (isBest(best, frontier)) limit = Math.min(effort.most, effort.steps + STATES_FOR_ORDER)
  }
  const proved = complete || isBest(best, frontier)
  return {
    best: best && {
      place: best.place.map((w) => (w === LAST ? NOWHERE : w)),
      ...packing.unpack(best.bound)
    },
    proved,
    bound: packing.unpack(proved && best ? best.bound : Math.max(0, frontier.bound())).opens
  }
}

function isBest(state: State | undefined, frontier: Frontier): boolean {
  return state !== undefined && state.bound <= frontier.bound()
}

function packingOf({ wants, pieces }: Problem): Packing {
  const wasteMost = pieces.reduce((sum, piece) => sum + piece.weight, 0)
  const packing = new Packing(wants.length, wasteMost)
  if (!packing.fits || wants.length >= LAST)
    throw new RangeError(`${wants.length} needs that depend on each other are too many for one reading`)
  return packing
}

class Frontier {
  private readonly machines: WantMachine[]
  private readonly prices: Float64Array
  /** The price of a unit of each cap. */
  private readonly capPrices: Float64Array
  /** Of each piece, its turn in each of its wants. */
  private readonly turns: number[][]
  /** What is decided, in order: pieces that belong together, and before them the labels of wants with a choice. */
  private readonly items: (number[] | { label: number })[]
  /** For each item, the caps and shares it may write in, and what is still to come of each. */
  private readonly capLeft: Int32Array[] = []
  private readonly shareLeft: Int32Array[] = []
  private readonly last: Int32Array
  /** A key in the making. */
  private readonly codes: number[] = []
  private readonly first: Int32Array

  constructor(
    private readonly problem: Problem,
    private readonly packing: Packing,
    private readonly effort: Effort
  ) {
    const { wants, pieces, caps, shares } = problem
    const inside: number[][] = wants.map(() => [])
    pieces.forEach((piece, p) => piece.wants.forEach((w) => inside[w]!.push(p)))
    const groups = inOrderOfFrontier(problem, inside)
    const order = groups.flat()
    const at = new Int32Array(pieces.length)
    order.forEach((p, i) => (at[p] = i))
    for (const own of inside) own.sort((a, b) => at[a]! - at[b]!)
    this.turns = pieces.map((piece, p) => piece.wants.map((w) => inside[w]!.indexOf(p)))
    this.prices = new Float64Array(pieces.length)
    this.capPrices = new Float64Array(caps.length)
    this.machines = wants.map(
      (_, w) => new WantMachine(problem, w, inside[w]!, this.packing.labelCost, this.prices)
    )
    const said = new Set<number>()
    this.items = groups.flatMap((group) => {
      const fresh = [...new Set(group.flatMap((p) => pieces[p]!.wants))].filter((w) => !said.has(w))
      for (const w of fresh) said.add(w)
      return [...fresh.filter((w) => this.machines[w]!.starts > 1).map((label) => ({ label })), group]
    })
    // The items by which a want is entered and left.
    this.first = new Int32Array(wants.length).fill(this.items.length)
    this.last = new Int32Array(wants.length).fill(-1)
    this.items.forEach((item, i) => {
      const touched = Array.isArray(item) ? item.flatMap((p) => pieces[p]!.wants) : [item.label]
      for (const w of touched) {
        this.first[w] = Math.min(this.first[w]!, i)
        this.last[w] = i
      }
    })
    // What may still be spent of each cap and share after each item.
    const capRest = Int32Array.from(caps, (cap) =>
      [...cap.pieces].reduce((sum, p) => sum + pieces[p]!.weight, 0)
    )
    const shareRest = Int32Array.from(shares, (share) =>
      share.pairs.reduce((sum, { one }) => sum + pieces[one]!.weight, 0)
    )
    for (const item of this.items) {
      const decided = Array.isArray(item) ? item : []
      caps.forEach((cap, c) => {
        for (const p of decided) if (cap.pieces.has(p)) capRest[c]! -= pieces[p]!.weight
      })
      shares.forEach((share, s) => {
        for (const { one } of share.pairs) if (decided.includes(one)) shareRest[s]! -= pieces[one]!.weight
      })
      this.capLeft.push(capRest.slice())
      this.shareLeft.push(shareRest.slice())
    }
  }

  /**
   * Prices of pieces that several wants would like: the bound is then that of wants that pay for what
   * they take (Lagrange). Any price gives a valid bound. First all at once, dearer where several wants
   * take a piece and cheaper where none does (Held and Karp 1971), in steps that become finer through
   * the digits of the tuple; then piece by piece the best price, the second-highest gain.
   */
  setPrices(): void {
    const { prices, packing, capPrices } = this
    const { caps, pieces } = this.problem
    const contested = pieces.flatMap((piece, p) => (piece.wants.length > 1 ? [p] : []))
    const heaviest = caps.map((cap) => Math.max(1, ...[...cap.pieces].map((p) => pieces[p]!.weight)))
    let best = this.bound()
    let kept = { prices: prices.slice(), capPrices: capPrices.slice() }
    for (let step = packing.labelCost[1]! / 2; step >= 1; step = Math.floor(step / 4)) {
      for (let round = 0; round < ROUNDS; round++) {
        const { takers, spent } = this.takers()
        let balanced = true
        for (const p of contested) {
          const by = takers[p]! - 1
          if (by === 0 || (by < 0 && prices[p] === 0)) continue
          balanced = false
          prices[p] = Math.max(0, prices[p]! + by * step)
        }
        caps.forEach((cap, c) => {
          const over = (spent[c]! - cap.most) / heaviest[c]!
          const price = Math.max(0, Math.round(capPrices[c]! + (over * step) / heaviest[c]!))
          if (price === capPrices[c]) return
          balanced = false
          capPrices[c] = price
        })
        if (balanced) break
        this.reprice()
        const bound = this.bound()
        if (bound > best) {
          best = bound
          kept = { prices: prices.slice(), capPrices: capPrices.slice() }
        }
      }
      prices.set(kept.prices)
      capPrices.set(kept.capPrices)
      this.reprice()
    }
    for (let sweep = 0; sweep < SWEEPS; sweep++) {
      let changed = false
      for (const p of contested) {
        const { wants } = pieces[p]!
        const gains = wants.map((w, j) => this.machines[w]!.gain(this.turns[p]![j]!)).sort((a, b) => b - a)
        const price = Math.max(0, gains[1]!)
        if (price === prices[p]) continue
        prices[p] = price
        changed = true
        for (const w of wants) this.machines[w]!.forget()
      }
      if (!changed) break
    }
  }

  private reprice(): void {
    const { caps, pieces } = this.problem
    for (const machine of this.machines) {
      machine.forget()
      machine.dues.fill(0)
    }
    caps.forEach((cap, c) => {
      if (this.capPrices[c] === 0) return
      for (const p of cap.pieces)
        pieces[p]!.wants.forEach((w, j) => {
          if (cap.wants.has(w))
            this.machines[w]!.dues[this.turns[p]![j]!]! += this.capPrices[c]! * pieces[p]!.weight
        })
    })
  }

  /** The bound before the first piece. */
  bound(): number {
    let bound = 0
    for (const machine of this.machines) bound += machine.valueAtStart()
    for (const price of this.prices) bound -= price
    this.problem.caps.forEach((cap, c) => (bound -= this.capPrices[c]! * cap.most))
    return bound
  }

  /** Each want by itself at the present prices: by piece, how many take it; by cap, what is spent. */
  private takers(): { takers: Int32Array; spent: Int32Array } {
    const { caps, pieces } = this.problem
    const takers = new Int32Array(this.prices.length)
    const spent = new Int32Array(caps.length)
    this.machines.forEach((machine, w) => {
      for (const p of machine.cheapest()) {
        takers[p]!++
        caps.forEach((cap, c) => {
          if (cap.wants.has(w) && cap.pieces.has(p)) spent[c]! += pieces[p]!.weight
        })
      }
    })
    return { takers, spent }
  }

  /**
   * The same question with the same prices, without the places that no reading of at most this cost can
   * use: taking the piece there, or not taking it, would cost the want too much by itself.
   */
  narrowed(most: number): Frontier {
    const { pieces } = this.problem
    const room = most - this.bound()
    const wants = pieces.map((piece) => new Set(piece.wants))
    this.machines.forEach((machine, w) => {
      const least = machine.valueAtStart()
      machine.extremes().forEach(({ taken, passed }, k) => {
        const p = machine.own[k]!
        if (taken - least > room) wants[p]!.delete(w)
        if (passed - least > room)
          for (const other of pieces[p]!.wants) if (other !== w) wants[p]!.delete(other)
      })
    })
    const problem = {
      ...this.problem,
      pieces: pieces.map((piece, p) => ({ ...piece, wants: [...wants[p]!] }))
    }
    const narrow = new Frontier(problem, this.packing, this.effort)
    narrow.prices.set(this.prices)
    narrow.capPrices.set(this.capPrices)
    narrow.reprice()
    return narrow
  }

  /**
   * One pass over all items, for readings that cost `most` at most. With a `width` only the most promising
   * states are kept. Undefined when the effort did not suffice.
   */
  pass(most: number, width: number, limit: number): Pass | undefined {
    const { problem, effort, items } = this
    const { wants, pieces, caps, shares } = problem
    let layer: State[] = [
      {
        wants: wants.map(() => 0),
        caps: caps.map(() => 0),
        shares: shares.map(() => 0),
        bound: this.bound(),
        place: pieces.map(() => LAST)
      }
    ]
    if (layer[0]!.bound > most) return { best: undefined, complete: true }
    let complete = true
    for (let i = 0; i < items.length; i++) {
      const next = new Map<string, State>()
      const active = wants.flatMap((_, w) => (this.first[w]! <= i && this.last[w]! > i ? [w] : []))
      const item = items[i]!
      const work = Array.isArray(item) ? { i, item, most, active, next, wants: [], place: [] } : undefined
      for (const state of layer) {
        effort.steps++
        if (width > WIDTHS[0] && effort.steps > limit) return undefined
        if (work) this.expand(work, state)
        else this.say((item as { label: number }).label, state, most, active, next)
      }
      layer = [...next.values()]
      if (layer.length > width) {
        complete = false
        layer.sort((a, b) => a.bound - b.bound || earlier(a.place, b.place))
        layer.length = width
      }
    }
    let best: State | undefined
    for (const state of layer)
      if (
        !best ||
        state.bound < best.bound ||
        (state.bound === best.bound && earlier(state.place, best.place) < 0)
      )
        best = state
    return { best, complete }
  }

  /** Every label that a want could have. */
  private say(
    w: number,
    from: State,
    most: number,
    active: readonly number[],
    next: Map<string, State>
  ): void {
    const machine = this.machines[w]!
    const rest = from.bound - machine.valueAtStart()
    for (let start = 0; start < machine.starts; start++) {
      const bound = rest + machine.value(start, 0)
      if (bound > most) continue
      const state = { ...from, wants: from.wants.with(w, start), bound }
      this.keep(state, active, next)
    }
  }

  /** All ways to decide pieces from a state. */
  private expand(work: Expansion, from: State): void {
    work.wants = from.wants.slice()
    work.place = from.place.slice()
    this.decide(work, from, 0, from.bound)
  }

  /** The n-th piece of the item and those after it; leaves wants and places as they were. */
  private decide(work: Expansion, from: State, n: number, bound: number): void {
    if (n === work.item.length) return this.settle(work, from, bound)
    const { wants, place, most } = work
    const p = work.item[n]!
    const own = this.problem.pieces[p]!.wants
    const turns = this.turns[p]!
    const { length } = own
    const before: number[] = []
    let without = bound + this.prices[p]!
    for (let j = 0; j < length; j++) {
      const machine = this.machines[own[j]!]!
      const k = turns[j]!
      const state = wants[own[j]!]!
      const passed = machine.pass(state, k)
      before.push(state)
      wants[own[j]!] = passed
      without += machine.value(passed, k + 1) - machine.value(state, k)
    }
    if (without <= most) this.decide(work, from, n + 1, without)
    for (let j = 0; j < length; j++) {
      const machine = this.machines[own[j]!]!
      const k = turns[j]!
      const taken = machine.take(before[j]!, k)
      if (taken === NONE) continue
      const passed = wants[own[j]!]!
      const cost =
        without +
        machine.waste(before[j]!, k) +
        machine.dues[k]! +
        machine.value(taken, k + 1) -
        machine.value(passed, k + 1)
      if (cost > most) continue
      wants[own[j]!] = taken
      place[p] = own[j]!
      this.decide(work, from, n + 1, cost)
      wants[own[j]!] = passed
      place[p] = LAST
    }
    for (let j = 0; j < length; j++) wants[own[j]!] = before[j]!
  }

  private settle(work: Expansion, from: State, settled: number): void {
    const { wants, place, most } = work
    const caps = this.capsAfter(work.i, work.item, from, place)
    const shares = caps && this.sharesAfter(work.i, work.item, from, place)
    if (!caps || !shares) return
    const bound = settled + (caps.length ? this.closeCaps(work.i, caps) : 0)
    if (bound <= most) this.keep({ wants, caps, shares, bound, place }, work.active, work.next)
  }

  /** Puts a copy of a state where no equal one is better. */
  private keep(state: State, active: readonly number[], next: Map<string, State>): void {
    const { codes } = this
    let n = 0
    for (const w of active) codes[n++] = state.wants[w]!
    for (const used of state.caps) codes[n++] = used
    for (const used of state.shares) codes[n++] = used
    codes.length = n
    const key = String.fromCharCode(...codes)
    const known = next.get(key)
    if (
      known &&
      (known.bound < state.bound || (known.bound === state.bound && earlier(known.place, state.place) <= 0))
    )
      return
    const { caps, shares, bound } = state
    next.set(key, { wants: state.wants.slice(), caps, shares, bound, place: state.place.slice() })
  }

  /** What is used of each cap; 0 stands for all that can never bind. Undefined when one is broken. */
  private capsAfter(
    i: number,
    item: readonly number[],
    from: State,
    place: readonly number[]
  ): number[] | undefined {
    const { caps, pieces } = this.problem
    if (!caps.length) return []
    const used = from.caps.slice()
    for (let c = 0; c < caps.length; c++) {
      const cap = caps[c]!
      for (const p of item)
        if (place[p]! !== LAST && cap.pieces.has(p) && cap.wants.has(place[p]!)) used[c]! += pieces[p]!.weight
      if (used[c]! > cap.most) return undefined
      // A cap that can never bind is one state, but for its price, which the bound still holds.
      if (this.capPrices[c] === 0 && used[c]! <= cap.most - this.capLeft[i]![c]!) used[c] = 0
    }
    return used
  }

  /** What the bound took off for the room of caps that are over, to be added again. */
  private closeCaps(i: number, used: number[]): number {
    let back = 0
    this.problem.caps.forEach((cap, c) => {
      const before = i > 0 ? this.capLeft[i - 1]![c]! : Infinity
      if (this.capPrices[c] === 0 || this.capLeft[i]![c]! > 0 || before === 0) return
      back += this.capPrices[c]! * (cap.most - used[c]!)
      used[c] = 0
    })
    return back
  }

  private sharesAfter(
    i: number,
    item: readonly number[],
    from: State,
    place: readonly number[]
  ): number[] | undefined {
    const { shares, pieces } = this.problem
    if (!shares.length) return []
    const used = from.shares.slice()
    for (let s = 0; s < shares.length; s++) {
      const share = shares[s]!
      for (const { one, other } of share.pairs)
        if (
          item.includes(one) &&
          place[one]! !== LAST &&
          place[other]! !== LAST &&
          share.oneSide.has(place[one]!) &&
          share.otherSide.has(place[other]!)
        )
          used[s]! += pieces[one]!.weight
      if (used[s]! > share.most) return undefined
      if (used[s]! <= share.most - this.shareLeft[i]![s]!) used[s] = 0
    }
    return used
  }
}

/** Below zero when `a` stands earlier in the program's own order. */
function earlier(a: readonly number[], b: readonly number[]): number {
  for (let p = 0; p < a.length; p++) if (a[p] !== b[p]) return a[p]! - b[p]!
  return 0
}
