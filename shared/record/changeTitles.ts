/** What a change is called where it waits, was refused or can be taken back. */
import { KIND_SENTENCES } from '#shared/advising/asking'
import { changeText } from '#shared/route/texts'
import { count } from '#shared/words'
import type { Change, Of } from './changes'

type Titles = { [Kind in Change['kind']]: (change: Of<Kind>, term: (code: string) => string) => string }

/** What a change is called where it stands by itself: while it waits, or when it was not made. */
const TITLES: Titles = {
  route: ({ change }, term) => changeText(change, term),
  step: ({ step, change }, term) =>
    `${step === 'undo' ? 'taking back' : 'making again'}: ${changeText(change, term)}`,
  return: () => 'going back to an earlier version of the route',
  makeRoute: ({ name }) => `a new route “${name}”`,
  describeRoute: ({ said }) => (said.chosen ? 'choosing another route' : 'what is said of a route'),
  dropRoute: () => 'dropping a route',
  carry: () => 'your limits',
  mark: ({ course }) => `your mark on ${course}`,
  termNote: ({ term: code }, term) => `the note on ${term(code)}`,
  picks: ({ picks }) =>
    picks.length === 1
      ? `${picks[0]!.sections.length ? 'picking' : 'taking off'} ${picks[0]!.course}`
      : `picks of ${count(picks.length, 'course')}`,
  makeWeek: ({ name }) => `a new draft week “${name}”`,
  changeWeek: ({ said }) =>
    said.goingWith
      ? 'going with another draft week'
      : said.name
        ? 'the name of a draft week'
        : said.note === undefined
          ? 'sharing a week'
          : 'the note of a draft week',
  dropWeek: () => 'dropping a draft week',
  keepFree: () => 'the hours kept free',
  habits: () => 'your wishes for a week',
  makeAddress: () => 'a calendar address',
  dropAddress: () => 'withdrawing the calendar address',
  fallbacks: ({ course }) => `what is said of the line of ${course}`,
  agree: ({ term: code }, term) => `the terms of registration of ${term(code)}`,
  prepare: ({ term: code }, term) => `what is prepared for ${term(code)}`,
  askReview: ({ term: code }, term) => `asking for a review of ${term(code)}`,
  handIn: ({ term: code }, term) => `what you mean to take in ${term(code)}`,
  applyToGraduate: ({ term: code }, term) => `your application to graduate in ${term(code)}`,
  withdrawApplication: () => 'taking your application to graduate back',
  milestone: ({ reached }) => (reached ? 'what was reached' : 'taking back what was reached'),
  askTranscript: ({ said }) => `the transcript to ${said.to}`,
  withdrawTranscript: () => 'taking a transcript back',
  takeIntentionsBack: ({ term: code }, term) => `taking back what was handed in for ${term(code)}`,
  withdrawReview: ({ term: code }, term) => `withdrawing the review of ${term(code)}`,
  notYet: ({ term: code }, term) => `the answer about ${term(code)}`,
  askFor: ({ said }) => `asking ${KIND_SENTENCES[said.kind]}`,
  withdrawRequest: () => 'withdrawing a request',
  remark: () => 'what you wrote',
  settleThread: ({ settled }) => (settled ? 'settling a matter' : 'opening a matter again'),
  readThread: () => 'what you have read',
  suggest: ({ change }, term) => `suggesting: ${changeText(change, term)}`,
  explainSuggestion: () => 'why it is suggested',
  suggestSections: ({ course }) => `suggesting sections of ${course}`,
  withdrawSections: () => 'taking a suggestion back',
  answerSections: ({ answer }) => `${answer === 'accepted' ? 'accepting' : 'declining'} sections`,
  withdrawSuggestion: () => 'taking a suggestion back',
  answerSuggestions: ({ suggestions, answer }) =>
    `${answer === 'accepted' ? 'accepting' : 'declining'} ${count(suggestions.length, 'suggestion')}`,
  makeAppointment: () => 'an appointment',
  changeAppointment: ({ said: { act } }) =>
    ({
      accept: 'accepting an invitation',
      decline: 'declining an invitation',
      move: 'moving an appointment',
      cancel: 'cancelling an appointment',
      prepare: 'what to bring'
    })[act],
  recordTalk: () => 'the record of a talk',
  addAgreed: ({ said }) => `“${said.what}”`,
  tickAgreed: ({ done }) => (done ? 'ticking off what was agreed' : 'opening what was agreed'),
  dropAgreed: () => 'dropping what was agreed',
  signOff: ({ said: { term: code } }, term) => `the sign-off of ${term(code)}`,
  withdrawSignOff: ({ term: code }, term) => `withdrawing the sign-off of ${term(code)}`,
  answerProgram: () => 'the answer about the program',
  grantException: () => 'an exception',
  withdrawException: () => 'withdrawing an exception'
}

export function titleOf(change: Change, term: (code: string) => string): string {
  const say = TITLES[change.kind] as (change: Change, term: (code: string) => string) => string
  return say(change, term)
}
