import { subjectOf } from '#core/catalog'
import type { Refusal } from '#core/findings'
import { decideCourse, type CourseDecision } from '#core/registration'
import {
  inTheWay,
  patternOf,
  placeOf,
  sectionTests,
  filterByFacets,
  type FoundSection,
  type SectionQuestion
} from '#core/search'
import { optionsAmong, type Section } from '#core/week'
import {
  haystackOf,
  isTyped,
  readAllTyped,
  typedCode,
  type SectionQuery,
  type SectionSort
} from '#shared/sections/sectionQuery'
import type { TermView } from '#shared/catalog/responses'
import type { Served } from '~/features/degree/useServing'
import { fitsInto } from './useSectionActs'

/** A section found; what is decided about it is worked out when it is first looked at. */
export interface SectionLine extends FoundSection {
  parts: Section[]
  needs: Served['needs']
  serving: Served['serving']
  decision: CourseDecision | undefined
  haystack: string
  /** Something is in the way of its course, whatever the section. */
  blocked: boolean
}

/** Labs and the like, by the code of what they belong to. */
function partsOf(sections: readonly Section[]): ReadonlyMap<string, Section[]> {
  const parts = new Map<string, Section[]>()
  for (const one of sections)
    if (one.parent !== null) parts.set(one.parent, [...(parts.get(one.parent) ?? []), one])
  return parts
}

/** All sections of a term with what is said of each; a decision is made when somebody looks. */
function useSectionLines(term: Ref<TermView | undefined>, sections: Ref<readonly Section[]>) {
  const college = useCollege()
  const standing = useStanding()
  const weeks = useWeeks()
  const facts = useTermFacts(term, () => sections.value)
  const served = useServing()
  const mustStayFree = computed(() => weeks.keepFree.filter((one) => one.hard))

  const everything = computed((): SectionLine[] => {
    const { catalogContext, view } = college
    if (!catalogContext || !view) return []
    const subjects = new Map(view.subjects.map((one) => [one.code, one]))
    const parts = partsOf(sections.value)
    /** What is said of a course whatever its sections. */
    const generally = new Map<string, readonly Refusal[]>()
    const [judged, holidays, hard] = [facts.value, standing.holidays, mustStayFree.value]
    const week = weeks.all
    const isComing = term.value?.code === standing.term?.code
    return sections.value.flatMap((main): SectionLine[] => {
      const course = catalogContext.catalog.maybeCourse(main.course)
      if (main.parent !== null || !course) return []
      const own = parts.get(main.code) ?? []
      const subject = subjects.get(subjectOf(course.code))
      const options = optionsAmong([main, ...own], holidays)
      // A section that asks for something of its own is judged by itself.
      const isOwn = main.prerequisite !== null
      let general = isOwn ? undefined : generally.get(course.code)
      if (!general) {
        general = (judged && decideCourse(judged, course.code, isOwn ? options : []).refusals) ?? []
        if (!isOwn) generally.set(course.code, general)
      }
      const { needs, serving, atOnce } = served.value(course, main)
      let decision: CourseDecision | undefined
      let fits: boolean | undefined
      return [
        {
          main,
          parts: own,
          options,
          course,
          college: subject?.college ?? '',
          needs,
          serving,
          serves: needs.map((need) => need.key),
          atOnce,
          blocked: inTheWay(general) !== undefined,
          haystack: haystackOf(main, course.title, subject?.name ?? '', own, college.placeName),
          get decision() {
            return (decision ??= judged && decideCourse(judged, course.code, options))
          },
          get refusals() {
            return this.decision?.refusals ?? []
          },
          get fits() {
            return (fits ??= isComing && options.some((option) => fitsInto(option, { week, hard, holidays })))
          }
        }
      ]
    })
  })
  return everything
}

