/**
 * Changes of a record as values, and how each is sent. They are kept while there is no connection, so they hold nothing
 * but data.
 */
import type { ExceptionGrant } from '#core/degree'
import type { RouteChange } from '#core/findings'
import type { CourseCode, SectionCode, StudentId, TermCode } from '#core/ids'
import type { Instant } from '#core/time'
import type { Section } from '#core/week'
import type { AgreedSaid, RequestAsked, RemarkSaid } from '#shared/advising/requests'
import type { ReviewAnswer } from '#shared/advising/review'
import type { AppointmentAct, AppointmentSaid, TalkRecordSaid } from '#shared/appointments/requests'
import type { SignOffSaid } from '#shared/advising/signOff'
import type { LineFallbacks } from '#shared/registration/fallbacks'
import type { PreparedSheet } from '#shared/registration/prepared'
import type { TranscriptAsked } from '#shared/record/requests'
import type { Carry } from '#shared/route/responses'
import type { KeepFree, WeekHabits } from '#shared/week/responses'

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
  | { kind: 'keepFree'; hours: KeepFree[]; before: KeepFree[] }
  | { kind: 'habits'; habits: WeekHabits }
  | { kind: 'makeAddress' }
  | { kind: 'dropAddress' }
  | ({ kind: 'fallbacks' } & LineFallbacks)
  | ({ kind: 'prepare' } & PreparedSheet)
  | { kind: 'agree'; term: TermCode; text: string }
  | { kind: 'askReview'; term: TermCode; note: string | null; answers: ReviewAnswer[]; at: Instant }
  | { kind: 'withdrawReview'; term: TermCode }
  | { kind: 'handIn'; term: TermCode; courses: CourseCode[]; at: Instant }
  | { kind: 'takeIntentionsBack'; term: TermCode }
  | { kind: 'applyToGraduate'; term: TermCode; program: string; catalogYear: string; at: Instant }
  | { kind: 'withdrawApplication' }
  | { kind: 'milestone'; condition: string; reached: boolean }
  | { kind: 'askTranscript'; said: TranscriptAsked; at: Instant }
  | { kind: 'withdrawTranscript'; transcript: number }
  | { kind: 'notYet'; term: TermCode; missing: string; by: string; at: Instant }
  | { kind: 'askFor'; said: RequestAsked }
  | { kind: 'withdrawRequest'; request: number }
  | { kind: 'remark'; said: RemarkSaid }
  | { kind: 'settleThread'; thread: number; settled: boolean; by: string; at: Instant }
  | { kind: 'readThread'; thread: number; upTo: number }
  | {
      kind: 'suggest'
      route: number | null
      change: RouteChange
      why: string | null
      by: string
      at: Instant
    }
  | { kind: 'explainSuggestion'; suggestion: number; why: string | null }
  | { kind: 'withdrawSuggestion'; suggestion: number }
  | { kind: 'suggestSections'; term: TermCode; course: CourseCode; sections: SectionCode[] }
  | { kind: 'withdrawSections'; suggestion: number }
  | { kind: 'answerSections'; suggestion: number; answer: 'accepted' | 'declined'; by: string; at: Instant }
  | {
      kind: 'answerSuggestions'
      route: number | null
      suggestions: number[]
      answer: 'accepted' | 'declined'
      words: string | null
      by: string
      at: Instant
    }
  | { kind: 'makeAppointment'; said: AppointmentSaid }
  | { kind: 'changeAppointment'; appointment: number; said: AppointmentAct; by: string }
  | { kind: 'recordTalk'; said: TalkRecordSaid }
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
        | { kind: 'waiver'; amount?: number }
        | { kind: 'substitution'; course: string }
      )
    }
  | { kind: 'withdrawException'; exception: ExceptionGrant['id'] }

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
  return change.kind === 'route' ||
    change.kind === 'step' ||
    change.kind === 'return' ||
    change.kind === 'suggest' ||
    change.kind === 'answerSuggestions'
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
  keepFree: ({ hours, before }) => post('keep-free', { hours, before }),
  habits: ({ habits }) => post('week-habits', habits),
  makeAddress: () => post('calendar-address'),
  dropAddress: () => remove('calendar-address'),
  fallbacks: ({ kind: _, ...body }) => post('fallbacks', body),
  prepare: ({ kind: _, ...body }) => post('sheet', body),
  agree: ({ term, text }) => post('agreement', { term, text }),
  askReview: ({ term, note, answers }) => post('review', { term, note, answers }),
  withdrawReview: ({ term }) => remove('review', { term }),
  handIn: ({ term }) => post('intentions', { term }),
  takeIntentionsBack: ({ term }) => remove('intentions', { term }),
  applyToGraduate: ({ term }) => post('graduation', { term }),
  withdrawApplication: () => remove('graduation'),
  milestone: ({ condition, reached }) => (reached ? post : remove)(`milestones/${condition}`),
  askTranscript: ({ said }) => post('transcripts', said),
  withdrawTranscript: ({ transcript }) => remove(`transcripts/${transcript}`),
  notYet: ({ term, missing }) => post('review/answer', { term, missing }),
  askFor: ({ said }) => post('requests', said),
  withdrawRequest: ({ request }) => remove(`requests/${request}`),
  remark: ({ said }) => post('remarks', said),
  settleThread: ({ thread, settled }) => post(`threads/${thread}`, { settled }),
  readThread: ({ thread, upTo }) => post(`threads/${thread}`, { readUpTo: upTo }),
  suggest: ({ route, change, why }, version) => post('suggestions', { route, version, change, why }),
  explainSuggestion: ({ suggestion, why }) => post(`suggestions/${suggestion}`, { why }),
  withdrawSuggestion: ({ suggestion }) => remove(`suggestions/${suggestion}`),
  suggestSections: ({ kind: _, ...body }) => post('section-suggestions', body),
  withdrawSections: ({ suggestion }) => remove(`section-suggestions/${suggestion}`),
  answerSections: ({ suggestion, answer }) => post(`section-suggestions/${suggestion}/answer`, { answer }),
  answerSuggestions: ({ route, suggestions, answer, words }, version) =>
    post('suggestions/answers', { route, version, suggestions, answer, words }),
  makeAppointment: ({ said }) => post('appointments', said),
  changeAppointment: ({ appointment, said }) => post(`appointments/${appointment}`, said),
  recordTalk: ({ said }) => post('talks', said),
  addAgreed: ({ said }) => post('agreed', said),
  tickAgreed: ({ line, done }) => post(`agreed/${line}`, { done }),
  dropAgreed: ({ line }) => remove(`agreed/${line}`),
  signOff: ({ said }) => post('sign-off', said),
  withdrawSignOff: ({ term }) => remove('sign-off', { term }),
  answerProgram: ({ said }) => post('program', said),
  grantException: ({ said }) => post('exceptions', said),
  withdrawException: ({ exception }) => remove(`exceptions/${exception}`)
}

/** How a change is sent; `version` is that of its route. */
export function requestOf(change: Change, version: number): ChangeRequest {
  const make = SENT[change.kind] as (change: Change, version: number) => ChangeRequest
  return make(change, version)
}

/** The address of a change of a student's record. */
export const addressOf = (student: StudentId, { where }: ChangeRequest) => `/api/students/${student}/${where}`
