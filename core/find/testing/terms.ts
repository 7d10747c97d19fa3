// oxlint-disable max-lines -- a judge is read in one go
/** Random terms, and the plainest way to answer them: every combination, every date, every minute. */
import { dice } from '../../degree/best/testing/cases'
import { courseCode, termCode, type CourseCode, type SectionCode } from '../../ids'
import { dayNumber, isoDate, type Weekday } from '../../time'
import type { Meeting, Option, Section } from '../../week'
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

const SINGLE = [
  { days: [6], from: '2027-10-09', to: '2027-10-09' },
  { days: [4], from: '2027-11-18', to: '2027-11-18' }
] as const

export function termCase(seed: number, shape: TermShape): TermCase {
  const roll = dice(seed)
  const below = (n: number) => Math.floor(roll() * n)
  const pick = <T>(list: readonly T[]): T => list[below(list.length)]!
  const sections: Section[] = []
  const codes = Array.from({ length: shape.courses }, (_, c) => courseCode(`TEST ${101 + c}`))
  const hour = () => 480 + below(shape.hours * 2 + 2) * 30
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
    // Beside its weeks a class may have a single date, a Saturday among them.
    if (meetings[0] && roll() < 0.06) {
      const at = hour()
      meetings.push({ ...meetings[0], ...pick(SINGLE), start: at, end: at + 100 })
    }
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
      creditsRange: null,
      prerequisite: null,
      categories: null,
      topic: null,
      instructors: [pick(['Ada', 'Bo', 'Cy'])],
      capacity: 20,
      taken: below(21),
      waitCapacity: 5,
      waiting: 0,
      block: roll() < 0.05 ? pick(['Heron', 'Plover']) : null,
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
      for (const kind of shape.every ? [] : (['lab', 'tutorial'] as const))
        if (roll() < 0.2)
          for (const letter of ['A', 'B'].slice(0, 1 + below(2)))
            sections.push(make(course, `0${i}${kind}${letter}`, { parent: main.code, kind, credits: 0 }))
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

/** Monday is 1. */
const weekdayOf = (date: number): Weekday =>
  (((new Date(`${isoDate(date)}T00:00Z`).getUTCDay() + 6) % 7) + 1) as Weekday

/** The dates of a meeting, day by day. */
function datesOf({ days, from, to }: Meeting, holidays: ReadonlySet<number>): number[] {
  const dates: number[] = []
  for (let date = dayNumber(from); isoDate(date) <= to; date++)
    if (days.includes(weekdayOf(date)) && !holidays.has(date)) dates.push(date)
  return dates
}

const partsOf = ({ main, components }: Option): Section[] => [main, ...components]
const meetingsOf = (option: Option): Meeting[] => partsOf(option).flatMap((one) => [...one.meetings])

/** A section with one component of every kind that it has, in every way. */
function withComponents(main: Section, sections: readonly Section[]): Option[] {
  const own = sections.filter((one) => one.parent === main.code && !one.cancelled)
  let chosen: Section[][] = [[]]
  for (const kind of new Set(own.map((one) => one.kind)))
    chosen = own
      .filter((one) => one.kind === kind)
      .flatMap((one) => chosen.map((components) => [...components, one]))
  return chosen.map((components) => ({
    key: [main, ...components]
      .map((one) => one.code)
      .sort()
      .join('+'),
    course: main.course,
    main,
    components
  }))
}

/** Every week that fits, with its costs; by trying every combination. */
export function everyWeek({ sections, want, holidays }: TermCase): { key: string; costs: number[] }[] {
  /** A minute of a date belongs to one section. */
  const fits = (some: readonly Section[]): boolean => {
    const taken = new Map<number, Section>()
    for (const section of some)
      for (const minutes of minutesOn(section.meetings, holidays))
        for (const one of minutes) {
          const there = taken.get(one)
          if (there && there !== section) return false
          taken.set(one, section)
        }
    return true
  }
  const isHeld = (course: CourseCode) =>
    sections.some((one) => one.course === course && want.fixed.has(one.code))
  const isFree = (option: Option) => want.kept.every((hours) => !fallsIn(option, hours, holidays))
  const optionsOf = (course: CourseCode) => {
    const own = sections
      .filter((one) => one.course === course && one.parent === null && !one.cancelled)
      .flatMap((main) => withComponents(main, sections))
      .filter((option) => fits(partsOf(option)))
    const held = sections.filter((one) => one.course === course && want.fixed.has(one.code))
    return own.filter((option) =>
      held.length
        ? held.every((one) => partsOf(option).includes(one))
        : partsOf(option).every((one) => !one.officeOnly)
    )
  }
  let weeks: Option[][] = [[]]
  for (const group of want.groups)
    weeks = weeks.flatMap((week) =>
      // Groups of these terms take one of their courses: that of which a section is fixed, where there is one.
      (group.courses.some(isHeld) ? group.courses.filter(isHeld) : group.courses).flatMap((course) =>
        optionsOf(course)
          .filter(isFree)
          .map((option) => [...week, option])
      )
    )
  /** Every way from one class to a later one of the same date is long enough. */
  const canBeWalked = (week: readonly Option[]) => {
    if (!want.travel) return true
    const classes = week
      .flatMap(partsOf)
      .filter((one) => one.mode !== 'onlineHours')
      .flatMap((one) => one.meetings)
      .flatMap((one) => datesOf(one, holidays).map((date) => ({ ...one, date })))
    return classes.every((a) =>
      classes.every(
        (b) => a.date !== b.date || a.campus === b.campus || b.start < a.end || b.start - a.end >= WAY
      )
    )
  }
  /** Who takes a section of a block takes all courses that the block has in it. */
  const isWhole = (week: readonly Option[]) =>
    week.every(({ main }) =>
      week.every(
        (other) =>
          main.block === null ||
          other.main.block === main.block ||
          !sections.some(
            (one) =>
              one.block === main.block && one.course === other.course && one.parent === null && !one.cancelled
          )
      )
    )
  return weeks
    .filter((week) => fits(week.flatMap(partsOf)) && isWhole(week) && canBeWalked(week))
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
  const classes = week
    .flatMap(partsOf)
    .flatMap((section) =>
      section.meetings.flatMap((meeting) =>
        datesOf(meeting, holidays).map((date) => ({ section, date, ...meeting }))
      )
    )
  /** Dates with classes, by weekday. */
  const days = ([1, 2, 3, 4, 5, 6, 7] as const)
    .map((day) => {
      const here = classes.filter(({ date }) => weekdayOf(date) === day)
      return [...new Set(here.map(({ date }) => date))].map((date) => here.filter((one) => one.date === date))
    })
    .filter((dates) => dates.length)
  /** The sum over weekdays of what the worst date of each comes to. */
  const byDay = (measure: (list: typeof classes, minutes: Uint8Array) => number) =>
    sum(
      days.map((dates) =>
        Math.max(
          ...dates.map((list) => {
            const minutes = new Uint8Array(1440)
            for (const { start, end } of list) minutes.fill(1, start, end)
            return measure(list, minutes)
          })
        )
      )
    )
  switch (wish.kind) {
    case 'fewestDays':
      return days.length
    case 'fewestHoursBetween':
      return byDay(
        (_, minutes) => minutes.slice(minutes.indexOf(1), minutes.lastIndexOf(1)).filter((one) => !one).length
      )
    case 'evenDays':
      return Math.max(0, ...days.flat().map((list) => sum(list.map(({ start, end }) => end - start))))
    case 'oneCampusADay':
      return byDay((list) => {
        const there = list.filter(
          ({ section }) => section.mode !== 'online' && section.mode !== 'onlineHours'
        )
        return Math.max(0, new Set(there.map(({ campus }) => campus)).size - 1)
      })
    case 'seatsSafe':
      return sum(
        week.map((option) =>
          Math.max(...partsOf(option).map((one) => Math.min(5, Math.max(0, 5 - (one.capacity - one.taken)))))
        )
      )
    case 'dayOff':
      return classes.some(({ date }) => weekdayOf(date) === wish.day) ? 1 : 0
    case 'startsAfter':
      return byDay((_, minutes) => Math.max(0, wish.time - minutes.indexOf(1)))
    case 'endsBefore':
      return byDay((_, minutes) => Math.max(0, minutes.lastIndexOf(1) + 1 - wish.time))
    case 'lunchFree':
      return byDay((_, minutes) => {
        let run = 0
        for (let minute = wish.from; minute < wish.to; minute++) {
          run = minutes[minute] ? 0 : run + 1
          if (run >= wish.minutes) return 0
        }
        return 1
      })
    case 'mode':
      return week.filter((option) => !wish.modes.includes(option.main.mode)).length
    case 'instructors':
      return week.filter(
        (option) => !partsOf(option).some((one) => one.instructors.some((name) => wish.names.includes(name)))
      ).length
    case 'keptIfPossible':
      return sum(week.map((option) => softly.filter((hours) => fallsIn(option, hours, holidays)).length))
    case 'together':
      return week.flatMap(partsOf).filter((one) => !wish.sections.includes(one.code)).length
  }
}
