/**
 * The changes of one record that one person makes, in order: each is sent when the one before is answered, with a key of
 * its own, so that it can be sent again when no answer came. Without a connection they wait; what waits is kept outside,
 * and taken up again after a reload.
 */
import type { StudentId } from '#core/ids'
import type { Problem } from '#shared/responses'
import { requestOf, routeOf, type Change, type ChangeRequest } from './changes'

/** A change with all that is needed to send it, wherever it is taken up. */
export interface PendingChange {
  key: string
  account: number
  student: StudentId
  studentName: string
  change: Change
  /** The version of its route that was on screen; of others nothing. */
  seen: number
  /** By the browser's clock; what was made first is sent first. */
  madeAt: number
  /** What is sent, once it was; the same each time. */
  request?: ChangeRequest
}

/** What came back: the answer, a refusal, or nothing that says what happened. */
export type Arrived =
  | { is: 'made'; answer: unknown }
  | { is: 'refused'; problem: Problem }
  | { is: 'signedOut' }
  | { is: 'unsettled'; problem: Problem; reached: boolean; retryAfterMs?: number }

/** What has come of a change so far. */
export type Outcome = { is: 'made'; answer: unknown } | { is: 'refused'; problem: Problem } | { is: 'waits' }

export interface QueueSurroundings {
  send: (pending: PendingChange, request: ChangeRequest) => Promise<Arrived>
  /** Kept until it is dropped, over reloads. */
  keep: (pending: PendingChange) => Promise<void>
  drop: (pending: PendingChange) => Promise<void>
  /** The version that a route has on screen; 0 where it is not known. */
  versionOf: (student: StudentId, route: number | null) => number
  /** Told before anybody else: the record is put right here. */
  made: (pending: PendingChange, answer: unknown) => void
  /** `late`: whoever made it has been told that it waits. */
  refused: (pending: PendingChange, problem: Problem, late: boolean) => Promise<void>
  /** What waits, and whether the connection is why. */
  changed: (pending: readonly PendingChange[], state: QueueState) => void
  later: (work: () => void, ms: number) => () => void
}

export type QueueState = 'sending' | 'unreachable' | 'signedOut'

const FIRST_WAIT_MS = 1000
const LONGEST_WAIT_MS = 20_000
/** A server that is reached and fails at it fails for good after so many times. */
const FAILS_MOST = 4

export class ChangeQueue {
  #pending: PendingChange[] = []
  readonly #told = new Map<string, (outcome: Outcome) => void>()
  /** The versions that answers named, by route. */
  readonly #versions = new Map<number | null, number>()
  #running = false
  /** Somebody asked for it while it was running. */
  #again = false
  #state: QueueState = 'sending'
  /** How often the first one was answered with a failure, and how often it waited. */
  #fails = 0
  #waits = 0
  #cancel: (() => void) | undefined

  constructor(private readonly around: QueueSurroundings) {}

  get pending(): readonly PendingChange[] {
    return this.#pending
  }

  /** Takes a change up. Answers when it is known what came of it, or that it has to wait. */
  add(pending: PendingChange): Promise<Outcome> {
    this.#put([...this.#pending, pending])
    // Before its turn comes: a page that is left meanwhile takes along what was not kept.
    void this.around.keep(pending)
    const outcome = new Promise<Outcome>((resolve) => this.#told.set(pending.key, resolve))
    if (this.#state !== 'sending') this.#tell(pending, { is: 'waits' })
    void this.#run()
    return outcome
  }

  /** Takes up again what was left over, before what is added later. */
  resume(left: readonly PendingChange[]): void {
    const known = new Set(this.#pending.map((one) => one.key))
    const fresh = left.filter((one) => !known.has(one.key))
    if (!fresh.length) return
    this.#put([...fresh, ...this.#pending])
    void this.#run()
  }

  /** Tries again at once: the connection is back, or somebody has signed in. */
  poke(): void {
    if (!this.#pending.length) return
    this.#cancel?.()
    this.#cancel = undefined
    void this.#run()
  }

  async #run(): Promise<void> {
    this.#again = true
    if (this.#running) return
    this.#running = true
    try {
      while (this.#again && !this.#cancel) {
        this.#again = false
        for (let first; (first = this.#pending[0]);) if (!(await this.#sendFirst(first))) break
      }
    } finally {
      this.#running = false
    }
  }

  /** Whether it is out of the way. */
  async #sendFirst(first: PendingChange): Promise<boolean> {
    const request = first.request ?? requestOf(first.change, this.#versionFor(first))
    if (!first.request) {
      first.request = request
      await this.around.keep(first)
    }
    const arrived = await this.around.send(first, request)
    switch (arrived.is) {
      case 'made': {
        this.#learn(first, arrived.answer)
        this.around.made(first, arrived.answer)
        await this.#leave(first)
        this.#tell(first, arrived)
        return true
      }
      case 'refused':
        return this.#refuse(first, arrived.problem)
      case 'signedOut':
        this.#become('signedOut')
        this.#tell(first, { is: 'waits' })
        return false
      default:
        if (arrived.reached && ++this.#fails >= FAILS_MOST) return this.#refuse(first, arrived.problem)
        this.#tryLater(arrived.retryAfterMs)
        // Who waits for the server is told later; who has no connection is told now.
        if (!arrived.reached) {
          this.#become('unreachable')
          for (const one of this.#pending) this.#tell(one, { is: 'waits' })
        }
        return false
    }
  }

  async #refuse(first: PendingChange, problem: Problem): Promise<boolean> {
    await this.around.refused(first, problem, !this.#told.has(first.key))
    await this.#leave(first)
    // What comes after is made to the route as it is now.
    this.#versions.clear()
    this.#tell(first, { is: 'refused', problem })
    return true
  }

  async #leave(first: PendingChange): Promise<void> {
    this.#fails = this.#waits = 0
    this.#state = 'sending'
    this.#put(this.#pending.filter((one) => one !== first))
    await this.around.drop(first)
  }

  #tryLater(retryAfterMs = 0): void {
    const wait = Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** this.#waits++)
    this.#cancel = this.around.later(
      () => {
        this.#cancel = undefined
        void this.#run()
      },
      Math.max(retryAfterMs, wait)
    )
  }

  #versionFor({ change, student, seen }: PendingChange): number {
    const route = routeOf(change)
    if (route === undefined) return 0
    return Math.max(seen, this.#versions.get(route) ?? 0, this.around.versionOf(student, route))
  }

  #learn({ change }: PendingChange, answer: unknown): void {
    const asked = routeOf(change)
    if (asked === undefined) return
    const { route, version } = answer as { route: number; version: number }
    this.#versions.set(asked, version).set(route, version)
  }

  #become(state: QueueState): void {
    this.#state = state
    this.around.changed(this.#pending, state)
  }

  #put(pending: PendingChange[]): void {
    this.#pending = pending
    this.around.changed(pending, this.#state)
  }

  #tell({ key }: PendingChange, outcome: Outcome): void {
    this.#told.get(key)?.(outcome)
    this.#told.delete(key)
  }
}
