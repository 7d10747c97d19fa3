export {
  COMMON_SCALE,
  GradeScale,
  hundredths,
  scaleOf,
  type GradedAttempt,
  type GradeMeaning,
  type GradeSpec,
  type GradeTotals
} from './scale'
