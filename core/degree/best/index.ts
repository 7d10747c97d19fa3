export {
  compareOpens,
  NOWHERE,
  weightIn,
  type Cap,
  type Opens,
  type Piece,
  type Problem,
  type Share,
  type Want
} from './problem'
export { solve, STATES, type Alternative, type Choice, type Reading } from './solve'
