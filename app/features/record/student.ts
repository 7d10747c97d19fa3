import { settledWith, shownWith, isSettledByItself } from '#shared/record/shownChanges'
import type { StudentView } from '#shared/record/responses'
import { READ_KEYS, readStudent, type Reading } from '#shared/reading'
import { shareStructure } from '#shared/structuralSharing'

/** The record with the changes that are on their way to the server, and the route on screen among its routes. */
function useWithPending(latest: Ref<StudentView | undefined>, shown: Ref<number | undefined>) {
  const queue = useQueue()
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
  return { onTheWay, routes, view }
}

/** Reads records: what was asked for last is on screen, and never what was read before a change that is made since. */
function useRecordRead(latest: Ref<StudentView | undefined>, of: { first: () => void; another: () => void }) {
  const college = useCollege()
  const clock = useClock()
  const failure = ref<string>()
  /** The student whose record was asked for last. */
  let wanted: number | undefined
  /** Counts readings asked for and changes answered: what was read before a change does not have it. */
  let moment = 0
  let changedAt = 0

  const newest = newestAnswer()
  async function load(id: number): Promise<void> {
    if (latest.value && latest.value.student.id !== id) of.another()
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
    if (isNew) of.first()
  }

  const reload = (): Promise<void> => (wanted === undefined ? Promise.resolve() : load(wanted))
  return {
    failure,
    load,
    reload,
    readAgain: async () => {
      if (wanted !== undefined) await read(wanted)
    },
    isWanted: (id: number) => id === wanted,
    /** A change was answered: what is being read may not have it. */
    changed: () => void (changedAt = ++moment),
    letGo: () => {
      wanted = undefined
      failure.value = undefined
    }
  }
}

/** The record as it is read and audited, anew only when something that is read of it has changed. */
function useReading(view: Ref<StudentView | undefined>) {
  const college = useCollege()
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
  return { stage, reading }
}

/** Puts the seats that are told of a term into the sections of the record. */
function followSeats(latest: Ref<StudentView | undefined>): void {
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
}

/** The student on screen: what the server said last, with the changes that are on their way to it. */
export const useStudent = defineStore('student', () => {
  /** What the server said last. */
  const latest = shallowRef<StudentView>()
  const queue = useQueue()
  const notice = useNotice()
  /** The route on screen where it is not the chosen one, by its id. */
  const shown = ref<number>()
  const record = useRecordRead(latest, { first: () => term.takeUp(), another: forget })
  const { onTheWay, routes, view } = useWithPending(latest, shown)

  function forget(): void {
    record.letGo()
    latest.value = undefined
    shown.value = undefined
    rights.suggests.value = false
    term.forgetChosen()
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
    record.changed()
    latest.value = settledWith(latest.value, pending.change, answer)
    if (!isSettledByItself(pending.change)) catchingUp = record.reload()
  })

  useFollowedRecord({
    isShown: record.isWanted,
    read: record.readAgain,
    route: () => view.value?.route,
    routes: () => routes.value
  })

  followSeats(latest)

  const { stage, reading } = useReading(view)
  const term = useWorkingTerm(
    () => latest.value?.student.id,
    () => reading.value
  )
  const rights = useRights(view)

  const { alive, work, planning, chooseTerm, coming } = term
  return {
    ...{ view, failure: record.failure, reading, stage },
    ...{ alive, work, planning, chooseTerm, coming },
    ...rights,
    ...{ load: record.load, reload: record.reload, forget },
    /** Keeps the record for the view that asks, until none is left. */
    hold: heldByViews(forget),
    ...{ onTheWay, shown, routes, lastSaid, caughtUp: () => catchingUp }
  }
})

/** Whether all that is read of two pictures is the same. */
const readsAlike = (a: StudentView, b: StudentView): boolean =>
  READ_KEYS.every((key) => (key === 'route' ? a.route.courses === b.route.courses : a[key] === b[key]))
