/**
 * The grade scale: data, with the meaning of each grade. Points on the common 4.0 scale
 * (common practice; an institution may load another).
 */
export interface GradeMeaning {
  /** Points per credit; null when the grade does not enter an average. */
  points: number | null
  /** Whether the credits are earned. */
  earns: boolean
  /** Where the grade stands when a rule asks for a least grade. */
  rank: number
}

const letters: [string, number][] = [
  ['A', 4.0],
  ['A-', 3.7],
  ['B+', 3.3],
  ['B', 3.0],
  ['B-', 2.7],
  ['C+', 2.3],
  ['C', 2.0],
  ['C-', 1.7],
  ['D+', 1.3],
  ['D', 1.0]
]

const SCALE: ReadonlyMap<string, GradeMeaning> = new Map<string, GradeMeaning>([
  ...letters.map(([grade, points]) => [grade, { points, earns: true, rank: points }] as const),
  ['F', { points: 0, earns: false, rank: 0 }],
  // Passed without a letter, transferred, by test: counts as a C where a least grade is asked for.
  ['P', { points: null, earns: true, rank: 2.0 }],
  ['TR', { points: null, earns: true, rank: 2.0 }],
  ['CR', { points: null, earns: true, rank: 2.0 }],
  ['W', { points: null, earns: false, rank: 0 }],
  ['I', { points: null, earns: false, rank: 0 }]
])

export const GRADES: readonly string[] = [...SCALE.keys()]

export function isGrade(text: string): boolean {
  return SCALE.has(text)
}

/** @throws RangeError when the scale has no such grade. */
export function gradeMeaning(grade: string): GradeMeaning {
  const meaning = SCALE.get(grade)
  if (!meaning) throw new RangeError(`the grade scale has no "${grade}"`)
  return meaning
}

/** Whether a grade is at least another; a grade that earns nothing never is. */
export function gradeAtLeast(grade: string, least: string): boolean {
  const { earns, rank } = gradeMeaning(grade)
  return earns && rank >= gradeMeaning(least).rank
}

export interface GradeTotals {
  /** Points times credits. */
  points: number
  credits: number
}

/** Sums over graded attempts; grades without points are left out. */
export function gradeTotals(attempts: Iterable<{ grade: string; credits: number }>): GradeTotals {
  let points = 0
  let credits = 0
  for (const one of attempts) {
    const value = gradeMeaning(one.grade).points
    if (value === null) continue
    points += value * one.credits
    credits += one.credits
  }
  return { points, credits }
}

/** Grade point average: points times credits over credits. Undefined when nothing carries points. Unrounded. */
export function gradePointAverage(
  attempts: Iterable<{ grade: string; credits: number }>
): number | undefined {
  const { points, credits } = gradeTotals(attempts)
  return credits > 0 ? points / credits : undefined
}
