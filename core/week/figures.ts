/** Figures of a week, and what each real week of a term asks. */
import { dayNumber, weekdayOf, type DayNumber, type IsoDate, type Minutes } from '../time'
import { kindsOfDates, onWorstDate } from './dates'
import { datesOf, type Holidays, type Meeting } from './meeting'
import type { Section } from './option'

/** Each weekday is what it is on the worst of its dates, so that the halves of a term do not add up. */
export interface WeekFigures {
  /** Weekdays with a class on some date. */
  days: number
  firstStart: Minutes | null
  lastEnd: Minutes | null
  /** Minutes between classes, the weekdays together. */
  between: Minutes
  /** Minutes in class, the weekdays together; and those of the fullest one. */
  classMinutes: Minutes
  fullest: Minutes
  /** Changes from one campus to another, the weekdays together. */
  campusChanges: number
}

/** Figures of a week. Classes at the same time are counted once toward the time between. */
export function figuresOf(sections: readonly Section[], holidays: Holidays = new Set()): WeekFigures {
  const classes = sections.flatMap(({ mode, meetings }) =>
    meetings.map((meeting) => ({ meeting, online: mode === 'onlineHours' }))
  )
  const kinds = kindsOfDates(
    classes.map((one) => one.meeting),
    holidays
  )
  const days = [...kinds.values()]
    .map((ofDay) =>
      classes.flatMap(({ meeting, online }, m) =>
        ofDay[m]!.length ? [{ ...meeting, online, kinds: ofDay[m]! }] : []
      )
    )
    .filter((parts) => parts.length)
  const all = days.flat()
  const worst = (measure: (together: readonly DayClass[]) => number) =>
    days.map((parts) => onWorstDate(parts, measure))
  const minutes = worst((together) => sum(together.map(({ start, end }) => end - start)))
  return {
    days: days.length,
    firstStart: all.length ? Math.min(...all.map((m) => m.start)) : null,
    lastEnd: all.length ? Math.max(...all.map((m) => m.end)) : null,
    between: sum(worst(minutesBetween)),
    classMinutes: sum(minutes),
    fullest: Math.max(0, ...minutes),
    campusChanges: sum(worst(changesOf))
  }
}

interface DayClass extends Meeting {
  online: boolean
  kinds: readonly number[]
}

const sum = (list: readonly number[]) => list.reduce((total, one) => total + one, 0)

function minutesBetween(together: readonly DayClass[]): Minutes {
  let between = 0
  let until: number | undefined
  for (const { start, end } of together.toSorted((a, b) => a.start - b.start)) {
    if (until !== undefined) between += Math.max(0, start - until)
    until = Math.max(until ?? 0, end)
  }
  return between
}

function changesOf(together: readonly DayClass[]): number {
  const campuses = together
    .filter((one) => !one.online)
    .toSorted((a, b) => a.start - b.start)
    .map((one) => one.campus)
  return campuses.filter((campus, i) => i > 0 && campus !== campuses[i - 1]).length
}

/**
 * Weekly hours outside class: two for each credit (34 CFR 600.2), twice that while a course runs in
 * half a term. Hours per week of the fullest part of the term.
 */
export function studyHours(courses: readonly { credits: number; half: Section['half'] }[]): number {
  const week = (half: 'first' | 'second') =>
    courses.reduce(
      (sum, c) => sum + (c.half === 'full' || c.half === 'other' ? 2 : c.half === half ? 4 : 0) * c.credits,
      0
    )
  return Math.max(week('first'), week('second'))
}

export interface WeekLoad {
  /** Monday of the week. */
  monday: DayNumber
  classMinutes: Minutes
  studyHours: number
}

/**
 * What each week of a term asks: minutes in class on its real dates, and hours of study for the courses that run in
 * it. The study of a course is two hours for each hour in class that its credits stand for over a term of `weeks`
 * (34 CFR 600.2), spread over the weeks in which the course runs: in half of them it is twice as much a week.
 */
export function loadByWeek(
  sections: readonly Section[],
  { start, end, holidays }: { start: IsoDate; end: IsoDate; holidays: Holidays },
  runOf: (section: Section) => { start: IsoDate; end: IsoDate }
): WeekLoad[] {
  const first = mondayOf(dayNumber(start))
  const weeks = Math.floor((dayNumber(end) - first) / 7) + 1
  const loads = Array.from({ length: weeks }, (_, i): WeekLoad => {
    return { monday: first + 7 * i, classMinutes: 0, studyHours: 0 }
  })
  for (const section of sections) {
    for (const meeting of section.meetings) {
      for (const day of datesOf(meeting, holidays)) {
        const load = loads[Math.floor((day - first) / 7)]
        if (load) load.classMinutes += meeting.end - meeting.start
      }
    }
    if (section.parent !== null) continue
    const run = runOf(section)
    const from = Math.max(0, Math.floor((dayNumber(run.start) - first) / 7))
    const until = Math.min(weeks - 1, Math.floor((dayNumber(run.end) - first) / 7))
    const share = (STUDY_A_CREDIT * section.credits * weeks) / (until - from + 1)
    for (let week = from; week <= until; week++) loads[week]!.studyHours += share
  }
  return loads
}
/** Hours of study a week for each credit (34 CFR 600.2). */
const STUDY_A_CREDIT = 2

/** The Monday of a day's week. */
export function mondayOf(day: DayNumber): DayNumber {
  return day - (weekdayOf(day) - 1)
}
