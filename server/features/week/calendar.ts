/**
 * Classes as iCalendar (RFC 5545): each meeting of a section is one event that repeats weekly on its days until its
 * last date, without the holidays, in the zone of the institution, which comes with its rules.
 */
import ical, { ICalAlarmType, ICalEventStatus } from 'ical-generator'
import { DateTime } from 'luxon'
import { tzlib_get_ical_block } from 'timezones-ical-library'
import {
  dayNumber,
  isoDate,
  weekdayOf,
  type Instant,
  type IsoDate,
  type Minutes,
  type Weekday
} from '#core/time'
import { datesOf, type Holidays, type Section } from '#core/week'
import { KIND_WORDS } from '#shared/words'

/** An appointment as a calendar shows it. */
export interface CalendarAppointment {
  id: number
  sequence: number
  title: string
  startsAt: Instant
  endsAt: Instant
  place: string
  description: string
  /** Invited to, and not answered. */
  isOpen: boolean
}

export interface CalendarClass {
  section: Section
  title: string
  campus: string
  /** A seat is held; otherwise it is only picked. */
  held: boolean
}

const DAYS: Record<Weekday, string> = { 1: 'MO', 2: 'TU', 3: 'WE', 4: 'TH', 5: 'FR', 6: 'SA', 7: 'SU' }

export function classCalendar(
  name: string,
  classes: readonly CalendarClass[],
  {
    zone,
    holidays,
    now,
    appointments = []
  }: { zone: string; holidays: Holidays; now: Instant; appointments?: readonly CalendarAppointment[] }
): string {
  const calendar = ical({ name, prodId: { company: 'Ridgeway', product: 'Classes', language: 'EN' } })
  const at = (date: IsoDate, minute: Minutes) =>
    DateTime.fromISO(date, { zone }).set({ hour: Math.floor(minute / 60), minute: minute % 60 })
  for (const { section, title, campus, held } of classes) {
    section.meetings.forEach((meeting, i) => {
      const [first] = datesOf(meeting, holidays)
      if (first === undefined) return
      const start = at(isoDate(first), meeting.start)
      const kind = section.kind === 'lecture' ? '' : ` ${KIND_WORDS[section.kind]}`
      calendar.createEvent({
        id: `${section.code}-${i + 1}@ridgeway`,
        stamp: new Date(now),
        summary: `${section.course}${kind} ${title}`.trim() + (held ? '' : ' (picked, no seat yet)'),
        start,
        end: at(isoDate(first), meeting.end),
        timezone: zone,
        location: [meeting.room, campus].filter(Boolean).join(', '),
        description: [
          `Section ${section.number}, code ${section.code}`,
          section.topic,
          section.instructors.join(', ')
        ]
          .filter(Boolean)
          .join('\n'),
        status: held ? ICalEventStatus.CONFIRMED : ICalEventStatus.TENTATIVE,
        ...(meeting.from === meeting.to
          ? {}
          : {
              repeating: repetition(
                meeting,
                at(meeting.to, meeting.end),
                excluded(meeting, first, holidays).map((day) => at(isoDate(day), meeting.start))
              )
            })
      })
    })
  }
  addAppointments(calendar, appointments, now)
  // The zone's rules stand before the first event; where there is none they are not needed.
  const text = calendar
    .toString()
    .replace('BEGIN:VEVENT', () => `${tzlib_get_ical_block(zone)[0]!}\r\nBEGIN:VEVENT`)
  return `${text}\r\n`
}

/** The appointments of an advisor. */
export function appointmentCalendar(
  name: string,
  appointments: readonly CalendarAppointment[],
  now: Instant
): string {
  const calendar = ical({ name, prodId: { company: 'Ridgeway', product: 'Appointments', language: 'EN' } })
  addAppointments(calendar, appointments, now)
  return `${calendar.toString()}\r\n`
}

const ALARM_BEFORE_S = 15 * 60

/** Each is one event at instants in UTC, with an alarm; a change counts its sequence up (RFC 5545, 3.8.7.4). */
function addAppointments(
  calendar: ReturnType<typeof ical>,
  appointments: readonly CalendarAppointment[],
  now: Instant
): void {
  for (const { id, sequence, title, startsAt, endsAt, place, description, isOpen } of appointments)
    calendar.createEvent({
      id: `appointment-${id}@ridgeway`,
      sequence,
      stamp: new Date(now),
      summary: title + (isOpen ? ' (to be answered)' : ''),
      start: new Date(startsAt),
      end: new Date(endsAt),
      location: place,
      description,
      status: isOpen ? ICalEventStatus.TENTATIVE : ICalEventStatus.CONFIRMED,
      alarms: [{ type: ICalAlarmType.display, trigger: ALARM_BEFORE_S, description: title }]
    })
}

/** Where an event begins in a zone, its repetition ends at an instant in UTC, and what is left out is local again. */
function repetition({ days }: Section['meetings'][number], until: DateTime, exclude: DateTime[]): string {
  const rule = `RRULE:FREQ=WEEKLY;UNTIL=${until.toUTC().toFormat(BASIC)}Z;BYDAY=${days.map((day) => DAYS[day]).join()}`
  if (!exclude.length) return rule
  return `${rule}\r\nEXDATE;TZID=${until.zoneName}:${exclude.map((one) => one.toFormat(BASIC)).join()}`
}
const BASIC = "yyyyMMdd'T'HHmmss"

/** The holidays on which a meeting would take place. */
function excluded({ days, to }: Section['meetings'][number], first: number, holidays: Holidays): number[] {
  return [...holidays]
    .filter((day) => day > first && day <= dayNumber(to) && days.includes(weekdayOf(day)))
    .sort((a, b) => a - b)
}
