export { asOfTerm, type StudentFacts } from './asOf'
export { applyChange, inverse, termsTouched, type ChangeFault, type Changed } from './change'
export { checkRoute, obstacles, termLoad, type Obstacle, type RouteContext } from './checks'
export { climbOf, type Climb, type ClimbPoint } from './climb'
