/**
 * Filling as a mixed-integer linear model, in the form that general solvers settle quickly.
 *
 * `x` is 1 where a course is taken in a term, `z` where a piece counts toward a want, `a` where a branch is
 * chosen. A course stands after what it needs by cumulative rows: taken by term t only if what it needs is
 * taken before t; of alternatives their sum, of several needs a row each (Bowman 1959, in the tightened form
 * usual in project scheduling). Credits reached are a variable for each amount and term, which once 1 stays 1.
 * Everything is linear, so a course that counts, counts once in its layer, whatever was earned before.
 */
import type { Sum } from './linear'
import type { NotTogether } from './problem'

export interface ModelOptions {
  /** The last term that may be used. */
  last: number
  notTogether: readonly NotTogether[]
  /** Courses kept out of a term. */
  barred: readonly NotTogether[]
  /** What each want may fall short of; a want that may fall short at a price has it as a variable. */
  short?: readonly number[]
  /** Placed courses whose own rule may stay unmet. */
  unmended: ReadonlySet<number>
}

/** The variable that is 1 where course `c` is taken in term `t`. */
export const at = (c: number, t: number) => `x${c}_${t}`
export const shortOf = (w: number) => `s${w}`

/** A sum of variables, and what stands in it already. */
export interface Affine {
  sum: Sum
  constant: number
}

export const times = (factor: number, sum: Sum): Sum => sum.map(([f, name]) => [f * factor, name] as const)
