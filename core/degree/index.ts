export { assign, fit, type Assignment, type Refused } from './assign'
export {
  NO_AMOUNTS,
  addAmounts,
  auditProgram,
  type Amounts,
  type AreaResult,
  type Audit,
  type NeedResult,
  type NeedState,
  type OutsideCourse
} from './audit'
export { candidatesFor, needsServedBy, type Candidate } from './candidates'
export { parseCourseSet, type CourseSet } from './courseSet'
export { GRADES, gradeAtLeast, gradeMeaning, gradePointAverage, isGrade } from './grades'
export {
  compileProgram,
  takes,
  type AreaSpec,
  type Need,
  type NeedSpec,
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
