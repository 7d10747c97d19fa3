/**
 * A run: registers the chosen lines of the run sheet, one transaction for each group of lines that go
 * through together. A line that fails leaves no trace but its refusals on the receipt; an exchange that fails
 * leaves the seat that was held.
 *
 * Locks are taken in one order: the student's row, then the sections' rows by id. So one student's
 * runs follow one another, and whoever asks for a seat sees what the one before took.
 */
import { asc, eq, inArray, sql } from 'drizzle-orm'
import type { Refusal } from '#core/findings'
import type { CourseCode, StudentId, TermCode } from '#core/ids'
import type { Instant } from '#core/time'
import { decide, groupLines, pickedOptions } from '#core/registration'
import { sectionsOf, type Option } from '#core/week'
import type { Receipt, ReceiptLine } from '#shared/registration/responses'
import type { Who } from '#shared/accounts/responses'
import { goingWith } from '#shared/reading'
import type { Shelf } from '#shared/catalog/shelf'
import { all, DatabaseError, inTransaction, type Database, type Transaction } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { campusNow } from '#server/gateways/clock'
import { courseIds, termRow } from '#server/features/catalog/catalog'
import { logEvent } from '#server/db/log'
import { Refused } from '#server/http/problem'
import { lockStudent } from '#server/features/record/lock'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { readFacts } from './facts'
import { readReceipts } from './sheet'

export async function run(
  db: Database,
  who: Who,
  student: StudentId,
  body: { term: TermCode; courses: CourseCode[] },
  shelf: Shelf
): Promise<Receipt> {
  const term = await termRow(db, body.term)
  const [picture] = await readStudentRecords(db, [student], 'self')
  if (!picture) throw new Refused(404, 'noStudent', 'There is no such student.')
  const { facts, offer } = await readFacts(db, picture, shelf, body.term, 0)
  const options = pickedOptions(offer, goingWith(picture, body.term)?.sections ?? [])
  const chosen = [...new Set(body.courses)]
  const ids = await courseIds(db, chosen)
  const lines = chosen.flatMap((course) => options.get(course) ?? [])

  const outcomes = new Map<CourseCode, ReceiptLine>()
  for (const course of chosen) {
    outcomes.set(course, { course, sections: [], gaveBack: [], outcome: 'unsettled', refusals: [] })
  }
  for (const group of groupLines(lines, facts)) {
    for (const line of await runGroup(db, who, student, body.term, group, shelf))
      outcomes.set(line.course, line)
  }
  return inTransaction(db, async (tx) => {
    const now = await campusNow(tx)
    const [receipt] = await tx
      .insert(t.receipt)
      .values({ studentId: student, termId: term.id, at: new Date(now), byId: who.id })
      .$returningId()
    const rows = [...outcomes.values()].map((line, ordinal) => ({
      receiptId: receipt!.id,
      ordinal,
      courseId: ids.get(line.course)!,
      sections: line.sections,
      gaveBack: line.gaveBack,
      outcome: line.outcome,
      refusals: line.refusals
    }))
    await tx.insert(t.receiptLine).values(rows)
    return (await readReceipts(tx, student, body.term)).find((r) => r.id === receipt!.id)!
  })
}

async function runGroup(
  db: Database,
  who: Who,
  student: StudentId,
  term: TermCode,
  group: readonly Option[],
  shelf: Shelf
): Promise<ReceiptLine[]> {
  try {
    return await inTransaction(db, (tx) => takeSeats(tx, who, student, term, group, shelf))
  } catch (error) {
    // The last guard: a constraint of the database refused what the decision had let through.
    if (!(error instanceof DatabaseError) || error.code !== 'ER_CONSTRAINT_FAILED') throw error
    return group.map((option) => refusedLine(option, [fullRefusal(option)]))
  }
}

async function takeSeats(
  tx: Transaction,
  who: Who,
  student: StudentId,
  term: TermCode,
  group: readonly Option[],
  shelf: Shelf
): Promise<ReceiptLine[]> {
  await lockStudent(tx, student)
  const codes = group.flatMap(sectionsOf).map((section) => section.code)
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
      sections: sectionsOf(option).map((section) => section.code),
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

function refusedLine(option: Option, refusals: Refusal[]): ReceiptLine {
  return {
    course: option.course,
    sections: sectionsOf(option).map((section) => section.code),
    gaveBack: [],
    outcome: 'refused',
    refusals
  }
}

function fullRefusal({ main }: Option): Refusal {
  return { code: 'full', section: main.code, kind: main.kind, capacity: main.capacity, waiting: main.waiting }
}
