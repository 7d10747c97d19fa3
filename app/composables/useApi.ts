import type { Problem } from '#wire/picture'

/** A request that was refused or did not arrive, with the sentence to show. */
export class Failure extends Error {
  constructor(
    readonly status: number,
    readonly problem: Problem
  ) {
    super(problem.message)
  }
}

const UNREACHABLE: Problem = {
  code: 'unreachable',
  message: 'The server cannot be reached. What you see is what it said last; nothing was changed.'
}

interface Options {
  method?: 'GET' | 'POST' | 'DELETE'
  query?: Record<string, string>
  body?: object
}

/** Calls the server, which answers with JSON, or with the text of a file; @throws Failure with a sentence for the person. */
export async function api<T>(path: string, options: Options = {}): Promise<T> {
  const address = options.query ? `${path}?${new URLSearchParams(options.query)}` : path
  let answer: Response
  try {
    answer = await fetch(address, {
      method: options.method ?? 'GET',
      headers: options.body ? { 'content-type': 'application/json' } : {},
      ...(options.body ? { body: JSON.stringify(options.body) } : {})
    })
  } catch {
    throw new Failure(0, UNREACHABLE)
  }
  const isFile = answer.headers.get('content-type')?.startsWith('text/calendar')
  const read = (await (isFile ? answer.text() : answer.json()).catch(() => null)) as T | Problem | null
  if (answer.ok) return read as T
  const problem = read as Problem | null
  throw new Failure(
    answer.status,
    problem?.code
      ? problem
      : { code: 'failed', message: 'Something went wrong on the server. Nothing was changed. Try again.' }
  )
}
