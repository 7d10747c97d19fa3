import { runsIn, subjectOf } from '#core/catalog'
import { decideCourse, type CourseDecision } from '#core/registration'
import {
  courseTests,
  filterByFacets,
  type CourseFilter,
  type CourseQuestion,
  type FoundCourse
} from '#core/search'
import { optionsAmong, seatsAmong, type Option, type Section } from '#core/week'
import type { CourseQuery, CourseSort } from '#shared/catalog/courseQuery'
import type { TermView } from '#shared/catalog/responses'
import type { Served } from '~/features/degree/useServing'

/** A course found, with everything a line about it shows; the decision is made when it is first looked at. */
export interface FoundLine extends FoundCourse {
  needs: Served['needs']
  serving: Served['serving']
  options: Option[]
  seats: { left: number; of: number } | undefined
  decision: CourseDecision | undefined
}

export interface FoundGroup {
  subject: string
  name: string
  lines: FoundLine[]
}

/** Courses by subject, in an order. */
function groupedBySubject(lines: readonly FoundLine[], sort: CourseSort): FoundGroup[] {
  const kept = [...lines]
  const order = ORDERS[sort]
  // Stable: equals stay in the order of the search, which is that of the codes where nothing is typed.
  if (order) kept.sort(order)
  const names = new Map(useCollege().view?.subjects.map((one) => [one.code, one.name]))
  const found = new Map<string, FoundGroup>()
  for (const line of kept) {
    const subject = subjectOf(line.course.code)
    const group = found.get(subject) ?? { subject, name: names.get(subject) ?? subject, lines: [] }
    group.lines.push(line)
    found.set(subject, group)
  }
  return [...found.values()]
}

/** All courses with what is said of each in a term; a decision is made when somebody looks. */
function useCourseLines(
  term: Ref<TermView | undefined>,
  offer: Ref<{ sections: readonly Section[] } | undefined>,
  facts: ReturnType<typeof useTermFacts>
) {
  const college = useCollege()
  const student = useStudent()
  const byCourse = computed(() => {
    const sections = new Map<string, Section[]>()
    for (const section of offer.value?.sections ?? [])
      sections.set(section.course, [...(sections.get(section.course) ?? []), section])
    return sections
  })

  const served = useServing()

  const everything = computed((): FoundLine[] => {
    const { catalogContext, view } = college
    const asked = term.value
    if (!catalogContext || !view || !asked) return []
    const colleges = new Map(view.subjects.map((one) => [one.code, one.college]))
    const there = new Set(
      (student.reading?.attempts.counted ?? []).flatMap((one) => catalogContext.catalog.sameAs(one.course))
    )
    const judged = facts.value
    return catalogContext.catalog.courses.map((course): FoundLine => {
      const sections = byCourse.value.get(course.code) ?? []
      const options = optionsAmong(sections)
      const { needs, serving, atOnce } = served.value(course)
      let decision: CourseDecision | undefined
      return {
        course,
        college: colleges.get(subjectOf(course.code)) ?? '',
        serves: needs.map((need) => need.key),
        atOnce,
        needs,
        serving,
        options,
        runs: runsIn(course, asked, catalogContext.running),
        held: sections.filter((one) => !one.cancelled),
        there: there.has(course.code),
        seats: options.length ? seatsAmong(sections) : undefined,
        get decision() {
          return (decision ??= judged && decideCourse(judged, course.code, options))
        },
        get refusals() {
          return this.decision?.refusals ?? []
        }
      }
    })
  })
  return everything
}

/** The courses that a query finds, and what each of its filters hides. */
export function useFoundCourses(query: Ref<CourseQuery>) {
  const student = useStudent()
  const finder = useFinder()

  const { term, offer } = useOfferOfTerm(() => query.value.term)
  const openNeeds = useOpenNeeds()
  const facts = useTermFacts(term, () => offer.value?.sections ?? [])
  const everything = useCourseLines(term, offer, facts)
  const lines = computed(() => new Map(everything.value.map((line) => [line.course, line])))

  /** In the order of the search; everything where nothing is typed. */
  const worded = computed((): FoundLine[] => {
    const { text } = query.value
    if (!text.trim()) return everything.value
    const found = finder.index?.find(text, Infinity) ?? []
    return found.flatMap((course) => lines.value.get(course) ?? [])
  })
  const filter = computed((): CourseFilter => {
    const level = query.value.study ?? student.view?.student.level ?? 'any'
    return { ...query.value.filter, study: level === 'any' ? undefined : level }
  })
  const faceted = computed(() =>
    filterByFacets<FoundLine, CourseQuestion>(worded.value, courseTests(filter.value))
  )

  const groups = computed(() => groupedBySubject(faceted.value.kept, query.value.sort))

  return { term, offer, openNeeds, filter, faceted, groups, lines, facts }
}

const byCode = (a: FoundLine, b: FoundLine) => (a.course.code < b.course.code ? -1 : 1)
const ORDERS: Record<CourseSort, ((a: FoundLine, b: FoundLine) => number) | undefined> = {
  best: undefined,
  code: byCode,
  title: (a, b) => a.course.title.localeCompare(b.course.title, 'en') || byCode(a, b),
  needs: (a, b) => b.needs.length - a.needs.length || byCode(a, b),
  credits: (a, b) => a.course.credits - b.course.credits || byCode(a, b),
  seats: (a, b) => (b.seats?.left ?? -1) - (a.seats?.left ?? -1) || byCode(a, b)
}
