/**
 * The week lying on its side: days are rows, hours run across.
 *
 *     |        9        10        11
 *     | Mon    [ full height    ]
 *     | Tue    [ first half     ]           upper lane
 *     |             [ second half    ]      lower lane
 *
 * A bar takes the full height of its row, or one half of it for a session of half a term. What meets on other dates
 * than the term's, or on a single one, takes the half in which it falls. Bars that would cover each other share the
 * height in lanes, earliest first, so that any number stays legible.
 */
import { dayNumber, WEEKDAYS, type IsoDate, type Minutes, type Weekday } from '../time'
import type { Meeting } from './meeting'
import type { Section } from './option'

export interface Bar<T extends Section = Section> {
  section: T
  day: Weekday
  start: Minutes
  end: Minutes
  room: string | null
  /** Upper and lower edge within the row, 0 to 1. */
  top: number
  height: number
  /** The first date. */
  from: IsoDate
  /** The only date of a meeting that takes place once. */
  once: IsoDate | null
}

export interface Ribbon<T extends Section = Section> {
  days: Weekday[]
  /** Whole hours, in minutes: first class rounded down, last class rounded up. */
  from: Minutes
  to: Minutes
  bars: Bar<T>[]
  /** The most lanes that a day needs in the full height of its row, by day. */
  lanes: ReadonlyMap<Weekday, number>
  /** Sections without set hours. */
  unscheduled: T[]
}

export interface RibbonScale {
  /** Hours to show at least. */
  from: Minutes
  to: Minutes
  /** First and last date of the term; without it what is dated otherwise takes the full height. */
  term?: { start: IsoDate; end: IsoDate } | undefined
}

const USUAL = { from: 8 * 60, to: 18 * 60 }

/** Monday to Friday from 8 to 18 at least; further days and hours when something is there. */
export function ribbonOf<T extends Section>(sections: readonly T[], scale: RibbonScale = USUAL): Ribbon<T> {
  const bars = sections.flatMap((section) =>
    section.meetings.flatMap((meeting) =>
      meeting.days.map((day): Bar<T> => {
        const lane = laneOf(section, meeting, scale.term)
        return {
          section,
          day,
          start: meeting.start,
          end: meeting.end,
          room: meeting.room,
          top: lane === 'second' ? 0.5 : 0,
          height: lane === 'full' ? 1 : 0.5,
          from: meeting.from,
          once: meeting.from === meeting.to ? meeting.from : null
        }
      })
    )
  )
  const days = WEEKDAYS.filter((day) => day <= 5 || bars.some((bar) => bar.day === day))
  const lanes = new Map<Weekday, number>()
  for (const day of days) {
    const own = bars.filter((bar) => bar.day === day)
    stackMutable(own)
    lanes.set(
      day,
      own.reduce((most, bar) => Math.max(most, Math.round(1 / bar.height)), 1)
    )
  }
  return {
    days,
    from: Math.min(scale.from, ...bars.map((bar) => Math.floor(bar.start / 60) * 60)),
    to: Math.max(scale.to, ...bars.map((bar) => Math.ceil(bar.end / 60) * 60)),
    bars,
    lanes,
    unscheduled: sections.filter((section) => section.meetings.length === 0)
  }
}

function laneOf(
  { half }: Section,
  { from, to }: Meeting,
  term: RibbonScale['term']
): 'full' | 'first' | 'second' {
  if (half !== 'other' && (half !== 'full' || from !== to)) return half
  if (!term) return 'full'
  const middle = (dayNumber(term.start) + dayNumber(term.end)) / 2
  if (dayNumber(to) <= middle) return 'first'
  return dayNumber(from) > middle ? 'second' : 'full'
}

/** Gives bars of one day that cover each other a lane each, within the part of the row they have. */
function stackMutable(bars: Bar[]): void {
  const order = (bar: Bar) => `${bar.from} ${bar.section.code}`
  bars.sort((a, b) => a.start - b.start || b.end - a.end || (order(a) < order(b) ? -1 : 1))
  let group: Bar[] = []
  let until = -1
  const settle = () => {
    const lanes: Bar[][] = []
    for (const bar of group) {
      const lane = lanes.find((l) => l.every((other) => !covers(other, bar)))
      if (lane) lane.push(bar)
      else lanes.push([bar])
    }
    if (lanes.length > 1) {
      lanes.forEach((lane, i) =>
        lane.forEach((bar) => {
          bar.top += (bar.height * i) / lanes.length
          bar.height /= lanes.length
        })
      )
    }
    group = []
  }
  for (const bar of bars) {
    if (bar.start >= until) settle()
    group.push(bar)
    until = Math.max(until, bar.end)
  }
  settle()
}

function covers(a: Bar, b: Bar): boolean {
  return a.start < b.end && b.start < a.end && a.top < b.top + b.height && b.top < a.top + a.height
}
