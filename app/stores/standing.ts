import { clashesWith } from '#core/week'
import type { CourseCode } from '#core/ids'
import { dayNumber } from '#core/time'
import { goingWith } from '#wire/reading'
import { termWeek } from '#wire/termWeek'
import { count } from '#wire/words'
import { timeLeft } from '#wire/when'

export interface Place {
  to: string
  name: string
  state: string
  key: string
}

/** Where the student stands: what the frame says under each place, and what several views share. */
export const useStanding = defineStore('standing', () => {
  const student = useStudent()
  const college = useCollege()
  const clock = useClock()
  const todo = useTodo()

  const main = computed(() => student.reading?.audits[0])
  const total = computed(() => main.value?.program.spec.credits ?? 0)
  const reached = computed(() => main.value?.amounts.earned ?? 0)
  const finish = computed(() => {
    const amounts = main.value?.amounts
    return amounts && amounts.needed === 0 ? student.reading?.climb.points.at(-1)?.term : undefined
  })

  const term = computed(() => student.coming)
  const opening = computed(() => student.picture?.openings.find((o) => o.term === term.value?.code))
  const signOff = computed(() => student.picture?.signOffs.find((s) => s.term === term.value?.code))
  const planned = computed(() =>
    (student.picture?.route.courses ?? []).filter((p) => p.term === term.value?.code)
  )
  const held = computed(() => (student.picture?.held ?? []).filter((h) => h.term === term.value?.code))
  const draft = computed(() => student.picture && goingWith(student.picture, term.value?.code))

  /** The coming term with the draft week gone with. */
  const week = computed(() =>
    termWeek(student.picture ?? { held: [], sections: [] }, term.value?.code, draft.value)
  )
  const heldSections = computed(() => week.value.held)
  const heldCourses = computed(() => new Set<CourseCode>(held.value.map((h) => h.course)))
  const pickedSections = computed(() => week.value.picked)
  const pickedCourses = computed(() => new Set<CourseCode>(pickedSections.value.map((s) => s.course)))
  /** Every course of the coming term: planned, picked or held, each once. */
  const courses = computed(() => {
    const codes = new Set<CourseCode>([
      ...planned.value.map((p) => p.course),
      ...heldCourses.value,
      ...pickedCourses.value
    ])
    return [...codes].sort()
  })
  const settled = computed(
    () => courses.value.filter((c) => heldCourses.value.has(c) || pickedCourses.value.has(c)).length
  )
  const holidays = computed(() => new Set((term.value?.holidays ?? []).map((h) => dayNumber(h.date))))
  const clashes = computed(() => {
    const all = [...week.value.staying, ...week.value.picked]
    return all.flatMap((section) =>
      clashesWith({ course: section.course, sections: [section] }, all, holidays.value)
    )
  })
  const holds = computed(() => (student.picture?.holds ?? []).filter((h) => h.stopsRegistration))
  const toConfirm = computed(() =>
    (student.picture?.programs ?? []).filter((p) => p.confirmed !== 'confirmed')
  )
  const changedSince = computed(() => {
    if (!signOff.value) return false
    const now = planned.value.map((p) => p.course)
    return now.length !== signOff.value.courses.length || now.some((c) => !signOff.value!.courses.includes(c))
  })

  const places = computed((): Place[] => {
    const id = student.picture?.student.id
    if (!id || !student.reading) return []
    const base = `/students/${id}`
    const findings = student.reading.findings.length
    const opens = opening.value?.opens
    const registered = held.value.length
    const register = registered
      ? `${count(registered, 'course')} registered`
      : opens === undefined
        ? 'no opening yet'
        : opens > clock.now
          ? `opens in ${timeLeft(opens - clock.now)}`
          : clock.now < (term.value?.addEndsAt ?? 0)
            ? 'open for you'
            : 'closed'
    return [
      {
        to: `${base}/today`,
        name: 'Today',
        key: 't',
        state: todo.list.length ? `${count(todo.list.length, 'thing')} to do` : 'nothing waits'
      },
      { to: `${base}/degree`, name: 'Degree', key: 'd', state: `${reached.value} of ${total.value} credits` },
      {
        to: `${base}/route`,
        name: 'Route',
        key: 'r',
        state: findings ? count(findings, 'finding') : planned.value.length ? 'all clear' : 'nothing planned'
      },
      {
        to: `${base}/week`,
        name: 'Week',
        key: 'w',
        state: courses.value.length
          ? `${settled.value} of ${courses.value.length} settled`
          : college.shortTerm(term.value?.code ?? '')
      },
      { to: `${base}/register`, name: 'Register', key: 'e', state: register }
    ]
  })

  return {
    main,
    total,
    reached,
    finish,
    term,
    opening,
    signOff,
    planned,
    held,
    draft,
    week,
    heldSections,
    pickedSections,
    heldCourses,
    pickedCourses,
    courses,
    settled,
    holidays,
    clashes,
    holds,
    toConfirm,
    changedSince,
    places
  }
})
