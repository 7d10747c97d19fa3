export {
  COMMON_SCALE,
  GRADE_RESULTS,
  GradeScale,
  hundredths,
  scaleOf,
  type GradedAttempt,
  type GradeMeaning,
  type GradeSpec,
  type GradeTotals
} from './scale'
