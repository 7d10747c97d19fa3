/**
 * Tuples as whole numbers: five counts of open wants, that with everything first, as many of demands, the waste, then
 * the order.
 *
 * Packed digit by digit, so that numbers compare as tuples do; nothing is weighed against anything. A count that
 * cannot differ from the one before it has no digit. The order is counted: a piece passes over every want of its own
 * that stands before the one it counts toward, and over all of them when it counts nowhere; one that stands in for
 * another the other way round.
 */
import type { Score } from './labels'
import { LEVELS, POSSIBLE, type Opens, type Piece, type Problem } from './problem'

export class Packing {
  /** One unit of waste; the digit of the order is below it. */
  readonly wasteCost: number
  /** By label, what a want costs that is met so, and what a demand does. */
  readonly labelCost: readonly number[]
  readonly demandCost: readonly number[]
  /** What it costs that a closing want is not full: an open want with everything that is taken. */
  readonly closingCost: number
  /** What it costs that every piece counts nowhere. */
  readonly nowhere: number
  private readonly turnOf: readonly ReadonlyMap<number, number>[]
  /** By level, what one open want costs, and one demand; 0 where that of the level before says it. */
  private readonly openUnits: readonly number[]
  private readonly demandUnits: readonly number[]
  /** What could still be taken completes every want. */
  private readonly endless: boolean

  /** @throws RangeError when there are too many wants and pieces for one number. */
  constructor({ wants, pieces, demands = [] }: Problem) {
    const inOrder = pieces.map((piece) => piece.wants.filter((w) => !wants[w]!.leftover))
    this.turnOf = inOrder.map((own) => new Map(own.map((w, turn) => [w, turn])))
    this.nowhere = pieces.reduce((sum, piece, p) => sum + this.idle(piece, p), 0)
    // One that stands in passes over one more where it counts.
    const passed = pieces.reduce((sum, piece, p) => sum + inOrder[p]!.length + (piece.spare ? 1 : 0), 0)
    this.wasteCost = passed + 1
    const wasteDigit = pieces.reduce((sum, piece) => sum + piece.weight, 0) + 1
    const firm = new Set(pieces.map((piece) => piece.status))
    const asked = wants.filter((want) => !want.leftover)
    const mixed = asked.some((want) => want.endless) && asked.some((want) => !want.endless)
    let unit = wasteDigit * this.wasteCost
    const units = (count: number, differs: (level: number) => boolean) =>
      Array.from({ length: LEVELS }, (_, level) => {
        if (!count || !differs(level)) return 0
        const own = unit
        unit *= count + 1
        return own
      })
    this.demandUnits = units(demands.length, (level) => level === 0 || firm.has(level))
    this.endless = asked.every((want) => want.endless)
    const closing = wants.filter((want) => want.closing).length
    this.openUnits = units(asked.length + closing, (level) =>
      level === POSSIBLE ? mixed || (firm.has(level) && !this.endless) : level === 0 || firm.has(level)
    )
    if (unit > Number.MAX_SAFE_INTEGER)
      throw new RangeError(`${wants.length} needs that depend on each other are too many for one reading`)
    this.closingCost = this.openUnits.slice(0, POSSIBLE).findLast((one) => one > 0) ?? 0
    this.labelCost = costsOf(this.openUnits)
    this.demandCost = costsOf(this.demandUnits)
  }

  /** What a piece costs in a want beside waste, against counting nowhere. */
  saving(piece: Piece, p: number, w: number): number {
    const turns = this.turnOf[p]!
    const turn = turns.get(w)
    if (turn === undefined || piece.status === POSSIBLE) return 0
    return piece.spare ? turn + 1 : turn - turns.size
  }

  private idle({ status, spare }: Piece, p: number): number {
    return spare || status === POSSIBLE ? 0 : this.turnOf[p]!.size
  }

  /** The least number that is worse than this tuple, whatever its order. */
  above({ opens, unmet, waste }: Score): number {
    return packed(opens, this.openUnits) + packed(unmet, this.demandUnits) + (waste + 1) * this.wasteCost
  }

  unpack(cost: number): Score {
    const open = unpacked(cost, this.openUnits, this.endless)
    const unmet = unpacked(open.rest, this.demandUnits, false)
    return { opens: open.counts, unmet: unmet.counts, waste: Math.floor(unmet.rest / this.wasteCost) }
  }
}

/** By label, what all the levels cost in which it is not there yet. */
function costsOf(units: readonly number[]): number[] {
  const costs = [0]
  for (const unit of units) costs.push(costs.at(-1)! + unit)
  return costs
}

function packed(counts: Opens, units: readonly number[]): number {
  return units.reduce((sum, unit, level) => sum + unit * counts[level]!, 0)
}

/** The counts, the last level first; a level without a unit is as the one before, or the last one 0. */
function unpacked(cost: number, units: readonly number[], endless: boolean): { counts: Opens; rest: number } {
  const counts: [number, number, number, number, number] = [0, 0, 0, 0, 0]
  let rest = cost
  for (let level = LEVELS - 1; level >= 0; level--) {
    if (!units[level]) continue
    counts[level] = Math.floor(rest / units[level]!)
    rest %= units[level]!
  }
  for (let level = 1; level < LEVELS; level++)
    if (!units[level]) counts[level] = endless && level === POSSIBLE ? 0 : counts[level - 1]!
  return { counts, rest }
}
