/**
 * The question behind every audit, without names: which piece counts toward which want.
 *
 * A *piece* is a course within one layer of requirements; a *want* is a need. A piece counts toward
 * one want at most. Wants are numbered in the program's own order, pieces in the record's. Amounts
 * are whole numbers: courses, or the smallest unit of credit that occurs.
 */
export interface Want {
  amount: number
  /** Counts courses, each as one, and never holds more than it asks for; else it counts credits. */
  byCourse: boolean
  /** Least number of distinct subjects among its pieces; 0 when none is asked for. */
  subjects: number
  /** Takes only what nothing else wants: filled at the end, in order, and never competed for. */
  leftover?: boolean
  /** Of a leftover want: it is asked that it is full in the end, like others are with everything. */
  closing?: boolean
  /** Parts of the amount that have to come from certain pieces. */
  including: readonly { least: number; pieces: ReadonlySet<number> }[]
  /** What is not taken yet can always complete it; without it only pieces that are possible can. */
  endless?: boolean
}

export interface Piece {
  /** Which course this is a piece of; the pieces of one course differ in their layer. */
  course: number
  /** Credits in units. */
  weight: number
  /** 0 earned, 1 under way, 2 registered, 3 planned, 4 possible: not taken, and no part of waste and order. */
  status: number
  subject: number
  /** Stands in for another: where that makes no difference it counts nowhere. */
  spare?: boolean
  /** The wants that take it, in program order. */
  wants: readonly number[]
}

/** At most so many credits of these pieces in these wants; with `each`, so many pieces. */
export interface Cap {
  most: number
  each?: boolean
  pieces: ReadonlySet<number>
  wants: ReadonlySet<number>
}

/** Credits of courses that count on both sides at once, at most. */
export interface Share {
  most: number
  /** Of each course the pieces that may be on the one side, whose credits are counted, and on the other. */
  pairs: readonly { one: readonly number[]; other: readonly number[] }[]
  oneSide: ReadonlySet<number>
  otherSide: ReadonlySet<number>
}

/** At least so many credits of courses that count in these wants, each course once: wished, and no want. */
export interface Demand {
  least: number
  /** Its pieces, each with the course that it is of: of several of one course the firmest counts. */
  pieces: ReadonlyMap<number, number>
  wants: ReadonlySet<number>
}

export interface Problem {
  wants: readonly Want[]
  pieces: readonly Piece[]
  caps: readonly Cap[]
  shares: readonly Share[]
  demands?: readonly Demand[]
}

/** Kinds of status, from earned to possible. */
export const LEVELS = 5
export const POSSIBLE = 4
/** In a place: counts nowhere. */
export const NOWHERE = -1

/**
 * Wants left open by what is earned; with what is under way; with what is registered; with what is planned; with
 * all that could still be taken.
 */
export type Opens = readonly [number, number, number, number, number]
export const NO_OPENS: Opens = [0, 0, 0, 0, 0]

export function weightIn(want: Want, piece: Piece): number {
  return want.byCourse ? 1 : piece.weight
}

/** Below zero when `a` is the better one: fewer open with all of it, then with what is firmer, level by level. */
export function compareOpens(a: Opens, b: Opens): number {
  return a[4] - b[4] || a[3] - b[3] || a[2] - b[2] || a[1] - b[1] || a[0] - b[0]
}

/** What a piece uses of a cap. */
export function useOf({ each }: Cap, piece: Piece): number {
  return each ? 1 : piece.weight
}

/** Whether the pieces meet the want, with all it asks for. */
export function isMet(problem: Problem, w: number, pieces: readonly number[]): boolean {
  const want = problem.wants[w]!
  let sum = 0
  for (const p of pieces) sum += weightIn(want, problem.pieces[p]!)
  if (sum < want.amount) return false
  if (want.subjects && new Set(pieces.map((p) => problem.pieces[p]!.subject)).size < want.subjects)
    return false
  for (const part of want.including) {
    let there = 0
    for (const p of pieces) if (part.pieces.has(p)) there += weightIn(want, problem.pieces[p]!)
    if (there < part.least) return false
  }
  return true
}

/** The pieces of each want. */
export function membersOf(problem: Problem, place: readonly number[]): number[][] {
  const members: number[][] = problem.wants.map(() => [])
  place.forEach((w, p) => w >= 0 && members[w]!.push(p))
  return members
}

