import type { RouteChange } from '#core/findings'
import type { CourseCode, TermCode } from '#core/ids'
import { singles } from '#core/route'
import type { Change } from '#shared/record/changes'
import type { StudentView } from '#shared/record/responses'
import type { Carry } from '#shared/route/responses'
import { changeText } from '#shared/route/texts'
import type { NoticeAction } from '~/ui/notice'

type Described = Extract<Change, { kind: 'describeRoute' }>['said']

/** What a change takes off the route and leaves picked on the Week: told, since a pick stays by itself. */
function leftPicked(view: StudentView, change: RouteChange): string {
  const gone = singles(change).flatMap((one) => (one.kind === 'remove' ? [one.planned] : []))
  const stay = gone.filter(({ course, term }) =>
    view.drafts.some(
      (draft) =>
        draft.term === term &&
        draft.goingWith &&
        view.sections.some((one) => one.course === course && draft.sections.includes(one.code))
    )
  )
  if (!stay.length) return ''
  return `; the section picked for ${stay.map((one) => one.course).join(', ')} stays in the week`
}

/** What can be changed of the student's routes as a whole, and of what stands beside them. */
function useRoutesChanges() {
  const student = useStudent()
  const clock = useClock()
  const session = useWho()
  const { send, make, sayWaits } = useChanges()
  async function returnRoute(to: number): Promise<boolean> {
    const { id, version } = student.view!.route
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

  return {
    returnRoute,
    makeRoute,
    describeRoute: (route: number, said: Described) => make({ kind: 'describeRoute', route, said }),
    dropRoute: (route: number) => make({ kind: 'dropRoute', route }),
    changeCarry: (carry: Carry) => make({ kind: 'carry', carry }),
    writeTermNote: (term: TermCode, text: string | null) =>
      make({ kind: 'termNote', term, text, by: session.who!.name }),
    handIn: (term: TermCode, courses: CourseCode[]) => make({ kind: 'handIn', term, courses, at: clock.now }),
    takeIntentionsBack: (term: TermCode) => make({ kind: 'takeIntentionsBack', term })
  }
}

/** What can be changed of the route on screen, and beside it. */
export function useRouteChanges() {
  const student = useStudent()
  const college = useCollege()
  const notice = useNotice()
  const { send } = useChanges()

  /** Shows the change at once, sends it, and says what came of it. */
  async function changeRoute(change: RouteChange): Promise<boolean> {
    const { id, version } = student.view!.route
    if (student.isSuggesting) return useSuggestionChanges().suggest(id, version, change)
    return said(
      { kind: 'route', route: id, change },
      version,
      `done${leftPicked(student.view!, change)}`,
      change,
      true
    )
  }

  async function stepRoute(step: 'undo' | 'redo'): Promise<boolean> {
    const { id, version, [step]: change } = student.view!.route
    if (!change) return false
    const how = `${step === 'undo' ? 'taken back' : 'done again'}${leftPicked(student.view!, change)}`
    return said({ kind: 'step', route: id, step, change }, version, how, change, false)
  }

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
    const { id, version } = student.view!.route
    const holds = () => student.view?.route.id === id && student.view.route.version === version
    return { title, act: () => stepRoute('undo'), holds }
  }

  return { changeRoute, stepRoute, undoStep, ...useRoutesChanges() }
}
