/** Sections that an office cancels or moves: everybody in them is told, with the nearest that they could have instead. */
import { asc, eq, inArray, isNull, or, sql } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import { courseCode, studentId, termCode, type CourseCode, type StudentId, type TermCode } from '#core/ids'
import { afterDrop, nearestOption } from '#core/registration'
import type { Instant } from '#core/time'
import { optionsAmong, sectionsOf, type Option, type Section } from '#core/week'
import { all, inTransaction, type Database, type Reader, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { lockStudent } from '#server/features/record/lock'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { factsOfOffer } from './facts'
import { leaveLines } from './lines'
import { endOffer } from './openOffers'
import { releaseSeats } from './releasing'
import { campusNow } from '#server/gateways/clock'
import { forgetKept } from '#server/http/kept'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import type { CatalogContext } from '#shared/catalog/context'
import type { StudentRecord } from '#shared/record/responses'
import type { SectionInstead } from '#shared/sections/responses'
import { sectionHours, sectionName } from '#shared/week/texts'
import { mustNotBeOver, mustPlan } from '#server/features/sections/planning'
import { offerOf } from '#server/features/sections/sections'

interface Changed {
  id: number
  code: string
  parent: number | null
  cancelled: boolean
  course: CourseCode
  courseId: number
  term: typeof t.term.$inferSelect
  session: { startsOn: string; endsOn: string }
}

/** @throws Refused where there is no such section */
export async function lockChanged(tx: Transaction, code: string): Promise<Changed> {
  const [found] = await tx
    .select({
      id: t.section.id,
      code: t.section.code,
      parent: t.section.parentId,
      cancelled: t.section.cancelled,
      course: t.course.code,
      courseId: t.course.id,
      term: t.term,
      session: { startsOn: t.session.startsOn, endsOn: t.session.endsOn }
    })
    .from(t.section)
    .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    .innerJoin(t.term, eq(t.term.id, t.section.termId))
    .innerJoin(t.session, eq(t.session.id, t.section.sessionId))
    .where(eq(t.section.code, code))
  if (!found) throw new Refused(404, 'noSection', `There is no section ${code}.`)
  await tx.select({ id: t.section.id }).from(t.section).where(eq(t.section.id, found.id)).for('update')
  return { ...found, course: courseCode(found.course) }
}

/**
 * Cancels a section with its components, or one component, and takes everybody out of it; what it cost them is given back
 * whole. Who loses a component alone keeps the rest of the section.
 */
export async function cancelSection(
  db: Database,
  who: Who,
  code: string,
  reason: string,
  catalogContext: CatalogContext
): Promise<void> {
  const term = await inTransaction(db, async (tx) => {
    const found = await lockChanged(tx, code)
    await mustPlan(tx, who, found.course)
    if (found.cancelled) return found.term.code
    const now = await campusNow(tx)
    mustNotBeOver(found.term, now, catalogContext)
    await tx
      .update(t.section)
      .set({ cancelled: true })
      .where(or(eq(t.section.id, found.id), eq(t.section.parentId, found.id))!)
    await logEvent(tx, {
      at: now,
      account: who.id,
      student: null,
      action: 'section.cancelled',
      after: { term: found.term.code, course: found.course, section: code, reason }
    })
    return found.term.code
  })
  forgetKept(db, `offer ${term}`)
  await emptyCancelled(db, catalogContext, who.id)
}

/** Takes everybody out of sections that are cancelled; what a server that was cut off has left is done by the next. */
export async function emptyCancelled(
  db: Database,
  catalogContext: CatalogContext,
  by: number | null = null
): Promise<void> {
  for (const { student, section } of await peopleInCancelled(db))
    await inTransaction(db, (tx) => takeOut(tx, student, section, catalogContext, by))
}

/** Each with the section that is cancelled: of a component that of its section, where that is as well. */
async function peopleInCancelled(db: Reader): Promise<{ student: StudentId; section: number }[]> {
  const main = alias(t.section, 'main')
  const section = sql<number>`if(${main.cancelled}, ${main.id}, ${t.section.id})`
  const ofMain = eq(main.id, t.section.parentId)
  const rows = await db
    .select({ student: t.registration.studentId, section })
    .from(t.registration)
    .innerJoin(t.section, eq(t.section.id, t.registration.sectionId))
    .leftJoin(main, ofMain)
    .where(eq(t.section.cancelled, true))
    .union(
      db
        .select({ student: t.waitlistPlace.studentId, section })
        .from(t.waitlistPlace)
        .innerJoin(t.section, eq(t.section.id, t.waitlistPlace.sectionId))
        .leftJoin(main, ofMain)
        .where(eq(t.section.cancelled, true))
    )
    .union(
      db
        .select({ student: t.seatOffer.studentId, section })
        .from(t.offeredSeat)
        .innerJoin(t.seatOffer, eq(t.seatOffer.id, t.offeredSeat.offerId))
        .innerJoin(t.section, eq(t.section.id, t.offeredSeat.sectionId))
        .leftJoin(main, ofMain)
        .where(all(eq(t.section.cancelled, true), isNull(t.seatOffer.answer)))
    )
  return rows.map((row) => ({ student: studentId(row.student), section: Number(row.section) }))
}

async function takeOut(
  tx: Transaction,
  student: StudentId,
  section: number,
  catalogContext: CatalogContext,
  by: number | null
): Promise<void> {
  await lockStudent(tx, student)
  const [row] = await tx.select({ code: t.section.code }).from(t.section).where(eq(t.section.id, section))
  const found = await lockChanged(tx, row!.code)
  const now = await campusNow(tx)
  const term = termCode(found.term.code)
  const family = await tx
    .select({ id: t.section.id, code: t.section.code })
    .from(t.section)
    .where(or(eq(t.section.id, section), eq(t.section.parentId, section))!)
  const ids = family.map((one) => one.id)
  const [record] = await readStudentRecords(tx, [student], 'self')
  const isGone = (code: string) => family.some((one) => one.code === code)
  const gone = record!.sections.filter((one) => isGone(one.code))
  const seat = record!.held.find((one) => one.term === term && one.course === found.course)
  const kept =
    found.parent === null || !seat ? [] : [seat.section, ...seat.components].filter((code) => !isGone(code))
  // The nearest is one that keeps what stays.
  const before = record!.sections.filter((one) => isGone(one.code) || kept.includes(one.code))
  await endPlaces(tx, student, ids, now)
  const seats = await tx
    .select({ id: t.section.id, code: t.section.code, course: t.course.code, courseId: t.course.id })
    .from(t.registration)
    .innerJoin(t.section, eq(t.section.id, t.registration.sectionId))
    .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    .where(all(eq(t.registration.studentId, student), inArray(t.registration.sectionId, ids)))
    .orderBy(asc(t.section.id))
  const name = gone.find((one) => one.code === found.code)
  const told = {
    section: name ? sectionName(name) : found.code,
    instead: await instead(tx, record!, catalogContext, { term, course: found.course, now, before, gone })
  }
  if (!seats.length) {
    const after = { term, course: found.course, ...told }
    await logEvent(tx, { at: now, account: by, student, action: 'line.cancelled', after })
    return
  }
  const refusal = { code: 'cancelled' as const, section: found.code as Section['code'] }
  const why = kept.length
    ? ({ action: 'registration.partCancelled', refusal, told: { ...told, sections: kept } } as const)
    : ({ action: 'registration.cancelled', refusal, told } as const)
  await releaseSeats(tx, found.term, seats, { student, by, now, why })
}

/** Ends what a student waits for or is offered in sections. */
async function endPlaces(tx: Transaction, student: StudentId, sections: readonly number[], now: Instant) {
  const offers = await tx
    .selectDistinct({ offer: t.seatOffer })
    .from(t.seatOffer)
    .innerJoin(t.offeredSeat, eq(t.offeredSeat.offerId, t.seatOffer.id))
    .where(
      all(
        eq(t.seatOffer.studentId, student),
        isNull(t.seatOffer.answer),
        inArray(t.offeredSeat.sectionId, [...sections])
      )
    )
  for (const { offer } of offers) await endOffer(tx, offer, 'lapsed', now)
  await leaveLines(tx, student, [...sections])
}

/** The nearest option of a course that a student could register now in place of sections; null where there is none. */
export async function instead(
  tx: Reader,
  record: StudentRecord,
  catalogContext: CatalogContext,
  {
    term,
    course,
    now,
    before,
    gone
  }: {
    term: TermCode
    course: CourseCode
    now: Instant
    /** As it was. */
    before: readonly Section[]
    /** What of it cannot stay. */
    gone: readonly Section[]
  }
): Promise<SectionInstead | null> {
  const left = new Set<string>(gone.map((one) => one.code))
  const offer = await offerOf(tx, term, [course])
  const open = offer.filter((one) => !one.cancelled && !one.officeOnly)
  const facts = factsOfOffer(record, catalogContext, { term, now, course, offer })
  const others: Option[] = optionsAmong(open, facts.holidays).filter(
    (option) => !sectionsOf(option).some((one) => left.has(one.code))
  )
  const found = nearestOption(afterDrop(facts, [course]), others, before)
  if (!found) return null
  const sections = sectionsOf(found)
  return {
    section: sections.map(sectionName).join(' + '),
    code: sections.map((one) => one.code).join(' + '),
    hours: sections.map(sectionHours).join(' and ')
  }
}
