/**
 * The program's own order, where every want is met as firmly as it could be alone and nothing more is
 * spent than need be: then no other labels are as good, and quick arguments are proofs.
 *
 * Course by course, as the record gives them, each counts toward the earliest want that an equally
 * good reading allows, and toward something before nothing. Undefined as soon as the quick way can
 * neither find a reading nor prove that there is none.
 */
import { quickCover } from './cover'
import { FREE, isLegal, LEVELS, membersOf, NOWHERE, weightIn, type Piece, type Problem } from './problem'

/** `label` is how firmly each want is met; `start` is a reading that does it with `waste`. */
export function inOrder(
  problem: Problem,
  label: readonly number[],
  start: readonly number[],
  waste: number
): number[] | undefined {
  const { wants, pieces } = problem
  const classOf = classesOf(problem)
  const fixed = pieces.map(() => FREE)
  const sums = wants.map(() => 0)
  let place = [...start]
  /** Once refused, a want stays refused to every piece of the same class: only more gets fixed. */
  const refused = new Set<string>()

  for (let p = 0; p < pieces.length; p++) {
    for (const w of pieces[p]!.wants) {
      if (w === place[p]) break
      const mark = `${classOf[p]} ${w}`
      if (sums[w]! >= wants[w]!.amount || refused.has(mark)) continue
      if (place[p] === NOWHERE && label[w] === LEVELS) {
        // An open want with room takes it without touching anything else.
        const there = membersOf(problem, place)[w]!
        const sum = there.reduce((total, q) => total + weightIn(wants[w]!, pieces[q]!), 0)
        const more = place.with(p, w)
        if (sum + weightIn(wants[w]!, pieces[p]!) <= wants[w]!.amount && isLegal(problem, more)) {
          place = more
          break
        }
      }
      fixed[p] = w
      const other = quickCover({ problem, label, fixed, wasteMost: waste })
      fixed[p] = FREE
      if (other === 'unknown') return undefined
      if (other === 'impossible') refused.add(mark)
      else {
        ;({ place } = other)
        break
      }
    }
    fixed[p] = place[p]!
    if (fixed[p]! >= 0) sums[fixed[p]!]! += weightIn(wants[fixed[p]!]!, pieces[p]!)
  }
  return place
}

/** Pieces of the same class differ in nothing that any rule could tell. */
function classesOf({ pieces, wants, caps, shares }: Problem): number[] {
  const known = new Map<string, number>()
  return pieces.map((piece: Piece, p) => {
    const marks = [
      piece.weight,
      piece.firmness,
      wants.some((want) => want.subjects) ? piece.subject : '',
      piece.wants.join(),
      wants
        .flatMap((want, w) => want.including.map((part, i) => (part.pieces.has(p) ? `${w}.${i}` : '')))
        .join(),
      caps.map((cap) => (cap.pieces.has(p) ? 1 : 0)).join(''),
      shares.some((s) => s.pairs.some((pair) => pair.one === p || pair.other === p)) ? p : ''
    ].join('|')
    const found = known.get(marks) ?? known.size
    known.set(marks, found)
    return found
  })
}
