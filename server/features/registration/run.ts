/**
 * A run: registers the chosen lines of the run sheet.
 *
 * Its receipt is made first, with every line waiting. Then each group of lines that go through together has one
 * transaction: the decision, the seats, the log and the lines of the receipt. So a receipt says at every moment what is
 * held, whatever is cut off where: whoever asks for the same run again, by its key, goes on with the lines that wait, and
 * each of them is tried once. A line that fails leaves no trace but its refusals; an exchange that fails leaves the seat
 * that was held.
 *
 * Locks are taken in one order: the student's row, then the sections' rows by id. So one student's
 * runs follow one another, and whoever asks for a seat sees what the one before took.
 */
import { courseCode, studentId, type CourseCode, type StudentId, type TermCode } from '#core/ids'
import { groupLines, pickedOptions } from '#core/registration'
import type { Option } from '#core/week'
import {
  all,
  DatabaseError,
  inTransaction,
  type Database,
  type Reader,
  type Transaction
} from '#server/db/connect'
import { keyUsed } from '#server/db/madeChange'
import * as t from '#server/db/schema/index'
import { courseIds, termRow } from '#server/features/catalog/catalog'
import { lockStudent } from '#server/features/record/lock'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { campusNow } from '#server/gateways/clock'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import type { Shelf } from '#shared/catalog/shelf'
import { goingWith } from '#shared/reading'
import type { Receipt, ReceiptLine } from '#shared/registration/responses'
import { readFacts } from './facts'
import { codesOf, type RunUnderWay, takeSeats, refusedLine, fullRefusal } from './seats'
import { readReceipts } from './sheet'
import { asc, eq, isNull, lt } from 'drizzle-orm'

/** What is asked of a run; with a key it is one run, however often it is asked for. */
export interface RunAsked {
  term: TermCode
  courses: CourseCode[]
  key?: string | undefined
}

/**
 * Makes the run, or goes on with it where it was begun before, and answers with its receipt, every line of it tried.
 *
 * @throws Refused where the key was given to another run
 */
export async function run(
  db: Database,
  who: Who,
  student: StudentId,
  asked: RunAsked,
  shelf: Shelf
): Promise<Receipt> {
  const [picture] = await readStudentRecords(db, [student], 'self')
  if (!picture) throw new Refused(404, 'noStudent', 'There is no such student.')
  const { facts, offer } = await readFacts(db, picture, shelf, asked.term, 0)
  const picked = pickedOptions(offer, goingWith(picture, asked.term)?.sections ?? [])
  const id = await begin(db, who, student, asked, picked)
  const waiting = await waitingLines(db, id)
  const chosen = pickedOptions(
    offer,
    waiting.flatMap((line) => line.sections)
  )
  const lines = waiting.flatMap((line) => chosen.get(line.course) ?? [])
  for (const group of groupLines(lines, facts))
    await runGroup(db, who, { id, student, ...asked }, group, shelf)
  return inTransaction(db, async (tx) => {
    await lockStudent(tx, student)
    await end(tx, id)
    return (await readReceipts(tx, student, asked.term)).find((one) => one.id === id)!
  })
}

/** Makes the receipt with its lines, or finds that of the same run: by its key, or under way with the same lines. */
async function begin(
  db: Database,
  who: Who,
  student: StudentId,
  { term: code, courses, key }: RunAsked,
  picked: ReadonlyMap<CourseCode, Option>
): Promise<number> {
  const term = await termRow(db, code)
  const chosen = [...new Set(courses)]
  const ids = await courseIds(db, chosen)
  return inTransaction(db, async (tx) => {
    await lockStudent(tx, student)
    const wanted = new Set(ids.values())
    const before = key === undefined ? undefined : await ofKey(tx, student, key)
    if (before && !(before.termId === term.id && (await isOf(tx, before.id, wanted)))) throw keyUsed()
    if (before) return before.id
    const open = await tx
      .select({ id: t.receipt.id, begunAt: t.receipt.begunAt })
      .from(t.receipt)
      .where(all(eq(t.receipt.studentId, student), eq(t.receipt.termId, term.id), isNull(t.receipt.endedAt)))
    for (const one of open)
      if (isCutOff(one.begunAt)) await end(tx, one.id)
      // Pressed in two windows: it is the same run.
      else if (await isOf(tx, one.id, wanted)) return one.id
    const [made] = await tx
      .insert(t.receipt)
      .values({
        studentId: student,
        termId: term.id,
        at: new Date(await campusNow(tx)),
        byId: who.id,
        runKey: key ?? null,
        begunAt: new Date()
      })
      .$returningId()
    const rows = chosen.map((course, ordinal) => {
      const option = picked.get(course)
      return {
        receiptId: made!.id,
        ordinal,
        courseId: ids.get(course)!,
        sections: option ? codesOf(option) : [],
        outcome: option ? ('waiting' as const) : ('unsettled' as const),
        refusals: []
      }
    })
    await tx.insert(t.receiptLine).values(rows)
    return made!.id
  })
}

