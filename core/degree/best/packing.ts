/**
 * Tuples as whole numbers: four counts of open wants, that with everything first, the waste, then the order.
 *
 * Packed digit by digit, so that numbers compare as tuples do; nothing is weighed against anything. The
 * order is counted: a piece passes over every want of its own that stands before the one it counts
 * toward, and over all of them when it counts nowhere.
 */
import type { Score } from './labels'
import { LEVELS, type Opens, type Problem } from './problem'

export class Packing {
  private readonly openDigit: number
  private readonly wasteDigit: number
  /** One unit of waste; the digit of the order is below it. */
  readonly wasteCost: number
  /** By label, what a want costs that is met so. */
  readonly labelCost: readonly number[]
  /** What it costs that every piece counts nowhere. */
  readonly nowhere: number
  private readonly turnOf: readonly ReadonlyMap<number, number>[]

  /** @throws RangeError when there are too many wants and pieces for one number. */
  constructor({ wants, pieces }: Problem) {
    this.nowhere = pieces.reduce((sum, piece) => sum + piece.wants.length, 0)
    this.turnOf = pieces.map((piece) => new Map(piece.wants.map((w, turn) => [w, turn])))
    this.openDigit = wants.length + 1
    this.wasteDigit = pieces.reduce((sum, piece) => sum + piece.weight, 0) + 1
    this.wasteCost = this.nowhere + 1
    const open = this.wasteDigit * this.wasteCost
    if (this.openDigit ** LEVELS * open > Number.MAX_SAFE_INTEGER)
      throw new RangeError(`${wants.length} needs that depend on each other are too many for one reading`)
    const costs = [0]
    for (let l = 0; l < LEVELS; l++) costs.push(costs[l]! + this.openDigit ** l * open)
    this.labelCost = costs
  }

  /** What a piece costs in a want beside waste, against counting nowhere: below zero. */
  saving(p: number, w: number): number {
    const turns = this.turnOf[p]!
    return turns.get(w)! - turns.size
  }

  /** The least number that is worse than this tuple, whatever its order. */
  above(opens: Opens, waste: number): number {
    return (this.packOpens(opens) * this.wasteDigit + waste + 1) * this.wasteCost
  }

  unpack(packed: number): Score {
    const opens: [number, number, number, number] = [0, 0, 0, 0]
    const unordered = Math.floor(packed / this.wasteCost)
    let rest = Math.floor(unordered / this.wasteDigit)
    for (let l = 0; l < LEVELS; l++) {
      opens[l] = rest % this.openDigit
      rest = Math.floor(rest / this.openDigit)
    }
    return { opens, waste: unordered % this.wasteDigit }
  }

  private packOpens(opens: Opens): number {
    return opens.reduceRight((sum, open) => sum * this.openDigit + open, 0)
  }
}
