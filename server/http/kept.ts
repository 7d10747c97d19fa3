/** Answers that are the same for everybody and change by publication, not by use: kept, and read anew while nobody waits. */
import type { Database } from '#server/db/connect'
import { Versioned } from './versioned'

interface Known<T> {
  at: number
  answer: Promise<T>
  renewing?: boolean
}
/** For each database. */
const known = new WeakMap<Database, Map<string, Known<unknown>>>()
const FRESH_MS = 30_000
/** So old they are not given out any more: whoever asks waits for them to be read anew. */
const STALE_MS = 300_000

/** What was kept, or all of it, is not given out any more by this server; others read it anew as it grows old. */
export function forgetKept(db: Database, name?: string): void {
  if (name === undefined) known.delete(db)
  else known.get(db)?.delete(name)
}

/** What `read` says, as JSON; `now` is the time of the machine. */
export function keptAnswer<T>(
  db: Database,
  name: string,
  read: () => Promise<T>,
  now?: number
): Promise<Versioned<T>> {
  const next = async (before: Versioned<T> | undefined) => {
    const value = await read()
    return before?.renewedWith(value) ?? Versioned.of(value)
  }
  return kept(db, name, next, now)
}

/** What `read` says, which is told what it said before; a name stands for one kind of thing. */
export function kept<T>(
  db: Database,
  name: string,
  read: (before: T | undefined) => Promise<T>,
  now = Date.now()
): Promise<T> {
  const answers = (known.get(db) ?? new Map()) as Map<string, Known<T>>
  known.set(db, answers)
  const begin = (before?: Known<T>): Known<T> => ({
    at: now,
    answer: (async () => read(await before?.answer))()
  })
  let one = answers.get(name)
  if (!one || now - one.at > STALE_MS) {
    one = begin()
    answers.set(name, one)
    one.answer.catch(() => answers.delete(name))
  } else if (now - one.at > FRESH_MS && !one.renewing) {
    one.renewing = true
    const next = begin(one)
    next.answer.then(
      () => answers.set(name, next),
      () => answers.delete(name)
    )
  }
  return one.answer
}
