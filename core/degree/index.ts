export {
  NO_AMOUNTS,
  addAmounts,
  auditAll,
  auditProgram,
  type Amounts,
  type AreaResult,
  type Audit,
  type NeedResult,
  type NeedState,
  type OutsideCourse
} from './audit'
export { explain, type Elsewhere, type Explanation } from './explain'
export { type Refused } from './place'
export { candidatesFor, needsServedBy, type Candidate } from './candidates'
export { parseCourseSet, type CourseSet } from './courseSet'
export { averageNeeded, gradedAttempts, paceOfProgress, type Forecast } from './forecast'
export { GRADES, gradeAtLeast, gradeMeaning, gradePointAverage, gradeTotals, isGrade } from './grades'
export {
  areaCredits,
  compileProgram,
  isChoice,
  takes,
  type AreaSpec,
  type ChoiceSpec,
  type Need,
  type NeedSpec,
  type RequirementSpec,
  type Program,
  type ProgramKind,
  type ProgramSpec
} from './program'
export {
  FIRMNESS,
  takingsOf,
  type Firmness,
  type HeldSeat,
  type IdleAttempt,
  type PlannedCourse,
  type RecordEntry,
  type Taking,
  type TakingInput,
  type Takings
} from './taking'