async function ofKey(tx: Transaction, student: StudentId, key: string) {
  const [found] = await tx
    .select({ id: t.receipt.id, termId: t.receipt.termId })
    .from(t.receipt)
    .where(all(eq(t.receipt.studentId, student), eq(t.receipt.runKey, key)))
  return found
}

/** Whether a run is of just these courses. */
async function isOf(tx: Transaction, receipt: number, courses: ReadonlySet<number>): Promise<boolean> {
  const lines = await tx
    .select({ course: t.receiptLine.courseId })
    .from(t.receiptLine)
    .where(eq(t.receiptLine.receiptId, receipt))
  return lines.length === courses.size && lines.every((line) => courses.has(line.course))
}

async function waitingLines(db: Reader, receipt: number) {
  const rows = await db
    .select({ id: t.receiptLine.id, course: t.course.code, sections: t.receiptLine.sections })
    .from(t.receiptLine)
    .innerJoin(t.course, eq(t.course.id, t.receiptLine.courseId))
    .where(all(eq(t.receiptLine.receiptId, receipt), eq(t.receiptLine.outcome, 'waiting')))
    .orderBy(asc(t.receiptLine.ordinal))
  return rows.map((row) => ({ ...row, course: courseCode(row.course) }))
}

/** By the machine's clock; longer than a run takes. One that waits for many locks is ended early: what is left is not tried. */
const CUT_OFF_MS = 60_000

const isCutOff = (begunAt: Date) => Date.now() - begunAt.getTime() > CUT_OFF_MS

/** Ends a run: lines that still wait were not tried, and are not tried any more. The student's row is locked. */
async function end(tx: Transaction, receipt: number): Promise<void> {
  await tx
    .update(t.receiptLine)
    .set({ outcome: 'notTried' })
    .where(all(eq(t.receiptLine.receiptId, receipt), eq(t.receiptLine.outcome, 'waiting')))
  await tx
    .update(t.receipt)
    .set({ endedAt: new Date() })
    .where(all(eq(t.receipt.id, receipt), isNull(t.receipt.endedAt)))
}

/** Ends the runs that were cut off and that nobody has asked for since. */
export async function endCutOffRuns(db: Database): Promise<void> {
  const open = await db
    .select({ id: t.receipt.id, student: t.receipt.studentId })
    .from(t.receipt)
    .where(all(isNull(t.receipt.endedAt), lt(t.receipt.begunAt, new Date(Date.now() - CUT_OFF_MS))))
    .orderBy(asc(t.receipt.id))
    .limit(500)
  for (const one of open)
    await inTransaction(db, async (tx) => {
      await lockStudent(tx, studentId(one.student))
      await end(tx, one.id)
    })
}

async function runGroup(
  db: Database,
  who: Who,
  of: RunUnderWay,
  group: readonly Option[],
  shelf: Shelf
): Promise<void> {
  /** Writes what came of the lines, unless another request for the same run has tried them. */
  const once = (work: (tx: Transaction) => Promise<ReceiptLine[]>) =>
    inTransaction(db, async (tx) => {
      await lockStudent(tx, of.student)
      const still = new Map((await waitingLines(tx, of.id)).map((line) => [line.course, line.id]))
      if (!group.every((option) => still.has(option.course))) return
      for (const { course, ...line } of await work(tx))
        await tx
          .update(t.receiptLine)
          .set(line)
          .where(eq(t.receiptLine.id, still.get(course)!))
    })
  try {
    await once((tx) => takeSeats(tx, who, of, group, shelf))
  } catch (error) {
    if (!(error instanceof DatabaseError)) throw error
    // The last guard: a constraint of the database refused what the decision had let through.
    if (error.code === 'ER_CONSTRAINT_FAILED')
      await once(async () => group.map((option) => refusedLine(option, [fullRefusal(option)])))
    // The seats were locked for too long: these lines are not tried, the others are.
    else if (error.code !== 'ER_LOCK_WAIT_TIMEOUT') throw error
  }
}
