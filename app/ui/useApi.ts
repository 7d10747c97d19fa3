import type { Problem } from '#shared/responses'

/** A request that was refused or did not arrive, with the sentence to show. */
export class Failure extends Error {
  constructor(
    readonly status: number,
    readonly problem: Problem,
    /** When to try again, where the server says so. */
    readonly retryAfterMs?: number
  ) {
    super(problem.message)
  }
}

/** Of a reading nothing is lost; whether a change arrived before the connection went is not known. */
const unreachable = (reading: boolean): Problem => ({
  code: 'unreachable',
  message: reading
    ? 'The server cannot be reached. What you see is what it said last.'
    : 'The server cannot be reached. Whether it made the change is not known; look again once it is back.'
})

interface Options {
  method?: 'GET' | 'POST' | 'DELETE'
  query?: Record<string, string>
  body?: object
  /** Of a change: sent again with the same it is not made twice. */
  key?: string
}

declare global {
  interface Window {
    /** What the page's head has asked for already (`app/ui/earlyReads.ts`). */
    ridgewayBegun?: Record<string, Promise<Response | undefined> | undefined>
  }
}

/** The answer of what was asked before any code of the application was there; each is taken once. */
async function begunFor(address: string, isReading: boolean): Promise<Response | undefined> {
  const begun = window.ridgewayBegun?.[address]
  if (!begun || !isReading) return undefined
  window.ridgewayBegun![address] = undefined
  return begun
}

/** Calls the server, which answers with JSON, or with the text of a file; @throws Failure with a sentence for the person. */
export async function api<T>(path: string, options: Options = {}): Promise<T> {
  const address = options.query ? `${path}?${new URLSearchParams(options.query)}` : path
  const isReading = (options.method ?? 'GET') === 'GET'
  let answer: Response
  try {
    answer =
      (await begunFor(address, isReading)) ??
      (await fetch(address, {
        method: options.method ?? 'GET',
        headers: {
          ...(options.body ? { 'content-type': 'application/json' } : {}),
          ...(options.key ? { 'idempotency-key': `"${options.key}"` } : {})
        },
        ...(options.body ? { body: JSON.stringify(options.body) } : {})
      }))
  } catch {
    throw new Failure(0, unreachable(isReading))
  }
  const isFile = answer.headers.get('content-type')?.startsWith('text/calendar')
  const read = (await (isFile ? answer.text() : answer.json()).catch(() => null)) as T | Problem | null
  if (import.meta.dev && !isFile && read !== null) {
    const { answerFault } = await import('./answerFault')
    const fault = answerFault(options.method ?? 'GET', address, answer.status, read)
    if (fault) throw new Error(fault)
  }
  if (answer.ok) return read as T
  const problem = read as Problem | null
  throw new Failure(
    answer.status,
    problem?.code
      ? problem
      : {
          code: 'failed',
          message: isReading
            ? 'Something went wrong on the server. Try again.'
            : 'Something went wrong on the server. Whether it made the change is not known; reload before you try again.'
        },
    Number(answer.headers.get('retry-after')) * 1000 || undefined
  )
}
