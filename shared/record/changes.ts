/**
 * Changes of a record as values: how each is sent, and what it makes of the record on screen until the server has said
 * what it came to. They are kept while there is no connection, so they hold nothing but data.
 */
import type { ExceptionGrant } from '#core/degree'
import type { RouteChange } from '#core/findings'
import type { CourseCode, SectionCode, StudentId, TermCode } from '#core/ids'
import { applyChange, inverse } from '#core/route'
import type { Instant } from '#core/time'
import { asPicked, type Section } from '#core/week'
import type { AgreedSaid, PermissionAsked, RemarkSaid } from '#shared/advising/requests'
import type { SignOffSaid } from '#shared/advising/signOff'
import type { Thread } from '#shared/advising/talk'
import type { CourseMark } from '#shared/catalog/responses'
import { FIRST_DRAFT } from '#shared/reading'
import type { StudentView } from '#shared/record/responses'
import type { LineFallbacks } from '#shared/registration/fallbacks'
import type { PreparedSheet } from '#shared/registration/prepared'
import type { Carry, RouteAnswer, RouteView } from '#shared/route/responses'
import type { DraftWeek, KeepFree, WeekHabits } from '#shared/week/responses'

export type Change =
  | { kind: 'route'; route: number | null; change: RouteChange }
  | { kind: 'step'; route: number | null; step: 'undo' | 'redo'; change: RouteChange }
  | { kind: 'return'; route: number | null; to: number }
  | { kind: 'makeRoute'; name: string; copyOf: number | null }
  | {
      kind: 'describeRoute'
      route: number
      said: { name?: string; note?: string | null; advisorMayEdit?: boolean; chosen?: true }
    }
  | { kind: 'dropRoute'; route: number }
  | { kind: 'carry'; carry: Carry }
  | {
      kind: 'mark'
      course: CourseCode
      said: { starred?: boolean; note?: string | null; looked?: true }
      at: Instant
    }
  | { kind: 'termNote'; term: TermCode; text: string | null; by: string }
  | {
      kind: 'picks'
      term: TermCode
      /** Null for the one gone with, which is made where there is none. */
      week: number | null
      picks: { course: CourseCode; sections: Section[] }[]
      /** Courses of which a seat is held. */
      held: CourseCode[]
    }
  | {
      kind: 'makeWeek'
      term: TermCode
      name: string
      sections?: SectionCode[]
      copyOf?: number
      goingWith?: boolean
    }
  | {
      kind: 'changeWeek'
      week: number
      said: { name?: string; goingWith?: true; shared?: boolean; note?: string | null }
    }
  | { kind: 'dropWeek'; week: number }
  | { kind: 'keepFree'; hours: KeepFree[] }
  | { kind: 'habits'; habits: WeekHabits }
  | { kind: 'makeAddress' }
  | { kind: 'dropAddress' }
  | ({ kind: 'fallbacks' } & LineFallbacks)
  | ({ kind: 'prepare' } & PreparedSheet)
  | { kind: 'agree'; term: TermCode; text: string }
  | { kind: 'askReview'; term: TermCode; note: string | null; at: Instant }
  | { kind: 'withdrawReview'; term: TermCode }
  | { kind: 'notYet'; term: TermCode; missing: string; by: string; at: Instant }
  | { kind: 'askPermission'; said: PermissionAsked }
  | { kind: 'withdrawPermission'; permission: number }
  | { kind: 'remark'; said: RemarkSaid }
  | { kind: 'settleThread'; thread: number; settled: boolean; by: string; at: Instant }
  | { kind: 'readThread'; thread: number; upTo: number }
  | { kind: 'addAgreed'; said: AgreedSaid }
  | { kind: 'tickAgreed'; line: number; done: boolean; by: string; at: Instant }
  | { kind: 'dropAgreed'; line: number }
  | { kind: 'signOff'; said: SignOffSaid }
  | { kind: 'withdrawSignOff'; term: TermCode }
  | {
      kind: 'answerProgram'
      said: { program: string; answer: 'confirmed' } | { program: string; answer: 'wrong'; instead: string }
    }
  | {
      kind: 'grantException'
      said: { program: string; need: string; reason: string } & (
        { kind: 'waiver' } | { kind: 'substitution'; course: string }
      )
    }
  | { kind: 'withdrawException'; exception: ExceptionGrant['id'] }
  | { kind: 'askWaiver'; course: CourseCode; reason: string }
  | { kind: 'answerWaiver'; course: CourseCode; answer: 'granted' | 'declined' }

export type Of<Kind extends Change['kind']> = Extract<Change, { kind: Kind }>

/** A request, apart from whose record it is about. */
export interface ChangeRequest {
  method: 'POST' | 'DELETE'
  where: string
  query?: Record<string, string>
  body?: object
}

/** The draft week that a pick makes, until the server has given it a number. */
export const NEW_WEEK = -1

