export { fillMending, type FillAnswer, type FillEffort, type Filling } from './fill'
export { type FillProblem } from './problem'
export { fillQuestion, plannedOf, type FillQuestion, type FillWish } from './question'
