import type { TermCode } from '#core/ids'
import type { AgreedSaid, RemarkSaid, RequestAsked } from '#shared/advising/requests'
import type { ReviewAnswer } from '#shared/advising/review'
import type { SignOffSaid } from '#shared/advising/signOff'
import type { AppointmentAct, AppointmentSaid, TalkRecordSaid } from '#shared/appointments/requests'
import type { Change } from '#shared/record/changes'

type Granted = Extract<Change, { kind: 'grantException' }>['said']
type Answered = Extract<Change, { kind: 'answerProgram' }>['said']

/** What a student and an advisor say, ask, answer and agree on. */
export function useAdvisingChanges() {
  const clock = useClock()
  const session = useWho()
  const { make, byMe } = useChanges()

  return {
    askForReview: (term: TermCode, note: string | null, answers: ReviewAnswer[]) =>
      make({ kind: 'askReview', term, note, answers, at: clock.now }),
    withdrawReview: (term: TermCode) => make({ kind: 'withdrawReview', term }),
    notYet: (term: TermCode, missing: string) => make({ kind: 'notYet', term, missing, ...byMe() }),
    askFor: (said: RequestAsked) => make({ kind: 'askFor', said }),
    withdrawRequest: (request: number) => make({ kind: 'withdrawRequest', request }),
    remark: (said: RemarkSaid) => make({ kind: 'remark', said }),
    settleThread: (thread: number, settled: boolean) =>
      make({ kind: 'settleThread', thread, settled, ...byMe() }),
    readThread: (thread: number, upTo: number) => make({ kind: 'readThread', thread, upTo }),
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
}
