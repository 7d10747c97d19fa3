/**
 * The best filling there is, as a tuple: the earliest finish; then the fewest findings; then even terms;
 * then what is liked.
 *
 * The finish is proved: every earlier one was searched to its end, or is below the bound. So are the
 * findings, as far as the effort goes. Even terms and likings come from moving and changing courses while it
 * gets better, which is good but no proof.
 */
import { byHand } from './byHand'
import { earliestFinish, search, type SearchEffort } from './search'
import { findingsOf, finishOf, isLegal, loadsOf, NOT_TAKEN, TERMS_MOST, type FillProblem } from './problem'

export interface Filling {
  /** For each course its term, or NOT_TAKEN. */
  term: number[]
  finish: number
  findings: number[]
}

export type FillAnswer =
  | {
      kind: 'filled'
      best: Filling
      /** No filling finishes earlier than in this term. */
      bound: number
      /** The finish is the earliest there is. */
      proved: boolean
      steps: number
    }
  /** These demands cannot be met together; without any one of them the others could be. */
  | { kind: 'impossible'; demands: number[]; steps: number }
  /** Nothing was found within the effort; whether there is something is not known. */
  | { kind: 'unknown'; bound: number; steps: number }

export interface FillEffort {
  /** Steps for each finish that is tried. */
  most?: number
  /** Told the steps now and then; true stops. */
  stopped?: (steps: number) => boolean
  /** Told the first legal filling as soon as there is one. */
  found?: (filling: Filling) => void
}

const STEPS = 20_000
/** Sets of terms with findings that are tried, at most. */
const SETS_MOST = 64

/** @throws RangeError for more terms than a set of bits holds. */
export function fill(problem: FillProblem, { most = STEPS, stopped, found }: FillEffort = {}): FillAnswer {
  const { terms } = problem
  if (terms.length > TERMS_MOST) throw new RangeError(`a route of ${terms.length} terms is too long to fill`)
  let steps = 0
  const ask = (last: number, spared: readonly boolean[], limit = most) => {
    const effort: SearchEffort = { steps: 0, most: limit, ...(stopped && { stopped }) }
    const answer = search(problem, last, spared, effort)
    steps += effort.steps
    return answer
  }
  const nowhere = terms.map(() => false)
  let bound = Math.max(earliestFinish(problem), -1)
  let proved = true
  const first =
    bound < terms.length ? byHand(problem, (term) => found?.(fillingOf(problem, term))) : undefined
  let best = first && fillingOf(problem, first)
  for (let last = bound; last < (best?.finish ?? terms.length); last++) {
    const answer = ask(last, nowhere)
    if (answer.kind === 'found') {
      best = fillingOf(problem, answer.term)
      break
    }
    if (answer.kind === 'limit') proved = false
    else if (proved) bound = last + 1
  }
  if (!best) {
    if (!proved) return { kind: 'unknown', bound, steps }
    return { kind: 'impossible', demands: conflict(problem, most), steps }
  }
  if (best.findings.length && !stopped?.(steps))
    best = fewestFindings(problem, best, (spared) => ask(best!.finish, spared, most / 4))
  if (!stopped?.(steps)) best = liked(problem, evened(problem, best))
  return { kind: 'filled', best, bound: proved ? best.finish : bound, proved, steps }
}

/**
 * The same, where what is placed has rules of its own: a filling that meets them, or else one that leaves them
 * unmet.
 */
export function fillMending(problem: FillProblem, effort: FillEffort = {}): FillAnswer {
  if (problem.courses.some((course) => course.placed && course.rule)) {
    const mended = fill(problem, effort)
    if (mended.kind === 'filled') return mended
  }
  const courses = problem.courses.map((one) => (one.placed ? { ...one, rule: undefined } : one))
  return fill({ ...problem, courses }, effort)
}

function fillingOf(problem: FillProblem, term: number[]): Filling {
  return { term, finish: finishOf(problem, term), findings: findingsOf(problem, term) }
}

