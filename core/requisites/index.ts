export {
  assumedLeaves,
  coursesIn,
  evaluateRule,
  leavesOf,
  missingPart,
  splitMissing,
  type AsOf,
  type LeafResult,
  type RuleResult
} from './evaluate'
export {
  isBranch,
  leastOf,
  someOf,
  STANDINGS,
  parseRule,
  readCourse,
  readGrade,
  ruleOf,
  type Rule,
  type Branch,
  type RuleLeaf,
  type Standing
} from './rule'
export { standingBy, standingCredits } from './standing'
