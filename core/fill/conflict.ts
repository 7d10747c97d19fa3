/**
 * What cannot be met together, as small as it can be said.
 *
 * A set that can be met together holds no conflict, so every conflict has one of what such a set leaves out:
 * only sets that have one of each need to be asked, smallest first (hitting sets, Reiter 1987).
 */

/** What is known of some wants: that they cannot be met together, a larger set with them that can, or neither. */
export type Asked = 'cannot' | 'unknown' | { met: ReadonlySet<number> }

/** Sets up to this size are the smallest there are. */
export const SMALLEST_UP_TO = 3
/** Questions asked for it at most. */
const QUESTIONS_MOST = 60

export interface Conflict {
  wants: readonly number[]
  /** No smaller set of wants is a conflict. */
  smallest: boolean
}

/**
 * Wants that cannot be met together: the smallest set where that is one of three at most, else one of which
 * `ask` says of no single want that the others are a conflict without it.
 *
 * @param all the wants, which cannot all be met
 * @param known sets that can be met together
 */
export function conflictOf(
  all: readonly number[],
  known: readonly ReadonlySet<number>[],
  ask: (wants: readonly number[]) => Asked
): Conflict {
  const feasible = [...known]
  const isKnown = (wants: readonly number[]) => feasible.some((met) => wants.every((w) => met.has(w)))
  let smallest = true
  let questions = 0
  for (let size = 1; size <= SMALLEST_UP_TO; size++)
    for (const wants of setsOf(all, size)) {
      if (isKnown(wants)) continue
      if (questions++ === QUESTIONS_MOST) return { wants: thinned(all, isKnown, ask), smallest: false }
      const answer = ask(wants)
      if (answer === 'cannot') return { wants, smallest }
      if (answer === 'unknown') smallest = false
      else feasible.push(answer.met)
    }
  return { wants: thinned(all, isKnown, ask), smallest: false }
}

/** The wants without each that a conflict can be had without, one after the other. */
function thinned(
  all: readonly number[],
  isKnown: (wants: readonly number[]) => boolean,
  ask: (wants: readonly number[]) => Asked
): readonly number[] {
  let kept = all
  for (const w of all) {
    const fewer = kept.filter((one) => one !== w)
    if (!isKnown(fewer) && ask(fewer) === 'cannot') kept = fewer
  }
  return kept
}

/** All sets of that size, in the order of the list. */
function* setsOf(all: readonly number[], size: number, from = 0): Generator<number[]> {
  if (size === 0) {
    yield []
    return
  }
  for (let i = from; i <= all.length - size; i++)
    for (const rest of setsOf(all, size - 1, i + 1)) yield [all[i]!, ...rest]
}
