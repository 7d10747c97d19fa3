export { asOfTerm, type StudentFacts } from './asOf'
export {
  applyChange,
  coursesBefore,
  coursesTouched,
  differenceOf,
  historyOf,
  inverse,
  singles,
  termsTouched,
  type ChangeFault,
  type Changed,
  type PlanDifference,
  type Step
} from './change'
export {
  checkRoute,
  countedOn,
  obstacles,
  plan,
  termHours,
  termLoad,
  type Obstacle,
  type RouteContext
} from './checks'
export { climbOf, type Climb, type ClimbPoint } from './climb'
export { termResult, type TermResult } from './results'
export { alignSequence, type Aligned } from './sequence'
export { slackOf, type Slack } from './slack'
