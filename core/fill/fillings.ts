import { at } from './model'
import { NOT_TAKEN, termsIn, type Filling, type FillProblem } from './problem'
import type { Answer } from './fill'

/** The term of each course by an answer of the solver. */
export function fillingOf({ courses, terms: all }: FillProblem, answer: Answer, last: number): Filling {
  return courses.map(({ placed, terms }, c) => {
    if (placed) return termsIn(terms, all.length - 1)[0] ?? NOT_TAKEN
    return termsIn(terms, last).find((t) => answer.value(at(c, t)) > 0.5) ?? NOT_TAKEN
  })
}

/** The same question without these wants. */
export function freed(problem: FillProblem, without: ReadonlySet<number>): FillProblem {
  const { reading } = problem
  const wants = reading.wants.map((want, w) =>
    without.has(w) ? { ...want, amount: 0, subjects: 0, including: [], byCourse: false } : want
  )
  return { ...problem, reading: { ...reading, wants } }
}
