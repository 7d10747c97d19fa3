import { SAFE_SEATS, settledGroups, type Wish } from '#core/find'
import type { CourseCode } from '#core/ids'
import { figuresOf, optionsAmong, sectionsFor, type Section, type WeekFigures } from '#core/week'
import type { FindCall, Must } from '#shared/week/finding'
import type { KeepFree } from '#shared/week/responses'
import { takerOf } from '#shared/reading'

/** A week that was found, with what is compared. */
export interface FoundCard {
  number: number
  sections: Section[]
  figures: WeekFigures
  /** Sections with few seats left, or none. */
  risky: number
  /** Minutes in class on the fullest day. */
  fullest: number
  fees: number
}

const TOP = 50
const USUAL_WISHES: Wish[] = [
  { kind: 'fewestDays' },
  { kind: 'startsAfter', time: 9 * 60 + 30 },
  { kind: 'fewestHoursBetween' },
  { kind: 'oneCampusADay' },
  { kind: 'seatsSafe' }
]

/** Sections of the courses asked about that are for this student; a week of others could not be registered. */
function useOwnSections(sections: Ref<readonly Section[]>) {
  const student = useStudent()
  const standing = useStanding()
  return computed(() => {
    const { view, reading } = student
    if (!view || !reading) return []
    const held = new Set(standing.heldSections.map((one) => one.code))
    return sectionsFor(sections.value, takerOf(view, reading.now), held, standing.holidays)
  })
}

/** Courses that a week is searched of: which of them, which for one another, and whose pick stays. */
function useAskedCourses(mine: Ref<readonly Section[]>) {
  const student = useStudent()
  const standing = useStanding()
  const added = ref<CourseCode[]>([])
  const left = ref(new Set<CourseCode>())
  const either = ref(new Set<CourseCode>())
  const take = ref(1)
  /** Courses of which the pick stays. */
  const stays = ref(new Set<CourseCode>())

  /** What is said belongs to a term and a student. */
  watch([() => standing.term?.code, () => student.view?.student.id], () => {
    added.value = []
    left.value = either.value = stays.value = new Set()
    take.value = 1
  })

  const courses = computed(() => [...new Set([...standing.courses, ...added.value])])
  const hasOptions = computed(() => {
    const found = new Set<CourseCode>()
    for (const course of courses.value)
      if (
        standing.heldCourses.has(course) ||
        optionsAmong(
          mine.value.filter((one) => one.course === course),
          standing.holidays
        ).length
      )
        found.add(course)
    return found
  })
  const asked = computed(() =>
    courses.value.filter((course) => hasOptions.value.has(course) && !left.value.has(course))
  )
  const choice = computed(() => asked.value.filter((course) => either.value.has(course)))
  const groups = computed(() => {
    const single = asked.value.filter((course) => !either.value.has(course))
    const all = single.map((course) => ({ courses: [course], take: 1 }))
    if (!choice.value.length) return all
    const chosen = { courses: choice.value, take: Math.min(take.value, choice.value.length) }
    return settledGroups([...all, chosen], (course) => stays.value.has(course))
  })
  return { added, left, either, take, stays, courses, hasOptions, choice, groups }
}

/** The weeks that were found, with what is compared. */
function useFoundCards(found: ReturnType<typeof useWeekSearch>['found'], mine: Ref<readonly Section[]>) {
  const standing = useStanding()
  return computed((): FoundCard[] => {
    const known = new Map<string, Section>(mine.value.map((one) => [one.code, one]))
    const held = new Set<string>(standing.heldSections.map((one) => one.code))
    return (found.value?.weeks ?? []).map((codes, i) => {
      const own = codes.flatMap((code) => known.get(code) ?? [])
      const figures = figuresOf(own, standing.holidays)
      return {
        number: i + 1,
        sections: own,
        figures,
        risky: own.filter((one) => !held.has(one.code) && one.capacity - one.taken < SAFE_SEATS).length,
        fullest: figures.fullest,
        fees: own.reduce((sum, one) => sum + one.fee, 0)
      }
    })
  })
}

