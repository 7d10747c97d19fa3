import type { Multipliers } from './lagrangian'
import type { Turn, NeedAutomaton } from './needAutomaton'
import { couldGive, POSSIBLE, useOf, type Piece, type Problem } from './problem'

/** What is decided at once. */
export interface Item {
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
export interface Place {
  want: number
  slot: number
  machine: NeedAutomaton
  turn: Turn
}

/** Lays out what is decided one after another: which wants are active at each step, in which slots, and what is to come. */
export class FrontierItems {
  readonly items: Item[] = []
  slots = 0
  private readonly slotOf: number[]
  /** By want, how many of its pieces are decided. */
  private readonly decided: number[]
  private readonly free: number[] = []
  private readonly active = new Set<number>()
  private readonly capLeft: number[]
  private readonly shareLeft: number[]
  private readonly demandLeft: number[][]

  /** `groups`: the pieces decided at once, in order; `inside`: by want, its pieces. */
  constructor(
    private readonly problem: Problem,
    private readonly multipliers: Multipliers,
    groups: readonly (readonly number[])[],
    private readonly inside: readonly (readonly number[])[]
  ) {
    const { pieces, wants, caps, shares, demands = [] } = problem
    this.slotOf = wants.map(() => -1)
    this.decided = wants.map(() => 0)
    this.capLeft = caps.map((cap) => [...cap.pieces].reduce((sum, p) => sum + useOf(cap, pieces[p]!), 0))
    this.shareLeft = shares.map((share) =>
      share.pairs.reduce((sum, { one }) => sum + heaviest(pieces, one), 0)
    )
    this.demandLeft = demands.map((demand) => couldGive(pieces, demand, demand.pieces.keys()))
    for (const group of groups) this.add(group)
  }

  private add(group: readonly number[]): void {
    const { pieces } = this.problem
    const here = [...new Set(group.flatMap((p) => pieces[p]!.wants))]
    for (const want of here) this.open(want)
    const own = group.map((p) => ({ p, places: pieces[p]!.wants.map((want) => this.place(want)) }))
    this.spend(group)
    const done = here.filter((w) => this.decided[w] === this.inside[w]!.length)
    for (const w of done) this.active.delete(w)
    this.push({ pieces: own, label: undefined, over: done.map((w) => this.slotOf[w]!) })
    for (const w of done) this.free.push(this.slotOf[w]!)
  }

  /** Makes a want active before its first piece; where it may have several labels, one is said there. */
  private open(want: number): void {
    if (this.active.has(want)) return
    this.active.add(want)
    const slot = this.free.pop() ?? this.slots++
    this.slotOf[want] = slot
    if (this.multipliers.machines[want]!.starts > 1)
      this.push({ pieces: [], label: { want, slot }, over: [] })
  }

  private place(want: number): Place {
    const machine = this.multipliers.machines[want]!
    return { want, slot: this.slotOf[want]!, machine, turn: machine.turns[this.decided[want]!++]! }
  }

  /** Takes a group off what is still to come of caps, shares and demands. */
  private spend(group: readonly number[]): void {
    const { pieces, caps, shares, demands = [] } = this.problem
    for (const p of group) {
      caps.forEach((cap, c) => cap.pieces.has(p) && (this.capLeft[c]! -= useOf(cap, pieces[p]!)))
      shares.forEach((share, s) => {
        for (const { one } of share.pairs) if (one[0] === p) this.shareLeft[s]! -= heaviest(pieces, one)
      })
    }
    demands.forEach((demand, d) => {
      couldGive(pieces, demand, group).forEach((gives, level) => (this.demandLeft[d]![level]! -= gives))
    })
  }

  private push(some: Pick<Item, 'pieces' | 'label' | 'over'>): void {
    const { caps, shares, demands = [] } = this.problem
    const kept = [...this.active]
    const radix = [
      ...kept.map((w) => this.multipliers.machines[w]!.statesAt(this.decided[w]!)),
      ...caps.map((cap) => cap.most + 1),
      ...shares.map((share) => share.most + 1),
      ...demands.map((demand) => (demand.least + 1) ** POSSIBLE)
    ]
    this.items.push({
      ...some,
      kept: kept.map((w) => this.slotOf[w]!),
      radix,
      numbered: radix.reduce((product, n) => product * n, 1) < Number.MAX_SAFE_INTEGER,
      capLeft: [...this.capLeft],
      shareLeft: [...this.shareLeft],
      demandLeft: this.demandLeft.map((left) => [...left])
    })
  }
}

function heaviest(pieces: readonly Piece[], some: readonly number[]): number {
  return Math.max(...some.map((p) => pieces[p]!.weight))
}

/** Of an item, by what two states are the same: a whole number where it fits one. */
export const keyOf = (item: Item, wants: readonly number[], used: readonly number[]): number | string =>
  item.numbered ? numberOf(item, wants, used) : nameOf(item, wants, used)

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
