/** Random small degrees to fill, from a seed: demands, chains, seasons and limits. For tests and the benchmark. */
import { dice } from '../../degree/best/testing/cases'
import type { FillCourse, FillProblem, FillRule } from '../problem'

export interface FillShape {
  terms: number
  demands: number
  courses: number
  /** How likely a course asks for another. */
  chained: number
  /** Units a term holds. */
  room: number
}

export function fillCase(seed: number, shape: FillShape): FillProblem {
  const roll = dice(seed)
  const below = (n: number) => Math.floor(roll() * n)
  const chance = (p: number) => roll() < p
  const all = 2 ** shape.terms - 1
  const weights = Array.from({ length: shape.courses }, () => [3, 3, 3, 4, 4, 1][below(6)]!)
  const demands = Array.from({ length: shape.demands }, () => {
    const byCourse = chance(0.7)
    return { byCourse, amount: byCourse ? 1 + below(2) : 3 + below(5), layer: chance(0.15) ? 1 : 0 }
  })
  const seasons = [all, all, 0b0101_0101_0101, 0b1010_1010_1010]
  const rule = (c: number): FillRule | undefined => {
    if (c === 0 || !chance(shape.chained)) return undefined
    const leaf = (): FillRule => ({ kind: 'course', course: below(c), same: chance(0.15) })
    const kind = below(10)
    if (kind < 6) return leaf()
    if (kind < 8) return { kind: 'any', of: [leaf(), leaf()] }
    return kind < 9 ? { kind: 'all', of: [leaf(), leaf()] } : { kind: 'units', units: 3 + below(12) }
  }
  const courses = weights.map((weight, c): FillCourse => {
    const own = rule(c)
    return {
      weight,
      terms: seasons[below(4)]! & all,
      rule: own,
      demands: demands.flatMap((_, d) => (chance(2.5 / shape.demands) ? [d] : [])),
      cost: below(3),
      placed: false
    }
  })
  const terms = Array.from({ length: shape.terms }, () => {
    const away = chance(0.05)
    const room = away ? 0 : shape.room
    return {
      room,
      standing: 0,
      soft: Math.max(0, room - (chance(0.3) ? 3 : 0)),
      least: away ? 0 : below(2) * 4
    }
  })
  return { terms, courses, demands, before: below(2) * 6 }
}
