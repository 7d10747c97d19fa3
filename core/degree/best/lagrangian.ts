/**
 * A bound on every reading: each want by itself, paying for what it takes.
 *
 * Several wants would like the same piece, and a cap holds over many; were each want alone, they would
 * all have it. So pieces and caps get multipliers (Lagrange), and what the wants pay is given back once: any
 * multipliers give a valid bound, good multipliers a sharp one. Multipliers are whole, and so is the bound.
 */
import type { Packing } from './packing'
import { LEVELS, useOf, type Problem } from './problem'
import { NeedAutomaton } from './needAutomaton'

/** Steps of one size, at most. */
const ROUNDS = 5
/** By how much steps get finer. */
const FINER = 4
/** Rounds of setting multipliers piece by piece, at most. */
const SWEEPS = 3

export class Multipliers {
  readonly machines: readonly NeedAutomaton[]
  readonly ofPiece: Float64Array
  /** Of a unit of each cap. */
  readonly ofCap: Float64Array

  /** `inside` are the pieces of each want in the order in which they are decided. */
  constructor(
    private readonly problem: Problem,
    private readonly packing: Packing,
    private readonly inside: readonly (readonly number[])[],
    from?: Multipliers
  ) {
    this.ofPiece = from?.ofPiece.slice() ?? new Float64Array(problem.pieces.length)
    this.ofCap = from?.ofCap.slice() ?? new Float64Array(problem.caps.length)
    this.machines = problem.wants.map(
      (_, w) => new NeedAutomaton(problem, w, inside[w]!, packing, this.ofPiece)
    )
    this.applyMultipliers()
  }

  /** No reading costs less. */
  bound(): number {
    let bound = this.packing.nowhere
    for (const machine of this.machines) bound += machine.valueAtStart()
    for (const multiplier of this.ofPiece) bound -= multiplier
    this.problem.caps.forEach((cap, c) => (bound -= this.ofCap[c]! * cap.most))
    return bound
  }

  /**
   * First all at once, dearer where several wants take a piece and cheaper where none does (Held and Karp
   * 1971), in steps that become finer through the digits of the tuple; then piece by piece the best
   * multiplier, the second-highest gain.
   */
  improve(): void {
    const { pieces } = this.problem
    const contested = pieces.flatMap((piece, p) => (piece.wants.length > 1 ? [p] : []))
    if (!contested.length && !this.problem.caps.length) return
    let best = this.bound()
    let kept = { ofPiece: this.ofPiece.slice(), ofCap: this.ofCap.slice() }
    for (let step = this.packing.labelCost[LEVELS]! / 2; step >= 1; step = Math.floor(step / FINER)) {
      for (let round = 0; round < ROUNDS; round++) {
        if (!this.balance(contested, step)) break
        const bound = this.bound()
        if (bound <= best) continue
        best = bound
        kept = { ofPiece: this.ofPiece.slice(), ofCap: this.ofCap.slice() }
      }
      this.ofPiece.set(kept.ofPiece)
      this.ofCap.set(kept.ofCap)
      this.applyMultipliers()
    }
    for (let sweep = 0; sweep < SWEEPS && this.sweep(contested); sweep++);
  }

  /** One step for all multipliers; false when no piece and no cap asks for one. */
  private balance(contested: readonly number[], step: number): boolean {
    const { caps, pieces } = this.problem
    const { takers, spent } = this.takers()
    let changed = false
    for (const p of contested) {
      const multiplier = Math.max(0, this.ofPiece[p]! + (takers[p]! - 1) * step)
      if (multiplier === this.ofPiece[p]) continue
      changed = true
      this.ofPiece[p] = multiplier
      for (const w of pieces[p]!.wants) this.machines[w]!.forget()
    }
    let capsChanged = false
    caps.forEach((cap, c) => {
      const heaviest = Math.max(1, ...[...cap.pieces].map((p) => useOf(cap, pieces[p]!)))
      const over = (spent[c]! - cap.most) / heaviest
      const multiplier = Math.max(0, Math.round(this.ofCap[c]! + (over * step) / heaviest))
      if (multiplier === this.ofCap[c]) return
      capsChanged = true
      this.ofCap[c] = multiplier
    })
    if (capsChanged) this.applyMultipliers()
    return changed || capsChanged
  }

  /** Each contested piece at its best multiplier by itself; false when nothing changed. */
  private sweep(contested: readonly number[]): boolean {
    const { pieces } = this.problem
    let changed = false
    for (const p of contested) {
      const { wants } = pieces[p]!
      const gains = wants.map((w) => this.machines[w]!.gain(this.inside[w]!.indexOf(p))).sort((a, b) => b - a)
      const multiplier = Math.max(0, gains[1]!)
      if (multiplier === this.ofPiece[p]) continue
      this.ofPiece[p] = multiplier
      changed = true
      for (const w of wants) this.machines[w]!.forget()
    }
    return changed
  }

  private applyMultipliers(): void {
    const { caps, pieces } = this.problem
    for (const machine of this.machines) {
      machine.forget()
      machine.dues.fill(0)
    }
    caps.forEach((cap, c) => {
      if (this.ofCap[c] === 0) return
      for (const p of cap.pieces)
        for (const w of pieces[p]!.wants)
          if (cap.wants.has(w))
            this.machines[w]!.dues[this.inside[w]!.indexOf(p)]! += this.ofCap[c]! * useOf(cap, pieces[p]!)
    })
  }

  /** Each want by itself at the present multipliers: by piece, how many take it; by cap, what is spent. */
  private takers(): { takers: Int32Array; spent: Int32Array } {
    const { caps, pieces } = this.problem
    const takers = new Int32Array(pieces.length)
    const spent = new Int32Array(caps.length)
    this.machines.forEach((machine, w) => {
      for (const p of machine.cheapest()) {
        takers[p]!++
        caps.forEach((cap, c) => {
          if (cap.wants.has(w) && cap.pieces.has(p)) spent[c]! += useOf(cap, pieces[p]!)
        })
      }
    })
    return { takers, spent }
  }

  /**
   * The question without the places that no reading of less than `most` can use: taking the piece
   * there, or not taking it, would cost the want too much by itself.
   */
  narrowed(most: number): Problem {
    const { pieces } = this.problem
    const room = most - this.bound()
    const wants = pieces.map((piece) => new Set(piece.wants))
    this.machines.forEach((machine, w) => {
      const least = machine.valueAtStart()
      machine.extremes().forEach(({ taken, passed }, k) => {
        const p = machine.own[k]!
        if (taken - least >= room) wants[p]!.delete(w)
        if (passed - least >= room)
          for (const other of pieces[p]!.wants) if (other !== w) wants[p]!.delete(other)
      })
    })
    return {
      ...this.problem,
      pieces: pieces.map((piece, p) => ({ ...piece, wants: piece.wants.filter((w) => wants[p]!.has(w)) }))
    }
  }
}
