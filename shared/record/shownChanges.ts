/** What a change makes of the record on screen, until the server has said what it came to and then. */
import type { TermCode } from '#core/ids'
import { applyChange, inverse } from '#core/route'
import { asPicked } from '#core/week'
import { placeSuggestions, type Suggestion, type SuggestionsAnswer } from '#shared/advising/suggestions'
import type { Thread } from '#shared/advising/talk'
import type { CourseBookmark } from '#shared/catalog/responses'
import { FIRST_DRAFT } from '#shared/reading'
import type { StudentView } from '#shared/record/responses'
import type { RouteAnswer, RouteView } from '#shared/route/responses'
import type { DraftWeek } from '#shared/week/responses'
import { NEW_WEEK, type Change, type Of } from './changes'

type Shown = { [Kind in Change['kind']]?: (view: StudentView, change: Of<Kind>) => StudentView }

/** What can be said of the record before the server has answered; the rest is shown when it has. */
const SHOWN: Shown = {
  route: (view, { route, change }) =>
    changedRoute(view, route, (before) => {
      const changed = applyChange(before.courses, change, () => true)
      return changed.ok ? { courses: changed.courses, undo: changed.made, redo: null } : {}
    }),
  step: (view, { route, step, change }) =>
    changedRoute(view, route, (before) => {
      const changed = applyChange(before.courses, step === 'undo' ? inverse(change) : change, () => true)
      // What is taken back next is known when the server has answered.
      return changed.ok ? { courses: changed.courses, undo: null, redo: null } : {}
    }),
  describeRoute: (view, { route, said: { chosen, ...said } }) => {
    const described = changedRoute(view, route, () => said)
    const next = described.routes.find((one) => one.id === route)
    if (!chosen || !next) return described
    const routes = described.routes.map((one) => ({ ...one, chosen: one.id === route }))
    return { ...described, route: { ...next, chosen: true }, routes: chosenFirst(routes) }
  },
  dropRoute: (view, { route }) => ({ ...view, routes: view.routes.filter((one) => one.id !== route) }),
  carry: (view, { carry }) => ({ ...view, carry }),
  mark: (view, { course, said: { looked, ...said }, at }) => {
    const old = view.marks.find((one) => one.course === course)
    const mark: CourseBookmark = {
      course,
      starred: old?.starred ?? false,
      note: old?.note ?? null,
      lookedAt: looked ? at : (old?.lookedAt ?? null),
      ...said
    }
    return { ...view, marks: [...view.marks.filter((one) => one !== old), mark] }
  },
  termNote: (view, { term, text, by }) => {
    const others = view.termNotes.filter((one) => one.term !== term)
    return { ...view, termNotes: text ? [...others, { term, text, by }] : others }
  },
  picks: (view, change) => withPicks(view, change),
  changeWeek: (view, { week, said: { shared: _, ...said } }) => {
    const own = view.drafts.find((one) => one.id === week)
    const drafts = view.drafts.map((one) => {
      if (one.id === week) return { ...one, ...said }
      return said.goingWith && one.term === own?.term ? { ...one, goingWith: false } : one
    })
    return { ...view, drafts }
  },
  dropWeek: (view, { week }) => ({ ...view, drafts: view.drafts.filter((one) => one.id !== week) }),
  keepFree: (view, { hours }) => ({ ...view, keepFree: hours }),
  habits: (view, { habits }) => ({ ...view, habits }),
  fallbacks: (view, { kind: _, ...line }) => ({
    ...view,
    fallbacks: [...view.fallbacks.filter((one) => one.term !== line.term || one.course !== line.course), line]
  }),
  prepare: (view, { kind: _, ...sheet }) => ({
    ...view,
    prepared: [...view.prepared.filter((one) => one.term !== sheet.term), sheet]
  }),
  dropAddress: (view) => ({ ...view, calendarKey: null }),
  askReview: (view, { term, note, answers, at }) => ({
    ...view,
    reviews: [...ofOtherTerms(view, term), { term, note, answers, askedAt: at, answer: null }]
  }),
  handIn: (view, { kind: _, ...handed }) => ({
    ...view,
    intentions: [...view.intentions.filter((one) => one.term !== handed.term), handed]
  }),
  takeIntentionsBack: (view, { term }) => ({
    ...view,
    intentions: view.intentions.filter((one) => one.term !== term)
  }),
  applyToGraduate: (view, { kind: _, at: askedAt, ...said }) => ({
    ...view,
    graduations: [{ id: 0, ...said, state: 'asked', askedAt, awarded: null }]
  }),
  withdrawApplication: (view) => ({
    ...view,
    graduations: view.graduations.filter((one) => one.state === 'awarded')
  }),
  milestone: (view, { condition, reached }) => ({
    ...view,
    milestones: [...view.milestones.filter((one) => one !== condition), ...(reached ? [condition] : [])]
  }),
  askTranscript: (view, { said, at: askedAt }) => ({
    ...view,
    transcripts: [{ id: 0, ...said, askedAt, sentAt: null }, ...view.transcripts]
  }),
  withdrawTranscript: (view, { transcript }) => ({
    ...view,
    transcripts: view.transcripts.filter((one) => one.id !== transcript)
  }),
  withdrawReview: (view, { term }) => ({ ...view, reviews: ofOtherTerms(view, term) }),
  notYet: (view, { term, missing, by, at }) => ({
    ...view,
    reviews: view.reviews.map((one) => (one.term === term ? { ...one, answer: { by, at, missing } } : one))
  }),
  withdrawRequest: (view, { request }) => ({
    ...view,
    requests: view.requests.filter((one) => one.id !== request)
  }),
  settleThread: (view, { thread, settled, by, at }) =>
    withThread(view, thread, () => ({ settled: settled ? { by, at } : null })),
  readThread: (view, { thread, upTo }) =>
    withThread(view, thread, ({ remarks }) => ({
      unread: remarks.filter((one) => !one.own && one.id > upTo).length
    })),
  explainSuggestion: (view, { suggestion, why }) => withSuggestions(view, [suggestion], () => ({ why })),
  withdrawSections: (view, { suggestion }) => ({
    ...view,
    sectionSuggestions: view.sectionSuggestions.filter((one) => one.id !== suggestion)
  }),
  answerSections: (view, { suggestion, answer, by, at }) => ({
    ...view,
    sectionSuggestions: view.sectionSuggestions.map((one) =>
      one.id === suggestion ? { ...one, state: answer, answer: { by, at } } : one
    )
  }),
  withdrawSuggestion: (view, { suggestion }) => ({
    ...view,
    suggestions: view.suggestions.filter((one) => one.id !== suggestion)
  }),
  answerSuggestions: (view, change) => withAnswers(view, change),
  changeAppointment: (view, { appointment, said, by }) => {
    const state = ({ accept: 'booked', decline: 'declined', cancel: 'cancelled' } as const)[
      said.act as 'accept' | 'decline' | 'cancel'
    ]
    if (!state) return view
    const words = 'words' in said ? said.words : null
    const appointments = view.appointments.map((one) =>
      one.id === appointment ? { ...one, state, changedBy: by, words } : one
    )
    return { ...view, appointments }
  },
  tickAgreed: (view, { line, done, by, at }) => ({
    ...view,
    agreed: view.agreed.map((one) => (one.id === line ? { ...one, done: done ? { by, at } : null } : one))
  }),
  dropAgreed: (view, { line }) => ({ ...view, agreed: view.agreed.filter((one) => one.id !== line) }),
  withdrawException: (view, { exception }) => ({
    ...view,
    exceptions: view.exceptions.filter((one) => one.id !== exception)
  })
}

