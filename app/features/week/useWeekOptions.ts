import { fallsIn } from '#core/find'
import type { CourseCode } from '#core/ids'
import type { Refusal } from '#core/findings'
import { decide } from '#core/registration'
import { inTheWay } from '#core/search'
import {
  clashesWith,
  optionsAmong,
  repairOf,
  seatsFor,
  sectionsOf,
  shortWays,
  type Option,
  type OptionClash,
  type Repair,
  type Section,
  type ShortWay
} from '#core/week'
import type { KeepFree } from '#shared/week/responses'

/** An option of a course with everything that speaks for and against it in the week on screen. */
export interface JudgedOption {
  option: Option
  picked: boolean
  /** The student holds its seats. */
  yours: boolean
  /** What else is in the week at its hours. */
  clashes: OptionClash[]
  /** Hours kept free that it falls into. */
  kept: KeepFree[]
  /** Ways to and from it that are too long. */
  ways: ShortWay[]
  /** The one thing in the way of registering it, beside its seats and its hours. */
  refusal: Refusal | undefined
  /** Seats that this student may take. */
  left: number
  /** Picks that would have to move for it, where some can. */
  repair: Repair | undefined
  /** It is held out of the week: by a clash, by hours that must stay free, by a way that must fit. */
  apart: boolean
}

/** Options of a course at the same hours and places: one small week. */
export interface OptionGroup {
  key: string
  /** The best first. */
  options: JudgedOption[]
}

/** What the seats and the hours on a card say already. */
const SEEN = new Set<Refusal['code']>(['full', 'reserved', 'clash'])

const isOffice = (option: Option) => sectionsOf(option).some((one) => one.officeOnly)
/** How well it fits beside the other courses: less is better. A pick does not move it under the pointer. */
function rank({ apart, repair, refusal, left, kept, ways }: JudgedOption): number {
  if (refusal) return 7
  if (apart) return repair && !kept.some((one) => one.hard) ? 5 : 6
  if (left <= 0) return 4
  return kept.length || ways.length ? 2 : 1
}
const byFit = (home: string | undefined) => (a: JudgedOption, b: JudgedOption) =>
  rank(a) - rank(b) ||
  Number(b.option.main.campus === home) - Number(a.option.main.campus === home) ||
  (a.option.main.number < b.option.main.number ? -1 : a.option.main.number > b.option.main.number ? 1 : 0)

type Travel = (from: string, to: string) => number | undefined
type OptionsByCourse = Readonly<Ref<ReadonlyMap<CourseCode, Option[]>>>

/** What the student holds, may take and is refused, of an option. */
function useSeatsOfOptions(sections: Ref<readonly Section[]>) {
  const student = useStudent()
  const standing = useStanding()
  const facts = useTermFacts(
    computed(() => standing.term),
    () => sections.value
  )
  const refusalOf = (option: Option): Refusal | undefined => {
    if (!facts.value) return undefined
    const [line] = decide(facts.value, [option])
    return inTheWay(line!.refusals.filter(({ code }) => !SEEN.has(code)))
  }
  const leftFor = (option: Option): number => {
    const view = student.view!
    const who = {
      programs: view.programs.map((one) => one.spec.code),
      block: view.student.block
    }
    const toTake = sectionsOf(option).filter((one) => !held.value.has(one.code))
    return Math.min(...toTake.map((one) => seatsFor(one, who)))
  }
  const held = computed(() => new Set<string>(standing.heldSections.map((one) => one.code)))
  /** The seat that is held, where it may be exchanged. */
  const isYours = (option: Option) => sectionsOf(option).every((one) => held.value.has(one.code))
  return { refusalOf, leftFor, isYours }
}

