import type { RouteChange } from '#core/findings'
import type { CourseCode, TermCode } from '#core/ids'
import { differenceOf } from '#core/route'
import { titleOf } from '#shared/record/changeTitles'
import type { Change } from '#shared/record/changes'
import type { Outcome } from '#shared/record/changeQueue'
import type { TranscriptAsked } from '#shared/record/requests'
import type { RouteView } from '#shared/route/responses'
import { changesText, changeText } from '#shared/route/texts'
import { capital } from '#shared/words'

type Marked = Extract<Change, { kind: 'mark' }>['said']

/** Says of changes that were refused, and that what waited has gone through. */
function tellOutcomes(title: (change: Change) => string): void {
  const student = useStudent()
  const college = useCollege()
  const queue = useQueue()
  const notice = useNotice()
  /** The student whose changes waited for the server. */
  let waited: number | undefined
  queue.onRefused(async ({ pending, problem, late }) => {
    const { change, student: of, studentName } = pending
    // Not everything is saved, then.
    waited = undefined
    if (change.kind === 'mark' && change.said.looked) return
    const here = student.view?.student.id === of
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
      { title: 'Make it now', act: () => useRouteChanges().changeRoute(change) }
    )
  }

  watch(
    () => student.onTheWay,
    (now) => {
      const id = student.view?.student.id
      if (now?.state === 'unreachable') waited = id
      else if (now && !now.pending.length && id !== undefined && waited === id) {
        waited = undefined
        notice.say('The connection is back; everything is saved.')
      }
    }
  )
}

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
    const { id, name } = student.view!.student
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

  tellOutcomes(title)
  return {
    send,
    make,
    /** Who does it and when, as it is shown until the server has said so. */
    byMe: () => ({ by: session.who!.name, at: clock.now }),
    outcome,
    sayWaits,
    /** Stars a course, notes something on it, or keeps that it was looked at. */
    bookmarkCourse: async (course: CourseCode, said: Marked): Promise<boolean> => {
      if (!student.view) return false
      const outcome = await send({ kind: 'mark', course, said, at: clock.now })
      return outcome.is !== 'refused'
    },
    applyToGraduate: (term: TermCode, program: { title: string; catalogYear: string }) =>
      make({
        ...{ kind: 'applyToGraduate', term, program: program.title },
        ...{ catalogYear: program.catalogYear, at: clock.now }
      }),
    withdrawApplication: () => make({ kind: 'withdrawApplication' }),
    noteMilestone: (condition: string, reached: boolean) => make({ kind: 'milestone', condition, reached }),
    askTranscript: (said: TranscriptAsked) => make({ kind: 'askTranscript', said, at: clock.now }),
    withdrawTranscript: (transcript: number) => make({ kind: 'withdrawTranscript', transcript })
  }
})