/** Those that somebody typed, in their order. */
function useWorded(everything: Ref<readonly SectionLine[]>, query: Ref<SectionQuery>) {
  // Each part of the question by itself: what is typed sorts nothing anew.
  const sort = computed(() => query.value.sort)
  const words = computed(() => query.value.text)
  /** Sorted once, so that what is kept of it stands in order. */
  const ordered = computed(() => [...everything.value].sort(ORDERS[sort.value]))
  const worded = computed(() => {
    const text = words.value
    const code = typedCode(text)
    if (code) {
      const found = ordered.value.filter(
        (one) => one.main.code === code || one.parts.some((part) => part.code === code)
      )
      if (found.length) return found
    }
    if (!text.trim()) return ordered.value
    const all = readAllTyped(text)
    return ordered.value.filter((one) => all.some((typed) => isTyped(one.haystack, one.main, typed)))
  })
  return worded
}

/** What occurs in the term, with how often: the choices of the filters. */
function useOccurring(everything: Ref<readonly SectionLine[]>) {
  const student = useStudent()
  const isHome = (campus: string) => campus === student.view?.student.campus
  return computed(() => {
    const tally = (of: (one: SectionLine) => string | null | undefined) => {
      const found = new Map<string, number>()
      for (const one of everything.value) {
        const value = of(one)
        if (value) found.set(value, (found.get(value) ?? 0) + 1)
      }
      return [...found].sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1))
    }
    return {
      subjects: tally((one) => subjectOf(one.course.code)).sort((a, b) => (a[0] < b[0] ? -1 : 1)),
      colleges: tally((one) => one.college),
      campuses: tally((one) => placeOf(one.main)).sort((a, b) => Number(isHome(b[0])) - Number(isHome(a[0]))),
      buildings: tally((one) => one.main.meetings.find((meeting) => meeting.building)?.building),
      sessions: tally((one) => one.main.session),
      patterns: tally((one) => patternOf(one.main)),
      blocks: tally((one) => one.main.block)
    }
  })
}

/** The sections of a term that a query finds, and what each of its filters hides. */
export function useFoundSections(query: Ref<SectionQuery>) {
  const { term, offer } = useOfferOfTerm(() => query.value.term, true)
  const sections = computed(() => offer.value?.sections ?? [])
  const openNeeds = useOpenNeeds()
  const everything = useSectionLines(term, sections)
  const worded = useWorded(everything, query)
  const isOffice = (one: SectionLine) => one.main.officeOnly
  const office = computed(() => worded.value.filter(isOffice).length)
  const faceted = computed(() =>
    filterByFacets<SectionLine, SectionQuestion>(
      query.value.office ? worded.value : worded.value.filter((one) => !isOffice(one)),
      sectionTests(query.value.filter)
    )
  )
  const lines = computed(() => faceted.value.kept)

  return { term, offer, sections, openNeeds, faceted, lines, office, occurring: useOccurring(everything) }
}

const byCourse = (a: SectionLine, b: SectionLine) =>
  a.main.course < b.main.course
    ? -1
    : a.main.course > b.main.course
      ? 1
      : a.main.number < b.main.number
        ? -1
        : 1
const left = ({ main }: SectionLine) => main.capacity - main.taken
const firstHour = ({ main }: SectionLine) =>
  Math.min(Infinity, ...main.meetings.map((one) => one.days[0]! * 1440 + one.start))
/** What can be taken comes first, of it what serves a need that is asked for by name, then what has seats. */
const particular = (one: SectionLine) => one.needs.filter((need) => !need.free).length
const ORDERS: Record<SectionSort, (a: SectionLine, b: SectionLine) => number> = {
  best: (a, b) =>
    Number(a.blocked) - Number(b.blocked) ||
    particular(b) - particular(a) ||
    Number(left(b) > 0) - Number(left(a) > 0) ||
    byCourse(a, b),
  course: byCourse,
  hour: (a, b) => firstHour(a) - firstHour(b) || byCourse(a, b),
  seats: (a, b) => left(b) - left(a) || byCourse(a, b),
  instructor: (a, b) =>
    (a.main.instructors[0] ?? '~').localeCompare(b.main.instructors[0] ?? '~', 'en') || byCourse(a, b)
}
