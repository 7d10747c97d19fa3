/** How firmly wants could be met, how firmly they are, and what a reading is worth. */
import { isMet, LEVELS, membersOf, wasteOf, type Opens, type Problem } from './problem'

/** The labels each want could have alone, from the firmest on where a new one brings new pieces; open at last. */
export function laddersOf(problem: Problem): number[][] {
  return problem.wants.map((_, w) => {
    const labels: number[] = []
    let before = -1
    const own = problem.pieces.flatMap((piece, p) => (piece.wants.includes(w) ? [p] : []))
    for (let level = 0; level < LEVELS; level++) {
      const pieces = own.filter((p) => problem.pieces[p]!.firmness <= level)
      if (pieces.length === before || !isMet(problem, w, pieces)) continue
      before = pieces.length
      labels.push(level)
    }
    return [...labels, LEVELS]
  })
}

export function opensOf(label: readonly number[]): Opens {
  const opens: [number, number, number, number] = [0, 0, 0, 0]
  for (const softest of label) for (let level = 0; level < softest; level++) opens[level]!++
  return opens
}

/** How firmly each want is met by a reading. */
export function labelsOf(problem: Problem, members: readonly (readonly number[])[]): number[] {
  return members.map((pieces, w) => {
    for (let level = 0; level < LEVELS; level++) {
      const firm = pieces.filter((p) => problem.pieces[p]!.firmness <= level)
      if (isMet(problem, w, firm)) return level
    }
    return LEVELS
  })
}

export interface Score {
  opens: Opens
  /** Units of credit beyond what the wants ask for. */
  waste: number
}

/** What a reading is worth. */
export function scoreOf(problem: Problem, place: readonly number[]): Score {
  const members = membersOf(problem, place)
  return {
    opens: opensOf(labelsOf(problem, members)),
    waste: wasteOf(problem, members)
  }
}
