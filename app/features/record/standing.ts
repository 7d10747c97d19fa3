import { clashesWith } from '#core/week'
import type { Term } from '#core/catalog'
import type { CourseCode } from '#core/ids'
import { dayNumber } from '#core/time'
import { holdsFor } from '#shared/charges/balance'
import { goingWith } from '#shared/reading'
import { termWeek } from '#shared/week/termWeek'
import type { TermView } from '#shared/catalog/responses'
import { deadlineText } from '#shared/when'
import { routeFigures } from '#shared/degree/figures'
import { degreeState, registerState, routeState, weekState } from '#shared/today/placeStates'
import { hasChanged, sinceSignOff } from '#shared/advising/signOff'
import { count } from '#shared/words'

/** What was asked of the advisor and signed off for a term, and what has changed since. */
function useTermSignOff(term: Ref<Term | undefined>) {
  const student = useStudent()
  const clock = useClock()
  const since = computed(() => student.view && sinceSignOff(student.view, term.value?.code, clock.minute))
  const signOff = computed(() => since.value?.signOff)
  /** The review of the term, as it was asked for last. */
  const review = computed(() => student.view?.reviews.find((one) => one.term === term.value?.code))
  /** The same while it waits for an answer. */
  const openReview = computed(() => (review.value?.answer ? undefined : review.value))
  const changedSince = computed(() => hasChanged(since.value))
  return { since, signOff, review, openReview, changedSince }
}

/** Courses of a term, planned, picked and held, and how they go together in the draft week gone with. */
function useTermCourses(term: Ref<TermView | undefined>) {
  const student = useStudent()
  const planned = computed(() =>
    (student.view?.route.courses ?? []).filter((p) => p.term === term.value?.code)
  )
  const held = computed(() => (student.view?.held ?? []).filter((h) => h.term === term.value?.code))
  const draft = computed(() => student.view && goingWith(student.view, term.value?.code))

  /** The coming term with the draft week gone with. */
  const week = computed(() =>
    termWeek(student.view ?? { held: [], sections: [], fallbacks: [] }, term.value?.code, draft.value)
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
  return {
    ...{ planned, held, draft, week, heldSections, heldCourses, pickedSections, pickedCourses },
    ...{ courses, settled, holidays, clashes }
  }
}

/** Where the student stands: what the frame says under each place, and what several views share. */
export const useStanding = defineStore('standing', () => {
  const student = useStudent()
  const college = useCollege()
  const clock = useClock()
  const todo = useTodo()

  const main = computed(() => student.reading?.audits[0])
  /** The figures people act on, the same wherever they stand. */
  const figures = computed(() => student.reading && routeFigures(student.reading))
  const finish = computed(() => figures.value?.finish)

  /** The term at work, and how it stands. */
  const work = computed(() => student.work)
  const term = computed(() => student.coming)
  const opening = computed(() => student.view?.openings.find((o) => o.term === term.value?.code))
  /** Seats that are held for the student in the term at work, as long as they are. */
  const offers = computed(() =>
    (student.view?.offers ?? []).filter((one) => one.term === term.value?.code && one.until > clock.minute)
  )
  const holds = computed(() =>
    student.view
      ? holdsFor(student.view, college.catalogContext?.terms ?? [], term.value, college.today).filter(
          (hold) => hold.stopsRegistration
        )
      : []
  )
  const toConfirm = computed(() => (student.view?.programs ?? []).filter((p) => p.confirmed !== 'confirmed'))
  const signedOff = useTermSignOff(term)
  const ofTerm = useTermCourses(term)
  /** Why nothing can be added to the term at work; undefined while that can be. */
  const closedWhy = computed(() => {
    if (!work.value || work.value.planning) return undefined
    const { state, term: at } = work.value
    return state === 'underWay' || state === 'ahead'
      ? `Adding to ${at.name} was possible until ${deadlineText(at.addEndsAt, college.zone)}.`
      : `${at.name} is over.`
  })

  const places = computed((): Place[] => {
    const id = student.view?.student.id
    if (!id || !student.reading) return []
    const states: Record<PlaceOfStudent, string> = {
      today: todo.list.length ? `${count(todo.list.length, 'thing')} to do` : 'nothing waits',
      degree: degreeState(figures.value?.programs ?? []),
      route: routeState(student.reading),
      week: weekState(work.value, { courses: ofTerm.courses.value.length, settled: ofTerm.settled.value }),
      register: student.say(registerState(work.value, clock.minute, offers.value))
    }
    return placesOfStudent(id, states)
  })

  return {
    ...{ main, figures, finish, work, closedWhy, term, opening },
    ...signedOff,
    ...ofTerm,
    ...{ offers, holds, toConfirm, places }
  }
})
