import type { NeedResult } from '#core/degree'
import type { CourseCode } from '#core/ids'
import type { SectionSuggestion } from '#shared/advising/sectionSuggestions'
import type { Suggestion } from '#shared/advising/suggestions'
import type { Named, Thread, ThreadSubject } from '#shared/advising/talk'

/** What can be spoken of, as one value of a list, and back. */
const valueOf = ({ is, key }: ThreadSubject): string => (key === null ? is : `${is} ${key}`)
export function subjectOf(value: string): ThreadSubject {
  const end = value.indexOf(' ')
  return end < 0
    ? { is: 'route', key: null }
    : { is: value.slice(0, end) as ThreadSubject['is'], key: value.slice(end + 1) }
}

/** A matter or a suggestion, by its number in the talk. */
export type TalkEntry = { key: string; number: number } & (
  | { thread: Thread; suggestion?: undefined; sections?: undefined }
  | { suggestion: Suggestion; thread?: undefined; sections?: undefined }
  | { sections: SectionSuggestion; thread?: undefined; suggestion?: undefined }
)

/** What of the record can be spoken of, and what each is called. */
function useSubjects(about: Ref<string | undefined>) {
  const student = useStudent()
  const college = useCollege()
  const needs = computed((): NeedResult[] =>
    (student.reading?.audits ?? []).flatMap((audit) => audit.areas.flatMap((area) => area.needs))
  )
  function titleOf({ is, key }: ThreadSubject): string {
    if (is === 'route' || key === null) return 'the whole route'
    if (is === 'term') return college.termName(key)
    if (is === 'need') return needs.value.find((one) => one.need.id === key)?.need.title ?? 'a requirement'
    if (is === 'section') {
      const section = student.view?.sections.find((one) => one.code === key)
      return section ? `${section.course}-${section.number}` : `section ${key}`
    }
    if (is === 'finding') return `the finding: ${key}`
    return key
  }
  /** Everything of the route that can be spoken of. */
  const subjects = computed((): { title: string; value: string }[] => {
    const planned = student.view?.route.courses ?? []
    const held = (student.view?.held ?? []).filter((one) =>
      student.alive.some(({ term }) => term.code === one.term)
    )
    const courses = [...new Set<CourseCode>([...planned, ...held].map((one) => one.course))].sort()
    const terms = new Set<string>([...planned, ...held].map((one) => one.term))
    const found: ThreadSubject[] = [
      { is: 'route' as const, key: null },
      ...(college.catalogContext?.terms ?? [])
        .filter((term) => terms.has(term.code))
        .map((term) => ({ is: 'term' as const, key: term.code })),
      ...courses.map((course) => ({ is: 'course' as const, key: course })),
      ...needs.value
        .filter((one) => one.state !== 'met')
        .map((one) => ({ is: 'need' as const, key: one.need.id }))
    ]
    const values = new Set([...found.map(valueOf), ...(about.value ? [about.value] : [])])
    return [...values].map((value) => ({ title: titleOf(subjectOf(value)), value }))
  })
  return { titleOf, subjects }
}

/** Who can be asked to read a remark, but for whoever writes it. */
function usePeopleToAsk() {
  const student = useStudent()
  const session = useWho()
  return computed((): { value: Named; title: string }[] => [
    ...(student.view && !student.own
      ? [{ value: 'student' as const, title: student.view.student.name }]
      : []),
    ...(student.view?.advisors ?? [])
      .filter((one) => one.name !== session.who?.name)
      .map((one) => ({ value: one.id, title: one.name }))
  ])
}

/** The talk about the student on screen: its matters by number, and what a new one may be about. */
export const useTalk = defineStore('talk', () => {
  const student = useStudent()

  const all = computed(() => student.view?.talk ?? [])
  const about = ref<string>()
  /** Whether whoever looks has a part in it. */
  const mayTalk = computed(() => student.view !== undefined && student.view.relation !== 'registrar')
  /** Between student and advisors, in the order in which they began. */
  const shared = computed(() => all.value.filter((one) => !one.advisorsOnly))
  const amongAdvisors = computed(() => all.value.filter((one) => one.advisorsOnly))
  /** Matters, and suggestions for the route on screen, by their numbers. */
  const entries = computed((): TalkEntry[] => {
    const { suggestions = [], sectionSuggestions = [], route } = student.view ?? {}
    const found: TalkEntry[] = [
      ...shared.value.map((thread) => ({ key: `thread-${thread.id}`, number: thread.number!, thread })),
      ...suggestions
        .filter((one) => one.route === route?.id)
        .map((suggestion) => ({ key: `suggestion-${suggestion.id}`, number: suggestion.number, suggestion })),
      ...sectionSuggestions.map((sections) => ({
        key: `sections-${sections.id}`,
        number: sections.number,
        sections
      }))
    ]
    return found.sort((one, other) => one.number - other.number)
  })
  /** What the pointer or the focus is on, wherever it stands. */
  const lit = ref<string>()
  const unread = computed(() => all.value.filter((one) => one.unread).length)

  /** What a new matter is about, while somebody begins one between student and advisors. */
  function begin(subject: ThreadSubject): void {
    about.value = valueOf(subject)
  }
  /** Brings a part of the page into view, and the focus to it. */
  function show(id: string): void {
    const place = document.getElementById(id)
    place?.scrollIntoView({ block: 'center' })
    place?.focus({ preventScroll: true })
  }

  /** Open matters about something, by their numbers. */
  const pinsOf = (is: ThreadSubject['is'], key: string): { id: number; number: number; unread: boolean }[] =>
    shared.value
      .filter((one) => !one.settled && one.about.is === is && one.about.key === key)
      .map((one) => ({ id: one.id, number: one.number!, unread: one.unread > 0 }))

  return {
    entries,
    lit,
    shared,
    amongAdvisors,
    unread,
    ...useSubjects(about),
    people: usePeopleToAsk(),
    about,
    mayTalk,
    begin,
    show,
    pinsOf
  }
})
