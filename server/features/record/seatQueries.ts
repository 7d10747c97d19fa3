/** The rows of what moves with seats: held, waited for, offered, prepared and picked. */
import { all, type Reader } from '#server/db/connect'
import { groupBy } from '#server/db/groupBy'
import * as t from '#server/db/schema/index'
import { asc, desc, eq, inArray, isNull, max, sql } from 'drizzle-orm'
import { creditsHeld } from './queries'

export const heldRows = (db: Reader, ids: number[]) =>
  db
    .select({
      studentId: t.registration.studentId,
      course: t.course.code,
      term: t.term.code,
      published: t.term.published,
      id: t.section.id,
      section: t.section.code,
      parent: t.section.parentId,
      credits: creditsHeld,
      campus: t.campus.code,
      mode: t.section.mode,
      categories: t.section.categories,
      placedByOffice: t.registration.placedByOffice
    })
    .from(t.registration)
    .innerJoin(t.section, eq(t.section.id, t.registration.sectionId))
    .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    .innerJoin(t.term, eq(t.term.id, t.section.termId))
    .innerJoin(t.campus, eq(t.campus.id, t.section.campusId))
    .where(inArray(t.registration.studentId, ids))
    .orderBy(asc(t.term.startsOn), asc(t.course.code), asc(t.section.number))

export async function waitingRows(db: Reader, ids: number[]) {
  const rows = await db
    .select({
      studentId: t.waitlistPlace.studentId,
      sectionId: t.waitlistPlace.sectionId,
      id: t.waitlistPlace.id,
      sections: t.waitlistPlace.sections,
      section: t.section.code,
      course: t.course.code,
      term: t.term.code
    })
    .from(t.waitlistPlace)
    .innerJoin(t.section, eq(t.section.id, t.waitlistPlace.sectionId))
    .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    .innerJoin(t.term, eq(t.term.id, t.section.termId))
    .where(inArray(t.waitlistPlace.studentId, ids))
  if (!rows.length) return []
  const line = await db
    .select({ id: t.waitlistPlace.id, sectionId: t.waitlistPlace.sectionId })
    .from(t.waitlistPlace)
    .where(
      inArray(
        t.waitlistPlace.sectionId,
        rows.map((row) => row.sectionId)
      )
    )
    .orderBy(asc(t.waitlistPlace.joinedAt), asc(t.waitlistPlace.id))
  const lines = groupBy(line, (row) => row.sectionId)
  return rows.map((row) => ({
    ...row,
    place: lines.get(row.sectionId)!.findIndex((other) => other.id === row.id) + 1,
    of: lines.get(row.sectionId)!.length
  }))
}

export const fallbackRows = (db: Reader, ids: number[]) =>
  db
    .select({
      studentId: t.fallback.studentId,
      list: t.fallback.list,
      // Written out: inside it, the column of the outer table needs its table's name.
      onlyWith: sql<string | null>`(select c.code from course c where c.id = fallback.only_with_id)`,
      givingUp: sql<string | null>`(select c.code from course c where c.id = fallback.giving_up_id)`,
      credits: t.fallback.credits,
      note: t.fallback.note,
      course: t.course.code,
      term: t.term.code
    })
    .from(t.fallback)
    .innerJoin(t.course, eq(t.course.id, t.fallback.courseId))
    .innerJoin(t.term, eq(t.term.id, t.fallback.termId))
    .where(inArray(t.fallback.studentId, ids))

export const preparedRows = (db: Reader, ids: number[]) =>
  db
    .select({ sheet: t.preparedSheet, term: t.term.code })
    .from(t.preparedSheet)
    .innerJoin(t.term, eq(t.term.id, t.preparedSheet.termId))
    .where(inArray(t.preparedSheet.studentId, ids))

/** Terms of registration that were accepted and still read the same. */
export const agreementRows = (db: Reader, ids: number[]) =>
  db
    .select({
      studentId: t.agreement.studentId,
      term: t.term.code,
      at: max(t.agreement.acceptedAt)
    })
    .from(t.agreement)
    .innerJoin(t.term, all(eq(t.term.id, t.agreement.termId), eq(t.term.agreement, t.agreement.text))!)
    .where(inArray(t.agreement.studentId, ids))
    .groupBy(t.agreement.studentId, t.term.code)

/** Offers without an answer. */
export const offerRows = (db: Reader, ids: number[]) =>
  db
    .select({ offer: t.seatOffer, course: t.course.code, term: t.term.code })
    .from(t.seatOffer)
    .innerJoin(t.course, eq(t.course.id, t.seatOffer.courseId))
    .innerJoin(t.term, eq(t.term.id, t.seatOffer.termId))
    .where(all(inArray(t.seatOffer.studentId, ids), isNull(t.seatOffer.answer)))
    .orderBy(asc(t.seatOffer.until), asc(t.seatOffer.id))

export const draftRows = (db: Reader, ids: number[]) =>
  db
    .select({
      studentId: t.draftWeek.studentId,
      id: t.draftWeek.id,
      name: t.draftWeek.name,
      note: t.draftWeek.note,
      goingWith: t.draftWeek.goingWith,
      shareKey: t.draftWeek.shareKey,
      asPicked: t.pickedSection.asPicked,
      exchange: t.pickedSection.exchange,
      term: t.term.code,
      section: t.section.code,
      course: t.course.code
    })
    .from(t.draftWeek)
    .innerJoin(t.term, eq(t.term.id, t.draftWeek.termId))
    .leftJoin(t.pickedSection, eq(t.pickedSection.draftWeekId, t.draftWeek.id))
    .leftJoin(t.section, eq(t.section.id, t.pickedSection.sectionId))
    .leftJoin(t.course, eq(t.course.id, t.section.courseId))
    .where(inArray(t.draftWeek.studentId, ids))
    .orderBy(desc(t.draftWeek.goingWith), asc(t.draftWeek.id), asc(t.pickedSection.id))
