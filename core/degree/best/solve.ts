/**
 * The best reading of a record: which course counts toward which need.
 *
 * Readings are compared as a tuple, in order: needs that stay open whatever is still taken; needs left open by
 * everything, what is planned included; without what is planned; without what is registered; by what is earned;
 * demands not met, level by level alike; credits spent beyond need; then the program's own order: the branches that stand first, then the fewest needs passed over, where a course
 * passes over each that accepts it and stands before the one it counts toward, or over all. Deterministic
 * and exact; of equal readings courses that are as good as each other count in the record's own order.
 *
 * Leftover wants take no part in this: they get what remains, first what a demand asks for. Where all else is met by
 * everything, it comes before the rest that they are full too.
 *
 * The question falls apart where no course, cap, share or choice connects two needs, and each part is
 * answered by itself. Within a part every combination of its choices is tried, most promising first.
 * Each is decided by the exact search of `frontier`.
 * Bound: `most` states a part (default `STATES`); where it is reached the best reading found so far is
 * returned and `ended` says so.
 */
import type { Effort } from './effort'
import { alongFrontier, type Answer } from './frontier'
import { firmestLabels, opensOf, type Score } from './labels'
import {
  compareOpens,
  isLegal,
  NO_OPENS,
  NOWHERE,
  POSSIBLE,
  weightIn,
  type Opens,
  type Problem
} from './problem'
import { canonicalPlace } from './canonical'
import { type Part, plus, partsOf, selections } from './parts'

/** States allowed for one part. */
export const STATES = 200_000

/** Of these alternatives, so many have to be chosen; each holds wants and further choices. */
export interface Choice {
  least: number
  of: readonly Alternative[]
}

export interface Alternative {
  wants: readonly number[]
  choices: readonly Choice[]
}

export interface Reading extends Score {
  /** For each piece its want, or NOWHERE. */
  place: number[]
  /** Wants of the alternatives chosen, and those under no choice. */
  active: boolean[]
  ended: 'optimal' | 'limit'
  /** No reading leaves fewer open. Equals `opens` when the search ended optimal. */
  bound: Opens
  steps: number
}

export function solve(problem: Problem, root: Alternative, most = STATES): Reading {
  const last = root.wants.filter((w) => problem.wants[w]!.leftover)
  if (!last.length) return solveParts(problem, root, most)
  const others = new Set(last)
  const { demands = [] } = problem
  const contested: Problem = {
    ...problem,
    pieces: problem.pieces.map((piece, p) => ({
      ...piece,
      wants: piece.wants.filter((w) => !others.has(w) || demands.some((demand) => demand.pieces.has(p)))
    }))
  }
  const asked = demands.length ? root.wants : root.wants.filter((w) => !others.has(w))
  const reading = withLeftover(problem, last, solveParts(contested, { ...root, wants: asked }, most))
  if (reading.opens[3] > 0 || areFull(problem, last, reading.place)) return reading
  // All else is met by everything: then nothing may keep what is left over from being full.
  const wants = problem.wants.map((want, w) => (others.has(w) ? { ...want, closing: true } : want))
  const whole = withLeftover(problem, last, solveParts({ ...problem, wants }, root, most))
  if (whole.opens[3] === 0 && areFull(problem, last, whole.place)) return whole
  return whole.ended === 'limit' ? { ...reading, ended: 'limit' } : reading
}

function withLeftover(problem: Problem, last: readonly number[], reading: Reading): Reading {
  const active = reading.active.map((is, w) => is || last.includes(w))
  return { ...reading, active, place: fillLeftover(problem, last, reading.place) }
}

function areFull({ wants, pieces }: Problem, some: readonly number[], place: readonly number[]): boolean {
  return some.every((w) => {
    const sum = place.reduce(
      (total, at, p) => (at === w ? total + weightIn(wants[w]!, pieces[p]!) : total),
      0
    )
    return sum >= wants[w]!.amount
  })
}

/**
 * Want by want, what counts nowhere goes to the first leftover want that is not full yet, in its order; where a cap or a
 * share would keep it from being full, the first that fill it do.
 */
function fillLeftover(problem: Problem, last: readonly number[], place: readonly number[]): number[] {
  let filled = [...place]
  for (const w of last) {
    const want = problem.wants[w]!
    const worth = (p: number) => weightIn(want, problem.pieces[p]!)
    const there = filled.reduce((sum, at, p) => (at === w ? sum + worth(p) : sum), 0)
    const free = problem.pieces.flatMap(({ wants, status }, p) =>
      filled[p] === NOWHERE && status < POSSIBLE && wants.includes(w) ? [p] : []
    )
    let steps = 0
    let most = { sum: there, place: filled }
    /** From the i-th on, taken wherever it may be; the first that fill the want, or else the most. */
    const go = (i: number, sum: number, now: number[]): boolean => {
      if (sum > most.sum) most = { sum, place: now }
      if (sum >= want.amount) return true
      const p = free[i]
      if (p === undefined || ++steps > LEFTOVER_STEPS) return false
      const more = now.with(p, w)
      if (isLegal(problem, more) && go(i + 1, sum + worth(p), more)) return true
      return go(i + 1, sum, now)
    }
    go(0, there, filled)
    filled = most.place
  }
  return filled
}
const LEFTOVER_STEPS = 500

