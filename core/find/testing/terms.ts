/** Random terms, and the plainest way to answer them: every combination, every date, every minute. */
import { dice } from '../../degree/best/testing/cases'
import { courseCode, termCode, type CourseCode, type SectionCode } from '../../ids'
import { dayNumber, weekdayOf, type Weekday } from '../../time'
import {
  datesOf,
  meetingsOf,
  optionsAmong,
  sectionsOf,
  type Meeting,
  type Option,
  type Section
} from '../../week'
import type { KeptHours, Want, Wish } from '../question'

export interface TermCase {
  sections: Section[]
  want: Want
  holidays: Set<number>
}

export interface TermShape {
  courses: number
  options: number
  /** How many hours a day has to put classes in. */
  hours: number
  kept: number
  /** Every course has all its options, and none of them a component. */
  every?: boolean
}

const PATTERNS: readonly (readonly Weekday[])[] = [[1, 3], [2, 4], [1, 3, 5], [5], [2], [1, 2, 3, 4]]
const HALVES = [
  { half: 'full', from: '2027-08-30', to: '2027-12-17' },
  { half: 'full', from: '2027-08-30', to: '2027-12-17' },
  { half: 'full', from: '2027-08-30', to: '2027-12-17' },
  { half: 'first', from: '2027-08-30', to: '2027-10-22' },
  { half: 'second', from: '2027-10-25', to: '2027-12-17' },
  { half: 'full', from: '2027-09-24', to: '2027-09-24' }
] as const

export function termCase(seed: number, shape: TermShape): TermCase {
  const roll = dice(seed)
  const below = (n: number) => Math.floor(roll() * n)
  const pick = <T>(list: readonly T[]): T => list[below(list.length)]!
  const sections: Section[] = []
  const codes = Array.from({ length: shape.courses }, (_, c) => courseCode(`TEST ${101 + c}`))
  const hour = () => 480 + below(shape.hours * 2) * 30
  const make = (course: CourseCode, number: string, over: Partial<Section>): Section => {
    const span = pick(HALVES)
    const start = hour()
    const meetings: Meeting[] =
      roll() < 0.06
        ? []
        : [
            {
              days: pick(PATTERNS),
              start,
              end: start + pick([50, 75, 100]),
              from: span.from,
              to: span.to,
              campus: pick(['HILL', 'HARBOUR']),
              building: null,
              room: null
            }
          ]
    return {
      code: `S${sections.length}` as SectionCode,
      course,
      term: termCode('AU27'),
      number,
      kind: 'lecture',
      parent: null,
      session: span.half,
      half: span.half,
      campus: 'HILL',
      offSite: null,
      mode: pick(['inPerson', 'inPerson', 'online', 'mixed']),
      credits: 3,
      prerequisite: null,
      categories: null,
      topic: null,
      instructors: [pick(['Ada', 'Bo', 'Cy'])],
      capacity: 20,
      taken: below(21),
      waitCapacity: 5,
      waiting: 0,
      block: roll() < 0.08 ? pick(['Heron', 'Plover']) : null,
      officeOnly: roll() < 0.05,
      permissionNeeded: false,
      onlyFor: null,
      cancelled: roll() < 0.05,
      fee: 0,
      reserved: [],
      meetings,
      ...over
    }
  }
  for (const course of codes) {
    const mains = shape.every ? shape.options : 1 + below(shape.options)
    for (let i = 0; i < mains; i++) {
      const main = make(course, `0${i}`, {})
      sections.push(main)
      if (!shape.every && roll() < 0.25)
        for (const letter of ['A', 'B'].slice(0, 1 + below(2)))
          sections.push(make(course, `0${i}${letter}`, { parent: main.code, kind: 'lab', credits: 0 }))
    }
  }
  const wishes: Wish[] = [
    { kind: 'fewestDays' },
    { kind: 'fewestHoursBetween' },
    { kind: 'evenDays' },
    { kind: 'oneCampusADay' },
    { kind: 'seatsSafe' },
    { kind: 'dayOff', day: pick([1, 2, 3, 4, 5] as const) },
    { kind: 'startsAfter', time: 600 },
    { kind: 'endsBefore', time: 900 },
    { kind: 'lunchFree', from: 690, to: 840, minutes: 45 },
    { kind: 'mode', modes: ['inPerson'] },
    { kind: 'instructors', names: ['Ada'] },
    { kind: 'keptIfPossible' },
    { kind: 'together', sections: sections.filter(() => roll() < 0.3).map((one) => one.code) }
  ]
  const ordered = wishes.map((wish) => ({ wish, at: roll() })).sort((a, b) => a.at - b.at)
  const hours = (_: unknown, i: number): KeptHours => {
    const start = hour()
    return { name: `hours ${i}`, days: pick(PATTERNS), start, end: start + 120 }
  }
  const kept = Array.from({ length: below(shape.kept + 1) }, hours)
  const softly = Array.from({ length: 2 }, hours)
  // Sometimes two of the courses are one group, of which one is taken.
  const pair = codes.length > 2 && roll() < 0.3
  const groups = pair
    ? [
        { courses: codes.slice(0, 2), take: 1 },
        ...codes.slice(2).map((code) => ({ courses: [code], take: 1 }))
      ]
    : codes.map((code) => ({ courses: [code], take: 1 }))
  const fixed = roll() < 0.1 ? [pick(sections).code] : []
  return {
    sections,
    want: {
      groups,
      fixed: new Set(fixed),
      kept,
      softly,
      travel: roll() < 0.3 ? (from, to) => (from === to ? undefined : WAY) : undefined,
      wishes: ordered.slice(0, 1 + below(5)).map((one) => one.wish)
    },
    holidays: new Set([dayNumber('2027-11-25'), dayNumber('2027-11-26'), dayNumber('2027-09-06')])
  }
}