/** The record as it would be with the change. */
export function shownWith(view: StudentView, change: Change): StudentView {
  const show = SHOWN[change.kind] as ((view: StudentView, change: Change) => StudentView) | undefined
  return show?.(view, change) ?? view
}

/** The record with a change of which the server has said what it came to. */
export function settledWith(view: StudentView, change: Change, answer: unknown): StudentView {
  const shown = shownWith(view, change)
  if (change.kind === 'route' || change.kind === 'step') {
    const { route, version, changedAt, changedBy, undo, redo } = answer as RouteAnswer
    return changedRoute(shown, change.route, () => ({
      id: route,
      version,
      changedAt,
      changedBy,
      undo,
      redo
    }))
  }
  if (change.kind === 'answerSuggestions') {
    const { route: id, version, made, gone } = answer as SuggestionsAnswer
    const left = new Set(gone.map((one) => one.suggestion))
    const answered = shownWith(view, {
      ...change,
      suggestions: change.suggestions.filter((one) => !left.has(one))
    })
    return changedRoute(answered, change.route, () => ({
      id,
      version,
      ...(made && { changedAt: made.changedAt, changedBy: made.changedBy, undo: made.undo, redo: made.redo })
    }))
  }
  if (change.kind === 'picks') {
    const { week } = answer as { week: number }
    return { ...shown, drafts: shown.drafts.map((one) => (one.id === NEW_WEEK ? { ...one, id: week } : one)) }
  }
  return shown
}

