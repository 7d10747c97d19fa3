/** The climb: credits that count, summed term by term, for the ridge profile. */
import type { Term } from '../catalog'
import type { Taking } from '../degree'

export interface ClimbPoint {
  term: Term
  /** Credits reached at the end of the term. */
  reached: number
  gained: number
  firmness: 'earned' | 'underWay' | 'ahead'
}

export interface Climb {
  /** Credits from outside any term: transferred or by test. */
  start: number
  points: ClimbPoint[]
  /** The first term at whose end the goal is reached. */
  finish: Term | undefined
}

/** From the first to the last term with a counted course. `counted` are the takings that count. */
export function climbOf(counted: readonly Taking[], terms: readonly Term[], goal: number): Climb {
  const start = counted.reduce((sum, taking) => (taking.term === null ? sum + taking.credits : sum), 0)
  const used = terms.map((term) => counted.filter((taking) => taking.term === term.code))
  const first = used.findIndex((list) => list.length)
  const last = used.findLastIndex((list) => list.length)
  let reached = start
  const points: ClimbPoint[] = []
  for (let i = Math.max(first, 0); i <= last; i++) {
    const list = used[i]!
    const gained = list.reduce((sum, taking) => sum + taking.credits, 0)
    const soft = list.some((t) => t.firmness === 'registered' || t.firmness === 'planned')
    const firmness = soft ? 'ahead' : list.some((t) => t.firmness === 'underWay') ? 'underWay' : 'earned'
    if (!gained && terms[i]!.season === 'summer') continue
    reached += gained
    points.push({ term: terms[i]!, reached, gained, firmness })
  }
  return { start, points, finish: points.find((point) => point.reached >= goal)?.term }
}