/** Tries to spare all terms, then all but one, and so on. */
function fewestFindings(
  problem: FillProblem,
  start: Filling,
  ask: (spared: boolean[]) => ReturnType<typeof search>
): Filling {
  let sets = 0
  for (let size = 0; size < start.findings.length; size++)
    for (const given of subsets(start.finish + 1, size)) {
      if (++sets > SETS_MOST) return start
      const answer = ask(problem.terms.map((_, t) => !given.includes(t)))
      if (answer.kind === 'found') return fillingOf(problem, answer.term)
    }
  return start
}

function subsets(n: number, size: number, from = 0): number[][] {
  if (size === 0) return [[]]
  const found: number[][] = []
  for (let first = from; first < n; first++)
    for (const rest of subsets(n, size - 1, first + 1)) found.push([first, ...rest])
  return found
}

/** Moves single courses and changes pairs while terms get more even, and nothing else gets worse. */
function evened(problem: FillProblem, start: Filling): Filling {
  let best = start
  const movable = problem.courses.flatMap((course, c) =>
    !course.placed && start.term[c] !== NOT_TAKEN ? [c] : []
  )
  const better = (term: number[]): boolean => {
    if (!isLegal(problem, term)) return false
    const now = fillingOf(problem, term)
    if (now.finish > best.finish || now.findings.length > best.findings.length) return false
    if (unevenness(problem, term, best.finish) >= unevenness(problem, best.term, best.finish)) return false
    best = now
    return true
  }
  for (let changed = true, round = 0; changed && round < 50; round++) {
    changed = false
    for (const c of movable) {
      for (let t = 0; t <= best.finish; t++)
        if (t !== best.term[c] && problem.courses[c]!.terms & (1 << t) && better(best.term.with(c, t)))
          changed = true
      for (const other of movable) {
        const [a, b] = [best.term[c]!, best.term[other]!]
        if (other <= c || a === b || problem.courses[c]!.weight === problem.courses[other]!.weight) continue
        if (better(best.term.with(c, b).with(other, a))) changed = true
      }
    }
  }
  return best
}

/** Puts what is liked better in the place of what would do as well and weighs the same, while nothing else changes. */
function liked(problem: FillProblem, start: Filling): Filling {
  const { courses } = problem
  let best = start
  courses.forEach((course, c) => {
    const at = best.term[c]!
    if (course.placed || at === NOT_TAKEN || course.cost === 0) return
    const instead = courses
      .map((other, o) => ({ other, o }))
      .filter(
        ({ other, o }) =>
          !other.placed &&
          best.term[o] === NOT_TAKEN &&
          other.cost < course.cost &&
          other.weight === course.weight &&
          other.terms & (1 << at) &&
          course.demands.every((d) => other.demands.includes(d))
      )
      .sort((a, b) => a.other.cost - b.other.cost)
      .map(({ o }) => best.term.with(c, NOT_TAKEN).with(o, at))
      .find((term) => isLegal(problem, term))
    if (instead) best = fillingOf(problem, instead)
  })
  return best
}

/** Squares of the loads against what a term holds, over the terms with room: equal shares are least. */
function unevenness(problem: FillProblem, term: readonly number[], last: number): number {
  const loads = loadsOf(problem, term)
  let sum = 0
  for (let t = 0; t <= last; t++) {
    const { room, standing } = problem.terms[t]!
    if (room + standing > 0) sum += loads[t]! ** 2 / (room + standing)
  }
  return sum
}

/** A set of demands that cannot be met together, none of which could be left out of it. */
function conflict(problem: FillProblem, most: number): number[] {
  let kept = problem.demands.map((_, d) => d)
  for (const d of [...kept]) {
    const fewer = kept.filter((one) => one !== d)
    const answer = search(
      {
        ...problem,
        demands: problem.demands.map((demand, i) => (fewer.includes(i) ? demand : { ...demand, amount: 0 }))
      },
      problem.terms.length - 1,
      problem.terms.map(() => false),
      { steps: 0, most }
    )
    if (answer.kind === 'none') kept = fewer
  }
  return kept
}
