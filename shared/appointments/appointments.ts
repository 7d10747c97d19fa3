/** Appointments of students with their advisors, the hours that advisors offer, and records of talks. */
import type { Away, OfferedSlot, OfferedTime } from '#core/appointments'
import type { Instant, IsoDate } from '#core/time'

/** `invited`: the student is to answer; the first two take their time. */
export const APPOINTMENT_STATES = ['invited', 'booked', 'declined', 'cancelled'] as const
export const TALKED_HOW = ['inPerson', 'byPhone', 'byVideo', 'byMail'] as const

export interface AppointmentView {
  id: number
  student: { id: number; name: string }
  advisor: { id: number; name: string }
  startsAt: Instant
  endsAt: Instant
  place: string
  about: string | null
  bring: string | null
  state: (typeof APPOINTMENT_STATES)[number]
  /** Who changed it last, and what they said when they declined or cancelled it. */
  changedBy: string
  words: string | null
}

/** Days away, with the advisor who stands in. */
export interface AwayTime extends Away {
  standIn: { id: number; name: string } | null
}

/** An advisor's hours as they offer them, and who comes. */
export interface HoursView {
  times: OfferedTime[]
  away: AwayTime[]
  /** Of the private calendar address; null while there is none. */
  calendarKey: string | null
  /** Those to come, in order. */
  appointments: AppointmentView[]
}

/** Slots of an advisor that a student could book. */
export interface FreeTimes {
  slots: OfferedSlot[]
}

export interface TalkRecordView {
  id: number
  by: string
  on: IsoDate
  how: (typeof TALKED_HOW)[number]
  summary: string
}

/** Whether an appointment takes its time. */
export const isActive = ({ state }: Pick<AppointmentView, 'state'>): boolean =>
  state === 'invited' || state === 'booked'
