/** From sections and what is wanted to the question of finding weeks, and back to options. */
import type { CourseCode } from '../ids'
import type { Minutes, Weekday } from '../time'
import {
  clashOf,
  meetingsOf,
  optionsAmong,
  seatsLeft,
  sectionsOf,
  type Holidays,
  type Meeting,
  type Mode,
  shortWays,
  type Option,
  type Section,
  type Travel
} from '../week'
import type { DayPart, FindProblem, FoundWeek, Measure } from './problem'

/** Hours on some days that are to stay free. */
export interface KeptHours {
  name: string
  days: readonly Weekday[]
  start: Minutes
  end: Minutes
}

export type Wish =
  | {
      kind:
        'fewestDays' | 'fewestHoursBetween' | 'evenDays' | 'oneCampusADay' | 'seatsSafe' | 'keptIfPossible'
    }
  | { kind: 'dayOff'; day: Weekday }
  | { kind: 'startsAfter' | 'endsBefore'; time: Minutes }
  | { kind: 'lunchFree'; from: Minutes; to: Minutes; minutes: Minutes }
  | { kind: 'mode'; modes: readonly Mode[] }
  | { kind: 'instructors'; names: readonly string[] }
  /** Sections that a friend takes. */
  | { kind: 'together'; sections: readonly string[] }

export interface Want {
  /** Of each so many courses are taken. */
  groups: readonly { courses: readonly CourseCode[]; take: number }[]
  /** Sections that are to be in the week. */
  fixed: ReadonlySet<string>
  kept: readonly KeptHours[]
  /** Hours that stay free if possible: what the wish `keptIfPossible` is about. */
  softly?: readonly KeptHours[] | undefined
  /** In order of weight. */
  wishes: readonly Wish[]
  /** Only options with a seat left. */
  seatsLeft?: boolean | undefined
  /** Where the way between campuses has to fit between two classes. */
  travel?: Travel | undefined
}

export interface FindQuestion {
  problem: FindProblem
  /** By the number of the option. */
  options: readonly Option[]
  courses: readonly CourseCode[]
}

/** Fewer seats than this are a risk. */
export const SAFE_SEATS = 5

/**
 * Cancelled sections, and those that only an office registers, are left out unless they are fixed. A block is one
 * choice: an option of it stands beside options of the same block only, in the courses that the block has.
 */
export function findQuestion(sections: readonly Section[], want: Want, holidays: Holidays): FindQuestion {
  const courses = want.groups.flatMap((group) => group.courses)
  const canBeWalked = (list: readonly Section[]) =>
    want.travel === undefined || !shortWays(list, want.travel, holidays).length
  const options = courses.flatMap((course) => {
    const own = optionsAmong(sections.filter((one) => one.course === course))
    const fixed = own.flatMap((option) => sectionsOf(option).filter((one) => want.fixed.has(one.code)))
    return own.filter(
      (option) =>
        fixed.every((one) => sectionsOf(option).includes(one)) &&
        canBeWalked(sectionsOf(option)) &&
        (!want.seatsLeft || fixed.length > 0 || seatsLeft(option) > 0) &&
        (fixed.length > 0 || sectionsOf(option).every((one) => !one.officeOnly))
    )
  })
  const campuses = [...new Set(options.flatMap(meetingsOf).map((meeting) => meeting.campus))]
  const clash = apart(options, want, holidays)
  const problem: FindProblem = {
    courses: courses.length,
    groups: want.groups.map((group) => ({
      courses: group.courses.map((course) => courses.indexOf(course)),
      take: group.take
    })),
    options: options.map((option, o) => ({
      course: courses.indexOf(option.course),
      parts: partsOf(option, campuses),
      clashes: options.flatMap((other, n) => (other.course !== option.course && clash(o, n) ? [n] : [])),
      costs: want.wishes.map((wish) => costOf(wish, option, want.softly ?? [], holidays))
    })),
    kept: want.kept.map((hours) =>
      options.flatMap((option, o) => (fallsIn(option, hours, holidays) ? [o] : []))
    ),
    measures: want.wishes.map(measureOf)
  }
  return { problem, options, courses }
}

/** The same question with other wishes: what rules options out stays as it was worked out. */
export function withWishes(
  question: FindQuestion,
  { wishes, softly = [] }: Pick<Want, 'wishes' | 'softly'>,
  holidays: Holidays
): FindQuestion {
  const options = question.problem.options.map((one, o) => ({
    ...one,
    costs: wishes.map((wish) => costOf(wish, question.options[o]!, softly, holidays))
  }))
  return { ...question, problem: { ...question.problem, options, measures: wishes.map(measureOf) } }
}

/** The options of a week that was found. */
export function weekOf({ options }: FindQuestion, week: FoundWeek): Option[] {
  return week.options.map((o) => options[o]!)
}

