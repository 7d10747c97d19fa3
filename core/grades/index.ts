export {
  COMMON_SCALE,
  GradeScale,
  scaleOf,
  type GradedAttempt,
  type GradeMeaning,
  type GradeSpec,
  type GradeTotals
} from './scale'
