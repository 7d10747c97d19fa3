export { fillMending, type FillAnswer, type Filling } from './fill'
export { type FillProblem } from './problem'
export { fillQuestion, plannedOf, type FillQuestion, type FillWish } from './question'
