export { clashOf, datesOf, weeklyMinutes, type Clash, type Holidays, type Meeting } from './meeting'
export {
  clashesWith,
  figuresOf,
  meetingsOf,
  optionsAmong,
  seatsAmong,
  seatsLeft,
  sectionsOf,
  studyHours,
  type ComponentKind,
  type Mode,
  type Option,
  type OptionClash,
  type Section,
  type WeekFigures
} from './option'
export { ribbonOf, type Bar, type Ribbon } from './ribbon'
