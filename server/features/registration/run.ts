/**
 * A run: registers the chosen lines of the run sheet, drops courses and leaves lines.
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
import { studentId, type CourseCode, type SectionCode, type StudentId, type TermCode } from '#core/ids'
import { groupLines, pickedOptions, type OfficeOverride } from '#core/registration'
import type { Option } from '#core/week'
import { all, inTransaction, type Database, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import { keyUsed } from '#server/db/madeChange'
import * as t from '#server/db/schema/index'
import { courseIds, termRow } from '#server/features/catalog/catalog'
import { mustBeOpen } from '#server/features/degree/graduation'
import { lockStudent } from '#server/features/record/lock'
import { readKnown } from '#server/features/record/knownRecord'
import { campusNow } from '#server/gateways/clock'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import type { CatalogContext } from '#shared/catalog/context'
import type { LineAction } from '#shared/registration/outcomes'
import type { Receipt } from '#shared/registration/responses'
import { factsOfRun } from './facts'
import { dropSeats } from './drops'
import { leaveLine } from './lines'
import { codesOf, insertReceipt, lineOf } from './receiptLines'
import type { KnownForRun } from './seats'
import { readReceipts } from './sheet'
import { asc, eq, isNull, lt, ne, sql } from 'drizzle-orm'
import { registerGroup, attempt } from './runGroup'
import { waitingLines } from './waitingLines'

/** What is asked of a run; with a key it is one run, however often it is asked for. */
export interface RunAsked {
  term: TermCode
  /** To register, or to exchange where a seat of them is held. */
  courses: CourseCode[]
  drop?: CourseCode[]
  /** Courses whose lines are left. */
  leave?: CourseCode[]
  /** The courses to register go through all together or not at all. */
  whole?: boolean
  /** It began by itself at the opening. */
  armed?: boolean
  /** How the student agreed, where somebody else registers. */
  consent?: string | undefined
  /** Where an office places the student: in these sections, whatever is picked. */
  placing?: { sections: SectionCode[]; setAside: OfficeOverride[] }
  key?: string | undefined
}

type Asked = ReadonlyMap<LineAction, ReadonlySet<CourseCode>>
const byAction = ({ courses, drop = [], leave = [] }: RunAsked): Asked =>
  new Map([
    // What is given up first is there for the rest.
    ['leave', new Set(leave)],
    ['drop', new Set(drop)],
    ['register', new Set(courses)]
  ])

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
  catalogContext: CatalogContext
): Promise<Receipt> {
  const term = await termRow(db, asked.term)
  const read = await readKnown(db, student)
  if (!read) throw new Refused(404, 'noStudent', 'There is no such student.')
  const { record: studentRecord } = read
  const { facts, offer, options } = await factsOfRun(db, studentRecord, catalogContext, asked)
  const { id, whole } = await begin(db, who, student, asked, term, options)
  const of = { id, student, term: asked.term }
  const waiting = await waitingLines(db, id)
  const coursesOf = (action: LineAction) =>
    waiting.filter((line) => line.action === action).map((line) => line.course)
  for (const course of coursesOf('leave'))
    await attempt(db, who, of, 'leave', [course], async (tx) => [await leaveLine(tx, who, of, course)])
  const drops = coursesOf('drop')
  const byOffice = asked.consent !== undefined
  if (drops.length)
    await attempt(db, who, of, 'drop', drops, (tx) =>
      dropSeats(tx, who, of, drops, catalogContext, { byOffice })
    )
  const chosen = pickedOptions(
    offer,
    waiting.flatMap((line) => line.sections)
  )
  const lines = coursesOf('register').flatMap((course) => chosen.get(course) ?? [])
  const groups = whole && lines.length ? [lines] : groupLines(lines, facts)
  const { placing } = facts
  const known: KnownForRun = { ...read, offer, charges: { term }, taken: undefined, placing }
  for (const group of groups) await registerGroup(db, who, of, known, group, catalogContext)
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
  asked: RunAsked,
  term: typeof t.term.$inferSelect,
  picked: ReadonlyMap<CourseCode, Option>
): Promise<{ id: number; whole: boolean }> {
  const { key, whole = false, armed = false, consent = null } = asked
  const setAside = asked.placing?.setAside ?? null
  const chosen = [...byAction(asked)].flatMap(([action, courses]) =>
    [...courses].map((course) => ({ action, course }))
  )
  const ids = await courseIds(db, [...new Set(chosen.map((line) => line.course))])
  return inTransaction(db, async (tx) => {
    await lockStudent(tx, student)
    const wanted = new Set(chosen.map(({ action, course }) => nameOf(action, ids.get(course)!)))
    const before = key === undefined ? undefined : await receiptOfKey(tx, student, key)
    if (before && !(before.termId === term.id && (await isOf(tx, before.id, wanted)))) throw keyUsed()
    if (before) return before
    await mustBeOpen(tx, student)
    const open = await tx
      .select({ id: t.receipt.id, whole: t.receipt.whole, begunAt: t.receipt.begunAt })
      .from(t.receipt)
      .where(all(eq(t.receipt.studentId, student), eq(t.receipt.termId, term.id), isNull(t.receipt.endedAt)))
    for (const one of open)
      if (isCutOff(one.begunAt)) await end(tx, one.id)
      // Pressed in two windows: it is the same run.
      else if (one.whole === whole && (await isOf(tx, one.id, wanted))) return one
    const lines = chosen.map(({ action, course }) => {
      const option = action === 'register' ? picked.get(course) : undefined
      const outcome = action === 'register' && !option ? 'unsettled' : 'waiting'
      return lineOf(course, outcome, { action, sections: option ? codesOf(option) : [] })
    })
    const now = await campusNow(tx)
    const about = { student, term: term.id, by: who.id, key: key ?? null, now, ended: false, whole, armed }
    const id = await insertReceipt(tx, { ...about, consent, setAside }, lines)
    if (consent !== null)
      await logEvent(tx, {
        ...{ at: now, account: who.id, student, action: 'run.forStudent' },
        after: { term: term.code, receipt: id, consent, by: who.name, ...(setAside && { setAside }) }
      })
    return { id, whole }
  })
}

/** The receipt of the run that was asked for under a key. */
export async function receiptOfKey(tx: Transaction, student: StudentId, key: string) {
  const [found] = await tx
    .select({ id: t.receipt.id, termId: t.receipt.termId, whole: t.receipt.whole })
    .from(t.receipt)
    .where(all(eq(t.receipt.studentId, student), eq(t.receipt.runKey, key)))
  return found
}

const nameOf = (action: LineAction, course: number) => `${action} ${course}`

/** Whether a run is of just these lines. */
async function isOf(tx: Transaction, receipt: number, wanted: ReadonlySet<string>): Promise<boolean> {
  const lines = await tx
    .select({
      action: t.receiptLine.action,
      course: sql<number>`coalesce(${t.receiptLine.insteadOfId}, ${t.receiptLine.courseId})`
    })
    .from(t.receiptLine)
    // What was given up for another line was not asked for by itself.
    .where(all(eq(t.receiptLine.receiptId, receipt), ne(t.receiptLine.action, 'giveUp')))
  return lines.length === wanted.size && lines.every((line) => wanted.has(nameOf(line.action, line.course)))
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
