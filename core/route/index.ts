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
export { checkRoute, termFindings } from './checks'
export {
  blockers,
  contextAfter,
  countedOn,
  plan,
  termHours,
  termLoad,
  termsToPlan,
  type Blocker,
  type RouteContext
} from './context'
export { rebase, type Rebased, type RebaseFault } from './rebase'
export { climbOf, routeFinish, type Climb, type ClimbPoint } from './climb'
export { Offered, type NoSection, type NoWeek, type OfferedTo, type TermOffer } from './offered'
export { paceOf, programPace, type Pace } from './pace'
export { termResult, type TermResult } from './results'
export { alignSequence, type Aligned } from './sequence'
export { slackOf, type Slack } from './slack'
