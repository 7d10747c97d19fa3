import type { Case } from './cases'
import { isLegal, NOWHERE, type Problem } from '../problem'

/** What people do by hand: course after course to the first need that has room. */
export function greedy({ problem }: Case): number[] {
  const place = problem.pieces.map(() => NOWHERE)
  problem.pieces.forEach((piece, p) => {
    for (const w of piece.wants) {
      const there = place.flatMap((at, q) => (at === w ? [q] : []))
      const want = problem.wants[w]!
      const sum = want.byCourse ? there.length : there.reduce((s, q) => s + problem.pieces[q]!.weight, 0)
      place[p] = w
      if (sum < want.amount && isLegal(problem, place)) return
      place[p] = NOWHERE
    }
  })
  return place
}

/** By piece, how many of the wants that take it, of those asked for, stand before the one it counts toward. */
export function passedOver(
  { pieces }: Problem,
  place: readonly number[],
  asked: (w: number) => boolean = () => true
): number {
  return pieces.reduce((sum, { wants }, p) => {
    const may = wants.filter(asked)
    return sum + (place[p] === NOWHERE ? may.length : may.indexOf(place[p]!))
  }, 0)
}