/** What is asked of the search: the courses, what must hold, and what is wished for. */
function useQuestion(
  mine: Ref<readonly Section[]>,
  { groups, stays }: ReturnType<typeof useAskedCourses>,
  seatsLeft: Ref<boolean>
) {
  const college = useCollege()
  const standing = useStanding()
  const weeks = useWeeks()
  const wishes = computed<Wish[]>(() => (weeks.habits.wishes.length ? weeks.habits.wishes : USUAL_WISHES))
  const hard = computed(() => weeks.keepFree.filter((one) => one.hard))
  const fixed = computed(() => [
    ...standing.heldSections.filter((one) => weeks.isFixed(one.course)).map((one) => one.code),
    ...weeks.picked.filter((one) => stays.value.has(one.course)).map((one) => one.code)
  ])

  const call = computed((): Omit<FindCall, 'want'> & { want: Omit<FindCall['want'], 'wishes'> } => ({
    sections: mine.value,
    holidays: [...standing.holidays],
    want: {
      groups: groups.value,
      kept: hard.value,
      softly: weeks.keepFree.filter((one) => !one.hard),
      seatsLeft: seatsLeft.value,
      fixed: fixed.value,
      travelHolds: weeks.habits.travelHolds
    },
    travel: college.catalogContext?.travel ?? [],
    top: TOP
  }))
  return { wishes, hard, call }
}

/** Lets go of something that must hold. */
function lettingGo(
  asked: ReturnType<typeof useAskedCourses>,
  mine: Ref<readonly Section[]>,
  seatsLeft: Ref<boolean>,
  hard: Ref<readonly KeepFree[]>
) {
  const weeks = useWeeks()
  return function letGo(must: Must): void {
    if (must.kind === 'travel') void weeks.setHabits({ travelHolds: false })
    else if (must.kind === 'seats') seatsLeft.value = false
    else if (must.kind === 'fixed') {
      const course = mine.value.find((one) => one.code === must.section)?.course
      asked.stays.value = new Set([...asked.stays.value].filter((one) => one !== course))
    } else if (must.kind === 'kept') {
      const gone = hard.value[must.number]
      void weeks.setKeepFree(
        weeks.keepFree.map((one) => (one === gone ? { ...one, hard: false } : one)),
        `${gone?.name} is kept free if possible.`
      )
    } else {
      const group = asked.groups.value[must.number]!
      if (group.courses.length === 1) asked.left.value = new Set([...asked.left.value, group.courses[0]!])
      else asked.take.value = Math.max(0, group.take - 1)
    }
  }
}

/** Weeks that fit: what is asked, searched in a worker, and what was found. */
export const useFinding = defineStore('finding', () => {
  const student = useStudent()
  const standing = useStanding()

  /** Sections of the courses asked about. */
  const sections = shallowRef<readonly Section[]>([])
  const mine = useOwnSections(sections)
  const asked = useAskedCourses(mine)
  const seatsLeft = ref(false)
  watch([() => standing.term?.code, () => student.view?.student.id], () => (seatsLeft.value = false))
  const { wishes, hard, call } = useQuestion(mine, asked, seatsLeft)

  const { found, counted, steps, failure, begin, none, goOn, hold, end } = useWeekSearch()

  function ask(): void {
    if (!asked.groups.value.length || !mine.value.length) return none()
    const { want, ...rest } = call.value
    begin({ call: { ...rest, want: { ...want, wishes: wishes.value } } })
  }
  /** Only the order of the wishes, or one of them, is another. */
  function rank(): void {
    if (!goOn({ wishes: wishes.value })) ask()
  }
  const cards = useFoundCards(found, mine)

  return {
    sections,
    ...asked,
    seatsLeft,
    wishes,
    hard,
    call,
    found,
    counted,
    steps,
    failure,
    cards,
    ask,
    rank,
    hold,
    end,
    letGo: lettingGo(asked, mine, seatsLeft, hard)
  }
})
