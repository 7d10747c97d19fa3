import { createEventHook, useEventListener } from '@vueuse/core'
import type { StudentId } from '#core/ids'
import type { Problem } from '#shared/responses'
import {
  ChangeQueue,
  type Arrived,
  type Outcome,
  type PendingChange,
  type QueueState
} from '#shared/record/changeQueue'
import { addressOf, type Change, type ChangeRequest } from '#shared/record/changes'

/** What a server says that is not there for the moment, whatever was asked. */
const NOT_THERE = new Set([0, 502, 503, 504])

/** Sends a change of whoever is signed in. */
async function sendAs(
  account: number | undefined,
  pending: PendingChange,
  request: ChangeRequest
): Promise<Arrived> {
  const { method, query, body } = request
  // Somebody else has signed in here meanwhile: it waits for whoever made it.
  if (pending.account !== account) return { is: 'signedOut' }
  try {
    const answer = await api<unknown>(addressOf(pending.student, request), {
      method,
      key: pending.key,
      ...(query ? { query } : {}),
      ...(body ? { body } : {})
    })
    return { is: 'made', answer }
  } catch (error) {
    if (!(error instanceof Failure)) throw error
    const { status, problem, retryAfterMs } = error
    if (status === 401) return { is: 'signedOut' }
    if (NOT_THERE.has(status) || status === 429 || status >= 500)
      return {
        is: 'unsettled',
        problem,
        reached: !NOT_THERE.has(status) && status !== 429,
        ...(retryAfterMs ? { retryAfterMs } : {})
      }
    return { is: 'refused', problem }
  }
}

/** Changes of a record that are on their way, and why they wait. */
interface OnTheWay {
  pending: readonly PendingChange[]
  state: QueueState
}

/** The changes of whoever is signed in that are on their way, one queue for each record. */
export const useQueue = defineStore('queue', () => {
  const session = useWho()
  const queues = new Map<StudentId, ChangeQueue>()
  const byStudent = shallowRef<ReadonlyMap<StudentId, OnTheWay>>(new Map())
  const made = createEventHook<{ pending: PendingChange; answer: unknown }>()
  const refused = createEventHook<{ pending: PendingChange; problem: Problem; late: boolean }>()
  /** Keys of changes made here: news of them is none. */
  const ownKeys = new Set<string>()
  /** No two are made at the same instant: what is kept is taken up in their order. */
  let lastMadeAt = 0
  let versionOf: (student: StudentId, route: number | null) => number = () => 0

  const queueOf = (student: StudentId): ChangeQueue => {
    const known = queues.get(student)
    if (known) return known
    const queue = new ChangeQueue({
      send: (...change) => sendAs(session.who?.id, ...change),
      keep: keepChange,
      drop: dropChange,
      versionOf: (...route) => versionOf(...route),
      made: (pending, answer) => void made.trigger({ pending, answer }),
      refused: async (pending, problem, late) => void (await refused.trigger({ pending, problem, late })),
      changed: (pending, state) =>
        (byStudent.value = new Map(byStudent.value).set(student, { pending: [...pending], state })),
      later
    })
    queues.set(student, queue)
    return queue
  }

  /** Makes a change of a record: shown at once, sent in turn. */
  function add(of: { student: StudentId; name: string; seen: number }, change: Change): Promise<Outcome> {
    const key = newKey()
    ownKeys.add(key)
    return queueOf(of.student).add({
      key,
      account: session.who!.id,
      student: of.student,
      studentName: of.name,
      change,
      seen: of.seen,
      madeAt: (lastMadeAt = Math.max(Date.now(), lastMadeAt + 1))
    })
  }

  /** Takes up what was left over of an account, in this tab or in those that are closed. */
  function resume(account: number): void {
    poke()
    void takeOverKept(account, (left) => {
      for (const { key } of left) ownKeys.add(key)
      for (const student of new Set(left.map((one) => one.student)))
        queueOf(student).resume(left.filter((one) => one.student === student))
    })
  }
  function poke(): void {
    for (const queue of queues.values()) queue.poke()
  }
  whenReachable(poke, resume)

  return {
    byStudent,
    add,
    isOwn: (key: string | null) => key !== null && ownKeys.has(key),
    onMade: made.on,
    onRefused: refused.on,
    versionsFrom: (read: typeof versionOf) => (versionOf = read)
  }
})

/** Tries again what waits: once there is a connection, once news comes in, once somebody has signed in. */
function whenReachable(poke: () => void, resume: (account: number) => void): void {
  const session = useWho()
  useEventListener('online', poke)
  watch(
    () => session.who?.id,
    (account) => account !== undefined && resume(account),
    { immediate: true }
  )
  watch(
    () => useNews().live,
    (live) => live && poke()
  )
}

/** Does something after a while. @returns leaves it */
function later(work: () => void, ms: number): () => void {
  const timer = setTimeout(work, ms)
  return () => clearTimeout(timer)
}
