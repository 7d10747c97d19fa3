/**
 * A whole term's sections as JSON: what they are is read and written out now and then, mostly while nobody waits; their
 * seats are read every time and put in.
 */
import { eq, inArray } from 'drizzle-orm'
import type { Section } from '#core/week'
import { all, type Database } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { offerOf, reservedSeats } from './sections'

interface Known {
  at: number
  /** By code, each an object of JSON that its seats still have to end. */
  sections: Promise<Map<string, string>>
  /** It is being read anew. */
  renewing?: boolean
}
/** What is known of each term, for each database. */
const known = new WeakMap<Database, Map<string, Known>>()
/** Sections change by publication, not by use; seats are never kept. */
const FRESH_MS = 30_000
/** So old they are not given out any more: whoever asks waits for them to be read anew. */
const STALE_MS = 300_000

/** An array of all sections of a published term, with the seats as they stand; `now` is the time of the machine. */
export async function wholeOffer(db: Database, term: string, now: number): Promise<string> {
  const terms = known.get(db) ?? new Map<string, Known>()
  known.set(db, terms)
  const read = (): Known => ({ at: now, sections: offerOf(db, term).then(written) })
  let kept = terms.get(term)
  if (!kept || now - kept.at > STALE_MS) {
    kept = read()
    terms.set(term, kept)
    kept.sections.catch(() => terms.delete(term))
  } else if (now - kept.at > FRESH_MS && !kept.renewing) {
    kept.renewing = true
    const next = read()
    next.sections.then(
      () => terms.set(term, next),
      () => terms.delete(term)
    )
  }
  const [sections, seats] = await Promise.all([kept.sections, seatsOf(db, term)])
  const whole: string[] = []
  for (const [code, section] of sections) {
    const its = seats.get(code)
    if (its) whole.push(`${section},${its}}`)
  }
  return `[${whole.join()}]`
}

/** Everything but the seats, each without its last brace. */
function written(sections: readonly Section[]): Map<string, string> {
  return new Map(
    sections.map(({ capacity: _c, taken: _t, waiting: _w, cancelled: _x, reserved: _r, ...rest }) => [
      rest.code,
      JSON.stringify(rest).slice(0, -1)
    ])
  )
}

/** What changes while students register, by code, as the rest of an object of JSON. */
async function seatsOf(db: Database, term: string): Promise<Map<string, string>> {
  const inTerm = all(eq(t.term.code, term), eq(t.term.published, true))
  const terms = db.select({ id: t.term.id }).from(t.term).where(inTerm)
  const reserved = reservedSeats(db, inArray(t.section.termId, terms))
  const rows = db
    .select({
      id: t.section.id,
      code: t.section.code,
      capacity: t.section.capacity,
      taken: t.section.taken,
      waiting: t.section.waiting,
      cancelled: t.section.cancelled
    })
    .from(t.section)
    .innerJoin(t.term, eq(t.term.id, t.section.termId))
    .where(inTerm)
  const [seats, kept] = await Promise.all([rows, reserved])
  return new Map(
    seats.map(({ id, code, capacity, taken, waiting, cancelled }) => [
      code,
      `"capacity":${capacity},"taken":${taken},"waiting":${waiting},"cancelled":${cancelled},"reserved":${JSON.stringify(kept.get(id) ?? [])}`
    ])
  )
}
