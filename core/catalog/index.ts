export {
  Catalog,
  numberOf,
  runsIn,
  subjectOf,
  usuallyRuns,
  type Course,
  type OfferingPattern,
  type StudyLevel
} from './course'
export { byStart, phaseOf, type Season, type Session, type Term, type TermPhase } from './term'
