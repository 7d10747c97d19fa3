/** Answers that are the same for everybody and change by publication, not by use: kept, and read anew while nobody waits. */
import type { Database } from '#server/db/connect'
import { Versioned } from './versioned'

interface Known {
  at: number
  answer: Promise<Versioned>
  renewing?: boolean
}
/** For each database. */
const known = new WeakMap<Database, Map<string, Known>>()
const FRESH_MS = 30_000
/** So old they are not given out any more: whoever asks waits for them to be read anew. */
const STALE_MS = 300_000

/** What was kept, or all of it, is not given out any more by this server; others read it anew as it grows old. */
export function forgetKept(db: Database, name?: string): void {
  if (name === undefined) known.delete(db)
  else known.get(db)?.delete(name)
}

/** What `read` says, as JSON; `now` is the time of the machine. */
export function keptAnswer(
  db: Database,
  name: string,
  read: () => Promise<unknown>,
  now = Date.now()
): Promise<Versioned> {
  const answers = known.get(db) ?? new Map<string, Known>()
  known.set(db, answers)
  const begin = (before?: Known): Known => ({
    at: now,
    answer: read().then(async (value) => (await before?.answer)?.renewedWith(value) ?? new Versioned(value))
  })
  let kept = answers.get(name)
  if (!kept || now - kept.at > STALE_MS) {
    kept = begin()
    answers.set(name, kept)
    kept.answer.catch(() => answers.delete(name))
  } else if (now - kept.at > FRESH_MS && !kept.renewing) {
    kept.renewing = true
    const next = begin(kept)
    next.answer.then(
      () => answers.set(name, next),
      () => answers.delete(name)
    )
  }
  return kept.answer
}
