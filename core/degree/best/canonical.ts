/**
 * The calmest of equal readings: where two pieces could change places and nothing else would change, the
 * one that comes first in the record has the want that comes first. So a reading does not jump when
 * something elsewhere changes.
 */
import { isLegal, NOWHERE, type Piece, type Problem } from './problem'

export function canonicalPlace(problem: Problem, place: readonly number[]): number[] {
  const { pieces } = problem
  const now = [...place]
  const alike = groupsOf(problem)
  for (let changed = true; changed;) {
    changed = false
    for (const group of alike)
      for (let i = 0; i < group.length; i++)
        for (let j = i + 1; j < group.length; j++) {
          const [p, q] = [group[i]!, group[j]!]
          if (!comesFirst(now[q]!, now[p]!)) continue
          const before = passedOver(pieces[p]!, now[p]!) + passedOver(pieces[q]!, now[q]!)
          const after = passedOver(pieces[p]!, now[q]!) + passedOver(pieces[q]!, now[p]!)
          if (after !== before) continue
          const swapped = now.with(p, now[q]!).with(q, now[p]!)
          if (!isLegal(problem, swapped)) continue
          now[p] = swapped[p]!
          now[q] = swapped[q]!
          changed = true
        }
  }
  return now
}

function comesFirst(a: number, b: number): boolean {
  return a !== b && a !== NOWHERE && (b === NOWHERE || a < b)
}

/** Infinity where the piece cannot be. */
function passedOver({ wants }: Piece, place: number): number {
  if (place === NOWHERE) return wants.length
  const turn = wants.indexOf(place)
  return turn < 0 ? Infinity : turn
}

/** Pieces that no rule could tell from each other, but for the wants that take them. */
function groupsOf({ pieces, wants, caps, shares, demands = [] }: Problem): number[][] {
  const groups = new Map<string, number[]>()
  const subjects = wants.some((want) => want.subjects > 0)
  const parts = wants.flatMap((want) => want.including)
  pieces.forEach((piece, p) => {
    const marks = [
      piece.weight,
      piece.status,
      subjects ? piece.subject : '',
      ...parts.map((part) => Number(part.pieces.has(p))),
      ...caps.map((cap) => Number(cap.pieces.has(p))),
      piece.spare ? 1 : 0,
      ...demands.map((demand) => Number(demand.pieces.has(p))),
      shares.some((s) => s.pairs.some(({ one, other }) => one.includes(p) || other.includes(p))) ? p : ''
    ].join('|')
    const group = groups.get(marks)
    if (group) group.push(p)
    else groups.set(marks, [p])
  })
  return [...groups.values()].filter((group) => group.length > 1)
}
