/** Figures of a typical week, and what each real week of a term asks. */
import { dayNumber, weekdayOf, type DayNumber, type IsoDate, type Minutes } from '../time'
import { datesOf, weeklyMinutes, type Holidays, type Meeting } from './meeting'
import type { Section } from './option'

export interface WeekFigures {
  days: number
  firstStart: Minutes | null
  lastEnd: Minutes | null
  /** Minutes between classes over a typical week, halves taken together. */
  between: Minutes
  classMinutes: Minutes
  /** Changes from one campus to another over the days of a week. */
  campusChanges: number
}

/** Figures of a typical week. Classes at the same time are counted once toward the time between. */
export function figuresOf(sections: readonly Section[]): WeekFigures {
  const meetings = sections.flatMap((section) => section.meetings).filter((m) => m.from !== m.to)
  const byDay = new Map<number, Meeting[]>()
  for (const meeting of meetings) {
    for (const day of meeting.days) byDay.set(day, [...(byDay.get(day) ?? []), meeting])
  }
  const online = new Set<Meeting>(
    sections.filter((one) => one.mode === 'onlineHours').flatMap((one) => one.meetings)
  )
  let between = 0
  let campusChanges = 0
  for (const list of byDay.values()) {
    let until: number | undefined
    let campus: string | undefined
    for (const meeting of list.sort((a, b) => a.start - b.start)) {
      if (until !== undefined) between += Math.max(0, meeting.start - until)
      until = Math.max(until ?? 0, meeting.end)
      if (online.has(meeting)) continue
      if (campus !== undefined && meeting.campus !== campus) campusChanges++
      campus = meeting.campus
    }
  }
  return {
    days: byDay.size,
    firstStart: meetings.length ? Math.min(...meetings.map((m) => m.start)) : null,
    lastEnd: meetings.length ? Math.max(...meetings.map((m) => m.end)) : null,
    between,
    classMinutes: meetings.reduce((sum, meeting) => sum + weeklyMinutes(meeting), 0),
    campusChanges
  }
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
