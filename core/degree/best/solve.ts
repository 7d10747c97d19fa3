/**
 * The best reading of a record: which course counts toward which need.
 *
 * Readings are compared as a tuple, in order: needs left open by what is earned; by what is earned
 * and under way; with what is registered; with what is planned; credits spent beyond need; then the
 * program's own order. Deterministic and exact. The quick ways (`cover`) suffice where the wants can
 * all be met as firmly as each of them alone could; else `exact` decides, and `order` ends.
 *
 * Leftover wants take no part in this: they get what remains.
 *
 * The question falls apart where no course, cap, share or choice connects two needs, and each part is
 * answered by itself. Within a part every combination of its choices is tried, most promising first.
 * Bound: `most` steps a part (default `STEPS`); where it is reached the best reading found so far is
 * returned and `ended` says so.
 */
import { leastWaste, quickCover } from './cover'
import { OutOfSteps, step, type Effort } from './effort'
import { ExactSearch } from './exact'
import { laddersOf, opensOf, scoreOf, type Score } from './labels'
import { inOrder } from './order'
import { compareOpens, FREE, isLegal, LEVELS, NOWHERE, weightIn, type Opens, type Problem } from './problem'

/** Steps allowed for one part. */
export const STEPS = 20_000

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

export function solve(problem: Problem, root: Alternative, most = STEPS): Reading {
  const last = root.wants.filter((w) => problem.wants[w]!.leftover)
  if (!last.length) return solveParts(problem, root, most)
  const others = new Set(last)
  const contested: Problem = {
    ...problem,
    pieces: problem.pieces.map((piece) => ({ ...piece, wants: piece.wants.filter((w) => !others.has(w)) }))
  }
  const reading = solveParts(contested, { ...root, wants: root.wants.filter((w) => !others.has(w)) }, most)
  const active = reading.active.map((is, w) => is || others.has(w))
  return { ...reading, active, place: fillLeftover(problem, last, reading.place) }
}

/** Course by course, what counts nowhere goes to the first leftover want that is not full yet. */
function fillLeftover(problem: Problem, last: readonly number[], place: readonly number[]): number[] {
  let filled = [...place]
  const sums = new Map(last.map((w) => [w, 0]))
  problem.pieces.forEach((piece, p) => {
    if (filled[p] !== NOWHERE) return
    for (const w of piece.wants) {
      const want = problem.wants[w]!
      if (!sums.has(w) || sums.get(w)! >= want.amount) continue
      const more = filled.with(p, w)
      if (!isLegal(problem, more)) continue
      filled = more
      sums.set(w, sums.get(w)! + weightIn(want, piece))
      break
    }
  })
  return filled
}

function solveParts(problem: Problem, root: Alternative, most: number): Reading {
  const total: Reading = {
    place: problem.pieces.map(() => NOWHERE),
    active: problem.wants.map(() => false),
    ended: 'optimal',
    steps: 0,
    bound: [0, 0, 0, 0],
    opens: [0, 0, 0, 0],
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
    total.waste += answer.waste
  }
  return total
}

interface Part {
  wants: number[]
  pieces: number[]
  /** Wants under no choice, and the choices. */
  root: Alternative
}

const plus = (a: Opens, b: Opens): Opens => [a[0] + b[0], a[1] + b[1], a[2] + b[2], a[3] + b[3]]

/** Connected parts of the question, in order of their first want. */
function partsOf(problem: Problem, root: Alternative): Part[] {
  const parent = problem.wants.map((_, w) => w)
  const find = (w: number): number => (parent[w] === w ? w : (parent[w] = find(parent[w]!)))
  const join = ([first, ...others]: readonly number[]) => {
    for (const w of others) parent[find(w)] = find(first!)
  }
  for (const piece of problem.pieces) join(piece.wants)
  for (const cap of problem.caps) join([...cap.wants])
  for (const share of problem.shares) join([...share.oneSide, ...share.otherSide])
  for (const choice of root.choices) join(choice.of.flatMap(wantsUnder))
  const parts = new Map<number, Part>()
  const asked = new Set(wantsUnder(root))
  problem.wants.forEach((_, w) => {
    if (!asked.has(w)) return
    const key = find(w)
    if (!parts.has(key)) parts.set(key, { wants: [], pieces: [], root: { wants: [], choices: [] } })
    parts.get(key)!.wants.push(w)
  })
  problem.pieces.forEach((piece, p) => {
    if (piece.wants.length) parts.get(find(piece.wants[0]!))!.pieces.push(p)
  })
  for (const [key, part] of parts) {
    const choices = root.choices.filter((choice) => {
      const [first] = choice.of.flatMap(wantsUnder)
      return first !== undefined && find(first) === key
    })
    part.root = { wants: root.wants.filter((w) => find(w) === key), choices }
  }
  return [...parts.values()]
}

