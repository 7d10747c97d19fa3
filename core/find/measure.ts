/**
 * What measures say of a week, and the least they can come to say when more is added. A weekday is what it is on
 * the worst of its dates: what shares no date has nothing to do with each other.
 */
import { onWorstDate } from '../week'
import type { DayPart, FindOption, Measure } from './problem'

/** Days are counted from Monday, 1; place 0 is not used. */
const DAYS = 8

/** The value of a measure, which for all but `between` only grows as options are added. */
export function valueOf(measure: Measure, wish: number, chosen: readonly FindOption[]): number {
  if (measure.kind === 'each') return chosen.reduce((sum, one) => sum + one.costs[wish]!, 0)
  const byDay = daysOf(chosen)
  let sum = 0
  for (let day = 1; day < DAYS; day++) {
    const parts = byDay[day]
    if (!parts) continue
    const value = onWorstDate(parts, (together) => ofDay(measure, together))
    sum = measure.kind === 'fullest' ? Math.max(sum, value) : sum + value
  }
  return sum
}

function daysOf(chosen: readonly FindOption[]): (DayPart[] | undefined)[] {
  const byDay: (DayPart[] | undefined)[] = Array.from({ length: DAYS })
  for (const option of chosen) for (const part of option.parts) (byDay[part.day] ??= []).push(part)
  return byDay
}

function ofDay(measure: Measure, parts: readonly DayPart[]): number {
  switch (measure.kind) {
    case 'days':
      return 1
    case 'dayOff':
      return parts[0]!.day === measure.day ? 1 : 0
    case 'before':
      return Math.max(0, measure.time - Math.min(...parts.map((one) => one.start)))
    case 'after':
      return Math.max(0, Math.max(...parts.map((one) => one.end)) - measure.time)
    case 'between':
      return gaps(parts).reduce((sum, [from, to]) => sum + to - from, 0)
    case 'lunch': {
      const { from, to, least } = measure
      const free = [[0, parts.reduce((first, one) => Math.min(first, one.start), Infinity)], ...gaps(parts)]
      free.push([parts.reduce((last, one) => Math.max(last, one.end), 0), Infinity])
      return free.some(([a, b]) => Math.min(b!, to) - Math.max(a!, from) >= least) ? 0 : 1
    }
    case 'fullest':
      return parts.reduce((sum, one) => sum + one.end - one.start, 0)
    case 'campuses': {
      const campuses = new Set(parts.flatMap((one) => one.campus ?? []))
      return Math.max(0, campuses.size - 1)
    }
    case 'each':
      return 0
  }
}

/** The stretches between classes of a day. */
function gaps(parts: readonly DayPart[]): [number, number][] {
  const inOrder = parts.toSorted((a, b) => a.start - b.start)
  const found: [number, number][] = []
  let until = inOrder[0]!.end
  for (const { start, end } of inOrder) {
    if (start > until) found.push([until, start])
    until = Math.max(until, end)
  }
  return found
}

/**
 * The least a measure can come to be: `more` tells for each course that is still to be taken the options it
 * has left.
 */
export function leastOf(
  measure: Measure,
  wish: number,
  chosen: readonly FindOption[],
  more: readonly (readonly FindOption[])[]
): number {
  const now = valueOf(measure, wish, chosen)
  switch (measure.kind) {
    case 'each':
      return more.reduce(
        (sum, options) => sum + options.reduce((least, one) => Math.min(least, one.costs[wish]!), Infinity),
        now
      )
    case 'between': {
      // What lies between can be filled by classes of the other courses, and by no more than they are long.
      let room = 0
      for (const options of more) room += options.reduce((most, one) => Math.max(most, minutesOf(one)), 0)
      return Math.max(0, now - room)
    }
    case 'days': {
      const there = maskOf(chosen)
      let least = now
      for (const options of more) {
        let fewest = Infinity
        for (const one of options) fewest = Math.min(fewest, countBits(there | maskOf([one])))
        least = Math.max(least, fewest)
      }
      return least
    }
    default:
      return now
  }
}

const minutesOf = (option: FindOption) => option.parts.reduce((sum, one) => sum + one.end - one.start, 0)

function maskOf(chosen: readonly FindOption[]): number {
  let mask = 0
  for (const option of chosen) for (const part of option.parts) mask |= 1 << part.day
  return mask
}

function countBits(mask: number): number {
  let n = 0
  for (let rest = mask; rest; rest &= rest - 1) n++
  return n
}
