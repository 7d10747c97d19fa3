/**
 * Proof that a set of wants cannot all be met: more is asked for than the pieces they accept can give.
 *
 * Method: augmenting flow from the wants' side (Ford and Fulkerson 1956). Where a search for more
 * ends, the wants it visited break Hall's condition (Hall 1935), with credits for persons.
 *
 * Pieces may be split here, so a set without a shortage may still be impossible; a shortage is always
 * one. Two counts are tried, since neither implies the other: in pieces (a want in credits asks for
 * the fewest that could reach it) and in credits (a want in courses asks for its lightest).
 */
import type { Problem } from './problem'

/** What wants still lack, and the undecided pieces that may serve each. */
export interface Asking {
  rest: readonly number[]
  free: readonly (readonly number[])[]
}

interface Count {
  demandOf: (w: number) => number
  supply: readonly number[]
}

function counts(problem: Problem, asked: readonly number[], { rest, free }: Asking): Count[] {
  const weight = (p: number) => problem.pieces[p]!.weight
  const demandInPieces = (w: number) => {
    if (problem.wants[w]!.byCourse) return rest[w]!
    const weights = free[w]!.map(weight).sort((a, b) => b - a)
    let sum = 0
    let n = 0
    while (sum < rest[w]! && n < weights.length) sum += weights[n++]!
    return sum < rest[w]! ? n + 1 : n
  }
  const demandInCredits = (w: number) => {
    if (!problem.wants[w]!.byCourse) return rest[w]!
    const weights = free[w]!.map(weight).sort((a, b) => a - b)
    return weights.slice(0, rest[w]!).reduce((sum, one) => sum + one, 0)
  }
  const memo = (demandOf: (w: number) => number) => {
    const known = new Map<number, number>()
    return (w: number) => {
      if (!known.has(w)) known.set(w, demandOf(w))
      return known.get(w)!
    }
  }
  const inPieces = { demandOf: memo(demandInPieces), supply: problem.pieces.map(() => 1) }
  if (asked.every((w) => problem.wants[w]!.byCourse)) return [inPieces]
  return [inPieces, { demandOf: memo(demandInCredits), supply: problem.pieces.map((piece) => piece.weight) }]
}

/** The wants of a shortage; none when the flow serves all that are asked for. */
export function shortage(problem: Problem, asked: readonly number[], asking: Asking): number[] {
  for (const { demandOf, supply } of counts(problem, asked, asking)) {
    const flow = new Flow(supply, asking.free)
    for (const w of asked) if (flow.push(w, demandOf(w)) < demandOf(w)) return flow.visited
  }
  return []
}

/** Flow from pieces to wants; it only ever grows. */
class Flow {
  private readonly left: number[]
  private readonly gives: Map<number, number>[]
  /** The wants the last search went through. */
  visited: number[] = []

  constructor(
    supply: readonly number[],
    private readonly free: readonly (readonly number[])[]
  ) {
    this.left = [...supply]
    this.gives = supply.map(() => new Map<number, number>())
  }

  /** Brings up to `amount` to the want, moving what others get along; returns what came. */
  push(start: number, amount: number): number {
    const { left, gives, free } = this
    let lack = amount
    while (lack > 0) {
      /** How a want was reached: the piece that gives to it now, and the want that could use it. */
      const reached = new Map<number, { want: number; piece: number } | undefined>([[start, undefined]])
      const tried = new Set<number>()
      const queue = [start]
      let end: { want: number; piece: number } | undefined
      for (let i = 0; i < queue.length && !end; i++) {
        const want = queue[i]!
        for (const piece of free[want]!) {
          if (tried.has(piece)) continue
          tried.add(piece)
          if (left[piece]! > 0) {
            end = { want, piece }
            break
          }
          for (const other of gives[piece]!.keys()) {
            if (reached.has(other)) continue
            reached.set(other, { want, piece })
            queue.push(other)
          }
        }
      }
      if (!end) {
        this.visited = queue
        break
      }
      let most = Math.min(lack, left[end.piece]!)
      for (let back = reached.get(end.want), w = end.want; back; w = back.want, back = reached.get(w))
        most = Math.min(most, gives[back.piece]!.get(w)!)
      left[end.piece]! -= most
      for (let hop: { want: number; piece: number } | undefined = end; hop;) {
        const { want, piece }: { want: number; piece: number } = hop
        gives[piece]!.set(want, (gives[piece]!.get(want) ?? 0) + most)
        hop = reached.get(want)
        if (!hop) break
        const stays = gives[hop.piece]!.get(want)! - most
        if (stays > 0) gives[hop.piece]!.set(want, stays)
        else gives[hop.piece]!.delete(want)
      }
      lack -= most
    }
    return amount - lack
  }
}