function wantsUnder(alternative: Alternative): number[] {
  return [...alternative.wants, ...alternative.choices.flatMap((choice) => choice.of.flatMap(wantsUnder))]
}

/** Every way to choose, each as its list of wants; in the program's own order. */
function selections(alternative: Alternative): number[][] {
  let ways: number[][] = [[...alternative.wants]]
  for (const choice of alternative.choices) {
    const picked = combinations(choice.of.length, choice.least).flatMap((indices) =>
      indices.reduce<number[][]>(
        (all, i) => all.flatMap((one) => selections(choice.of[i]!).map((more) => [...one, ...more])),
        [[]]
      )
    )
    ways = ways.flatMap((one) => picked.map((more) => [...one, ...more]))
  }
  return ways
}

function combinations(n: number, k: number): number[][] {
  if (k === 0) return [[]]
  if (k > n) return []
  return [...combinations(n - 1, k - 1).map((rest) => [...rest, n - 1]), ...combinations(n - 1, k)].sort(
    (a, b) => {
      for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return a[i]! - b[i]!
      return 0
    }
  )
}

/** One way to choose, as a question of its own; its wants and pieces are numbered anew. */
interface Way {
  order: number
  wants: number[]
  pieces: number[]
  problem: Problem
  ladder: number[][]
  /** The firmest labels, whether they can hold together or not. */
  bound: Opens
}

interface Scored extends Score {
  place: readonly number[]
}

interface PartAnswer extends Scored {
  way: Way
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
    const ladder = laddersOf(way.problem)
    return { ...way, order, ladder, bound: opensOf(ladder.map((labels) => labels[0]!)) }
  })
  ways.sort((a, b) => compareOpens(a.bound, b.bound) || a.order - b.order)

  let best: { way: Way; found: Scored } | undefined
  try {
    for (const way of ways) {
      if (best && compareOpens(way.bound, best.found.opens) > 0) break
      const found = bestOf(way, effort, best?.found.opens)
      if (!found) continue
      const compared = best
        ? compareOpens(found.opens, best.found.opens) ||
          found.waste - best.found.waste ||
          way.order - best.way.order
        : -1
      if (compared < 0) best = { way, found }
    }
    const { way, found } = best!
    const { opens, waste } = found
    const place = inOrder(way.problem, way.ladder, found, effort)
    return { way, place, opens, waste, ended: 'optimal', bound: opens, steps: effort.steps }
  } catch (error) {
    if (!(error instanceof OutOfSteps)) throw error
    const way = best?.way ?? ways[0]!
    const place = best?.found.place ?? firstTry(way).place
    return { way, ...scored(way.problem, place), ended: 'limit', bound: ways[0]!.bound, steps: effort.steps }
  }
}

const scored = (problem: Problem, place: readonly number[]): Scored => ({ place, ...scoreOf(problem, place) })

/** The best opens and the least waste of one way to choose; none when it cannot keep up. @throws OutOfSteps */
function bestOf(way: Way, effort: Effort, beat: Opens | undefined): Scored | undefined {
  const { problem, ladder } = way
  step(effort)
  const fixed = problem.pieces.map(() => FREE)
  const label = ladder.map((labels) => labels[0]!)
  const question = { problem, label, fixed, wasteMost: Infinity }
  const quick = quickCover(question)
  if (typeof quick === 'object') {
    const found = scored(problem, quick.place)
    const least = leastWaste(question)
    if (found.waste === least) return found
    const thrifty = quickCover({ ...question, wasteMost: least })
    if (typeof thrifty === 'object') return scored(problem, thrifty.place)
    return new ExactSearch(problem, ladder, effort).best(quick.place, beat)
  }
  return new ExactSearch(problem, ladder, effort).best(firstTry(way).place, beat)
}

/** A reading to start from: want after want, the smallest first, promised where a quick try can keep it. */
function firstTry({ problem, ladder }: Way): Scored {
  const fixed = problem.pieces.map(() => FREE)
  let label = ladder.map(() => LEVELS)
  let place = problem.pieces.map(() => NOWHERE)
  const order = label
    .map((_, w) => w)
    .sort((a, b) => problem.wants[a]!.amount - problem.wants[b]!.amount || a - b)
  for (let level = 0; level < LEVELS; level++) {
    for (const w of order) {
      if (label[w]! <= level || !ladder[w]!.includes(level)) continue
      const more = label.with(w, level)
      const held = quickCover({ problem, label: more, fixed, wasteMost: Infinity })
      if (typeof held === 'object') {
        label = more
        ;({ place } = held)
      }
    }
  }
  return scored(problem, place)
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
          const [a, b] = [pieceNow.get(one), pieceNow.get(other)]
          return a === undefined || b === undefined ? [] : [{ one: a, other: b }]
        }),
        oneSide: some(share.oneSide, wantNow),
        otherSide: some(share.otherSide, wantNow)
      }))
      .filter((share) => share.pairs.length)
  }
  return { problem, pieces, wants: [...wants] }
}