/** Minutes from one campus to the other. */
const WAY = 30

/** The dates and minutes of a week's meetings, written out. */
function minutesOn(meetings: readonly Meeting[], holidays: ReadonlySet<number>): Set<number>[] {
  return meetings.map((meeting) => {
    let found = written.get(meeting)
    if (!found) {
      found = new Set()
      for (const date of datesOf(meeting, holidays))
        for (let minute = meeting.start; minute < meeting.end; minute += 5) found.add(date * DAY + minute)
      written.set(meeting, found)
    }
    return found
  })
}
const written = new WeakMap<Meeting, Set<number>>()
const DAY = 1440

/** Every week that fits, with its costs; by trying every combination. */
export function everyWeek({ sections, want, holidays }: TermCase): { key: string; costs: number[] }[] {
  const fits = (options: readonly Option[]): boolean => {
    const taken = new Map<number, Option>()
    for (const option of options)
      for (const minutes of minutesOn(meetingsOf(option), holidays))
        for (const one of minutes) {
          const there = taken.get(one)
          if (there && there !== option) return false
          taken.set(one, option)
        }
    return true
  }
  const isFree = (option: Option) => want.kept.every((hours) => !fallsIn(option, hours, holidays))
  const optionsOf = (course: CourseCode) => {
    const own = optionsAmong(sections.filter((one) => one.course === course))
    const held = own.flatMap((option) => sectionsOf(option)).filter((one) => want.fixed.has(one.code))
    return own.filter((option) =>
      held.length
        ? held.every((one) => sectionsOf(option).includes(one))
        : sectionsOf(option).every((one) => !one.officeOnly)
    )
  }
  let weeks: Option[][] = [[]]
  for (const group of want.groups)
    weeks = weeks.flatMap((week) =>
      // Groups of these terms take one of their courses.
      group.courses.flatMap((course) =>
        optionsOf(course)
          .filter(isFree)
          .map((option) => [...week, option])
      )
    )
  /** Every way from one class to a later one of the same date is long enough. */
  const canBeWalked = (week: readonly Option[]) => {
    if (!want.travel) return true
    const classes = week
      .flatMap((option) => sectionsOf(option))
      .filter((one) => one.mode !== 'onlineHours')
      .flatMap((one) => one.meetings)
      .flatMap((one) => datesOf(one, holidays).map((date) => ({ ...one, date })))
    return classes.every((a) =>
      classes.every(
        (b) => a.date !== b.date || a.campus === b.campus || b.start < a.end || b.start - a.end >= WAY
      )
    )
  }
  const all = want.groups
    .flatMap((group) => group.courses.flatMap(optionsOf))
    .filter((option) => canBeWalked([option]))
  const isWhole = (week: readonly Option[]) =>
    week.every(({ main }) => {
      if (main.block === null || want.fixed.has(main.code)) return true
      const block = all.filter((one) => one.main.block === main.block).map((one) => one.course)
      return week.every(
        (one) => want.fixed.has(one.main.code) || !block.includes(one.course) || one.main.block === main.block
      )
    })
  return weeks
    .filter((week) => fits(week) && isWhole(week) && canBeWalked(week))
    .map((week) => ({
      key: week
        .map((option) => option.key)
        .sort()
        .join(' '),
      costs: want.wishes.map((wish) => costOf(wish, week, want.softly ?? [], holidays))
    }))
}

