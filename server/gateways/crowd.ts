/**
 * The crowd of an opening morning: a stand-in for the students who come to it. It knows the application from outside only,
 * by the same addresses as a browser: everybody signs in, picks sections, names fallbacks, and runs the sheet at the
 * opening. On an ordinary server there are real students, and no crowd.
 */
import { randomUUID } from 'node:crypto'
import type { StudentId, TermCode } from '#core/ids'
import type { Instant } from '#core/time'
import type { Morning } from '#shared/registration/morning'
import { isSeat } from '#shared/registration/outcomes'
import type { Receipt } from '#shared/registration/responses'

/** Somebody of it, with what they want. */
export interface Guest {
  student: StudentId
  signIn: string
  /** Who signs the term off for them beforehand; null where nobody has to. */
  advisor: string | null
  wishes: readonly { course: string; sections: readonly string[]; fallbacks: readonly object[] }[]
}

export interface Crowd {
  view(): Morning
  /**
   * Has guests come to an opening. `ready` is called once they all wait for it, and answers when it has come.
   * @returns false where a morning is under way already
   */
  begin(
    about: { term: TermCode; opens: Instant },
    guests: readonly Guest[],
    ready: () => Promise<void>
  ): boolean
}

/** So many prepare themselves at once. */
const AT_ONCE = 6
/** Half of them press in the first so many milliseconds, half of the rest in the next, and so on. */
const HALF_WITHIN_MS = 1500
const LAST_AFTER_MS = 20_000

const NOTHING_YET = {
  prepared: 0,
  answered: 0,
  seats: 0,
  waits: 0,
  refused: 0,
  failed: 0,
  median: null,
  slow: null
}

type Send = (path: string, body: object) => Promise<unknown>

/** A crowd that comes to the server at an address, all of it with the same password. */
export class SimulatedCrowd implements Crowd {
  private now: Morning = {
    ...NOTHING_YET,
    state: 'quiet',
    term: 'AU00' as TermCode,
    opens: 0,
    people: 0
  }

  constructor(
    private readonly address: string,
    private readonly password: string,
    private readonly random: () => number = Math.random
  ) {}

  view(): Morning {
    return { ...this.now }
  }

  begin(
    about: { term: TermCode; opens: Instant },
    guests: readonly Guest[],
    ready: () => Promise<void>
  ): boolean {
    if (this.now.state !== 'quiet' && this.now.state !== 'over') return false
    this.now = { ...NOTHING_YET, ...about, state: 'preparing', people: guests.length }
    this.hold(guests, ready).catch(() => {
      this.now.failed++
      this.now.state = 'over'
    })
    return true
  }

  private async post(path: string, body: object, cookie?: string): Promise<Response> {
    const response = await fetch(`${this.address}${path}`, {
      method: 'POST',
      headers: {
        'content-type': 'application/json',
        'idempotency-key': randomUUID(),
        ...(cookie ? { cookie } : {})
      },
      body: JSON.stringify(body)
    })
    if (!response.ok) throw new Error(`${path} was answered with ${response.status}`)
    return response
  }

  /** Whoever signs in sends everything after it with their session. */
  private async signIn(name: string): Promise<Send> {
    const response = await this.post('/api/session', { name, password: this.password })
    const cookie = response.headers.getSetCookie()[0]?.split(';')[0]
    return async (path, body) => {
      const answer = await (await this.post(path, body, cookie)).text()
      return answer ? (JSON.parse(answer) as unknown) : undefined
    }
  }

  private async orFails<T>(work: () => Promise<T>): Promise<T | undefined> {
    try {
      return await work()
    } catch {
      this.now.failed++
      return undefined
    }
  }

  private async prepare(guest: Guest, advisors: Map<string, Promise<Send>>): Promise<Send> {
    const { student, advisor, wishes } = guest
    const { term } = this.now
    const send = await this.signIn(guest.signIn)
    await send(`/api/students/${student}/picks`, {
      term,
      picks: wishes.map(({ course, sections }) => ({ course, sections }))
    })
    for (const { course, fallbacks } of wishes)
      if (fallbacks.length)
        await send(`/api/students/${student}/fallbacks`, { term, course, list: fallbacks, onlyWith: null })
    if (advisor) {
      if (!advisors.has(advisor)) advisors.set(advisor, this.signIn(advisor))
      const sign = await advisors.get(advisor)!
      await sign(`/api/students/${student}/sign-off`, { term })
    }
    return send
  }

  private async runSheet({ student, wishes }: Guest, send: Send): Promise<number> {
    await wait(Math.min(LAST_AFTER_MS, -Math.log2(1 - this.random()) * HALF_WITHIN_MS))
    const began = performance.now()
    const courses = wishes.map((wish) => wish.course)
    const receipt = (await send(`/api/students/${student}/runs`, { term: this.now.term, courses })) as Receipt
    const took = performance.now() - began
    for (const { outcome } of receipt.lines) {
      if (isSeat(outcome)) this.now.seats++
      else if (outcome === 'inLine') this.now.waits++
      else this.now.refused++
    }
    this.now.answered++
    return took
  }

  private async hold(guests: readonly Guest[], ready: () => Promise<void>): Promise<void> {
    const coming = [...guests]
    const sends = new Map<Guest, Send>()
    const advisors = new Map<string, Promise<Send>>()
    const work = async () => {
      for (let guest; (guest = coming.shift());) {
        const one = guest
        const send = await this.orFails(() => this.prepare(one, advisors))
        if (send) sends.set(one, send)
        this.now.prepared++
      }
    }
    await Promise.all(Array.from({ length: AT_ONCE }, work))
    this.now.state = 'waiting'
    await ready()
    this.now.state = 'running'
    const took = await Promise.all(
      [...sends].map(([guest, send]) => this.orFails(() => this.runSheet(guest, send)))
    )
    const times = took.filter((ms) => ms !== undefined).sort((a, b) => a - b)
    const at = (part: number) => times[Math.min(times.length - 1, Math.floor(times.length * part))] ?? null
    this.now.median = at(0.5)
    this.now.slow = at(0.95)
    this.now.state = 'over'
  }
}

const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms))
