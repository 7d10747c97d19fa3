/** Why no week fits: what cannot hold together, and what letting go of one thing would give. */
import { countWeeks } from './count'
import type { FindProblem } from './problem'
import { bestWeeks } from './search'

/** Groups of courses and hours kept free, by number. */
export interface Demands {
  groups: number[]
  kept: number[]
}

export interface Relief {
  /** What is let go: one course fewer of a group, or hours kept free. */
  of: { kind: 'group' | 'kept'; number: number }
  /** How many weeks fit then; undefined where that cannot be counted exactly. */
  weeks: number | undefined
}

/** Sets up to this size are tried before any set that merely has nothing to spare is taken. */
const SMALL = 3

type Demand = Relief['of']

function demandsOf({ groups, kept }: FindProblem): Demand[] {
  return [
    ...groups.map((_, number): Demand => ({ kind: 'group', number })),
    ...kept.map((_, number): Demand => ({ kind: 'kept', number }))
  ]
}

/** The problem with only these demands. */
function only(problem: FindProblem, demands: readonly Demand[]): FindProblem {
  const has = (kind: Demand['kind'], number: number) =>
    demands.some((one) => one.kind === kind && one.number === number)
  return {
    ...problem,
    groups: problem.groups.map((group, g) => (has('group', g) ? group : { ...group, take: 0 })),
    kept: problem.kept.map((options, k) => (has('kept', k) ? options : []))
  }
}

/** Whether a week fits, as far as is known: only a search that came to its end says that none does. */
function fits(problem: FindProblem): boolean {
  const { weeks, proved } = bestWeeks({ ...problem, measures: [] }, 1)
  return weeks.length > 0 || !proved
}

/**
 * Demands that cannot hold together though any fewer of them could: the smallest such set where it has three
 * members or less, else one with nothing to spare. Undefined when a week fits.
 */
export function conflictOf(problem: FindProblem): Demands | undefined {
  if (fits(problem)) return undefined
  const all = demandsOf(problem)
  let found: readonly Demand[] | undefined
  for (let size = 1; size <= Math.min(SMALL, all.length) && !found; size++)
    found = subsets(all, size).find((some) => !fits(only(problem, some)))
  if (!found) {
    found = all
    for (const one of all) {
      const fewer: readonly Demand[] = found.filter((other) => other !== one)
      if (!fits(only(problem, fewer))) found = fewer
    }
  }
  const numbers = (kind: Demand['kind']) => found.filter((one) => one.kind === kind).map((one) => one.number)
  return { groups: numbers('group'), kept: numbers('kept') }
}

function subsets<T>(list: readonly T[], size: number, from = 0): T[][] {
  if (size === 0) return [[]]
  return list
    .slice(from)
    .flatMap((one, i) => subsets(list, size - 1, from + i + 1).map((rest) => [one, ...rest]))
}

/** The problem without some hours kept free, or with one course fewer of a group. */
export function lettingGo(problem: FindProblem, { kind, number }: Relief['of']): FindProblem {
  return kind === 'kept'
    ? { ...problem, kept: problem.kept.map((options, k) => (k === number ? [] : options)) }
    : {
        ...problem,
        groups: problem.groups.map((group, g) => (g === number ? { ...group, take: group.take - 1 } : group))
      }
}

/** What letting go of one demand would give, the most weeks first; what gives none is left out. */
export function reliefs(problem: FindProblem): Relief[] {
  return demandsOf(problem)
    .map((of): Relief => ({ of, weeks: countWeeks(lettingGo(problem, of)) }))
    .filter((one) => one.weeks !== 0)
    .sort((a, b) => (b.weeks ?? Infinity) - (a.weeks ?? Infinity))
}
