export {
  COMMON_SCALE,
  GradeScale,
  type GradedAttempt,
  type GradeMeaning,
  type GradeSpec,
  type GradeTotals
} from './scale'
