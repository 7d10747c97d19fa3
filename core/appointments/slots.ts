/** Times that an advisor offers, cut into slots that can be booked. */
import {
  dayNumber,
  isoDate,
  weekdayOf,
  type DayNumber,
  type IsoDate,
  type Minutes,
  type Weekday
} from '../time'

/** Hours offered every week on a weekday, or once on a date; half-open, in minutes of the day on campus. */
export type OfferedTime = {
  start: Minutes
  end: Minutes
  /** Of one slot, in minutes. */
  length: Minutes
  /** A room, or a link. */
  place: string
} & (
  | { weekday: Weekday; on: null; from: IsoDate | null; until: IsoDate | null }
  | { weekday: null; on: IsoDate; from: null; until: null }
)

/** Dates on which nothing is offered, both included. */
export interface Away {
  from: IsoDate
  to: IsoDate
}

/** A part of a day, half-open, in minutes of the day on campus. */
export interface Slot {
  date: IsoDate
  start: Minutes
  end: Minutes
}
export interface OfferedSlot extends Slot {
  place: string
}

/** Whether two parts of days overlap; one that ends when the other begins does not. */
export const overlap = (one: Slot, other: Slot): boolean =>
  one.date === other.date && one.start < other.end && other.start < one.end

/**
 * Slots that can be booked, in order: of every offered time as many as fit from its beginning, without those on days
 * away, those that have begun and those that overlap with what is taken. Of two that begin together the first offered counts.
 * @param after the moment on campus; what begins at it or before is over
 * @param to the last date, included
 */
export function slotsOf(
  offered: readonly OfferedTime[],
  {
    after,
    to,
    away,
    holidays,
    taken
  }: {
    after: { date: IsoDate; minute: Minutes }
    to: IsoDate
    away: readonly Away[]
    /** On them nothing is offered every week; what is offered for such a date is. */
    holidays: ReadonlySet<IsoDate>
    taken: readonly Slot[]
  }
): OfferedSlot[] {
  const found = new Map<string, OfferedSlot>()
  const last = dayNumber(to)
  for (let day = dayNumber(after.date); day <= last; day++) {
    const date = isoDate(day)
    if (away.some((one) => one.from <= date && date <= one.to)) continue
    for (const time of offered) {
      if (!isOffered(time, day, date, holidays)) continue
      for (const slot of cut(time, date)) {
        const isAhead = date > after.date || slot.start > after.minute
        const key = `${date} ${String(slot.start).padStart(4, '0')}`
        if (isAhead && !found.has(key) && !taken.some((one) => overlap(one, slot))) found.set(key, slot)
      }
    }
  }
  return [...found.entries()].sort(([one], [other]) => (one < other ? -1 : 1)).map(([, slot]) => slot)
}

function isOffered(
  time: OfferedTime,
  day: DayNumber,
  date: IsoDate,
  holidays: ReadonlySet<IsoDate>
): boolean {
  if (time.on !== null) return time.on === date
  if (time.weekday !== weekdayOf(day) || holidays.has(date)) return false
  return (time.from === null || time.from <= date) && (time.until === null || date <= time.until)
}

function cut({ start, end, length, place }: OfferedTime, date: IsoDate): OfferedSlot[] {
  const slots: OfferedSlot[] = []
  for (let at = start; at + length <= end; at += length)
    slots.push({ date, start: at, end: at + length, place })
  return slots
}
