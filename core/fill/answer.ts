import type { Solve } from './linear'
import type { Filling, NotTogether } from './problem'

export type FillAnswer =
  | {
      kind: 'filled'
      filling: Filling
      /** No filling finishes earlier than in this term. */
      bound: number
      /** The filling finishes in that term. */
      proved: boolean
      better: NoneBetter
      models: number
    }
  | {
      /**
       * Not everything was met: the filling that leaves least open. Where it is proved that not everything can be, wants
       * that cannot be met together; else none.
       */
      kind: 'partly'
      proved: boolean
      filling: Filling
      conflict: readonly number[]
      /** No fewer wants are in conflict. */
      smallest: boolean
      models: number
    }
  /** Not everything can be met, and no more was asked. */
  | { kind: 'impossible'; models: number }
  /** Nothing was found within the limits; whether there is something is not known. */
  | { kind: 'unknown'; bound: number; models: number }

/** Of what follows the finish, what is proved of the filling; each of those that agree in all before it. */
export interface NoneBetter {
  /** No filling has fewer terms with too many hours or too few credits. */
  findings: boolean
  /** The courses of none suit better by more than two in a hundred of what speaks for and against them. */
  courses: boolean
  /** No other laying of the same courses is better by more than one in a thousand. */
  laying: boolean
}

/** What is wrong with a filling that the model cannot know: found by reading the route anew with it. */
export interface Faults {
  notTogether: readonly NotTogether[]
  barred: readonly NotTogether[]
  /** Wants that the reading leaves open, by number, and how much they miss. */
  more: ReadonlyMap<number, number>
}

export interface FillEffort {
  solve: Solve
  /** Looks at a filling as the route checks and the audit do. */
  inspect?: (filling: Filling) => Faults
  /** Looks for nothing less than everything. */
  wholeOnly?: boolean
  /** Told after each model how many there were, and the finish of the first filling. */
  told?: (models: number, finish?: number) => void
}
