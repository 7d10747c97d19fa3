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
