import { beforeEach, describe, expect, it } from 'vitest'
import { courseCode, studentId } from '#core/ids'
import { ChangeQueue, type Arrived, type Outcome, type PendingChange, type QueueState } from './changeQueue'
import type { Change, ChangeRequest } from './changes'

const IMKE = studentId(1)
const problem = { code: 'no', message: 'It may not be.' }
const made = (answer: unknown = {}): Arrived => ({ is: 'made', answer })
const unreachable: Arrived = { is: 'unsettled', problem, reached: false }

/** A server that answers as it is told, a clock that stands, and what a browser keeps. */
class Surroundings {
  arrives: ((pending: PendingChange, request: ChangeRequest) => Arrived)[] = []
  sent: { key: string; request: ChangeRequest }[] = []
  kept = new Map<string, PendingChange>()
  made: string[] = []
  refused: { key: string; late: boolean }[] = []
  state: QueueState = 'sending'
  waits: number[] = []
  versions = new Map<number | null, number>()
  #later: (() => void) | undefined

  queue = new ChangeQueue({
    send: async (pending, request) => {
      this.sent.push({ key: pending.key, request })
      await Promise.resolve()
      return (this.arrives.shift() ?? (() => made()))(pending, request)
    },
    keep: (pending) => Promise.resolve(void this.kept.set(pending.key, structuredClone(pending))),
    drop: ({ key }) => Promise.resolve(void this.kept.delete(key)),
    versionOf: (_, route) => this.versions.get(route) ?? 0,
    made: ({ key }) => void this.made.push(key),
    refused: ({ key }, _, late) => Promise.resolve(void this.refused.push({ key, late })),
    changed: (_, state) => void (this.state = state),
    later: (work, ms) => {
      this.waits.push(ms)
      this.#later = work
      return () => (this.#later = undefined)
    }
  })

  /** Time passes until what was put off is done. */
  async pass(): Promise<void> {
    const work = this.#later
    this.#later = undefined
    work?.()
    await settle()
  }
}

const settle = () => new Promise((resolve) => setTimeout(resolve))
const note = (text: string): Change => ({
  kind: 'mark',
  course: courseCode('ENVI 310'),
  said: { note: text },
  at: 0
})
const onRoute = (route: number | null): Change => ({ kind: 'return', route, to: 1 })
const pending = (key: string, change: Change = note(key), seen = 0): PendingChange => ({
  key,
  account: 1,
  student: IMKE,
  studentName: 'Imke Varga',
  change,
  seen,
  madeAt: 0
})
const keys = (around: Surroundings) => around.sent.map((one) => one.key)
const versionsSent = (around: Surroundings) =>
  around.sent.map(({ request }) => (request.body as { version: number }).version)

let around: Surroundings
beforeEach(() => {
  around = new Surroundings()
})

describe('with a connection', () => {
  it('sends one after the other, in order, and keeps nothing that was answered', async () => {
    const outcomes = await Promise.all(['a', 'b', 'c'].map((key) => around.queue.add(pending(key))))
    expect(outcomes.map((one) => one.is)).toEqual(['made', 'made', 'made'])
    expect(keys(around)).toEqual(['a', 'b', 'c'])
    expect(around.made).toEqual(['a', 'b', 'c'])
    expect(around.kept.size).toBe(0)
    expect(around.queue.pending).toEqual([])
  })
  it('keeps a change before it is sent for the first time', async () => {
    around.arrives = [
      ({ key }) => {
        expect(around.kept.get(key)?.request).toMatchObject({ where: 'courses/ENVI-310' })
        return made()
      }
    ]
    await around.queue.add(pending('a'))
  })
  it('keeps a change as soon as it is made, also while another is under way', async () => {
    const first = around.queue.add(pending('a'))
    const second = around.queue.add(pending('b'))
    expect(keys(around)).not.toContain('b')
    expect(around.kept.get('b')).toMatchObject({ change: note('b') })
    await Promise.all([first, second])
    expect(around.kept.size).toBe(0)
  })
  it('takes back what is refused, and sends the rest', async () => {
    around.arrives = [() => ({ is: 'refused', problem })]
    const outcomes = await Promise.all([around.queue.add(pending('a')), around.queue.add(pending('b'))])
    expect(outcomes).toEqual([
      { is: 'refused', problem },
      { is: 'made', answer: {} }
    ])
    expect(around.refused).toEqual([{ key: 'a', late: false }])
    expect(around.made).toEqual(['b'])
  })
  it('makes each change of a route to the version that the one before made', async () => {
    around.arrives = [() => made({ route: 7, version: 6 }), () => made({ route: 7, version: 7 })]
    await Promise.all([
      around.queue.add(pending('a', onRoute(7), 5)),
      around.queue.add(pending('b', onRoute(7), 5)),
      around.queue.add(pending('c', onRoute(8), 3))
    ])
    expect(versionsSent(around)).toEqual([5, 6, 3])
  })
  it('makes a change of the route as it is now, after one was refused', async () => {
    around.arrives = [
      () => {
        around.versions.set(7, 9)
        return { is: 'refused', problem }
      }
    ]
    await Promise.all([
      around.queue.add(pending('a', onRoute(7), 5)),
      around.queue.add(pending('b', onRoute(7), 5))
    ])
    expect(versionsSent(around)).toEqual([5, 9])
  })
})

describe('without a connection', () => {
  it('lets everything wait, says so, and sends it in order when it is back', async () => {
    around.arrives = [() => unreachable]
    expect(await around.queue.add(pending('a'))).toEqual({ is: 'waits' })
    expect(await around.queue.add(pending('b'))).toEqual({ is: 'waits' })
    expect(around.state).toBe('unreachable')
    expect([...around.kept.keys()]).toEqual(['a', 'b'])
    await around.pass()
    expect(keys(around)).toEqual(['a', 'a', 'b'])
    expect(around.state).toBe('sending')
    expect(around.kept.size).toBe(0)
  })
  it('sends again the very same, so that it is known for the same', async () => {
    around.arrives = [() => unreachable]
    await around.queue.add(pending('a', onRoute(7), 5))
    around.versions.set(7, 9)
    await around.pass()
    expect(versionsSent(around)).toEqual([5, 5])
  })
  it('tries less and less often', async () => {
    around.arrives = Array.from({ length: 8 }, () => () => unreachable)
    await around.queue.add(pending('a'))
    for (let i = 0; i < 7; i++) await around.pass()
    expect(around.waits).toEqual([1000, 2000, 4000, 8000, 16000, 20000, 20000, 20000])
  })
  it('tries at once when it is told to', async () => {
    around.arrives = [() => unreachable]
    await around.queue.add(pending('a'))
    around.queue.poke()
    await settle()
    expect(around.made).toEqual(['a'])
    await around.pass()
    expect(keys(around)).toEqual(['a', 'a'])
  })
  it('says of what waited and was refused that it is late', async () => {
    around.arrives = [() => unreachable, () => ({ is: 'refused', problem })]
    await around.queue.add(pending('a'))
    await around.pass()
    expect(around.refused).toEqual([{ key: 'a', late: true }])
  })
})

describe('a server that fails', () => {
  const failing: Arrived = { is: 'unsettled', problem, reached: true }
  it('is asked again a few times, and then it is refused', async () => {
    around.arrives = Array.from({ length: 4 }, () => () => failing)
    let outcome: Outcome | undefined
    void around.queue.add(pending('a')).then((is) => (outcome = is))
    await settle()
    expect(outcome).toBeUndefined()
    for (let i = 0; i < 3; i++) await around.pass()
    expect(outcome).toEqual({ is: 'refused', problem })
  })
  it('is asked again when it says to', async () => {
    around.arrives = [() => ({ ...failing, retryAfterMs: 7000 })]
    void around.queue.add(pending('a'))
    await settle()
    expect(around.waits).toEqual([7000])
  })
})

describe('somebody who is signed out', () => {
  it('has their changes wait, without asking again and again', async () => {
    around.arrives = [() => ({ is: 'signedOut' })]
    expect(await around.queue.add(pending('a'))).toEqual({ is: 'waits' })
    expect(around.state).toBe('signedOut')
    expect(around.waits).toEqual([])
    around.queue.poke()
    await settle()
    expect(around.made).toEqual(['a'])
  })
})

describe('after a reload', () => {
  it('what was left over comes first, as it was sent, and once', async () => {
    const request: ChangeRequest = { method: 'POST', where: 'route/return', body: { version: 5 } }
    const left = { ...pending('a', onRoute(7), 5), request }
    around.versions.set(7, 8)
    around.queue.resume([left])
    around.queue.resume([left])
    await around.queue.add(pending('b'))
    expect(keys(around)).toEqual(['a', 'b'])
    expect(around.sent[0]!.request).toEqual(request)
  })
})
