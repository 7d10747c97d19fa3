import type { RouteChange } from '#core/findings'
import type { CourseCode, SectionCode, TermCode } from '#core/ids'
import { differenceOf, singles } from '#core/route'
import type { AgreedSaid, RequestAsked, RemarkSaid } from '#shared/advising/requests'
import type { ReviewAnswer } from '#shared/advising/review'
import type { AppointmentAct, AppointmentSaid, TalkRecordSaid } from '#shared/appointments/requests'
import type { SignOffSaid } from '#shared/advising/signOff'
import type { SuggestionsAnswer } from '#shared/advising/suggestions'
import { titleOf } from '#shared/record/changeTitles'
import type { Change } from '#shared/record/changes'
import type { Outcome } from '#shared/record/changeQueue'
import type { LineFallbacks } from '#shared/registration/fallbacks'
import type { TranscriptAsked } from '#shared/record/requests'
import type { PreparedSheet } from '#shared/registration/prepared'
import type { Carry, RouteView } from '#shared/route/responses'
import { changesText, changeText } from '#shared/route/texts'
import { capital, count } from '#shared/words'
import type { NoticeAction } from '~/ui/notice'

/** What can be changed of the record on screen, and what is said when it was, when it waits and when it was refused. */
export const useChanges = defineStore('changes', () => {
  const student = useStudent()
  const college = useCollege()
  const clock = useClock()
  const session = useWho()
  const queue = useQueue()
  const notice = useNotice()

  const title = (change: Change) => titleOf(change, college.shortTerm)

  /**
   * Makes a change of the record on screen; once it is made, all that comes of it is on screen. What is offered about
   * the change before it goes: a press on the way would be for this one.
   */
  async function send(change: Change, seen = 0): Promise<Outcome> {
    const { id, name } = student.picture!.student
    if (change.kind !== 'mark' && notice.offers.length) notice.close()
    const outcome = await queue.add({ student: id, name, seen }, change)
    if (outcome.is === 'made') await student.caughtUp()
    return outcome
  }
  /** The same; whether it was made, or waits to be. */
  async function make(change: Change): Promise<boolean> {
    return (await outcome(change)) !== 'refused'
  }
  /** The same; what came of it. */
  async function outcome(change: Change): Promise<Outcome['is']> {
    const { is } = await send(change)
    if (is === 'waits') sayWaits(change)
    return is
  }
  const sayWaits = (change: Change) =>
    notice.say(`${capital(title(change))}: it waits until the server can be reached.`)

  /** The student whose changes waited for the server. */
  let waited: number | undefined
  queue.onRefused(async ({ pending, problem, late }) => {
    const { change, student: of, studentName } = pending
    // Not everything is saved, then.
    waited = undefined
    if (change.kind === 'mark' && change.said.looked) return
    const here = student.picture?.student.id === of
    const before = change.kind === 'route' ? student.lastSaid(change.route) : undefined
    if (here) await student.reload()
    if (here && problem.code === 'routeMovedOn' && change.kind === 'route' && before)
      return sayFaster(before, change.change)
    const whose = here ? '' : `${studentName}: `
    notice.say(late || !here ? `${whose}${title(change)} was not made. ${problem.message}` : problem.message)
  })

  /** Somebody was faster: the route as it was, what they changed, and the own change to be made after all. */
  function sayFaster(before: RouteView, change: RouteChange): void {
    const now = student.lastSaid(before.id)
    if (!now) return
    const theirs = changesText(differenceOf(before.courses, now.courses), college.shortTerm)
    notice.say(
      `${now.changedBy} was faster${theirs && ` (${theirs})`}. Yours was not made: ${changeText(change, college.shortTerm)}.`,
      { title: 'Make it now', act: () => changeRoute(change) }
    )
  }

  watch(
    () => student.onTheWay,
    (now) => {
      const id = student.picture?.student.id
      if (now?.state === 'unreachable') waited = id
      else if (now && !now.pending.length && id !== undefined && waited === id) {
        waited = undefined
        notice.say('The connection is back; everything is saved.')
      }
    }
  )

  /** Shows the change at once, sends it, and says what came of it. */
  async function changeRoute(change: RouteChange): Promise<boolean> {
    const { id, version } = student.picture!.route
    if (student.isSuggesting) return suggest(id, version, change)
    return said({ kind: 'route', route: id, change }, version, `done${leftPicked(change)}`, change, true)
  }

  async function stepRoute(step: 'undo' | 'redo'): Promise<boolean> {
    const { id, version, [step]: change } = student.picture!.route
    if (!change) return false
    const how = `${step === 'undo' ? 'taken back' : 'done again'}${leftPicked(change)}`
    return said({ kind: 'step', route: id, step, change }, version, how, change, false)
  }

  const isWaiting = (all: readonly { id: number; state: string }[] | undefined, id: number) =>
    all?.some((one) => one.id === id && one.state === 'waiting') ?? false

  async function said(
    change: Change,
    seen: number,
    how: string,
    of: RouteChange,
    undo: boolean
  ): Promise<boolean> {
    const outcome = await send(change, seen)
    if (outcome.is === 'refused') return false
    const text = changeText(of, college.shortTerm)
    if (outcome.is === 'waits') notice.say(`${text}: it waits for the connection.`)
    else if (undo) notice.say(`${text}: ${how}.`, undoStep('Undo'))
    else notice.say(`${text}: ${how}.`)
    return true
  }

  /** The way back from the last step of the route on screen, as long as it is the last. */
  function undoStep(title: string): NoticeAction {
    const { id, version } = student.picture!.route
    const holds = () => student.picture?.route.id === id && student.picture.route.version === version
    return { title, act: () => stepRoute('undo'), holds }
  }

  /** Proposes a change to the student, in place of making it. */
  async function suggest(route: number | null, seen: number, change: RouteChange): Promise<boolean> {
    const outcome = await send({ kind: 'suggest', route, change, why: null, ...byMe() }, seen)
    if (outcome.is === 'refused') return false
    const text = changeText(change, college.shortTerm)
    if (outcome.is === 'waits') notice.say(`Suggestion: ${text}. It waits for the connection.`)
    else {
      const { suggestion } = outcome.answer as { suggestion: number }
      notice.say(`Suggested: ${text}.`, {
        title: 'Take it back',
        act: () => make({ kind: 'withdrawSuggestion', suggestion }),
        holds: () => isWaiting(student.picture?.suggestions, suggestion)
      })
    }
    return true
  }

  /** Proposes sections of a course to the student, in place of picking them. */
  async function suggestSections(
    term: TermCode,
    course: CourseCode,
    sections: SectionCode[]
  ): Promise<boolean> {
    const outcome = await send({ kind: 'suggestSections', term, course, sections })
    if (outcome.is === 'refused') return false
    if (outcome.is === 'waits') notice.say(`Suggestion for ${course}. It waits for the connection.`)
    else {
      const { suggestion } = outcome.answer as { suggestion: number }
      notice.say(`Suggested for ${course}.`, {
        title: 'Take it back',
        act: () => make({ kind: 'withdrawSections', suggestion }),
        holds: () => isWaiting(student.picture?.sectionSuggestions, suggestion)
      })
    }
    return true
  }

  /** Accepts or declines suggestions for the route on screen; what could not be accepted is said. */
  async function answerSuggestions(
    suggestions: number[],
    answer: 'accepted' | 'declined',
    words: string | null = null
  ): Promise<boolean> {
    const { id, version } = student.picture!.route
    const change: Change = { kind: 'answerSuggestions', route: id, suggestions, answer, words, ...byMe() }
    const outcome = await send(change, version)
    if (outcome.is === 'refused') return false
    if (outcome.is === 'waits') sayWaits(change)
    else {
      const { gone, made } = outcome.answer as SuggestionsAnswer
      const left = gone.length ? ` ${gone.length} could not be made and still wait.` : ''
      const text = `${count(suggestions.length - gone.length, 'suggestion')} ${answer}.${left}`
      if (made) notice.say(text, undoStep('Undo the last'))
      else notice.say(text)
    }
    return true
  }

  /** What a change takes off the route and leaves picked on the Week: told, since a pick stays by itself. */
  function leftPicked(change: RouteChange): string {
    const gone = singles(change).flatMap((one) => (one.kind === 'remove' ? [one.planned] : []))
    const stay = gone.filter(({ course, term }) =>
      student.picture!.drafts.some(
        (draft) =>
          draft.term === term &&
          draft.goingWith &&
          student.picture!.sections.some((one) => one.course === course && draft.sections.includes(one.code))
      )
    )
    if (!stay.length) return ''
    return `; the section picked for ${stay.map((one) => one.course).join(', ')} stays in the week`
  }

  async function returnRoute(to: number): Promise<boolean> {
    const { id, version } = student.picture!.route
    return (await send({ kind: 'return', route: id, to }, version)).is !== 'refused'
  }

  /** Makes a route and shows it, as soon as it is there. */
  async function makeRoute(body: { name: string; copyOf: number | null }): Promise<boolean> {
    const change: Change = { kind: 'makeRoute', ...body }
    const outcome = await send(change)
    if (outcome.is === 'waits') sayWaits(change)
    if (outcome.is === 'made') student.shown = (outcome.answer as { route: number }).route
    return outcome.is !== 'refused'
  }

  const byMe = () => ({ by: session.who!.name, at: clock.now })

  type Described = Extract<Change, { kind: 'describeRoute' }>['said']
  type Granted = Extract<Change, { kind: 'grantException' }>['said']
  type Answered = Extract<Change, { kind: 'answerProgram' }>['said']
  type Marked = Extract<Change, { kind: 'mark' }>['said']

  return {
    send,
    make,
    outcome,
    sayWaits,
    changeRoute,
    stepRoute,
    returnRoute,
    makeRoute,
    describeRoute: (route: number, said: Described) => make({ kind: 'describeRoute', route, said }),
    dropRoute: (route: number) => make({ kind: 'dropRoute', route }),
    changeCarry: (carry: Carry) => make({ kind: 'carry', carry }),
    /** Stars a course, notes something on it, or keeps that it was looked at. */
    markCourse: async (course: CourseCode, said: Marked): Promise<boolean> => {
      if (!student.picture) return false
      const outcome = await send({ kind: 'mark', course, said, at: clock.now })
      return outcome.is !== 'refused'
    },
    writeTermNote: (term: TermCode, text: string | null) =>
      make({ kind: 'termNote', term, text, by: session.who!.name }),
    prepare: (sheet: PreparedSheet) => make({ kind: 'prepare', ...sheet }),
    agree: (term: TermCode, text: string) => make({ kind: 'agree', term, text }),
    setFallbacks: (line: LineFallbacks) => make({ kind: 'fallbacks', ...line }),
    askForReview: (term: TermCode, note: string | null, answers: ReviewAnswer[]) =>
      make({ kind: 'askReview', term, note, answers, at: clock.now }),
    handIn: (term: TermCode, courses: CourseCode[]) => make({ kind: 'handIn', term, courses, at: clock.now }),
    applyToGraduate: (term: TermCode, program: { title: string; catalogYear: string }) =>
      make({
        ...{ kind: 'applyToGraduate', term, program: program.title },
        ...{ catalogYear: program.catalogYear, at: clock.now }
      }),
    withdrawApplication: () => make({ kind: 'withdrawApplication' }),
    noteMilestone: (condition: string, reached: boolean) => make({ kind: 'milestone', condition, reached }),
    askTranscript: (said: TranscriptAsked) => make({ kind: 'askTranscript', said, at: clock.now }),
    withdrawTranscript: (transcript: number) => make({ kind: 'withdrawTranscript', transcript }),
    takeIntentionsBack: (term: TermCode) => make({ kind: 'takeIntentionsBack', term }),
    withdrawReview: (term: TermCode) => make({ kind: 'withdrawReview', term }),
    notYet: (term: TermCode, missing: string) => make({ kind: 'notYet', term, missing, ...byMe() }),
    askFor: (said: RequestAsked) => make({ kind: 'askFor', said }),
    withdrawRequest: (request: number) => make({ kind: 'withdrawRequest', request }),
    remark: (said: RemarkSaid) => make({ kind: 'remark', said }),
    settleThread: (thread: number, settled: boolean) =>
      make({ kind: 'settleThread', thread, settled, ...byMe() }),
    readThread: (thread: number, upTo: number) => make({ kind: 'readThread', thread, upTo }),
    answerSuggestions,
    suggestSections,
    withdrawSections: (suggestion: number) => make({ kind: 'withdrawSections', suggestion }),
    answerSections: (suggestion: number, answer: 'accepted' | 'declined') =>
      make({ kind: 'answerSections', suggestion, answer, ...byMe() }),
    explainSuggestion: (suggestion: number, why: string | null) =>
      make({ kind: 'explainSuggestion', suggestion, why }),
    withdrawSuggestion: (suggestion: number) => make({ kind: 'withdrawSuggestion', suggestion }),
    makeAppointment: (said: AppointmentSaid) => make({ kind: 'makeAppointment', said }),
    changeAppointment: (appointment: number, said: AppointmentAct) =>
      make({ kind: 'changeAppointment', appointment, said, by: session.who!.name }),
    recordTalk: (said: TalkRecordSaid) => make({ kind: 'recordTalk', said }),
    addAgreed: (said: AgreedSaid) => make({ kind: 'addAgreed', said }),
    tickAgreed: (line: number, done: boolean) => make({ kind: 'tickAgreed', line, done, ...byMe() }),
    dropAgreed: (line: number) => make({ kind: 'dropAgreed', line }),
    signOff: (said: SignOffSaid) => make({ kind: 'signOff', said }),
    withdrawSignOff: (term: TermCode) => make({ kind: 'withdrawSignOff', term }),
    answerProgram: (said: Answered) => make({ kind: 'answerProgram', said }),
    grantException: (said: Granted) => make({ kind: 'grantException', said }),
    withdrawException: (exception: number) => make({ kind: 'withdrawException', exception })
  }
})
