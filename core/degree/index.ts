export {
  auditAll,
  auditProgram,
  auditRecord,
  type AreaResult,
  type Audit,
  type AuditOptions,
  type LimitResult,
  type OutsideCourse
} from './audit'
export { addAmounts, NO_AMOUNTS, type Amounts, type NeedResult, type NeedState } from './needResult'
export { isTooLow } from './fit'
export { explain, type Elsewhere, type Explanation } from './explain'
export { type Alternative, type Problem as ReadingProblem, weightIn } from './best'
export type { Refused } from './place'
export { questionOf } from './question'
export { candidatesFor, type Candidate, type CandidateQuestion, type Candidates } from './candidates'
export { servingOf, type Serving, type ServingQuestion } from './serving'
export { compileProgram, ProgramError, type CompileOptions } from './compile'
export { NOTHING_BESIDE, type BesideCourses, type ConditionResult, type ConditionSpec } from './conditions'
export { parseCourseSet, type CourseLists, type CourseSet, type HeldAs } from './courseSet'
export { type ExceptionGrant } from './exceptions'
export {
  averageNeeded,
  enrolmentOf,
  FULL_TIME,
  gradedAttempts,
  type CourseAttempt,
  paceOfProgress,
  type Enrolment,
  type Forecast
} from './forecast'
export { recordTerms, type RecordLine, type RecordTerm } from './recordTerms'
export {
  areaCredits,
  isChoice,
  takes,
  type AreaSpec,
  type ChoiceSpec,
  type EntrySpec,
  type Need,
  type MostSpec,
  type NeedSpec,
  type RequirementSpec,
  type Program,
  type ProgramKind,
  type ProgramSpec,
  type SlotSpec
} from './program'
export {
  allAttempts,
  STATUS_ORDER,
  type Apart,
  type AttemptStatus,
  type HeldSeat,
  type IdleAttempt,
  type PlannedCourse,
  type RecordEntry,
  type RepeatPolicy,
  type Attempt,
  type AttemptInput,
  type Attempts
} from './attempt'
export { attemptsOf } from './attemptList'