/** The route whose version a change is made to; undefined for what has no versions. */
export function routeOf(change: Change): number | null | undefined {
  return change.kind === 'route' || change.kind === 'step' || change.kind === 'return'
    ? change.route
    : undefined
}

const inAddress = (course: CourseCode) => course.replace(' ', '-')

const post = (where: string, body?: object): ChangeRequest => ({
  method: 'POST',
  where,
  ...(body ? { body } : {})
})

const remove = (where: string, query?: Record<string, string>): ChangeRequest => ({
  method: 'DELETE',
  where,
  ...(query ? { query } : {})
})

type Sent = { [Kind in Change['kind']]: (change: Of<Kind>, version: number) => ChangeRequest }

const SENT: Sent = {
  route: ({ route, change }, version) => post('route', { route, version, change }),
  step: ({ route, step }, version) => post('route/step', { route, version, step }),
  return: ({ route, to }, version) => post('route/return', { route, version, to }),
  makeRoute: ({ name, copyOf }) => post('routes', { name, copyOf }),
  describeRoute: ({ route, said }) => post(`routes/${route}`, said),
  dropRoute: ({ route }) => remove(`routes/${route}`),
  carry: ({ carry }) => post('carry', carry),
  mark: ({ course, said }) => post(`courses/${inAddress(course)}`, said),
  termNote: ({ term, text }) => post(`terms/${term}`, { text }),
  picks: ({ term, week, picks }) =>
    post('picks', {
      term,
      week: week === NEW_WEEK ? null : week,
      picks: picks.map(({ course, sections }) => ({ course, sections: sections.map((one) => one.code) }))
    }),
  makeWeek: ({ kind: _, ...body }) => post('weeks', body),
  changeWeek: ({ week, said }) => post(`weeks/${week}`, said),
  dropWeek: ({ week }) => remove(`weeks/${week}`),
  keepFree: ({ hours }) => post('keep-free', { hours }),
  habits: ({ habits }) => post('week-habits', habits),
  makeAddress: () => post('calendar-address'),
  dropAddress: () => remove('calendar-address'),
  fallbacks: ({ kind: _, ...body }) => post('fallbacks', body),
  prepare: ({ kind: _, ...body }) => post('sheet', body),
  agree: ({ term, text }) => post('agreement', { term, text }),
  askReview: ({ term, note }) => post('review', { term, note }),
  withdrawReview: ({ term }) => remove('review', { term }),
  notYet: ({ term, missing }) => post('review/answer', { term, missing }),
  askPermission: ({ said }) => post('permissions', said),
  withdrawPermission: ({ permission }) => remove(`permissions/${permission}`),
  remark: ({ said }) => post('remarks', said),
  settleThread: ({ thread, settled }) => post(`threads/${thread}`, { settled }),
  readThread: ({ thread, upTo }) => post(`threads/${thread}`, { readUpTo: upTo }),
  addAgreed: ({ said }) => post('agreed', said),
  tickAgreed: ({ line, done }) => post(`agreed/${line}`, { done }),
  dropAgreed: ({ line }) => remove(`agreed/${line}`),
  signOff: ({ said }) => post('sign-off', said),
  withdrawSignOff: ({ term }) => remove('sign-off', { term }),
  answerProgram: ({ said }) => post('program', said),
  grantException: ({ said }) => post('exceptions', said),
  withdrawException: ({ exception }) => remove(`exceptions/${exception}`),
  askWaiver: ({ course, reason }) => post(`waivers/${inAddress(course)}`, { reason }),
  answerWaiver: ({ course, answer }) => post(`waivers/${inAddress(course)}/answer`, { answer })
}

/** How a change is sent; `version` is that of its route. */
export function requestOf(change: Change, version: number): ChangeRequest {
  const make = SENT[change.kind] as (change: Change, version: number) => ChangeRequest
  return make(change, version)
}

/** The address of a change of a student's record. */
export const addressOf = (student: StudentId, { where }: ChangeRequest) => `/api/students/${student}/${where}`

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
    const mark: CourseMark = {
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
  askReview: (view, { term, note, at }) => ({
    ...view,
    reviews: [...ofOtherTerms(view, term), { term, note, askedAt: at, answer: null }]
  }),
  withdrawReview: (view, { term }) => ({ ...view, reviews: ofOtherTerms(view, term) }),
  notYet: (view, { term, missing, by, at }) => ({
    ...view,
    reviews: view.reviews.map((one) => (one.term === term ? { ...one, answer: { by, at, missing } } : one))
  }),
  withdrawPermission: (view, { permission }) => ({
    ...view,
    requests: view.requests.filter((one) => one.id !== permission)
  }),
  settleThread: (view, { thread, settled, by, at }) =>
    withThread(view, thread, () => ({ settled: settled ? { by, at } : null })),
  readThread: (view, { thread, upTo }) =>
    withThread(view, thread, ({ remarks }) => ({
      unread: remarks.filter((one) => !one.own && one.id > upTo).length
    })),
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