/** Whether all that a change brings about is known with its answer; else the record is read anew. */
export const isSettledByItself = ({ kind }: Change): boolean =>
  kind === 'route' ||
  kind === 'step' ||
  kind === 'readThread' ||
  kind === 'mark' ||
  kind === 'keepFree' ||
  kind === 'habits'

const ofOtherTerms = ({ reviews }: StudentView, term: TermCode) => reviews.filter((one) => one.term !== term)

const withThread = (view: StudentView, id: number, change: (thread: Thread) => Partial<Thread>) => ({
  ...view,
  talk: view.talk.map((one) => (one.id === id ? { ...one, ...change(one) } : one))
})

const withSuggestions = (
  view: StudentView,
  ids: readonly number[],
  change: (suggestion: Suggestion) => Partial<Suggestion>
) => ({
  ...view,
  suggestions: view.suggestions.map((one) => (ids.includes(one.id) ? { ...one, ...change(one) } : one))
})

/** Those that cannot be made stay as they are; which they are, the server says. */
function withAnswers(
  view: StudentView,
  { route, suggestions, answer, words, by, at }: Of<'answerSuggestions'>
): StudentView {
  if (answer === 'declined')
    return withSuggestions(view, suggestions, () => ({ state: answer, answer: { by, at, words } }))
  const now = view.routes.find((one) => one.id === route) ?? view.route
  const asked = view.suggestions.filter((one) => suggestions.includes(one.id))
  const placed = placeSuggestions(asked, now.courses, () => true)
  const made = placed.filter((one) => one.now.is !== 'gone').map((one) => one.suggestion.id)
  const answered = withSuggestions(view, made, () => ({ state: answer, answer: { by, at, words } }))
  return changedRoute(answered, route, () => ({ courses: [...(placed.at(-1)?.after ?? now.courses)] }))
}

const chosenFirst = (routes: RouteView[]) =>
  [...routes].sort((a, b) => Number(b.chosen) - Number(a.chosen) || a.name.localeCompare(b.name))

/** Changes a route where it stands among the others; the chosen one without a number. */
function changedRoute(
  view: StudentView,
  id: number | null,
  change: (before: RouteView) => Partial<RouteView>
): StudentView {
  const isIt = (route: RouteView) => (id === null ? route.chosen : route.id === id)
  const routes = view.routes.map((one) => (isIt(one) ? { ...one, ...change(one) } : one))
  if (!isIt(view.route)) return { ...view, routes }
  const route = { ...view.route, ...change(view.route) }
  return { ...view, route, routes: routes.some(isIt) ? routes : [route, ...routes] }
}

function withPicks(view: StudentView, { term, week, picks, held }: Of<'picks'>): StudentView {
  const inTerm = view.drafts.filter((one) => one.term === term)
  const named = week === NEW_WEEK ? null : week
  const id = named ?? inTerm.find((one) => one.goingWith)?.id ?? NEW_WEEK
  const draft: DraftWeek = inTerm.find((one) => one.id === id) ?? {
    id: NEW_WEEK,
    term,
    name: FIRST_DRAFT,
    goingWith: !inTerm.some((one) => one.goingWith),
    sections: [],
    exchanges: [],
    asPicked: {},
    shareKey: null,
    note: null
  }
  const gone = new Set(picks.map((one) => one.course))
  const added = picks.flatMap((one) => one.sections)
  const courseOf = new Map(view.sections.map((one) => [one.code, one.course]))
  const exchanges = new Set(draft.exchanges.filter((one) => !gone.has(one)))
  for (const { course } of added) if (held.includes(course)) exchanges.add(course)
  const picked: DraftWeek = {
    ...draft,
    sections: [
      ...draft.sections.filter((code) => !gone.has(courseOf.get(code)!)),
      ...added.map((one) => one.code)
    ],
    exchanges: [...exchanges],
    asPicked: {
      ...draft.asPicked,
      ...Object.fromEntries(added.map((one) => [one.code, asPicked(one)]))
    }
  }
  const known = new Set(view.sections.map((one) => one.code))
  return {
    ...view,
    drafts: view.drafts.includes(draft)
      ? view.drafts.map((one) => (one === draft ? picked : one))
      : [...view.drafts, picked],
    sections: [...view.sections, ...added.filter((one) => !known.has(one.code))]
  }
}
