export {
  compareOpens,
  demandLabels,
  firmestDemands,
  isMet,
  membersOf,
  POSSIBLE,
  NOWHERE,
  weightIn,
  type Cap,
  type Demand,
  type Opens,
  type Piece,
  type Problem,
  type Share,
  type Want
} from './problem'
export { solve, STATES, type Alternative, type Choice, type Reading } from './solve'
export { scoreOf } from './labels'