function overflow(problem: Problem, w: number, pieces: readonly number[]): number {
  const want = problem.wants[w]!
  if (want.byCourse || want.leftover) return 0
  const taken = pieces.map((p) => problem.pieces[p]!).filter(({ status }) => status < POSSIBLE)
  const sum = taken.reduce((total, { weight }) => total + weight, 0)
  return Math.max(0, sum - want.amount)
}

/** Whether a reading keeps every rule: courses counted, caps and shares. */
export function isLegal(problem: Problem, place: readonly number[]): boolean {
  const { wants } = problem
  const count = wants.map(() => 0)
  for (let p = 0; p < place.length; p++) {
    const w = place[p]!
    if (w < 0) continue
    count[w]!++
    if (wants[w]!.byCourse && count[w]! > wants[w]!.amount) return false
  }
  return withinBudgets(problem, place)
}

/** Whether caps and shares are kept. */
function withinBudgets({ pieces, caps, shares }: Problem, place: readonly number[]): boolean {
  return (
    caps.every((cap) => capUsed(cap, pieces, place) <= cap.most) &&
    shares.every((share) => shareUsed(share, pieces, place) <= share.most)
  )
}

function capUsed(cap: Cap, pieces: readonly Piece[], place: readonly number[]): number {
  let used = 0
  for (const p of cap.pieces) if (place[p]! >= 0 && cap.wants.has(place[p]!)) used += useOf(cap, pieces[p]!)
  return used
}

function shareUsed(share: Share, pieces: readonly Piece[], place: readonly number[]): number {
  let used = 0
  for (const { one, other } of share.pairs) {
    const own = one.find((p) => share.oneSide.has(place[p]!))
    if (own !== undefined && other.some((p) => share.otherSide.has(place[p]!))) used += pieces[own]!.weight
  }
  return used
}

/** Of some pieces those of a demand, of each course the firmest. */
export function firmestOf(
  pieces: readonly Piece[],
  courses: ReadonlyMap<number, number>,
  some: Iterable<number>
): Piece[] {
  const found = new Map<number, Piece>()
  for (const p of some) {
    const course = courses.get(p)
    if (course === undefined) continue
    const known = found.get(course)
    if (!known || pieces[p]!.status < known.status) found.set(course, pieces[p]!)
  }
  return [...found.values()]
}

/**
 * The most that pieces of a demand could give it, by status, the firmer ones included: of each course the heaviest, since
 * a reading may leave a firmer one out.
 */
export function couldGive(
  pieces: readonly Piece[],
  { pieces: courses }: Demand,
  some: Iterable<number>
): number[] {
  const most = Array.from({ length: POSSIBLE }, () => new Map<number, number>())
  for (const p of some) {
    const course = courses.get(p)
    if (course === undefined) continue
    const { status, weight } = pieces[p]!
    for (const of of most.slice(status)) of.set(course, Math.max(weight, of.get(course) ?? 0))
  }
  return most.map((of) => [...of.values()].reduce((sum, weight) => sum + weight, 0))
}

/** How firmly each demand could be met, were there no other wish; LEVELS when it could not. */
export function firmestDemands({ demands = [], pieces }: Problem): number[] {
  return demands.map((demand) => {
    const level = couldGive(pieces, demand, demand.pieces.keys()).findIndex((most) => most >= demand.least)
    return level < 0 ? LEVELS : level
  })
}

/** How firmly each demand is met by a reading; LEVELS when it is not. */
export function demandLabels({ demands = [], pieces }: Problem, place: readonly number[]): number[] {
  return demands.map(({ least, pieces: own, wants }) => {
    const counted = [...own.keys()].filter((p) => wants.has(place[p]!))
    const firmest = firmestOf(pieces, own, counted)
    for (let level = 0; level < LEVELS; level++) {
      let sum = 0
      for (const { status, weight } of firmest) if (status <= level) sum += weight
      if (sum >= least) return level
    }
    return LEVELS
  })
}

/** Units of credit beyond what the wants ask for. */
export function wasteOf(problem: Problem, members: readonly (readonly number[])[]): number {
  return members.reduce((sum, pieces, w) => sum + overflow(problem, w, pieces), 0)
}
