/**
 * The last criterion: the program's own order.
 *
 * Course by course, as the record gives them, each counts toward the earliest want that an equally
 * good reading allows, and toward something before nothing. Every earlier want that is passed over
 * has been proved impossible, by a quick argument where one holds, else by the exact search.
 */
import { quickCover } from './cover'
import { step, type Effort } from './effort'
import { ExactSearch } from './exact'
import { labelsOf, opensOf, type Score } from './labels'
import {
  compareOpens,
  FREE,
  isLegal,
  LEVELS,
  membersOf,
  NOWHERE,
  weightIn,
  type Piece,
  type Problem
} from './problem'

/** @throws OutOfSteps */
export function inOrder(
  problem: Problem,
  ladder: readonly (readonly number[])[],
  start: Score & { place: readonly number[] },
  effort: Effort
): number[] {
  const { wants, pieces } = problem
  const { opens, waste } = start
  /** All wants are met as firmly as each could be alone: then no other labels are as good. */
  const forced = compareOpens(opens, opensOf(ladder.map((labels) => labels[0]!))) === 0
  const classOf = classesOf(problem)
  const fixed = pieces.map(() => FREE)
  const sums = wants.map(() => 0)
  let place = [...start.place]
  let label = labelsOf(problem, membersOf(problem, place))
  let exact: ExactSearch | undefined
  /** Once refused, a want stays refused to every piece of the same class: only more gets fixed. */
  const refused = new Set<string>()

  const otherReading = (): number[] | undefined => {
    step(effort)
    const quick = quickCover({ problem, label, fixed, wasteMost: waste })
    if (typeof quick === 'object') return quick.place
    if (forced && quick === 'impossible') return undefined
    exact ??= new ExactSearch(problem, ladder, effort, { opens, waste })
    return exact.reading(fixed)
  }

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
        if (sum + weightIn(wants[w]!, pieces[p]!) < wants[w]!.amount && isLegal(problem, more)) {
          place = more
          break
        }
      }
      fixed[p] = w
      const other = otherReading()
      fixed[p] = FREE
      if (other) {
        place = other
        label = labelsOf(problem, membersOf(problem, place))
        break
      }
      refused.add(mark)
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
