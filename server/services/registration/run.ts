/**
 * A run: registers the chosen lines of the run sheet, one transaction for each group of lines that go
 * through together. A line that fails leaves no trace but its refusals on the receipt.
 *
 * Locks are taken in one order: the student's row, then the sections' rows by id. So one student's
 * runs follow one another, and whoever asks for a seat sees what the one before took.
 */
import { asc, inArray, sql } from 'drizzle-orm'
import type { Refusal } from '#core/findings'
import type { CourseCode, StudentId, TermCode } from '#core/ids'
import { decide, groupLines } from '#core/registration'
import { sectionsOf, type Option } from '#core/week'
import type { Receipt, ReceiptLine, Who } from '#wire/picture'
import { goingWith, type Shelf } from '#wire/reading'
import { DatabaseError, inTransaction, type Database, type Transaction } from '../../db/connect'
import * as t from '../../db/schema'
import { campusNow } from '../../standins/clock'
import { courseIds, termRow } from '../catalog/catalog'
import { logEvent } from '../log'
import { Refused } from '../problem'
import { lockStudent } from '../students/lock'
import { readPictures } from '../students/pictures'
import { readFacts } from './facts'
import { pickedOptions, readReceipts } from './sheet'

export async function run(
  db: Database,
  who: Who,
  student: StudentId,
  body: { term: TermCode; courses: CourseCode[] },
  shelf: Shelf
): Promise<Receipt> {
  const term = await termRow(db, body.term)
  const [picture] = await readPictures(db, [student], 'self')
  if (!picture) throw new Refused(404, 'noStudent', 'There is no such student.')
  const { offer } = await readFacts(db, picture, shelf, body.term, 0)
  const options = pickedOptions(offer, goingWith(picture, body.term)?.sections ?? [])
  const chosen = [...new Set(body.courses)]
  const ids = await courseIds(db, chosen)
  const lines = chosen.flatMap((course) => options.get(course) ?? [])

  const outcomes = new Map<CourseCode, ReceiptLine>()
  for (const course of chosen) {
    outcomes.set(course, { course, sections: [], outcome: 'unsettled', refusals: [] })
  }
  for (const group of groupLines(lines, shelf.catalog)) {
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
  const locked = await tx
    .select({ id: t.section.id, code: t.section.code })
    .from(t.section)
    .where(inArray(t.section.code, codes))
    .orderBy(asc(t.section.id))
    .for('update')
  const now = await campusNow(tx)
  const [picture] = await readPictures(tx, [student], 'self')
  const { facts, offer } = await readFacts(tx, picture!, shelf, term, now)
  const fresh = pickedOptions(offer, codes)
  const options = group.map((option) => fresh.get(option.course) ?? option)
  const decisions = decide(facts, options)
  if (decisions.some((decision) => decision.refusals.length)) {
    return options.map((option, i) => refusedLine(option, decisions[i]!.refusals))
  }
  const ids = locked.map((row) => row.id)
  await tx
    .update(t.section)
    .set({ taken: sql`${t.section.taken} + 1` })
    .where(inArray(t.section.id, ids))
  await tx
    .insert(t.registration)
    .values(
      ids.map((sectionId) => ({ studentId: student, sectionId, registeredAt: new Date(now), byId: who.id }))
    )
  for (const option of options) {
    const sections = sectionsOf(option).map((section) => section.code)
    await logEvent(tx, {
      at: now,
      account: who.id,
      student,
      action: 'registration.made',
      after: { term, course: option.course, sections }
    })
  }
  return options.map((option) => ({
    course: option.course,
    sections: sectionsOf(option).map((section) => section.code),
    outcome: 'registered',
    refusals: []
  }))
}

function refusedLine(option: Option, refusals: Refusal[]): ReceiptLine {
  return {
    course: option.course,
    sections: sectionsOf(option).map((section) => section.code),
    outcome: 'refused',
    refusals
  }
}

function fullRefusal({ main }: Option): Refusal {
  return { code: 'full', section: main.code, kind: main.kind, capacity: main.capacity, waiting: main.waiting }
}
