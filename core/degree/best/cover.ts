/**
 * Given which wants have to be met, and how firmly: tries quickly to do it with whole pieces.
 *
 * Method: propagation (a piece without which a want cannot be met goes there; a want that is met takes
 * no more), then augmenting paths (Berge 1957) that move pieces along where they can be spared. An
 * answer of `impossible` is a proof; `unknown` only says that the quick way did not find one.
 *
 * Labels: `label[w]` is the softest firmness that may be used to meet want `w`; `LEVELS` leaves it
 * open. Pieces that are not needed end NOWHERE.
 */
import {
  capUsed,
  FREE,
  isLegal,
  isMet,
  LEVELS,
  membersOf,
  NOWHERE,
  overflow,
  shareUsed,
  wasteOf,
  weightIn,
  withinBudgets,
  type Problem
} from './problem'
import { shortage, type Asking } from './shortage'

interface State {
  place: number[]
  /** The decided pieces of each want. */
  members: number[][]
  /** Undecided pieces that may still serve each want. */
  free: number[][]
}

export interface CoverQuestion {
  problem: Problem
  label: readonly number[]
  /** Decided places; FREE elsewhere. */
  fixed: readonly number[]
  wasteMost: number
}

export type Answer = { place: number[] } | 'impossible' | 'unknown'

export function quickCover(question: CoverQuestion): Answer {
  const state = begin(question)
  if (!propagate(question, state)) return 'impossible'
  const place = tryAugmenting(question, state)
  if (place) return { place }
  const { problem, label } = question
  const asked = problem.wants.map((_, w) => w).filter((w) => label[w]! < LEVELS)
  return shortage(problem, asked, askingOf(problem, state)).length ? 'impossible' : 'unknown'
}

/** The least waste of wants met so firmly, were each of them alone: a bound. */
export function leastWaste(problem: Problem, label: readonly number[]): number {
  const { free } = begin({ problem, label, fixed: problem.pieces.map(() => FREE), wasteMost: Infinity })
  return problem.wants.reduce(
    (sum, _, w) => sum + (label[w]! < LEVELS ? leastOverflow(problem, w, 0, free[w]!) : 0),
    0
  )
}

function askingOf(problem: Problem, state: State): Asking {
  return {
    rest: problem.wants.map((want, w) => Math.max(0, want.amount - filled(problem, state.members[w]!, w))),
    free: state.free
  }
}

function begin({ problem, label, fixed }: CoverQuestion): State {
  const place = [...fixed]
  const members = membersOf(problem, place)
  const free: number[][] = problem.wants.map(() => [])
  problem.pieces.forEach((piece, p) => {
    if (place[p] !== FREE) return
    for (const w of piece.wants) if (label[w]! < LEVELS && piece.firmness <= label[w]!) free[w]!.push(p)
  })
  return { place, members, free }
}

function filled(problem: Problem, members: readonly number[], w: number): number {
  let sum = 0
  for (const p of members) sum += weightIn(problem.wants[w]!, problem.pieces[p]!)
  return sum
}

function decide(state: State, wants: readonly number[], p: number, w: number): void {
  state.place[p] = w
  state.members[w]!.push(p)
  for (const i of wants) {
    const at = state.free[i]!.indexOf(p)
    if (at >= 0) state.free[i]!.splice(at, 1)
  }
}

/** Draws every simple conclusion; false when one of them cannot hold. */
function propagate(question: CoverQuestion, state: State): boolean {
  const { problem, label, wasteMost } = question
  const { wants, pieces, caps, shares } = problem
  for (let changed = true; changed;) {
    changed = false
    let waste = 0
    for (let w = 0; w < wants.length; w++) {
      const want = wants[w]!
      const inside = state.members[w]!
      if (want.byCourse && inside.length > want.amount) return false
      if (label[w]! >= LEVELS) {
        waste += overflow(problem, w, inside)
        continue
      }
      const free = state.free[w]!
      // A piece fixed here that is softer than promised fills, but does not meet.
      const firm = inside.filter((p) => pieces[p]!.firmness <= label[w]!)
      if (isMet(problem, w, firm)) {
        waste += overflow(problem, w, inside)
        if (free.length) {
          state.free[w] = []
          changed = true
        }
        continue
      }
      if (want.byCourse && inside.length >= want.amount) return false
      if (!isMet(problem, w, [...firm, ...free])) return false
      const sum = firm.reduce((total, p) => total + weightIn(want, pieces[p]!), 0)
      const give = free.reduce((total, p) => total + weightIn(want, pieces[p]!), 0)
      for (const p of [...free]) {
        if (sum + give - weightIn(want, pieces[p]!) >= want.amount) continue
        decide(state, pieces[p]!.wants, p, w)
        changed = true
      }
      if (!changed) waste += leastOverflow(problem, w, sum, free)
    }
    if (waste > wasteMost) return false
    if (caps.length || shares.length) {
      const narrowed = keepBudgets(problem, state)
      if (narrowed === undefined) return false
      if (narrowed) changed = true
    }
  }
  return true
}

