/**
 * What of a student's record, routes and weeks is for whom: every part by relation. What somebody is not to see is left
 * out here, before it is sent; figures that others see too rest on what all may see.
 */
import type { SectionCode } from '#core/ids'
import type { DraftWeek, KeepFree } from '#shared/week/responses'
import type { LineFallbacks } from '#shared/registration/fallbacks'
import type { StudentRecord, StudentView } from '#shared/record/responses'
import type { Relation } from '#server/http/access'

/** All of it, none of it, or so much. */
type Part<T> = 'all' | { rest: T } | { some: (whole: T) => T }
type Seen<T> = Record<Exclude<Relation, 'self'>, Part<T>>

const everybody = { programAdvisor: 'all', supportAdvisor: 'all', registrar: 'all' } as const
const advisors = <T>(rest: T): Seen<T> => ({
  programAdvisor: 'all',
  supportAdvisor: 'all',
  registrar: { rest }
})
const nobodyElse = <T>(rest: T): Seen<T> => ({
  programAdvisor: { rest },
  supportAdvisor: { rest },
  registrar: { rest }
})
const toOthers = <T>(some: (whole: T) => T): Seen<T> => ({
  programAdvisor: { some },
  supportAdvisor: { some },
  registrar: { some }
})

/** That hours are kept free matters to the week; what for is the student's own. */
const unnamed = (hours: KeepFree[]): KeepFree[] => hours.map((one) => ({ ...one, name: 'Kept free' }))
/** What is said of a line matters to it; the words beside it are for the student and the program advisor. */
const unnoted = (lines: LineFallbacks[]): LineFallbacks[] => lines.map((one) => ({ ...one, note: null }))
/** The week gone with is what the checks rest on; the others are thoughts. */
const goneWith = (drafts: DraftWeek[]): DraftWeek[] =>
  drafts
    .filter((week) => week.goingWith)
    .map((week) => ({ ...week, name: 'Week', asPicked: {}, shareKey: null, note: null }))

const SEEN: { [Key in keyof StudentView]: Seen<StudentView[Key]> } = {
  student: everybody,
  relation: everybody,
  programs: everybody,
  tests: everybody,
  milestones: everybody,
  exceptions: everybody,
  record: everybody,
  held: everybody,
  waiting: everybody,
  offers: everybody,
  fallbacks: {
    programAdvisor: 'all',
    supportAdvisor: { some: unnoted },
    registrar: { some: unnoted }
  },
  prepared: everybody,
  agreements: everybody,
  holds: everybody,
  accounts: everybody,
  advisors: everybody,
  route: everybody,
  carry: everybody,
  openings: everybody,
  permitted: everybody,
  signOffs: everybody,
  // Held and waited for, and of the drafts what is seen of them; see `seenBy`.
  sections: everybody,
  keepFree: toOthers(unnamed),
  drafts: {
    programAdvisor: { some: (drafts) => drafts.map((week) => ({ ...week, shareKey: null })) },
    supportAdvisor: { some: goneWith },
    registrar: { some: goneWith }
  },
  routes: {
    programAdvisor: 'all',
    supportAdvisor: { some: (routes) => routes.filter((route) => route.chosen) },
    registrar: { some: (routes) => routes.filter((route) => route.chosen) }
  },
  intentions: everybody,
  graduations: everybody,
  reviews: everybody,
  requests: everybody,
  agreed: advisors<StudentView['agreed']>([]),
  // Read for whoever asks; among advisors or not.
  talk: advisors<StudentView['talk']>([]),
  // Read for whoever asks, with their routes.
  sectionSuggestions: advisors<StudentView['sectionSuggestions']>([]),
  suggestions: advisors<StudentView['suggestions']>([]),
  // Read for whoever asks; to an advisor their own.
  appointments: advisors<StudentView['appointments']>([]),
  talkRecords: advisors<StudentView['talkRecords']>([]),
  termNotes: advisors<StudentView['termNotes']>([]),
  marks: nobodyElse<StudentView['marks']>([]),
  habits: nobodyElse<StudentView['habits']>({ wishes: [], travelHolds: false }),
  transcripts: nobodyElse<StudentView['transcripts']>([]),
  calendarKey: nobodyElse<string | null>(null)
}

/** Sections that are named as fallbacks. */
export const sectionsOfFallbacks = ({ fallbacks }: Pick<StudentRecord, 'fallbacks'>): SectionCode[] =>
  fallbacks.flatMap(({ list }) => list.flatMap((one) => (one.kind === 'sections' ? one.sections : [])))

/** The record of a student as it is sent to somebody who stands in that relation to them. */
export function seenBy<T extends StudentRecord>(relation: Relation, whole: T): T {
  if (relation === 'self') return whole
  const seen = Object.fromEntries(
    Object.entries(whole).map(([key, value]) => {
      const part = SEEN[key as keyof StudentView][relation] as Part<unknown>
      if (part === 'all') return [key, value]
      return [key, 'rest' in part ? part.rest : part.some(value)]
    })
  ) as T
  const shown = new Set([
    ...seen.held.flatMap((seat) => [seat.section, ...seat.components]),
    ...seen.waiting.flatMap((place) => [place.section, ...place.sections]),
    ...seen.offers.flatMap((offer) => offer.sections),
    ...sectionsOfFallbacks(seen),
    ...seen.drafts.flatMap((week) => week.sections)
  ])
  return { ...seen, sections: seen.sections.filter((section) => shown.has(section.code)) }
}
