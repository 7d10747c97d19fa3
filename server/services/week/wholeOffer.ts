/** A whole term's sections: what they are is read now and then, their seats every time. */
import { eq } from 'drizzle-orm'
import type { Section } from '#core/week'
import { all, type Database } from '../../db/connect'
import * as t from '../../db/schema'
import { offerOf } from './sections'

interface Known {
  at: number
  sections: Promise<Section[]>
}
/** What is known of each term, for each database. */
const known = new WeakMap<Database, Map<string, Known>>()
/** Sections change by publication, not by use; seats are never kept. */
const KEPT_MS = 30_000

/** All sections of a published term, with the seats as they stand; `now` is the time of the machine. */
export async function wholeOffer(db: Database, term: string, now: number): Promise<Section[]> {
  const terms = known.get(db) ?? new Map<string, Known>()
  known.set(db, terms)
  let kept = terms.get(term)
  if (!kept || now - kept.at > KEPT_MS) {
    kept = { at: now, sections: offerOf(db, term) }
    terms.set(term, kept)
    kept.sections.catch(() => terms.delete(term))
  }
  const [sections, seats] = await Promise.all([kept.sections, seatsOf(db, term)])
  return sections.map((section) => ({ ...section, ...seats.get(section.code) }))
}

async function seatsOf(db: Database, term: string) {
  const rows = await db
    .select({
      code: t.section.code,
      capacity: t.section.capacity,
      taken: t.section.taken,
      waiting: t.section.waiting,
      cancelled: t.section.cancelled
    })
    .from(t.section)
    .innerJoin(t.term, eq(t.term.id, t.section.termId))
    .where(all(eq(t.term.code, term), eq(t.term.published, true)))
  return new Map(rows.map(({ code, ...seats }) => [code as string, seats]))
}
