/** A group of a run: its lines go through together, in one transaction. */
import { metrics } from '#server/gateways/metrics'
import type { CourseCode } from '#core/ids'
import type { Instant } from '#core/time'
import type { Option } from '#core/week'
import { DatabaseError, inTransaction, type Database, type Transaction } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { courseIds } from '#server/features/catalog/catalog'
import { settleCharges, type Settling } from '#server/features/charges/ledger'
import { lockStudent } from '#server/features/record/lock'
import { campusNow } from '#server/gateways/clock'
import type { Who } from '#shared/accounts/responses'
import type { CatalogContext } from '#shared/catalog/context'
import { isSeat, type LineAction, type Outcome } from '#shared/registration/outcomes'
import type { ReceiptLine } from '#shared/registration/responses'
import { addLines, fullRefusal, refusedLine, type RunUnderWay } from './receiptLines'
import { takeIn, takeSeats, type KnownForRun } from './seats'
import { eq } from 'drizzle-orm'
import { waitingLines } from './waitingLines'

export async function registerGroup(
  db: Database,
  who: Who,
  of: RunUnderWay,
  known: KnownForRun,
  group: readonly Option[],
  catalogContext: CatalogContext
): Promise<void> {
  const courses = group.map((option) => option.course)
  const isThrough = await attempt(
    db,
    who,
    of,
    'register',
    courses,
    (tx, clock) => takeSeats({ tx, clock, who }, of, known, group, catalogContext),
    // The last guard: a constraint of the database refused what the decision had let through.
    () => group.map((option) => refusedLine(option, [fullRefusal(option)])),
    known
  )
  if (isThrough) takeIn(known, of.term)
}

/** Writes what came of a line; where another course was taken, it says for which. */
async function writeLine(tx: Transaction, id: number, { course, insteadOf, ...line }: ReceiptLine) {
  const ids = insteadOf ? await courseIds(tx, [course, insteadOf]) : undefined
  const taken = ids && insteadOf ? { courseId: ids.get(course)!, insteadOfId: ids.get(insteadOf)! } : {}
  await tx
    .update(t.receiptLine)
    .set({ ...line, ...taken })
    .where(eq(t.receiptLine.id, id))
}

/** Whether other seats are held after it, and something else is owed. */
const changesSeats = (outcome: Outcome) => isSeat(outcome) || outcome === 'dropped'

/**
 * Does one step of a run and writes what came of its lines, unless another request for the same run has tried them.
 *
 * @returns whether it was done as it was asked
 */
export async function attempt(
  db: Database,
  who: Who,
  { id, student, term }: RunUnderWay,
  action: LineAction,
  courses: readonly CourseCode[],
  work: (tx: Transaction, clock: () => Promise<Instant>) => Promise<ReceiptLine[]>,
  ifConstrained?: () => ReceiptLine[],
  known?: KnownForRun
): Promise<boolean> {
  const once = async (step: typeof work): Promise<boolean> => {
    const written = await inTransaction(db, async (tx) => {
      await lockStudent(tx, student)
      const own = (await waitingLines(tx, id)).filter((line) => line.action === action)
      const still = new Map(own.map((line) => [line.course, line.id]))
      if (!courses.every((course) => still.has(course))) return undefined
      // The time at which it is asked for first: once everything is locked.
      let now: Promise<Instant> | undefined
      const clock = () => (now ??= campusNow(tx))
      const lines = await step(tx, clock)
      for (const line of lines)
        if (line.action === action) await writeLine(tx, still.get(line.insteadOf ?? line.course)!, line)
      const besides = lines.filter((line) => line.action !== action)
      if (besides.length) await addLines(tx, id, besides)
      if (lines.some((line) => changesSeats(line.outcome)))
        await settle(tx, { student, term, by: who.id, now: await clock() }, known)
      return lines
    })
    for (const { outcome } of written ?? []) metrics.line(outcome)
    return written !== undefined
  }
  try {
    const isThrough = await once(work)
    if (known && isThrough) known.charges.assessed = known.charges.next
    return isThrough
  } catch (error) {
    if (!(error instanceof DatabaseError)) throw error
    if (error.code === 'ER_CONSTRAINT_FAILED' && ifConstrained)
      await once(() => Promise.resolve(ifConstrained()))
    // The seats were locked for too long: these lines are not tried, the others are.
    else if (error.code !== 'ER_LOCK_WAIT_TIMEOUT') throw error
    return false
  }
}

/** What was assessed for the lines before is read again only where somebody else did something meanwhile. */
function settle(tx: Transaction, settling: Settling, known: KnownForRun | undefined): Promise<void> {
  return settleCharges(
    tx,
    known ? { ...settling, payer: known.record.student, soFar: known.charges } : settling
  )
}
