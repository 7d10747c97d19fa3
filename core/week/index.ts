export {
  barriersOf,
  optionsFor,
  PERMISSION_KINDS,
  permits,
  sectionsFor,
  type Barrier,
  type PermissionKind,
  type Permissions,
  type SectionTaker
} from './access'
export { classesBetween, weeksOfTerm, weekToOpen, type DatedClass } from './dated'
export { kindsOfDates, onWorstDate } from './dates'
export { figuresOf, loadByWeek, mondayOf, studyHours, type WeekFigures, type WeekLoad } from './figures'
export { clashOf, datesOf, sharesClash, type Clash, type Holidays, type Meeting } from './meeting'
export {
  clashesWith,
  keptForOthers,
  seatsFor,
  meetingsOf,
  missingParts,
  optionsAmong,
  seatsAmong,
  seatsLeft,
  sectionsOf,
  type ComponentKind,
  MODES,
  type Mode,
  type Option,
  type OptionClash,
  type ReservedSeats,
  type Section
} from './option'
export { repairOf, type Repair } from './repair'
export { ribbonOf, type Bar, type Ribbon } from './ribbon'
export { asPicked, changesSince, type AsPicked, type SincePicked } from './since'
export { shortWays, type ShortWay, type Travel } from './travel'
