import { settledWith, shownWith, isSettledByItself } from '#shared/record/shownChanges'
import type { StudentView } from '#shared/record/responses'
import { READ_KEYS, readStudent, type Reading } from '#shared/reading'
import { shareStructure } from '#shared/structuralSharing'

/** The student on screen: what the server said last, with the changes that are on their way to it. */
export const useStudent = defineStore('student', () => {
  /** What the server said last. */
  const latest = shallowRef<StudentView>()
  const queue = useQueue()
  const notice = useNotice()
  /** The route on screen where it is not the chosen one, by its id. */
  const shown = ref<number>()
  const failure = ref<string>()
  const college = useCollege()
  const clock = useClock()

  /** Changes on their way, and why they wait. */
  const onTheWay = computed(() => latest.value && queue.byStudent.get(latest.value.student.id))
  /** The record with them; what is not touched by any is the same as before. */
  const withPending = computed<StudentView | undefined>((before) => {
    if (!latest.value) return undefined
    const changed = (onTheWay.value?.pending ?? []).reduce(
      (record, { change }) => shownWith(record, change),
      latest.value
    )
    return shareStructure(before, { ...changed })
  })
  const routes = computed(() => withPending.value?.routes ?? [])
  const view = computed<StudentView | undefined>(() => {
    const other = routes.value.find((route) => route.id === shown.value)
    return withPending.value && other ? { ...withPending.value, route: other } : withPending.value
  })

  /** The student whose record was asked for last. */
  let wanted: number | undefined
  /** Counts readings asked for and changes answered: what was read before a change does not have it. */
  let moment = 0
  let changedAt = 0

  const newest = newestAnswer()
  async function load(id: number): Promise<void> {
    if (latest.value && latest.value.student.id !== id) forget()
    wanted = id
    const turn = newest.ask()
    let why: string | undefined
    try {
      await Promise.all([read(id), college.load(), clock.sync()])
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      why = error.message
    }
    if (wanted === id && newest.take(turn)) failure.value = why
  }
  let readAt = 0
  async function read(id: number): Promise<void> {
    const mine = ++moment
    const found = await api<StudentView>(`/api/students/${id}`)
    if (wanted !== id || mine < readAt) return
    // Of what was answered meanwhile it may know nothing.
    if (mine < changedAt) return read(id)
    readAt = mine
    const isNew = latest.value === undefined
    latest.value = found
    if (isNew) term.takeUp()
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
    latest.value = undefined
    shown.value = undefined
    rights.suggests.value = false
    term.forgetChosen()
    failure.value = undefined
    notice.close()
  }

  /** A route as the server said it last, without what is on its way. */
  const lastSaid = (id: number | null) =>
    latest.value?.routes.find((one) => one.id === id) ?? latest.value?.route
  queue.versionsFrom((student, route) =>
    latest.value?.student.id === student ? (lastSaid(route)?.version ?? 0) : 0
  )
  /** What a change brought about beside itself is being read. */
  let catchingUp = Promise.resolve()
  queue.onMade(({ pending, answer }) => {
    if (latest.value?.student.id !== pending.student) return
    changedAt = ++moment
    latest.value = settledWith(latest.value, pending.change, answer)
    if (!isSettledByItself(pending.change)) catchingUp = reload()
  })

  useFollowedRecord({
    isShown: (id) => id === wanted,
    read: async () => {
      if (wanted !== undefined) await read(wanted)
    },
    route: () => view.value?.route,
    routes: () => routes.value
  })

  const offers = useOffers()
  watch(
    () => offers.byTerm,
    (known) => {
      if (!latest.value) return
      const now = new Map([...known.values()].flatMap((one) => one.sections.map((s) => [s.code, s] as const)))
      const sections = latest.value.sections.map((one) => now.get(one.code) ?? one)
      latest.value = { ...latest.value, sections: shareStructure(latest.value.sections, sections) }
    }
  )

  /** The midnights, deadlines and openings that have passed matter to the checks, the second does not. */
  const stage = college.stageFor(() => (view.value?.openings ?? []).map((one) => one.opens))
  /** The view, the same as before while nothing that is read of it has changed. */
  const readable = computed<StudentView | undefined>((before) =>
    before && view.value && readsAlike(before, view.value) ? before : view.value
  )
  const reading = computed<Reading | undefined>((before) => {
    if (!readable.value || !college.catalogContext) return undefined
    const now = readStudent(readable.value, college.catalogContext, stage.value.at)
    if (before) now.audits.forEach((audit, i) => shareStructure(before.audits[i]?.areas, audit.areas))
    return now
  })
  const term = useWorkingTerm(
    () => latest.value?.student.id,
    () => reading.value
  )
  const rights = useRights(view)

  return {
    view,
    failure,
    reading,
    stage,
    alive: term.alive,
    work: term.work,
    planning: term.planning,
    chooseTerm: term.chooseTerm,
    coming: term.coming,
    ...rights,
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