function solveParts(problem: Problem, root: Alternative, most: number): Reading {
  const total: Reading = {
    place: problem.pieces.map(() => NOWHERE),
    active: problem.wants.map(() => false),
    ended: 'optimal',
    steps: 0,
    bound: NO_OPENS,
    opens: NO_OPENS,
    unmet: NO_OPENS,
    waste: 0
  }
  for (const part of partsOf(problem, root)) {
    const answer = solvePart(problem, part, most)
    const { wants, pieces } = answer.way
    for (const w of wants) total.active[w] = true
    answer.place.forEach((w, p) => (total.place[pieces[p]!] = w >= 0 ? wants[w]! : NOWHERE))
    if (answer.ended === 'limit') total.ended = 'limit'
    total.steps += answer.steps
    total.bound = plus(total.bound, answer.bound)
    total.opens = plus(total.opens, answer.opens)
    total.unmet = plus(total.unmet, answer.unmet)
    total.waste += answer.waste
  }
  return total
}

/** One way to choose, as a question of its own; its wants and pieces are numbered anew. */
interface Way {
  order: number
  wants: number[]
  pieces: number[]
  problem: Problem
  /** What would be left open, were each want met as firmly as it could be alone. */
  bound: Opens
}

interface PartAnswer extends Score {
  way: Way
  place: readonly number[]
  ended: Reading['ended']
  bound: Opens
  steps: number
}

function solvePart(whole: Problem, part: Part, most: number): PartAnswer {
  const effort: Effort = { steps: 0, most }
  const ways = selections(part.root).map((wants, order): Way => {
    const way = narrow(
      whole,
      part.pieces,
      wants.toSorted((a, b) => a - b)
    )
    return { ...way, order, bound: opensOf(firmestLabels(way.problem)) }
  })
  ways.sort((a, b) => compareOpens(a.bound, b.bound) || a.order - b.order)

  let best: { way: Way; found: NonNullable<Answer['best']> } | undefined
  /** The least that a way not searched to its end might leave open. */
  let unproved: Opens | undefined
  for (const way of ways) {
    if (best && compareOpens(way.bound, best.found.opens) > 0) break
    const { best: found, proved, bound } = alongFrontier(way.problem, effort, best?.found)
    if (!proved && (!unproved || compareOpens(bound, unproved) < 0)) unproved = bound
    if (!found) continue
    const compared = best
      ? compareOpens(found.opens, best.found.opens) ||
        compareOpens(found.unmet, best.found.unmet) ||
        found.waste - best.found.waste ||
        way.order - best.way.order
      : -1
    if (compared < 0) best = { way, found }
  }
  const { way, found } = best!
  const { opens, unmet, waste } = found
  const place = canonicalPlace(way.problem, found.place)
  const bound = unproved && compareOpens(unproved, opens) < 0 ? unproved : opens
  return {
    way,
    place,
    opens,
    unmet,
    waste,
    ended: unproved ? 'limit' : 'optimal',
    bound,
    steps: effort.steps
  }
}

/** The question of these pieces and wants only; pieces that nothing takes are left out. */
function narrow(whole: Problem, among: readonly number[], wants: readonly number[]) {
  const wantNow = new Map(wants.map((w, i) => [w, i]))
  const pieces = among.filter((p) => whole.pieces[p]!.wants.some((w) => wantNow.has(w)))
  const pieceNow = new Map(pieces.map((p, i) => [p, i]))
  const some = (numbers: Iterable<number>, now: ReadonlyMap<number, number>) =>
    new Set([...numbers].flatMap((n) => now.get(n) ?? []))
  const problem: Problem = {
    wants: wants.map((w) => ({
      ...whole.wants[w]!,
      including: whole.wants[w]!.including.map((i) => ({ ...i, pieces: some(i.pieces, pieceNow) }))
    })),
    pieces: pieces.map((p) => ({
      ...whole.pieces[p]!,
      wants: whole.pieces[p]!.wants.flatMap((w) => wantNow.get(w) ?? [])
    })),
    caps: whole.caps
      .map((cap) => ({ ...cap, pieces: some(cap.pieces, pieceNow), wants: some(cap.wants, wantNow) }))
      .filter((cap) => cap.pieces.size && cap.wants.size),
    shares: whole.shares
      .map((share) => ({
        ...share,
        pairs: share.pairs.flatMap(({ one, other }) => {
          const [a, b] = [[...some(one, pieceNow)], [...some(other, pieceNow)]]
          return a.length && b.length ? [{ one: a, other: b }] : []
        }),
        oneSide: some(share.oneSide, wantNow),
        otherSide: some(share.otherSide, wantNow)
      }))
      .filter((share) => share.pairs.length),
    demands: (whole.demands ?? [])
      .filter((demand) => among.some((p) => demand.pieces.has(p)))
      .map((demand) => ({
        ...demand,
        pieces: new Map(
          [...demand.pieces].flatMap(([p, course]) => {
            const now = pieceNow.get(p)
            return now === undefined ? [] : [[now, course] as const]
          })
        ),
        wants: some(demand.wants, wantNow)
      }))
  }
  return { problem, pieces, wants: [...wants] }
}
