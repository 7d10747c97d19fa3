/** A whole term's sections, for everybody alike: what they are, which is kept, and their seats, which never are. */
import { eq, inArray, sql } from 'drizzle-orm'
import type { SectionCode } from '#core/ids'
import type { SectionSeats, SectionWithoutSeats } from '#shared/sections/responses'
import { all, type Database } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { joinNext } from '#shared/joinNext'
import { keptAnswer } from '#server/http/kept'
import { Versioned } from '#server/http/versioned'
import { offerOf, reservedSeats } from './sections'

/** The sections of a published term, without their seats; `now` is the time of the machine. */
export function wholeOffer(
  db: Database,
  term: string,
  now?: number
): Promise<Versioned<SectionWithoutSeats[]>> {
  return keptAnswer(db, `offer ${term}`, async () => (await offerOf(db, term)).map(withoutSeats), now)
}

function withoutSeats({
  capacity: _c,
  taken: _t,
  waiting: _w,
  cancelled: _x,
  reserved: _r,
  ...rest
}: SectionWithoutSeats & Partial<SectionSeats>): SectionWithoutSeats {
  return rest
}

const reads = new WeakMap<Database, Map<string, () => Promise<Versioned<SectionSeats[]>>>>()

/** What changes while students register, as it stands now, by section; those who ask at once share a reading. */
export function termSeats(db: Database, term: string): Promise<Versioned<SectionSeats[]>> {
  const ofDatabase = reads.get(db) ?? new Map<string, () => Promise<Versioned<SectionSeats[]>>>()
  reads.set(db, ofDatabase)
  const read = ofDatabase.get(term) ?? joinNext(async () => Versioned.of(await readSeats(db, term)))
  ofDatabase.set(term, read)
  return read()
}

async function readSeats(db: Database, term: string): Promise<SectionSeats[]> {
  const inTerm = all(eq(t.term.code, term), eq(t.term.published, true))
  const terms = db.select({ id: t.term.id }).from(t.term).where(inTerm)
  const reserved = reservedSeats(db, inArray(t.section.termId, terms))
  const rows = db
    .select({
      id: t.section.id,
      code: t.section.code,
      capacity: t.section.capacity,
      taken: sql<number>`${t.section.taken} + ${t.section.offered} + ${t.section.takenFormerly}`.mapWith(
        Number
      ),
      waiting: t.section.waiting,
      cancelled: t.section.cancelled
    })
    .from(t.section)
    .innerJoin(t.term, eq(t.term.id, t.section.termId))
    .where(inTerm)
  const [seats, kept] = await Promise.all([rows, reserved])
  return seats.map(({ id, code, ...rest }) => ({
    code: code as SectionCode,
    ...rest,
    reserved: kept.get(id) ?? []
  }))
}
