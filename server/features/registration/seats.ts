/** What one group of lines comes to: the decision as of now, the seats, the log. The student's row is locked. */
import type { Refusal } from '#core/findings'
import type { StudentId, TermCode } from '#core/ids'
import { decide, pickedOptions } from '#core/registration'
import type { Instant } from '#core/time'
import { sectionsOf, type Option } from '#core/week'
import { all, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { campusNow } from '#server/gateways/clock'
import type { Who } from '#shared/accounts/responses'
import type { Shelf } from '#shared/catalog/shelf'
import type { ReceiptLine } from '#shared/registration/responses'
import { readFacts } from './facts'
import { asc, eq, inArray, sql } from 'drizzle-orm'

export interface RunUnderWay {
  /** Of its receipt. */
  id: number
  student: StudentId
  term: TermCode
}

/** The student's row is locked. */
export async function takeSeats(
  tx: Transaction,
  who: Who,
  { student, term }: RunUnderWay,
  group: readonly Option[],
  shelf: Shelf
): Promise<ReceiptLine[]> {
  const codes = group.flatMap(codesOf)
  const seats = await seatsOf(tx, student, term, group)
  const locked = await tx
    .select({ id: t.section.id, code: t.section.code })
    .from(t.section)
    .where(inArray(t.section.code, [...codes, ...seats.map((seat) => seat.code)]))
    .orderBy(asc(t.section.id))
    .for('update')
  const now = await campusNow(tx)
  const [picture] = await readStudentRecords(tx, [student], 'self')
  const { facts, offer } = await readFacts(tx, picture!, shelf, term, now)
  const fresh = pickedOptions(offer, codes)
  const options = group.map((option) => fresh.get(option.course) ?? option)
  const decisions = decide(facts, options)
  if (decisions.some((decision) => decision.refusals.length)) {
    return options.map((option, i) => refusedLine(option, decisions[i]!.refusals))
  }
  const held = new Set<string>(seats.map((seat) => seat.code))
  const wanted = new Set<string>(codes)
  const added = locked.filter((row) => wanted.has(row.code) && !held.has(row.code))
  const gone = seats.filter((seat) => !wanted.has(seat.code))
  await moveSeats(tx, { student, by: who.id, now }, added, gone)
  await settlePicks(
    tx,
    student,
    locked.filter((row) => wanted.has(row.code))
  )
  const lines = options.map((option): ReceiptLine => {
    const gaveBack = gone.filter((seat) => seat.course === option.course).map((seat) => seat.code)
    return {
      course: option.course,
      sections: codesOf(option),
      gaveBack,
      outcome: gaveBack.length ? 'exchanged' : 'registered',
      refusals: []
    }
  })
  for (const { course, sections, gaveBack, outcome } of lines) {
    await logEvent(tx, {
      at: now,
      account: who.id,
      student,
      action: outcome === 'exchanged' ? 'registration.exchanged' : 'registration.made',
      ...(gaveBack.length ? { before: { term, course, sections: gaveBack } } : {}),
      after: { term, course, sections }
    })
  }
  return lines
}

/** The seats that the student holds of the courses of a group. */
function seatsOf(tx: Transaction, student: StudentId, term: TermCode, group: readonly Option[]) {
  const courses = group.map((option) => option.course)
  return tx
    .select({ id: t.section.id, code: t.section.code, course: t.course.code })
    .from(t.registration)
    .innerJoin(t.section, eq(t.section.id, t.registration.sectionId))
    .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    .innerJoin(t.term, eq(t.term.id, t.section.termId))
    .where(all(eq(t.registration.studentId, student), eq(t.term.code, term), inArray(t.course.code, courses)))
    .orderBy(asc(t.section.id))
}

/** Takes seats and gives others back; the sections' rows are locked. */
async function moveSeats(
  tx: Transaction,
  { student, by, now }: { student: StudentId; by: number; now: Instant },
  added: readonly { id: number }[],
  gone: readonly { id: number }[]
): Promise<void> {
  const ids = (rows: readonly { id: number }[]) => rows.map((row) => row.id)
  if (gone.length) {
    await tx
      .delete(t.registration)
      .where(all(eq(t.registration.studentId, student), inArray(t.registration.sectionId, ids(gone))))
    await tx
      .update(t.section)
      .set({ taken: sql`${t.section.taken} - 1` })
      .where(inArray(t.section.id, ids(gone)))
  }
  if (!added.length) return
  await tx
    .update(t.section)
    .set({ taken: sql`${t.section.taken} + 1` })
    .where(inArray(t.section.id, ids(added)))
  const registeredAt = new Date(now)
  await tx
    .insert(t.registration)
    .values(ids(added).map((sectionId) => ({ studentId: student, sectionId, registeredAt, byId: by })))
}

/** What is registered is picked like anything else from now on, and not to exchange a seat. */
async function settlePicks(tx: Transaction, student: StudentId, sections: readonly { id: number }[]) {
  const drafts = tx.select({ id: t.draftWeek.id }).from(t.draftWeek).where(eq(t.draftWeek.studentId, student))
  const ids = sections.map((row) => row.id)
  await tx
    .update(t.pickedSection)
    .set({ exchange: false })
    .where(all(inArray(t.pickedSection.sectionId, ids), inArray(t.pickedSection.draftWeekId, drafts)))
}

export const codesOf = (option: Option) => sectionsOf(option).map((section) => section.code as string)

export function refusedLine(option: Option, refusals: Refusal[]): ReceiptLine {
  return {
    course: option.course,
    sections: codesOf(option),
    gaveBack: [],
    outcome: 'refused',
    refusals
  }
}

export function fullRefusal({ main }: Option): Refusal {
  return { code: 'full', section: main.code, kind: main.kind, capacity: main.capacity, waiting: main.waiting }
}
