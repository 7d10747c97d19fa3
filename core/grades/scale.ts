/**
 * `earned`: the credits are given. `failed` and `withdrawn`: they are not. `audited`: it was sat in on, for no credits.
 * `open`: not finished yet, such as an incomplete; it counts as under way.
 */
export const GRADE_RESULTS = ['earned', 'failed', 'withdrawn', 'audited', 'open'] as const

/** A grade scale: data, with the meaning of each grade. An institution may load its own. */
export interface GradeMeaning {
  /** Points per credit; null when the grade does not enter an average. */
  points: number | null
  result: (typeof GRADE_RESULTS)[number]
  /** Where the grade stands when a rule asks for a least grade. */
  rank: number
}

export interface GradeSpec extends GradeMeaning {
  grade: string
}

export class GradeScale {
  private readonly meanings: ReadonlyMap<string, GradeMeaning>

  constructor(readonly grades: readonly GradeSpec[]) {
    this.meanings = new Map(grades.map((one) => [one.grade, one]))
  }

  has(grade: string): boolean {
    return this.meanings.has(grade)
  }

  /** @throws RangeError when the scale has no such grade. */
  meaning(grade: string): GradeMeaning {
    const meaning = this.meanings.get(grade)
    if (!meaning) throw new RangeError(`the grade scale has no "${grade}"`)
    return meaning
  }

  /** What stands on the record for a course that was dropped late; undefined where the scale has nothing for it. */
  get withdrawn(): string | undefined {
    return this.grades.find((one) => one.result === 'withdrawn')?.grade
  }

  /** What stands for credit from elsewhere: `TR`, or else what earns credits and no points. */
  get brought(): string | undefined {
    if (this.has('TR')) return 'TR'
    return this.grades.find((one) => one.result === 'earned' && one.points === null)?.grade
  }

  /** Whether a grade is at least another; a grade that earns nothing never is. */
  atLeast(grade: string, least: string): boolean {
    const { result, rank } = this.meaning(grade)
    return result === 'earned' && rank >= this.meaning(least).rank
  }

  /** The most points a credit can carry. */
  get most(): number {
    return Math.max(...this.grades.map((one) => one.points ?? 0))
  }

  /** Sums over graded attempts; grades without points are left out. */
  totals(attempts: Iterable<GradedAttempt>): GradeTotals {
    let points = 0
    let credits = 0
    for (const one of attempts) {
      const value = this.meaning(one.grade).points
      if (value === null) continue
      points += value * one.credits
      credits += one.credits
    }
    return { points, credits }
  }

  /** Of graded attempts so many with the best grades, of equal ones those with more credits; grades without points are left out. */
  best<Graded extends GradedAttempt>(attempts: readonly Graded[], most = Infinity): Graded[] {
    const points = (one: Graded) => this.meaning(one.grade).points
    return attempts
      .filter((one) => points(one) !== null)
      .toSorted((a, b) => points(b)! - points(a)! || b.credits - a.credits)
      .slice(0, most)
  }

  /** Grade point average: points times credits over credits. Undefined when nothing carries points. Unrounded. */
  average(attempts: Iterable<GradedAttempt>): number | undefined {
    const { points, credits } = this.totals(attempts)
    return credits > 0 ? points / credits : undefined
  }
}

/** An average in hundredths, as it is written: halves up, also where the nearest double is less than the half. */
export const hundredths = (average: number): number => Math.round(average * 100 + 1e-7)

export interface GradedAttempt {
  grade: string
  credits: number
}

export interface GradeTotals {
  /** Points times credits. */
  points: number
  credits: number
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
  ['D', 1.0],
  ['D-', 0.7]
]

/** An institution's own scale; the common one where it has none. */
export const scaleOf = (grades: readonly GradeSpec[] | null | undefined): GradeScale =>
  grades ? new GradeScale(grades) : COMMON_SCALE

/** Points on the common 4.0 scale (common practice). */
export const COMMON_SCALE = new GradeScale([
  // Carries no more points than an A, and is more where a least grade is asked for.
  { grade: 'A+', points: 4.0, result: 'earned', rank: 4.3 },
  ...letters.map(([grade, points]): GradeSpec => ({ grade, points, result: 'earned', rank: points })),
  { grade: 'F', points: 0, result: 'failed', rank: 0 },
  // Stayed away too late to withdraw: a failure in every average.
  { grade: 'WF', points: 0, result: 'failed', rank: 0 },
  // Passed without a letter: no more is known than that it is no failure.
  { grade: 'P', points: null, result: 'earned', rank: 1.0 },
  { grade: 'S', points: null, result: 'earned', rank: 1.0 },
  // Transferred, by test: counts as a C where a least grade is asked for.
  { grade: 'TR', points: null, result: 'earned', rank: 2.0 },
  { grade: 'CR', points: null, result: 'earned', rank: 2.0 },
  { grade: 'NP', points: null, result: 'failed', rank: 0 },
  { grade: 'U', points: null, result: 'failed', rank: 0 },
  { grade: 'W', points: null, result: 'withdrawn', rank: 0 },
  { grade: 'AU', points: null, result: 'audited', rank: 0 },
  { grade: 'I', points: null, result: 'open', rank: 0 },
  { grade: 'IP', points: null, result: 'open', rank: 0 }
])
