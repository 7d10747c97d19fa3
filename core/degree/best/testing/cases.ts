/**
 * Random questions of the shape programs have, from a seed, for tests and the benchmark.
 *
 * A case plants a record that fits the program and then disturbs it, so that needs compete for the
 * same courses: without that, any reading would do.
 */
import type { Cap, Piece, Problem, Share, Want } from '../problem'
import type { Alternative } from '../solve'

export interface Case {
  problem: Problem
  root: Alternative
}

export interface Shape {
  courses: number
  needs: number
  /** Courses that a need accepts beside those meant for it, at most, as a share of all of them. */
  breadth: number
  /** How likely a course that a need was made for is on the record. */
  taken: number
  /** How likely the last need takes any course at all. */
  wide?: number
  caps: number
  shares: boolean
  branches: boolean
}

/** Numbers in [0, 1), the same for the same seed (mulberry32, public domain). */
export function dice(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = state
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

export function caseFrom(seed: number, shape: Shape): Case {
  const roll = dice(seed)
  const below = (n: number) => Math.floor(roll() * n)
  const chance = (p: number) => roll() < p
  const { courses, needs } = shape
  const subjects = Math.max(3, Math.round(courses / 5))
  const weights = Array.from({ length: courses }, () => [6, 6, 6, 6, 8, 8, 2, 3][below(8)]!)
  const subject = Array.from({ length: courses }, () => below(subjects))
  const status = Array.from({ length: courses }, () => [0, 0, 0, 1, 2, 3, 3][below(7)]!)

  // Each need has a home: courses of which some are on the record, others were never taken.
  const accepts: Set<number>[] = []
  const wants: Want[] = []
  const order = Array.from({ length: courses }, (_, c) => c).sort(() => roll() - 0.5)
  let next = 0
  for (let w = 0; w < needs; w++) {
    const wide = w === needs - 1 && chance(shape.wide ?? 0.6)
    const byCourse = !wide && chance(0.65)
    const asks = [1, 1, 1, 1, 2, 2, 3, 4][below(8)]!
    const home: number[] = []
    for (let i = 0; i < asks; i++) if (next < courses && chance(shape.taken)) home.push(order[next++]!)
    const set = new Set(home)
    const strangers = below(Math.max(1, Math.round(courses * shape.breadth)) + 1)
    for (let i = 0; i < strangers; i++) set.add(below(courses))
    if (wide) for (let c = 0; c < courses; c++) set.add(c)
    accepts.push(set)
    const holds = [...set].sort((a, b) => a - b)
    const credits = home.reduce((sum, c) => sum + weights[c]!, 0) + 6 * (asks - home.length)
    const amount = byCourse ? asks : Math.max(1, credits - (chance(0.4) ? 1 : 0))
    const different = new Set(holds.map((c) => subject[c])).size
    const part = holds.filter(() => chance(0.5))
    wants.push({
      amount,
      byCourse,
      subjects: chance(0.12) && different > 1 && asks > 1 ? 2 : 0,
      including:
        chance(0.1) && part.length
          ? [{ least: byCourse ? 1 : Math.min(weights[part[0]!]!, amount), pieces: new Set(part) }]
          : []
    })
  }

  const pieces: Piece[] = []
  const overlay = shape.shares && needs > 3 ? new Set([below(needs), below(needs)]) : new Set<number>()
  const add = (c: number, list: number[]) => {
    pieces.push({ course: c, weight: weights[c]!, status: status[c]!, subject: subject[c]!, wants: list })
    return pieces.length - 1
  }
  const pairs: Share['pairs'][number][] = []
  for (let c = 0; c < courses; c++) {
    const all = wants.map((_, w) => w).filter((w) => accepts[w]!.has(c))
    const one = add(
      c,
      all.filter((w) => !overlay.has(w))
    )
    const second = all.filter((w) => overlay.has(w))
    if (second.length) pairs.push({ one: [one], other: [add(c, second)] })
  }
  // Courses were meant above; from here on the parts hold pieces.
  const piecesOf = (set: ReadonlySet<number>) =>
    new Set(pieces.flatMap((piece, p) => (set.has(piece.course) ? [p] : [])))
  wants.forEach((want, w) => {
    wants[w] = { ...want, including: want.including.map((i) => ({ ...i, pieces: piecesOf(i.pieces) })) }
  })
  const shares: Share[] = pairs.length
    ? [
        {
          most: 6 * below(4),
          pairs,
          oneSide: new Set(wants.map((_, w) => w).filter((w) => !overlay.has(w))),
          otherSide: overlay
        }
      ]
    : []
  const caps: Cap[] = Array.from({ length: shape.caps }, () => {
    const among = new Set(Array.from({ length: courses }, (_, c) => c).filter(() => chance(0.35)))
    const where = new Set(wants.map((_, w) => w).filter(() => chance(0.5)))
    return { most: 6 + 2 * below(10), pieces: piecesOf(among), wants: where }
  })

  const all = wants.map((_, w) => w)
  if (!shape.branches || needs < 6)
    return { problem: { wants, pieces, caps, shares }, root: { wants: all, choices: [] } }
  const groups = all.slice(0, 6)
  const inner = {
    least: 1,
    of: [
      { wants: [groups[4]!], choices: [] },
      { wants: [groups[5]!], choices: [] }
    ]
  }
  const root: Alternative = {
    wants: all.slice(6),
    choices: [
      {
        least: 1,
        of: [
          { wants: groups.slice(0, 2), choices: [] },
          { wants: groups.slice(2, 4), choices: [] },
          { wants: [], choices: [inner] }
        ]
      }
    ]
  }
  return { problem: { wants, pieces, caps, shares }, root }
}

/** The shape of the n-th case of a series: sizes spread, with caps, sharing and branches mixed in. */
export function shapeOf(n: number): Shape {
  const roll = dice(n * 7919 + 1)
  const size = roll() ** 3
  const courses = 5 + Math.round(size * 55)
  return {
    courses,
    needs: 3 + Math.floor(roll() * Math.min(38, 4 + courses * 0.7)),
    breadth: [0.02, 0.03, courses > 30 ? 0.04 : 0.05][Math.floor(roll() * 3)]!,
    taken: [0.6, 0.85, 1][Math.floor(roll() * 3)]!,
    caps: roll() < 0.25 ? 1 : 0,
    shares: roll() < 0.3,
    branches: roll() < 0.3
  }
}
