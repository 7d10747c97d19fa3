export {
  deadlines,
  isAlive,
  officeTerm,
  takesPlans,
  termStandings,
  workingTerm,
  type Adding,
  type CalendarPerson,
  type CalendarTerm,
  type Moment,
  type TermStanding,
  type TermState
} from './lifecycle'
export {
  daysLater,
  hourDaysLater,
  inNextYear,
  isoWeekOf,
  isoWeeksIn,
  weeksToNextYear,
  wholeWeeksBetween
} from './nextYear'
export { dateFaults, overlap, type DateFault, type SessionPlan, type TermDates } from './termDates'