/** Takes away what caps and shares forbid; undefined when they are broken already. */
function keepBudgets(problem: Problem, state: State): boolean | undefined {
  const { pieces, caps, shares } = problem
  let changed = false
  const forbid = (p: number, wants: ReadonlySet<number>) => {
    for (const w of wants) {
      const at = state.free[w]!.indexOf(p)
      if (at < 0) continue
      state.free[w]!.splice(at, 1)
      changed = true
    }
  }
  for (const cap of caps) {
    const used = capUsed(cap, pieces, state.place)
    if (used > cap.most) return undefined
    for (const p of cap.pieces)
      if (state.place[p] === FREE && used + pieces[p]!.weight > cap.most) forbid(p, cap.wants)
  }
  for (const share of shares) {
    const used = shareUsed(share, pieces, state.place)
    if (used > share.most) return undefined
    for (const { one, other } of share.pairs) {
      if (used + pieces[one]!.weight <= share.most) continue
      if (share.oneSide.has(state.place[one]!) && state.place[other] === FREE) forbid(other, share.otherSide)
      if (share.otherSide.has(state.place[other]!) && state.place[one] === FREE) forbid(one, share.oneSide)
    }
  }
  return changed
}

/** The least by which whole pieces can go beyond the amount, were there no other want. */
function leastOverflow(problem: Problem, w: number, sum: number, free: readonly number[]): number {
  const want = problem.wants[w]!
  if (want.byCourse) return 0
  const rest = want.amount - sum
  if (rest <= 0) return -rest
  let heaviest = 0
  for (const p of free) heaviest = Math.max(heaviest, problem.pieces[p]!.weight)
  const reach = new Uint8Array(rest + heaviest)
  reach[0] = 1
  for (const p of free) {
    const { weight } = problem.pieces[p]!
    for (let s = rest - 1; s >= 0; s--) if (reach[s]) reach[s + weight] = 1
  }
  for (let s = rest; s < reach.length; s++) if (reach[s]) return s - rest
  return Infinity
}

/** Serves want after want, moving pieces along when it has to; checks all rules at the end. */
function tryAugmenting(question: CoverQuestion, state: State): number[] | undefined {
  const { problem, label } = question
  const { wants, pieces } = problem
  const place = [...state.place]
  const members = state.members.map((own) => [...own])
  const may = state.free.map((list) => new Set(list))
  const met = (w: number) => isMet(problem, w, firmIn(question, members[w]!, w))
  const full = (w: number) => wants[w]!.byCourse && members[w]!.length >= wants[w]!.amount
  const choices = (p: number) => {
    let count = 0
    for (const w of pieces[p]!.wants) if (may[w]!.has(p) && !met(w)) count++
    return count
  }
  const bounded = problem.caps.length > 0 || problem.shares.length > 0
  const keeps = (p: number, w: number) => !bounded || withinBudgets(problem, place.with(p, w))
  /** What was done, to be taken back: the piece and where it was. */
  const trail: [piece: number, from: number][] = []
  const put = (p: number, w: number) => {
    trail.push([p, place[p]!])
    set(p, w)
  }
  const set = (p: number, w: number) => {
    const from = place[p]!
    if (from >= 0) members[from]!.splice(members[from]!.indexOf(p), 1)
    place[p] = w
    if (w >= 0) members[w]!.push(p)
  }
  const back = (to: number) => {
    while (trail.length > to) set(...trail.pop()!)
  }

  const fill = (w: number, seen: ReadonlySet<number>): boolean => {
    while (!met(w)) {
      if (full(w)) return false
      const lacks = wants[w]!.amount - filled(problem, members[w]!, w)
      const next = bestSpare(w, lacks)
      if (next !== undefined) {
        put(next, w)
        continue
      }
      let moved = false
      for (const p of state.free[w]!) {
        const from = place[p]!
        if (from < 0 || from === w || seen.has(from) || !keeps(p, w)) continue
        const before = trail.length
        put(p, w)
        if (met(from) || fill(from, new Set([...seen, w]))) {
          moved = true
          break
        }
        back(before)
      }
      if (!moved) return false
    }
    return true
  }
  /** Of the pieces nobody has, the one fewest others could use, that does not go too far, the heaviest. */
  const bestSpare = (w: number, lacks: number): number | undefined => {
    const over = (p: number) => Number(weightIn(wants[w]!, pieces[p]!) > lacks)
    let best: number | undefined
    let others = 0
    for (const p of state.free[w]!) {
      if (place[p] !== FREE || !keeps(p, w)) continue
      const here = choices(p)
      const compared =
        best === undefined
          ? -1
          : here - others || over(p) - over(best) || pieces[best]!.weight - pieces[p]!.weight || p - best
      if (compared >= 0) continue
      best = p
      others = here
    }
    return best
  }

  const asked = wants.map((_, w) => w).filter((w) => label[w]! < LEVELS && !met(w))
  asked.sort((a, b) => state.free[a]!.length - state.free[b]!.length || a - b)
  for (const w of asked) if (!fill(w, new Set([w]))) return undefined
  for (const w of asked) {
    // Gives back the heaviest pieces the want is met without.
    const own = members[w]!.filter((p) => state.place[p] === FREE).sort(
      (a, b) => pieces[b]!.weight - pieces[a]!.weight
    )
    for (const p of own) {
      set(p, FREE)
      if (!met(w)) set(p, w)
    }
  }
  for (let p = 0; p < place.length; p++) if (place[p] === FREE) place[p] = NOWHERE
  if (!isLegal(problem, place)) return undefined
  return wasteOf(problem, members) <= question.wasteMost ? place : undefined
}

/** The pieces of a want that are as firm as its label asks. */
function firmIn({ problem, label }: CoverQuestion, members: readonly number[], w: number): readonly number[] {
  const { pieces } = problem
  return members.every((p) => pieces[p]!.firmness <= label[w]!)
    ? members
    : members.filter((p) => pieces[p]!.firmness <= label[w]!)
}