function fallsIn(option: Option, hours: KeptHours, holidays: ReadonlySet<number>): boolean {
  return minutesOn(meetingsOf(option), holidays).some((minutes) =>
    [...minutes].some((one) => {
      const [date, minute] = [Math.floor(one / DAY), one % DAY]
      return hours.days.includes(weekdayOf(date)) && minute < hours.end && minute + 5 > hours.start
    })
  )
}

const sum = (list: readonly number[]) => list.reduce((total, one) => total + one, 0)

/** What a wish says of a week, minute by minute. */
function costOf(
  wish: Wish,
  week: readonly Option[],
  softly: readonly KeptHours[],
  holidays: ReadonlySet<number>
): number {
  const typical = week
    .flatMap((option) => sectionsOf(option))
    .flatMap((section) => section.meetings.map((meeting) => ({ section, meeting })))
    .filter(({ meeting }) => meeting.from !== meeting.to)
  const days = ([1, 2, 3, 4, 5, 6, 7] as const)
    .map((day) => typical.filter(({ meeting }) => meeting.days.includes(day)))
    .filter((list) => list.length)
  const busy = days.map((list) => {
    const minutes = new Uint8Array(1440)
    for (const { meeting } of list) minutes.fill(1, meeting.start, meeting.end)
    return minutes
  })
  switch (wish.kind) {
    case 'fewestDays':
      return days.length
    case 'fewestHoursBetween':
      return sum(
        busy.map(
          (minutes) => minutes.slice(minutes.indexOf(1), minutes.lastIndexOf(1)).filter((one) => !one).length
        )
      )
    case 'evenDays':
      return Math.max(0, ...days.map((list) => sum(list.map(({ meeting }) => meeting.end - meeting.start))))
    case 'oneCampusADay':
      return sum(
        days.map((list) => {
          const there = list.filter(
            ({ section }) => section.mode !== 'online' && section.mode !== 'onlineHours'
          )
          return Math.max(0, new Set(there.map(({ meeting }) => meeting.campus)).size - 1)
        })
      )
    case 'seatsSafe':
      return sum(
        week.map((option) =>
          Math.max(0, 5 - Math.min(...sectionsOf(option).map((one) => one.capacity - one.taken)))
        )
      )
    case 'dayOff':
      return typical.some(({ meeting }) => meeting.days.includes(wish.day)) ? 1 : 0
    case 'startsAfter':
      return sum(busy.map((minutes) => Math.max(0, wish.time - minutes.indexOf(1))))
    case 'endsBefore':
      return sum(busy.map((minutes) => Math.max(0, minutes.lastIndexOf(1) + 1 - wish.time)))
    case 'lunchFree':
      return busy.filter((minutes) => {
        let run = 0
        for (let minute = wish.from; minute < wish.to; minute++) {
          run = minutes[minute] ? 0 : run + 1
          if (run >= wish.minutes) return false
        }
        return true
      }).length
    case 'mode':
      return week.filter((option) => !wish.modes.includes(option.main.mode)).length
    case 'instructors':
      return week.filter(
        (option) =>
          !sectionsOf(option).some((one) => one.instructors.some((name) => wish.names.includes(name)))
      ).length
    case 'keptIfPossible':
      return sum(week.map((option) => softly.filter((hours) => fallsIn(option, hours, holidays)).length))
    case 'together':
      return week.filter((option) => sectionsOf(option).some((one) => !wish.sections.includes(one.code)))
        .length
  }
}
