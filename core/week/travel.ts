/** Ways from one campus to another that are longer than the time between two classes. */
import type { Minutes, Weekday } from '../time'
import { sharesDate, type Holidays } from './meeting'
import type { Section } from './option'

/** Minutes from one campus to another; undefined where none is known, as for what is online. */
export type Travel = (from: string, to: string) => Minutes | undefined

export interface ShortWay {
  day: Weekday
  /** The class before and the one after. */
  from: Section
  to: Section
  /** When the first ends, when the second starts. */
  leave: Minutes
  arrive: Minutes
  /** Minutes the way takes. */
  takes: Minutes
}

/** Every pair of classes of a day that are too near in time for their campuses, by day and hour. */
export function shortWays(sections: readonly Section[], travel: Travel, holidays: Holidays): ShortWay[] {
  const found: ShortWay[] = []
  const classes = sections
    .filter((section) => section.mode !== 'onlineHours')
    .flatMap((section) => section.meetings.map((meeting) => ({ section, meeting })))
  for (const { section: from, meeting: a } of classes) {
    for (const { section: to, meeting: b } of classes) {
      if (b.start < a.end) continue
      const takes = travel(a.campus, b.campus)
      if (takes === undefined || b.start - a.end >= takes) continue
      for (const day of a.days) {
        if (b.days.includes(day) && sharesDate(a, b, day, holidays))
          found.push({ day, from, to, leave: a.end, arrive: b.start, takes })
      }
    }
  }
  return found.sort((x, y) => x.day - y.day || x.leave - y.leave)
}
