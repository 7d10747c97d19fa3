export {
  WEEKDAYS,
  dayNumber,
  isoDate,
  minutes,
  weekdayOf,
  type CivilTime,
  type DayNumber,
  type Instant,
  type IsoDate,
  type Minutes,
  type Weekday
} from './civil'
