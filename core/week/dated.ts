/** The real weeks of a term: which class meets on which date. */
import type { DayNumber, IsoDate } from '../time'
import { dayNumber } from '../time'
import { mondayOf } from './figures'
import { datesOf, type Holidays, type Meeting } from './meeting'
import type { Section } from './option'

export interface DatedClass {
  day: DayNumber
  section: Section
  meeting: Meeting
}

/** Every class on its date, from `from` until `to` inclusive, in order of date and hour. */
export function classesBetween(
  sections: readonly Section[],
  from: DayNumber,
  to: DayNumber,
  holidays: Holidays
): DatedClass[] {
  return sections
    .flatMap((section) =>
      section.meetings.flatMap((meeting) =>
        datesOf(meeting, holidays)
          .filter((day) => day >= from && day <= to)
          .map((day) => ({ day, section, meeting }))
      )
    )
    .sort((a, b) => a.day - b.day || a.meeting.start - b.meeting.start)
}

/** Mondays of the weeks that a term touches. */
export function weeksOfTerm({ start, end }: { start: IsoDate; end: IsoDate }): DayNumber[] {
  const mondays: DayNumber[] = []
  for (let monday = mondayOf(dayNumber(start)); monday <= dayNumber(end); monday += 7) mondays.push(monday)
  return mondays
}

/** The Monday to open on: of this week within the term, of its last week after it, else of its first full one. */
export function weekToOpen(term: { start: IsoDate; end: IsoDate }, today: DayNumber): DayNumber {
  const first = dayNumber(term.start)
  if (today > dayNumber(term.end)) return mondayOf(dayNumber(term.end))
  if (today >= first) return mondayOf(today)
  return mondayOf(first) === first ? first : mondayOf(first) + 7
}
