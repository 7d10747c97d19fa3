export { fill, type Faults, type FillAnswer, type FillEffort, type NoneBetter } from './fill'
export { LinearModel, type Limits, type Solve, type Solved } from './linear'
export { NOT_TAKEN, type Filling, type FillProblem, type NotTogether } from './problem'
export { fillQuestion, plannedOf, type FillQuestion, type FillWish } from './question'