/** Everything that speaks for and against an option in the week on screen. */
function useJudgedOptions(sections: Ref<readonly Section[]>, byCourse: OptionsByCourse, travel: Travel) {
  const standing = useStanding()
  const weeks = useWeeks()
  const { refusalOf, leftFor, isYours } = useSeatsOfOptions(sections)
  const isPicked = (option: Option) =>
    sectionsOf(option).every((one) => weeks.picked.some((other) => other.code === one.code))
  /** What is picked, by course, as options. */
  const pickedOptions = computed(() => [...byCourse.value.values()].flat().filter(isPicked))

  const mustStayFree = computed(() => weeks.keepFree.filter((one) => one.hard))
  /** Picks that would have to move for an option, where some can. */
  const repairFor = (wanted: Option) =>
    repairOf({
      wanted,
      picked: pickedOptions.value,
      fixed: weeks.week.staying,
      others: (code) =>
        (byCourse.value.get(code) ?? []).filter(
          (one) =>
            !isOffice(one) && mustStayFree.value.every((hours) => !fallsIn(one, hours, standing.holidays))
        ),
      holidays: standing.holidays
    })
  function judge(option: Option): JudgedOption {
    const { course } = option
    const own = sectionsOf(option)
    const others = weeks.all.filter((one) => one.course !== course)
    const clashes = clashesWith({ course, sections: own }, others, standing.holidays)
    const kept = weeks.keepFree.filter((one) => fallsIn(option, one, standing.holidays))
    const mine = new Set(own)
    const ways = shortWays([...others, ...own], travel, standing.holidays).filter(
      (one) => mine.has(one.from) || mine.has(one.to)
    )
    const isHeldOut = kept.some((one) => one.hard)
    const repair = clashes.length && !isHeldOut ? repairFor(option) : undefined
    return {
      option,
      picked: isPicked(option),
      yours: isYours(option),
      clashes,
      kept,
      ways,
      refusal: isYours(option) ? undefined : refusalOf(option),
      left: leftFor(option),
      repair,
      apart: clashes.length > 0 || isHeldOut || (weeks.habits.travelHolds && ways.length > 0)
    }
  }
  return judge
}

/** All options of the courses of the week on screen, judged and in order: the best first. */
export function useWeekOptions(sections: Ref<readonly Section[]>) {
  const student = useStudent()
  const college = useCollege()
  const standing = useStanding()
  const weeks = useWeeks()

  const travel: Travel = (from, to) =>
    college.catalogContext?.travel.find((one) => one.from === from && one.to === to)?.minutes
  const byCourse = computed(() => {
    const found = new Map<CourseCode, Option[]>()
    for (const course of standing.courses) {
      const own = sections.value.filter((one) => one.course === course)
      found.set(course, optionsAmong(own, standing.holidays))
    }
    return found
  })
  const judge = useJudgedOptions(sections, byCourse, travel)

  const rows = computed(() =>
    standing.courses.map((course) => {
      const judged = (byCourse.value.get(course) ?? []).map(judge).sort(byFit(student.view?.student.campus))
      const open = judged.filter((one) => !isOffice(one.option))
      const seat = standing.heldSections.filter((one) => one.course === course)
      const isFixed = weeks.isFixed(course)
      const topics = new Set(open.map((one) => one.option.main.topic))
      return {
        course,
        about: college.catalogContext?.catalog.maybeCourse(course),
        open,
        groups: grouped(open),
        topical: topics.size > 1,
        office: judged.filter((one) => isOffice(one.option)),
        seat,
        isFixed,
        placed: standing.held.some((one) => one.course === course && one.placedByOffice),
        exchanged: weeks.week.exchanged.has(course),
        planned: standing.planned.some((one) => one.course === course),
        waiting: student.view?.waiting.find(
          (one) => one.course === course && one.term === standing.term?.code
        ),
        settled: seat.length > 0 || open.some((one) => one.picked),
        fitting: open.filter((one) => !one.apart && !one.refusal && one.left > 0).length,
        fullFitting: open.filter((one) => !one.apart && !one.refusal && one.left <= 0).length,
        repairable: open.filter((one) => one.apart && one.repair).length
      }
    })
  )

  /** The picks that come along: of a block, those of the other courses of the week that it has. */
  function alongWith({ main, course }: Option): Option[] {
    if (main.block === null) return []
    return standing.courses.flatMap((code) => {
      if (code === course || standing.heldCourses.has(code)) return []
      return (byCourse.value.get(code) ?? []).find((one) => one.main.block === main.block) ?? []
    })
  }

  return { rows, alongWith, travel }
}

/** A course of the week with its options and what is held of it. */
export type OptionCourse = ReturnType<typeof useWeekOptions>['rows']['value'][number]

/** Options at the same hours, in the same way and place: together, at the place of the best. */
function grouped(options: readonly JudgedOption[]): OptionGroup[] {
  const groups = new Map<string, OptionGroup>()
  for (const one of options) {
    const key = sectionsOf(one.option)
      .map(({ meetings, mode, campus, topic, block }) =>
        [
          mode,
          campus,
          topic,
          block,
          ...meetings.map(({ days, start, end, from, to }) => [days.join(''), start, end, from, to].join(' '))
        ].join(',')
      )
      .join(';')
    const group = groups.get(key) ?? { key, options: [] }
    group.options.push(one)
    groups.set(key, group)
  }
  return [...groups.values()]
}
