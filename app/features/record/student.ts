import type { RouteChange } from '#core/findings'
import type { CourseCode, TermCode } from '#core/ids'
import { applyChange, differenceOf, inverse, singles } from '#core/route'
import { shareStructure } from '#shared/structuralSharing'
import type { Carry, RouteAnswer, RouteNews, RouteView } from '#shared/route/responses'
import type { CourseMark } from '#shared/catalog/responses'
import type { StudentView } from '#shared/record/responses'
import { readStudent, termAtWork, termsAlive, type Reading } from '#shared/reading'
import { aboutThem } from '#shared/voice'
import { changesText, changeText } from '#shared/route/texts'

/** The student on screen: what the server said, and changes on their way to it. */
export const useStudent = defineStore('student', () => {
  /** What the server said last. */
  const view = shallowRef<StudentView>()
  /** The route on screen where it is not the chosen one, by its id. */
  const shown = ref<number>()
  const routes = computed(() => view.value?.routes ?? [])
  const picture = computed<StudentView | undefined>(() => {
    const other = routes.value.find((route) => route.id === shown.value)
    return view.value && other ? { ...view.value, route: other } : view.value
  })
  const failure = ref<string>()
  /** What was just done, and whether it can be taken back from there. */
  const notice = ref<{ text: string; undo?: boolean; again?: RouteChange; back?: () => unknown }>()
  const college = useCollege()
  const clock = useClock()

  async function load(id: number): Promise<void> {
    if (view.value && view.value.student.id !== id) forget()
    try {
      const [found] = await Promise.all([
        api<StudentView>(`/api/students/${id}`),
        college.load(),
        clock.sync()
      ])
      const isNew = view.value === undefined
      view.value = found
      if (isNew) chosen.value = (localStorage.getItem(chosenKey()) as TermCode | null) ?? undefined
      failure.value = undefined
      listen(id)
    } catch (error) {
      failure.value = error instanceof Failure ? error.message : 'The record could not be shown.'
      if (!(error instanceof Failure)) throw error
    }
  }

  /** How many changes are on their way to the server; news waits until they are answered. */
  let sending = 0
  let news: RouteNews | undefined
  let source: EventSource | undefined

  /** Hears of what others change while the record is open. */
  function listen(id: number): void {
    if (source) return
    source = new EventSource(`/api/students/${id}/live`)
    source.addEventListener('route', ({ data }: MessageEvent<string>) => {
      news = JSON.parse(data) as RouteNews
      void takeNews()
    })
  }
  async function takeNews(): Promise<void> {
    if (!news || sending) return
    const { by, route: id, version } = news
    news = undefined
    const known = routes.value.find((route) => route.id === id)
    if (version === null || !known || known.version < version) await hear(by)
  }
  async function hear(by: string): Promise<void> {
    const before = picture.value?.route
    await reload()
    if (before && picture.value && before.version !== picture.value.route.version)
      notice.value = { text: `${by} changed the route; you see it as it is now.` }
  }

  async function reload(): Promise<void> {
    if (picture.value) await load(picture.value.student.id)
  }

  function forget(): void {
    source?.close()
    source = undefined
    view.value = undefined
    shown.value = undefined
    chosen.value = undefined
    notice.value = undefined
  }

  /** The midnights, deadlines and openings that have passed matter to the checks, the second does not. */
  const stage = college.stageFor(() => (picture.value?.openings ?? []).map((one) => one.opens))
  /** The picture, the same as before while nothing that is read of it has changed. */
  const readable = computed<StudentView | undefined>((before) =>
    before && picture.value && readsAlike(before, picture.value) ? before : picture.value
  )
  const reading = computed<Reading | undefined>((before) => {
    if (!readable.value || !college.shelf) return undefined
    const now = readStudent(readable.value, college.shelf, stage.value.at)
    if (before) now.audits.forEach((audit, i) => shareStructure(before.audits[i]?.areas, audit.areas))
    return now
  })
  /** The term that was chosen to work with; it stays over reloads. */
  const chosen = ref<TermCode>()
  /** Terms among which can be chosen. */
  const alive = computed(() => (reading.value ? termsAlive(reading.value) : []))
  /** How the term at work stands for the student. */
  const work = computed(() => reading.value && termAtWork(reading.value, chosen.value))
  const coming = computed(() => work.value?.term)
  /** The term into which a course would be put next: the one at work while it takes plans, else the first that does. */
  const planning = computed(() => {
    const takes = reading.value?.context.plannable
    return coming.value && takes?.has(coming.value.code) ? coming.value : college.termsAhead[0]
  })
  const chosenKey = () => `ridgeway-term-${view.value?.student.id}`
  function chooseTerm(term: TermCode): void {
    chosen.value = term
    localStorage.setItem(chosenKey(), term)
  }
  const own = computed(() => picture.value?.relation === 'self')
  /** A sentence written to the student, as whoever looks has to read it. */
  const say = (text: string): string => (own.value || !picture.value ? text : aboutThem(text))
  /** Whether the person who looks may change the route. */
  const mayEditRoute = computed(
    () => own.value || (picture.value?.relation === 'programAdvisor' && picture.value.route.advisorMayEdit)
  )
  /** Whether the person who looks may grant exceptions. */
  const mayGrant = computed(
    () => picture.value?.relation === 'programAdvisor' || picture.value?.relation === 'registrar'
  )

  const path = (rest: string) => `/api/students/${picture.value!.student.id}/${rest}`

  /** Puts a route as it is now where it stands among the others. */
  function putRoute(route: RouteView): void {
    const { routes: all, route: chosenRoute } = view.value!
    const others = all.filter((one) => one.id !== route.id && one.id !== null)
    view.value = {
      ...view.value!,
      route: route.chosen ? route : chosenRoute,
      routes: route.chosen ? [route, ...others] : all.map((one) => (one.id === route.id ? route : one))
    }
  }

  /** Shows the change at once, sends it, and takes the server's word for it. */
  async function changeRoute(change: RouteChange): Promise<boolean> {
    const before = showAtOnce(change)
    if (!(await sendRoute(before, 'route', { change }))) return false
    tellDone(change, `done${leftPicked(change)}`, true)
    return true
  }

  async function stepRoute(step: 'undo' | 'redo'): Promise<boolean> {
    const change = picture.value!.route[step]
    if (!change) return false
    const back = step === 'undo' ? inverse(change) : change
    const before = showAtOnce(back)
    if (!(await sendRoute(before, 'route/step', { step }))) return false
    tellDone(change, `${step === 'undo' ? 'taken back' : 'done again'}${leftPicked(back)}`)
    return true
  }
  function showAtOnce(change: RouteChange): RouteView {
    const before = picture.value!.route
    const changed = applyChange(before.courses, change, () => true)
    if (changed.ok) putRoute({ ...before, courses: changed.courses })
    return before
  }
  function tellDone(change: RouteChange, how: string, undo = false): void {
    const rest = waiting.value.length ? 'it waits for the connection' : how
    notice.value = {
      text: `${changeText(change, college.shortTerm)}: ${rest}.`,
      undo: undo && !waiting.value.length
    }
  }

  /** What a change takes off the route and leaves picked on the Week: told, since a pick stays by itself. */
  function leftPicked(change: RouteChange): string {
    const gone = singles(change).flatMap((one) => (one.kind === 'remove' ? [one.planned] : []))
    const stay = gone.filter(({ course, term }) =>
      picture.value!.drafts.some(
        (draft) =>
          draft.term === term &&
          draft.goingWith &&
          picture.value!.sections.some((one) => one.course === course && draft.sections.includes(one.code))
      )
    )
    if (!stay.length) return ''
    return `; the section picked for ${stay.map((one) => one.course).join(', ')} stays in the week`
  }

  const returnRoute = (to: number) => sendRoute(picture.value!.route, 'route/return', { to }, true)

  /** Requests that change the record go one after the other; on the route each carries the version that the one before made. */
  let last: Promise<unknown> = Promise.resolve()
  function inTurn<T>(work: () => Promise<T>): Promise<T> {
    sending++
    const next = last.then(work).finally(() => {
      sending--
      void takeNews()
    })
    last = next.catch(() => undefined)
    return next
  }

  /** Sends a change made to the route as it was; without a connection it waits, and stays on screen. */
  function sendRoute(before: RouteView, where: string, body: object, anew = false): Promise<boolean> {
    return inTurn(() => sendNow(before, where, body, anew))
  }
  async function sendNow(before: RouteView, where: string, body: object, anew: boolean): Promise<boolean> {
    if (waiting.value.length) {
      waiting.value = [...waiting.value, { route: before.id, where, body }]
      return true
    }
    try {
      await post(before.id, where, body)
      if (anew) await reload()
      return true
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      if (error.status === 0 && !anew) {
        waiting.value = [{ route: before.id, where, body }]
        return true
      }
      putRoute(before)
      notice.value = { text: error.message }
      if (error.status === 409) await refused(before, body)
      else await reload()
      return false
    }
  }

  async function post(route: number | null, where: string, body: object): Promise<void> {
    const known = () => routes.value.find((one) => one.id === route) ?? view.value!.route
    const answer = await api<RouteAnswer>(path(where), {
      method: 'POST',
      body: { route, version: known().version, ...body }
    })
    const { route: id, version, changedAt, changedBy, undo, redo } = answer
    putRoute({ ...known(), id, version, changedAt, changedBy, undo, redo })
  }

  /** Somebody was faster: the route as it is now, what they changed, and the own change to be made after all. */
  async function refused(before: RouteView, body: object): Promise<void> {
    await reload()
    const now = picture.value?.route
    if (!now || !('change' in body)) return
    const change = body.change as RouteChange
    const theirs = changesText(differenceOf(before.courses, now.courses), college.shortTerm)
    const text = `${now.changedBy} was faster${theirs && ` (${theirs})`}. Yours was not made: ${changeText(change, college.shortTerm)}.`
    notice.value = { text, again: change }
  }

  /** Changes made without a connection, in order. */
  const waiting = ref<{ route: number | null; where: string; body: object }[]>([])
  const RETRY_MS = 4000
  let retry: ReturnType<typeof setTimeout> | undefined
  watch(waiting, (list) => {
    clearTimeout(retry)
    if (list.length) retry = setTimeout(() => void flush(), RETRY_MS)
  })
  if (import.meta.client) addEventListener('online', () => void flush())
  function flush(): Promise<void> {
    return inTurn(flushNow)
  }
  async function flushNow(): Promise<void> {
    if (!waiting.value.length || !picture.value) return
    try {
      for (let first; (first = waiting.value[0]); waiting.value = waiting.value.slice(1))
        await post(first.route, first.where, first.body)
      notice.value = { text: 'The connection is back; everything is saved.' }
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      if (error.status === 0) {
        waiting.value = [...waiting.value]
        return
      }
      waiting.value = []
      notice.value = { text: `What waited could not be made: ${error.message}` }
      await reload()
    }
  }

  /** Does something and reads the record anew; in turn, so that what is read is never older than what was done. */
  const act = (work: () => Promise<unknown>): Promise<boolean> => inTurn(() => actNow(work))
  async function actNow(work: () => Promise<unknown>): Promise<boolean> {
    try {
      await work()
      await reload()
      return true
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      notice.value = { text: error.message }
      return false
    }
  }

  /** Shows what is changed at once, until the server says otherwise. */
  function show(part: Partial<StudentView>): void {
    if (view.value) view.value = { ...view.value, ...part }
  }

  const askForReview = () => act(() => api(path('review'), { method: 'POST' }))
  const signOff = (term: TermCode) => act(() => api(path('sign-off'), { method: 'POST', body: { term } }))
  const withdrawSignOff = (term: TermCode) =>
    act(() => api(path('sign-off'), { method: 'DELETE', query: { term } }))
  const answerProgram = (
    body: { program: string; answer: 'confirmed' } | { program: string; answer: 'wrong'; instead: string }
  ) => act(() => api(path('program'), { method: 'POST', body }))

  const makeRoute = async (body: { name: string; copyOf: number | null }) => {
    const done = await act(async () => {
      const { route } = await api<{ route: number }>(path('routes'), { method: 'POST', body })
      shown.value = route
    })
    return done
  }
  const describeRoute = (
    route: number,
    body: { name?: string; note?: string | null; advisorMayEdit?: boolean; chosen?: true }
  ) => act(() => api(path(`routes/${route}`), { method: 'POST', body }))
  const dropRoute = (route: number) => act(() => api(path(`routes/${route}`), { method: 'DELETE' }))
  const changeCarry = (carry: Carry) => act(() => api(path('carry'), { method: 'POST', body: carry }))

  /** Stars a course, notes something on it, or keeps that it was looked at; at once on screen. */
  async function markCourse(
    course: CourseCode,
    change: { starred?: boolean; note?: string | null; looked?: true }
  ): Promise<boolean> {
    if (!view.value) return false
    const before = view.value.marks
    const old = before.find((one) => one.course === course)
    const { looked, ...said } = change
    const now: CourseMark = {
      course,
      starred: old?.starred ?? false,
      note: old?.note ?? null,
      lookedAt: looked ? clock.now : (old?.lookedAt ?? null),
      ...said
    }
    view.value = { ...view.value, marks: [...before.filter((one) => one !== old), now] }
    try {
      await api(path(`courses/${course.replace(' ', '-')}`), { method: 'POST', body: change })
      return true
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      if (view.value) view.value = { ...view.value, marks: before }
      if (!looked) notice.value = { text: error.message }
      return false
    }
  }
  const writeTermNote = (term: TermCode, text: string | null) =>
    act(() => api(path(`terms/${term}`), { method: 'POST', body: { text } }))

  const grantException = (
    body: { program: string; need: string; reason: string } & (
      { kind: 'waiver' } | { kind: 'substitution'; course: string }
    )
  ) => act(() => api(path('exceptions'), { method: 'POST', body }))
  const waiverPath = (course: CourseCode) => path(`waivers/${course.replace(' ', '-')}`)
  const askWaiver = (course: CourseCode, reason: string) =>
    act(() => api(waiverPath(course), { method: 'POST', body: { reason } }))
  const answerWaiver = (course: CourseCode, answer: 'granted' | 'declined') =>
    act(() => api(`${waiverPath(course)}/answer`, { method: 'POST', body: { answer } }))
  const withdrawException = (exception: number) =>
    act(() => api(path(`exceptions/${exception}`), { method: 'DELETE' }))

  return {
    picture,
    failure,
    notice,
    reading,
    say,
    stage,
    alive,
    work,
    planning,
    chooseTerm,
    coming,
    own,
    mayEditRoute,
    mayGrant,
    load,
    reload,
    forget,
    waiting,
    shown,
    routes,
    changeRoute,
    stepRoute,
    returnRoute,
    makeRoute,
    describeRoute,
    dropRoute,
    changeCarry,
    markCourse,
    writeTermNote,
    act,
    inTurn,
    path,
    show,
    askForReview,
    signOff,
    withdrawSignOff,
    answerProgram,
    grantException,
    withdrawException,
    askWaiver,
    answerWaiver
  }
})

/** Whether two pictures differ at most in the version of the route. */
function readsAlike(a: StudentView, b: StudentView): boolean {
  const keys = Object.keys(b) as (keyof StudentView)[]
  const light = new Set<keyof StudentView>(['routes', 'marks', 'termNotes', 'habits', 'calendarKey'])
  return keys.every(
    (key) => light.has(key) || (key === 'route' ? a.route.courses === b.route.courses : a[key] === b[key])
  )
}
