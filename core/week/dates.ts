/**
 * The kinds of dates that a weekday has in a term: which meetings take place together. Classes of two halves
 * share no date; a class on a single date has one with all that meet on it every week.
 */
import { WEEKDAYS, type Weekday } from '../time'
import { datesOf, type Holidays, type Meeting } from './meeting'

/**
 * By weekday, for each meeting the numbers of the kinds of dates on which it takes place there, from 0 on and in
 * order; empty where it does not. Meetings that take place together on some date have a number in common. Alike
 * lists are one and the same array.
 */
export function kindsOfDates(
  meetings: readonly Meeting[],
  holidays: Holidays
): ReadonlyMap<Weekday, readonly (readonly number[])[]> {
  const alike = new Map<string, readonly number[]>()
  return new Map(
    WEEKDAYS.map((day) => {
      const onDate = new Map<number, number[]>()
      meetings.forEach((meeting, m) => {
        if (!meeting.days.includes(day)) return
        for (const date of datesOf({ ...meeting, days: [day] }, holidays)) {
          const there = onDate.get(date)
          if (there) there.push(m)
          else onDate.set(date, [m])
        }
      })
      const found: number[][] = meetings.map(() => [])
      const together = new Map([...onDate.values()].map((list) => [list.join(), list]))
      ;[...together.values()].forEach((list, kind) => list.forEach((m) => found[m]!.push(kind)))
      const kinds = found.map((list) => {
        const name = list.join()
        if (!alike.has(name)) alike.set(name, list)
        return alike.get(name)!
      })
      return [day, kinds] as const
    })
  )
}

/**
 * What a day of a term comes to: the most that it is on one of its dates. `parts` are what a weekday has, each
 * with its kinds of dates, not empty.
 */
export function onWorstDate<T extends { kinds: readonly number[] }>(
  parts: readonly T[],
  measure: (together: readonly T[]) => number
): number {
  const [first] = parts
  if (!first) return 0
  if (parts.every((one) => one.kinds === first.kinds)) return measure(parts)
  let most = 0
  for (const kind of new Set(parts.flatMap((one) => one.kinds)))
    most = Math.max(most, measure(parts.filter((one) => one.kinds.includes(kind))))
  return most
}
