/**
 * The line, served. A seat that is given back while somebody waits is kept (`section.offered`), so nobody passes the line;
 * here it becomes an offer to the first who may take it, or free again where nobody may. Somebody who may take a free seat
 * later, as when a hold is lifted, is offered it then. Whether somebody may is judged before the locks; under them only
 * seats and places are read again. A server that is cut off in between leaves the seat kept, and the work of the minute
 * goes on with it.
 */
import { aliasedTable, asc, eq, gt, inArray, or, sql } from 'drizzle-orm'
import { studentId, termCode, type SectionCode, type StudentId } from '#core/ids'
import { decide, mayBeOffered, offerEnds, pickedOptions } from '#core/registration'
import { dayNumber, type Instant } from '#core/time'
import { all, inTransaction, type Database, type Reader, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { linePolicyOf } from '#server/features/catalog/catalog'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { familiesOf } from '#server/features/sections/sections'
import { campusNow } from '#server/gateways/clock'
import { momentOf, type CatalogContext } from '#shared/catalog/context'
import { factsOfOffer } from './facts'

/** What becomes of an offer of a term whose line moves by itself: it is taken at once, as if its student had accepted. */
export type MoveIn = (offer: number, student: StudentId) => Promise<void>

interface Kept {
  id: number
  code: SectionCode
  term: typeof t.term.$inferSelect
}

/** Serves every line in which a seat is kept for nobody yet, or free. */
export async function serveLines(
  db: Database,
  catalogContext: CatalogContext,
  moveIn: MoveIn
): Promise<void> {
  for (const kept of await seatsForLines(db)) {
    const passed = new Set<number>()
    while (await serveOne(db, catalogContext, kept, passed, moveIn));
  }
}

/** How many seats of a section are held by open offers. Written out: inside it, columns of the outer table need their table's name. */
export const heldByOffers = sql<number>`(
  select count(*) from offered_seat x join seat_offer o on o.id = x.offer_id
  where x.section_id = section.id and o.answer is null)`

async function seatsForLines(db: Reader): Promise<Kept[]> {
  const rows = await db
    .select({ id: t.section.id, code: t.section.code, term: t.term })
    .from(t.section)
    .innerJoin(t.term, eq(t.term.id, t.section.termId))
    .where(
      or(
        all(gt(t.section.offered, 0), gt(t.section.offered, heldByOffers)),
        all(
          gt(t.section.waiting, 0),
          eq(t.section.cancelled, false),
          sql`${t.section.taken} + ${t.section.offered} < ${t.section.capacity}`
        )
      )
    )
    .orderBy(asc(t.section.id))
  return rows.map((row) => ({ ...row, code: row.code as SectionCode }))
}

/** One step for a kept seat. @returns false once no seat of the section is kept any more. */
async function serveOne(
  db: Database,
  catalogContext: CatalogContext,
  kept: Kept,
  passed: Set<number>,
  moveIn: MoveIn
): Promise<boolean> {
  const policy = linePolicyOf(kept.term)
  const now = await campusNow(db)
  const first = now < policy.closes ? await firstInLine(db, kept, passed) : undefined
  if (!first) return release(db, kept, now)
  const may = await mayTake(db, catalogContext, kept, first, now)
  if (!may) {
    passed.add(first.student)
    return true
  }
  const { today } = momentOf(now, catalogContext.zone)
  const until = offerEnds(policy, now, dayNumber(kept.term.startsOn) - dayNumber(today))
  const made = await makeOffer(db, kept, first, { now, until })
  if (made === 'gone') return false
  if (made === undefined) passed.add(first.student)
  else if (policy.serves === 'automatic') {
    await moveIn(made, studentId(first.student))
    passed.add(first.student)
  }
  return true
}

interface Place {
  id: number
  student: number
  course: number
  sections: string[]
}

/** The first in the line of a section who has no offer of its course and was not passed over. */
async function firstInLine(db: Reader, kept: Kept, passed: ReadonlySet<number>): Promise<Place | undefined> {
  const line = await db
    .select({
      id: t.waitlistPlace.id,
      student: t.waitlistPlace.studentId,
      sections: t.waitlistPlace.sections,
      course: t.section.courseId,
      offered: sql<number>`exists (
        select 1 from seat_offer o
        where o.student_id = waitlist_place.student_id and o.course_id = section.course_id
          and o.term_id = section.term_id and o.answer is null)`
    })
    .from(t.waitlistPlace)
    .innerJoin(t.section, eq(t.section.id, t.waitlistPlace.sectionId))
    .where(eq(t.waitlistPlace.sectionId, kept.id))
    .orderBy(asc(t.waitlistPlace.joinedAt), asc(t.waitlistPlace.id))
  return line.find((place) => !Number(place.offered) && !passed.has(place.student))
}

/** What the decision says of somebody first in line, the kept seat counted as theirs. */
async function mayTake(
  db: Reader,
  catalogContext: CatalogContext,
  kept: Kept,
  place: Place,
  now: Instant
): Promise<boolean> {
  const [studentRecord] = await readStudentRecords(db, [place.student], 'self')
  if (!studentRecord) return false
  const term = termCode(kept.term.code)
  // A kept seat is theirs; of a free one they are to be the next.
  const offer = (await familiesOf(db, place.sections as SectionCode[])).map((one) =>
    one.code === kept.code && one.taken >= one.capacity ? { ...one, taken: one.capacity - 1 } : one
  )
  const option = [...pickedOptions(offer, place.sections).values()][0]
  if (!option) return false
  const facts = factsOfOffer(studentRecord, catalogContext, { term, now, course: option.course, offer })
  return mayBeOffered(decide(facts, [option])[0]!, linePolicyOf(kept.term).serves)
}

/** Makes the offer where the seats and the place are still there; `gone` where no seat of the section is kept any more. */
function makeOffer(
  db: Database,
  kept: Kept,
  place: Place,
  at: { now: Instant; until: Instant }
): Promise<number | 'gone' | undefined> {
  return inTransaction(db, async (tx) => {
    const rows = await lockFamily(tx, place.sections)
    const own = rows.find((row) => row.id === kept.id)
    const isKept = own !== undefined && own.offered > own.held
    if (!own || (!isKept && own.taken + own.offered >= own.capacity)) return 'gone'
    const [still] = await tx
      .select({ id: t.waitlistPlace.id })
      .from(t.waitlistPlace)
      .where(eq(t.waitlistPlace.id, place.id))
    if (!still) return undefined
    const mine = await heldAmong(tx, place.student, rows)
    const needed = rows.filter((row) => place.sections.includes(row.code) && !mine.has(row.id))
    const free = needed.filter((row) => row.id !== kept.id || !isKept)
    if (free.some((row) => row.taken + row.offered >= row.capacity)) return undefined
    await keepSeats(
      tx,
      free.map((row) => row.id)
    )
    const [made] = await tx
      .insert(t.seatOffer)
      .values({
        studentId: place.student,
        termId: kept.term.id,
        courseId: place.course,
        sections: place.sections,
        offeredAt: new Date(at.now),
        until: new Date(at.until)
      })
      .$returningId()
    await tx.insert(t.offeredSeat).values(needed.map((row) => ({ offerId: made!.id, sectionId: row.id })))
    await logEvent(tx, {
      at: at.now,
      account: null,
      student: place.student,
      action: 'offer.made',
      after: {
        term: kept.term.code,
        offer: made!.id,
        sections: place.sections,
        until: at.until,
        serves: linePolicyOf(kept.term).serves
      }
    })
    return made!.id
  })
}

/** Of some sections, those of which the student holds a seat. */
async function heldAmong(
  tx: Transaction,
  student: number,
  sections: readonly { id: number }[]
): Promise<ReadonlySet<number>> {
  const rows = await tx
    .select({ id: t.registration.sectionId })
    .from(t.registration)
    .where(
      all(
        eq(t.registration.studentId, student),
        inArray(
          t.registration.sectionId,
          sections.map((row) => row.id)
        )
      )
    )
  return new Set(rows.map((row) => row.id))
}

/** Keeps a seat of each section for an offer. */
async function keepSeats(tx: Transaction, sections: number[]): Promise<void> {
  if (!sections.length) return
  await tx
    .update(t.section)
    .set({ offered: sql`${t.section.offered} + 1` })
    .where(inArray(t.section.id, sections))
}

/** Sections of a choice with their parents and siblings, locked in the order of all locks, with what offers hold of each. */
async function lockFamily(tx: Transaction, codes: readonly string[]) {
  const named = aliasedTable(t.section, 'named')
  const ids = await tx
    .selectDistinct({ id: t.section.id })
    .from(t.section)
    .innerJoin(
      named,
      sql`${named.id} = ${t.section.id} or ${named.parentId} = ${t.section.id} or ${named.id} = ${t.section.parentId}`
    )
    .where(inArray(named.code, [...codes]))
  return tx
    .select({
      id: t.section.id,
      code: t.section.code,
      capacity: t.section.capacity,
      taken: t.section.taken,
      offered: t.section.offered,
      held: heldByOffers.mapWith(Number)
    })
    .from(t.section)
    .where(
      inArray(
        t.section.id,
        ids.map((row) => row.id)
      )
    )
    .orderBy(asc(t.section.id))
    .for('update')
}

/** Nobody in line may take it: what is kept of a section is free again. */
function release(db: Database, kept: Kept, now: Instant): Promise<boolean> {
  return inTransaction(db, async (tx) => {
    const [row] = await tx
      .select({ offered: t.section.offered, held: heldByOffers.mapWith(Number) })
      .from(t.section)
      .where(eq(t.section.id, kept.id))
      .for('update')
    if (row && row.offered > row.held) {
      await tx.update(t.section).set({ offered: row.held }).where(eq(t.section.id, kept.id))
      await logEvent(tx, {
        at: now,
        account: null,
        student: null,
        action: 'line.served',
        after: { term: kept.term.code, section: kept.code, freed: row.offered - row.held }
      })
    }
    return false
  })
}
