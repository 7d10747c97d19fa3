/**
 * Assigns takings to needs so that firm courses meet as much as possible.
 *
 * Method: augmenting paths on the bipartite graph of takings and needs (Kuhn 1955, Berge 1957),
 * taking the takings from the firmest to the softest. A path never frees a taking it has placed, so
 * what is earned is served before what is only planned. Where every need is counted in courses this
 * is a largest assignment for each firmness in turn (the greedy rule on a transversal matroid,
 * Edmonds and Fulkerson 1965). A need in credits stays open until its credits are reached, and the
 * last course may go beyond it: a four-credit course meets a three-credit need.
 *
 * Order of ties: takings as given, needs in the program's own order. The one surprise: a course may
 * be moved to a later need to make room for one that fits nowhere else.
 */
import type { Catalog } from '../catalog'
import { gradeAtLeast } from './grades'
import { takes, type Need } from './program'
import type { Taking } from './taking'

export type Refused = 'notAccepted' | 'gradeTooLow' | 'full'

export interface Assignment {
  /** Takings of each need, in the order in which they were placed; by the need's id. */
  byNeed: ReadonlyMap<string, readonly Taking[]>
  outside: readonly { taking: Taking; why: Refused; full: readonly Need[] }[]
}

/** Whether a taking may count toward a need, and if not, whether the grade is all that is wrong. */
export function fit(need: Need, taking: Taking, catalog: Catalog): 'fits' | 'gradeTooLow' | 'notAccepted' {
  const course = catalog.maybeCourse(taking.course)
  if (!course || !takes(need, course)) return 'notAccepted'
  if (need.leastGrade && taking.grade !== null && !gradeAtLeast(taking.grade, need.leastGrade))
    return 'gradeTooLow'
  return 'fits'
}

export function assign(needs: readonly Need[], takings: readonly Taking[], catalog: Catalog): Assignment {
  const placed = new Map<string, Taking[]>(needs.map((need) => [need.id, []]))
  const fits = new Map(takings.map((t) => [t, needs.filter((need) => fit(need, t, catalog) === 'fits')]))
  const weight = (need: Need, taking: Taking) => (need.measure === 'courses' ? 1 : taking.credits)
  const used = (need: Need) => placed.get(need.id)!.reduce((sum, taking) => sum + weight(need, taking), 0)
  const isOpen = (need: Need, without = 0) => used(need) - without < need.amount

  /** Finds the taking a need, moving others along; `seen` keeps one search from visiting a need twice. */
  const place = (taking: Taking, seen: Set<string>): boolean => {
    const open = fits.get(taking)!.find((need) => !seen.has(need.id) && isOpen(need))
    if (open) {
      placed.get(open.id)!.push(taking)
      return true
    }
    for (const need of fits.get(taking)!) {
      if (seen.has(need.id)) continue
      seen.add(need.id)
      const there = placed.get(need.id)!
      for (let i = 0; i < there.length; i++) {
        const other = there[i]!
        if (!isOpen(need, weight(need, other))) continue
        if (!place(other, seen)) continue
        there[i] = taking
        return true
      }
    }
    return false
  }

  const outside: Assignment['outside'][number][] = []
  for (const taking of takings) {
    if (place(taking, new Set())) continue
    const full = fits.get(taking)!
    const low = needs.some((need) => fit(need, taking, catalog) === 'gradeTooLow')
    outside.push({ taking, why: full.length ? 'full' : low ? 'gradeTooLow' : 'notAccepted', full })
  }
  return { byNeed: placed, outside }
}
