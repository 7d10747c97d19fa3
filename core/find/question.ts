/** From sections and what is wanted to the question of finding weeks, and back to options. */
import type { CourseCode } from '../ids'
import type { Minutes, Weekday } from '../time'
import {
  clashOf,
  kindsOfDates,
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
        | 'fewestDays'
        | 'fewestHoursBetween'
        | 'evenDays'
        | 'oneCampusADay'
        | 'seatsSafe'
        | 'keptIfPossible'
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
  groups: readonly CourseGroup[]
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

/** Of these courses so many are taken. */
export interface CourseGroup {
  courses: readonly CourseCode[]
  take: number
}

/** The groups, with each apart into the courses of which a section is fixed and the choice that is left. */
export function settledGroups(
  groups: readonly CourseGroup[],
  isFixed: (course: CourseCode) => boolean
): CourseGroup[] {
  return groups.flatMap((group) => {
    const fixed = group.courses.filter(isFixed)
    if (!fixed.length || group.courses.length === 1) return [group]
    const courses = group.courses.filter((course) => !fixed.includes(course))
    const take = group.take - fixed.length
    const single = fixed.map((course) => ({ courses: [course], take: 1 }))
    return take > 0 ? [...single, { courses, take }] : single
  })
}

/** Fewer seats than this are a risk. */
export const SAFE_SEATS = 5

/**
 * A course of which a section is fixed is taken, with all of its fixed sections; cancelled sections are in no week,
 * and those that only an office registers in none unless one is fixed. A block is one choice: an option of it stands
 * beside options of the same block only, in the courses that the block has.
 */
export function findQuestion(sections: readonly Section[], want: Want, holidays: Holidays): FindQuestion {
  const fixedIn = (course: CourseCode) =>
    sections.filter((one) => one.course === course && want.fixed.has(one.code))
  const groups = settledGroups(want.groups, (course) => fixedIn(course).length > 0)
  const courses = groups.flatMap((group) => group.courses)
  const canBeWalked = (list: readonly Section[]) =>
    want.travel === undefined || !shortWays(list, want.travel, holidays).length
  const options = courses.flatMap((course) => {
    const own = optionsAmong(
      sections.filter((one) => one.course === course),
      holidays
    )
    const fixed = fixedIn(course)
    return own.filter(
      (option) =>
        fixed.every((one) => sectionsOf(option).includes(one)) &&
        canBeWalked(sectionsOf(option)) &&
        (!want.seatsLeft || fixed.length > 0 || seatsLeft(option) > 0) &&
        (fixed.length > 0 || sectionsOf(option).every((one) => !one.officeOnly))
    )
  })
  const parts = partsOf(options, holidays)
  const clash = apart(options, sections, want, holidays)
  const problem: FindProblem = {
    courses: courses.length,
    groups: groups.map((group) => ({
      courses: group.courses.map((course) => courses.indexOf(course)),
      take: group.take
    })),
    options: options.map((option, o) => ({
      course: courses.indexOf(option.course),
      parts: parts[o]!,
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
  sections: readonly Section[],
  { travel }: Want,
  holidays: Holidays
): (a: number, b: number) => boolean {
  const clash = clashTable(options, holidays)
  const coursesOf = new Map<string, Set<CourseCode>>()
  for (const { block, course, parent, cancelled } of sections)
    if (block !== null && parent === null && !cancelled)
      coursesOf.set(block, (coursesOf.get(block) ?? new Set()).add(course))
  const leaves = (a: Option, b: Option) =>
    a.main.block !== null && a.main.block !== b.main.block && coursesOf.get(a.main.block)!.has(b.course)
  return (a, b) => {
    const [one, other] = [options[a]!, options[b]!]
    if (clash(a, b)) return true
    if (leaves(one, other) || leaves(other, one)) return true
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

/** The classes of each option by weekday, with the dates on which they are held. */
function partsOf(options: readonly Option[], holidays: Holidays): DayPart[][] {
  const meetings = new Map<Meeting, number>()
  for (const meeting of options.flatMap(meetingsOf))
    if (!meetings.has(meeting)) meetings.set(meeting, meetings.size)
  const kinds = kindsOfDates([...meetings.keys()], holidays)
  const campuses = [...new Set([...meetings.keys()].map((meeting) => meeting.campus))]
  return options.map((option) =>
    sectionsOf(option).flatMap(({ mode, meetings: own }) =>
      own.flatMap((meeting) =>
        meeting.days.flatMap((day) => {
          const here = kinds.get(day)![meetings.get(meeting)!]!
          const campus =
            mode === 'online' || mode === 'onlineHours' ? undefined : campuses.indexOf(meeting.campus)
          return here.length ? [{ day, kinds: here, start: meeting.start, end: meeting.end, campus }] : []
        })
      )
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
      return Math.min(SAFE_SEATS, Math.max(0, SAFE_SEATS - seatsLeft(option)))
    case 'keptIfPossible':
      return softly.filter((hours) => fallsIn(option, hours, holidays)).length
    case 'together':
      return sectionsOf(option).filter((one) => !wish.sections.includes(one.code)).length
    default:
      return 0
  }
}
