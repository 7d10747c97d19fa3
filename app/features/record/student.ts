import type { TermCode } from '#core/ids'
import type { News } from '#shared/news/responses'
import { settledWith, shownWith, isSettledByItself } from '#shared/record/shownChanges'
import type { StudentView } from '#shared/record/responses'
import { READ_KEYS, readStudent, termAtWork, termsAlive, type Reading } from '#shared/reading'
import { shareStructure } from '#shared/structuralSharing'
import { aboutThem } from '#shared/voice'

/** The student on screen: what the server said last, with the changes that are on their way to it. */
export const useStudent = defineStore('student', () => {
  /** What the server said last. */
  const view = shallowRef<StudentView>()
  const queue = useQueue()
  const notice = useNotice()
  /** The route on screen where it is not the chosen one, by its id. */
  const shown = ref<number>()
  const failure = ref<string>()
  const college = useCollege()
  const clock = useClock()

  /** Changes on their way, and why they wait. */
  const onTheWay = computed(() => view.value && queue.byStudent.get(view.value.student.id))
  /** The record with them; what is not touched by any is the same as before. */
  const withPending = computed<StudentView | undefined>((before) => {
    if (!view.value) return undefined
    const changed = (onTheWay.value?.pending ?? []).reduce(
      (record, { change }) => shownWith(record, change),
      view.value
    )
    return shareStructure(before, { ...changed })
  })
  const routes = computed(() => withPending.value?.routes ?? [])
  const picture = computed<StudentView | undefined>(() => {
    const other = routes.value.find((route) => route.id === shown.value)
    return withPending.value && other ? { ...withPending.value, route: other } : withPending.value
  })

  /** The student whose record was asked for last. */
  let wanted: number | undefined
  /** Counts readings asked for and changes answered: what was read before a change does not have it. */
  let moment = 0
  let changedAt = 0

  async function load(id: number): Promise<void> {
    if (view.value && view.value.student.id !== id) forget()
    wanted = id
    try {
      await Promise.all([read(id), college.load(), clock.sync()])
      failure.value = undefined
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      if (wanted === id) failure.value = error.message
    }
  }
  let readAt = 0
  async function read(id: number): Promise<void> {
    const mine = ++moment
    const found = await api<StudentView>(`/api/students/${id}`)
    if (wanted !== id || mine < readAt) return
    // Of what was answered meanwhile it may know nothing.
    if (mine < changedAt) return read(id)
    readAt = mine
    const isNew = view.value === undefined
    view.value = found
    if (isNew) chosen.value = (localStorage.getItem(chosenKey()) as TermCode | null) ?? undefined
  }

  const reload = (): Promise<void> => (wanted === undefined ? Promise.resolve() : load(wanted))

  /** Views on screen that show the record. */
  let views = 0
  /** Keeps the record for the view that asks, until none is left: one may come before the other goes. */
  function hold(): void {
    views++
    onUnmounted(() => {
      if (!--views) forget()
    })
  }
  function forget(): void {
    wanted = undefined
    view.value = undefined
    shown.value = undefined
    suggests.value = false
    chosen.value = undefined
    failure.value = undefined
    notice.close()
  }

  /** A route as the server said it last, without what is on its way. */
  const lastSaid = (id: number | null) => view.value?.routes.find((one) => one.id === id) ?? view.value?.route
  queue.versionsFrom((student, route) =>
    view.value?.student.id === student ? (lastSaid(route)?.version ?? 0) : 0
  )
  /** What a change brought about beside itself is being read. */
  let catchingUp = Promise.resolve()
  queue.onMade(({ pending, answer }) => {
    if (view.value?.student.id !== pending.student) return
    changedAt = ++moment
    view.value = settledWith(view.value, pending.change, answer)
    if (!isSettledByItself(pending.change)) catchingUp = reload()
  })

  /** News of the route that is still to be told. */
  let heard: News | undefined
  const follow = persistently(async () => {
    const before = picture.value?.route
    if (wanted !== undefined) await read(wanted)
    const news = heard
    heard = undefined
    const now = picture.value?.route
    if (news && before && now && before.id === now.id && before.version !== now.version)
      notice.say(`${news.by} changed the route; you see it as it is now.`)
  })
  useNews().onNews(hear)
  useNews().onMissed(follow)
  function hear(news: News): void {
    // What is being read for the first time may not know of it.
    if (news.student === null || news.student !== wanted || queue.isOwn(news.change)) return
    const { route, version } = news
    const known = routes.value.find((one) => one.id === route)
    if (news.kind === 'route' && known && known.version >= version!) return
    if (news.kind === 'route') heard = news
    follow()
  }

  const offers = useOffers()
  watch(
    () => offers.byTerm,
    (known) => {
      if (!view.value) return
      const now = new Map([...known.values()].flatMap((one) => one.sections.map((s) => [s.code, s] as const)))
      const sections = view.value.sections.map((one) => now.get(one.code) ?? one)
      view.value = { ...view.value, sections: shareStructure(view.value.sections, sections) }
    }
  )

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
  /** Whether the person who looks may change the route itself. */
  const mayChangeRoute = computed(
    () => own.value || (picture.value?.relation === 'programAdvisor' && picture.value.route.advisorMayEdit)
  )
  /** Whether they may suggest changes of it, and whether that is what they do now. */
  const maySuggest = computed(
    () => picture.value?.relation === 'programAdvisor' || picture.value?.relation === 'supportAdvisor'
  )
  const suggests = ref(false)
  const isSuggesting = computed(() => maySuggest.value && suggests.value)
  /** Whether the route's tools are at hand: for changes, or for suggestions of them. */
  const mayEditRoute = computed(() => mayChangeRoute.value || isSuggesting.value)
  /** Whether the person who looks may grant exceptions. */
  const mayGrant = computed(
    () => picture.value?.relation === 'programAdvisor' || picture.value?.relation === 'registrar'
  )

  return {
    picture,
    failure,
    reading,
    say,
    stage,
    alive,
    work,
    planning,
    chooseTerm,
    coming,
    own,
    mayChangeRoute,
    maySuggest,
    suggests,
    isSuggesting,
    mayEditRoute,
    mayGrant,
    load,
    reload,
    hold,
    forget,
    onTheWay,
    shown,
    routes,
    lastSaid,
    caughtUp: () => catchingUp
  }
})

/** Whether all that is read of two pictures is the same. */
const readsAlike = (a: StudentView, b: StudentView): boolean =>
  READ_KEYS.every((key) => (key === 'route' ? a.route.courses === b.route.courses : a[key] === b[key]))
