/** How firmly wants could be met, how firmly they are, and what a reading is worth. */
import {
  demandLabels,
  isMet,
  LEVELS,
  membersOf,
  POSSIBLE,
  wasteOf,
  type Opens,
  type Problem
} from './problem'

/** How firmly each want could be met, had it all the pieces it accepts; LEVELS when it stays open. */
export function firmestLabels(problem: Problem): number[] {
  const own: number[][] = problem.wants.map(() => [])
  problem.pieces.forEach((piece, p) => piece.wants.forEach((w) => own[w]!.push(p)))
  return labelsOf(problem, own)
}

export function opensOf(label: readonly number[]): Opens {
  const opens: [number, number, number, number, number] = [0, 0, 0, 0, 0]
  for (const softest of label) for (let level = 0; level < softest; level++) opens[level]!++
  return opens
}

/** How firmly each want is met by a reading. */
function labelsOf(problem: Problem, members: readonly (readonly number[])[]): number[] {
  return members.map((pieces, w) => {
    if (problem.wants[w]!.leftover) return 0
    for (let level = 0; level < LEVELS; level++) {
      const firm = pieces.filter((p) => problem.pieces[p]!.status <= level)
      if (isMet(problem, w, firm)) return level
    }
    return problem.wants[w]!.endless ? POSSIBLE : LEVELS
  })
}

export interface Score {
  opens: Opens
  /** Demands not met, level by level. */
  unmet: Opens
  /** Units of credit beyond what the wants ask for. */
  waste: number
}

/** What a reading is worth. */
export function scoreOf(problem: Problem, place: readonly number[]): Score {
  const members = membersOf(problem, place)
  return {
    opens: opensOf(labelsOf(problem, members)),
    unmet: opensOf(demandLabels(problem, place)),
    waste: wasteOf(problem, members)
  }
}