/** Whether two options cannot stand in one week. */
function apart(
  options: readonly Option[],
  { travel, fixed }: Want,
  holidays: Holidays
): (a: number, b: number) => boolean {
  const clash = clashTable(options, holidays)
  const coursesOf = new Map<string, Set<CourseCode>>()
  for (const { main, course } of options)
    if (main.block !== null) coursesOf.set(main.block, (coursesOf.get(main.block) ?? new Set()).add(course))
  const leaves = (a: Option, b: Option) =>
    a.main.block !== null && a.main.block !== b.main.block && coursesOf.get(a.main.block)!.has(b.course)
  const isFixed = (one: Option) => fixed.has(one.main.code)
  return (a, b) => {
    const [one, other] = [options[a]!, options[b]!]
    if (clash(a, b)) return true
    // Who has left a block already does not have to be in it for the rest.
    if (!isFixed(one) && !isFixed(other) && (leaves(one, other) || leaves(other, one))) return true
    return (
      travel !== undefined &&
      shortWays([...sectionsOf(one), ...sectionsOf(other)], travel, holidays).length > 0
    )
  }
}

/** Whether two options clash on some date; meetings alike are compared once. */
function clashTable(options: readonly Option[], holidays: Holidays): (a: number, b: number) => boolean {
  const known = new Map<string, boolean>()
  const numbers = new Map<string, number>()
  const meetings: Meeting[] = []
  const own = options.map((option) =>
    meetingsOf(option).map((meeting) => {
      const key = `${meeting.days.join('')} ${meeting.start} ${meeting.end} ${meeting.from} ${meeting.to}`
      let number = numbers.get(key)
      if (number === undefined) {
        numbers.set(key, (number = meetings.length))
        meetings.push(meeting)
      }
      return number
    })
  )
  const meet = (a: number, b: number) => {
    const key = a < b ? `${a} ${b}` : `${b} ${a}`
    let answer = known.get(key)
    if (answer === undefined)
      known.set(key, (answer = clashOf(meetings[a]!, meetings[b]!, holidays) !== undefined))
    return answer
  }
  return (a, b) => own[a]!.some((one) => own[b]!.some((other) => meet(one, other)))
}

/** Classes of a typical week; what meets on a single date is not typical. */
function partsOf(option: Option, campuses: readonly string[]): DayPart[] {
  return sectionsOf(option).flatMap(({ mode, meetings }) =>
    meetings
      .filter((meeting) => meeting.from !== meeting.to)
      .flatMap(({ days, start, end, campus }) =>
        days.map((day) => ({
          day,
          start,
          end,
          campus: mode === 'online' || mode === 'onlineHours' ? undefined : campuses.indexOf(campus)
        }))
      )
  )
}

/** Whether some class of an option falls into hours on some date. */
export function fallsIn(option: Option, { days, start, end }: KeptHours, holidays: Holidays): boolean {
  return meetingsOf(option).some(
    (meeting) => clashOf(meeting, { ...meeting, days, start, end }, holidays) !== undefined
  )
}

function measureOf(wish: Wish): Measure {
  switch (wish.kind) {
    case 'fewestDays':
      return { kind: 'days' }
    case 'fewestHoursBetween':
      return { kind: 'between' }
    case 'evenDays':
      return { kind: 'fullest' }
    case 'oneCampusADay':
      return { kind: 'campuses' }
    case 'dayOff':
      return { kind: 'dayOff', day: wish.day }
    case 'startsAfter':
      return { kind: 'before', time: wish.time }
    case 'endsBefore':
      return { kind: 'after', time: wish.time }
    case 'lunchFree':
      return { kind: 'lunch', from: wish.from, to: wish.to, least: wish.minutes }
    case 'mode':
    case 'instructors':
    case 'seatsSafe':
    case 'together':
    case 'keptIfPossible':
      return { kind: 'each' }
  }
}

/** What an option costs a wish that looks at options one by one. */
function costOf(wish: Wish, option: Option, softly: readonly KeptHours[], holidays: Holidays): number {
  switch (wish.kind) {
    case 'mode':
      return wish.modes.includes(option.main.mode) ? 0 : 1
    case 'instructors':
      return sectionsOf(option).some((one) => one.instructors.some((name) => wish.names.includes(name)))
        ? 0
        : 1
    case 'seatsSafe':
      return Math.max(0, SAFE_SEATS - seatsLeft(option))
    case 'keptIfPossible':
      return softly.filter((hours) => fallsIn(option, hours, holidays)).length
    case 'together':
      return sectionsOf(option).every((one) => wish.sections.includes(one.code)) ? 0 : 1
    default:
      return 0
  }
}
