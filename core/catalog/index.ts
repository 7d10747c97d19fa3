export {
  Catalog,
  nextRun,
  letterOf,
  numberOf,
  placeOfNumber,
  readCourseNumber,
  usualYearLevel,
  runsIn,
  subjectOf,
  usuallyRuns,
  type Course,
  type CourseNumber,
  type OfferingPattern,
  type RunGround,
  type StudyLevel
} from './course'
export { byStart, phaseOf, SEASONS, type Season, type Session, type Term, type TermPhase } from './term'
