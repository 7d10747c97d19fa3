/** What a student's term costs, kept in line with the seats held: see `core/charges`. */
import { desc, eq, inArray, isNull, sql } from 'drizzle-orm'
import {
  assess,
  assessedAfter,
  centsOf,
  postings,
  refundPercent,
  type Payer,
  type PricedSeat
} from '#core/charges'
import { courseCode, termCode, type StudentId, type TermCode } from '#core/ids'
import type { Instant } from '#core/time'
import { groupBy } from '#server/db/groupBy'
import { all, type Reader, type Transaction } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { creditsHeld } from '#server/features/record/queries'
import { termRow } from '#server/features/catalog/catalog'
import type { LedgerEntry, TermAccount } from '#shared/charges/responses'

export interface Settling {
  student: StudentId
  term: TermCode
  /** Whose doing it is; null for a rule of the term. */
  by: number | null
  now: Instant
  /** Who pays, where that has been read. */
  payer?: Payer
  /** All of what becomes less is given back, whatever the date. */
  whole?: boolean
  /** Of a run: what was read for its seats before. */
  soFar?: ChargesSoFar
}

/** What has been assessed for a student's term, as long as nobody else has changed it. */
export interface ChargesSoFar {
  term?: typeof t.term.$inferSelect
  assessed?: ReturnType<typeof assessedAfter> | undefined
  /** The same with what was written last; it holds once that is through. */
  next?: ReturnType<typeof assessedAfter> | undefined
}

/** Writes what a change of seats charges and gives back. The student's row is locked. */
export async function settleCharges(
  tx: Transaction,
  { student, term: code, by, now, payer, whole = false, soFar = {} }: Settling,
  lowering: 'refund' | 'release' = 'refund'
): Promise<void> {
  const term = (soFar.term ??= await termRow(tx, code))
  if (!term.prices) return
  const who = payer ?? (await readPayer(tx, student))
  const seats = (await pricedSeats(tx, term.id, student)).get(student) ?? []
  const before = soFar.assessed ?? (await readAssessed(tx, student, term.id))
  const charges = assess(term.prices, who, seats)
  const percent = whole ? 100 : refundPercent(term.prices, now)
  const made = postings(before, charges, percent, lowering)
  soFar.next = assessedAfter([...[...before].map(([item, assessed]) => ({ item, assessed })), ...made])
  if (!made.length) return
  const about = { studentId: student, termId: term.id, at: new Date(now), byId: by }
  await tx.insert(t.ledgerEntry).values(made.map((posting) => ({ ...posting, ...about })))
}

async function readAssessed(tx: Transaction, student: StudentId, term: number) {
  const rows = await tx
    .select({ item: t.ledgerEntry.item, assessed: sql<string>`sum(${t.ledgerEntry.assessed})` })
    .from(t.ledgerEntry)
    .where(all(eq(t.ledgerEntry.studentId, student), eq(t.ledgerEntry.termId, term)))
    .groupBy(t.ledgerEntry.item)
  return assessedAfter(rows.map((row) => ({ ...row, assessed: Number(row.assessed) })))
}

async function readPayer(tx: Transaction, student: StudentId): Promise<Payer> {
  const [payer] = await tx
    .select({ level: t.student.level, residency: t.student.residency })
    .from(t.student)
    .where(eq(t.student.id, student))
  return payer!
}

/** The seats of a term as far as they cost something, by student; of one student where one is named. */
export async function pricedSeats(
  db: Reader,
  term: number,
  student?: StudentId
): Promise<Map<number, PricedSeat[]>> {
  const rows = await db
    .select({
      student: t.registration.studentId,
      course: t.course.code,
      parent: t.section.parentId,
      credits: creditsHeld,
      fee: t.section.fee,
      courseFee: t.course.fee
    })
    .from(t.registration)
    .innerJoin(t.section, eq(t.section.id, t.registration.sectionId))
    .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    .where(
      student === undefined
        ? eq(t.section.termId, term)
        : all(eq(t.registration.studentId, student), eq(t.section.termId, term))
    )
  const found = new Map<number, PricedSeat[]>()
  for (const [one, mine] of groupBy(rows, (row) => row.student))
    found.set(
      one,
      [...groupBy(mine, (row) => row.course)].map(([course, own]) => ({
        course: courseCode(course),
        credits: own.reduce((sum, row) => sum + row.credits, 0),
        fee: own.reduce(
          (sum, row) => sum + centsOf(row.fee) + (row.parent === null ? centsOf(row.courseFee) : 0),
          0
        )
      }))
    )
  return found
}

/** What moved to or from what the student owes. */
const owing = sql<string>`sum(case when ${t.ledgerEntry.debit} = 'student' then ${t.ledgerEntry.amount} else -${t.ledgerEntry.amount} end)`

/** The accounts of students, by term in the order of terms. */
export async function readAccounts(db: Reader, students: number[]): Promise<Map<number, TermAccount[]>> {
  const rows = await db
    .select({
      student: t.ledgerEntry.studentId,
      term: t.term.code,
      item: t.ledgerEntry.item,
      owing,
      released: sql<number>`max(case when ${t.ledgerEntry.kind} = 'release' then unix_timestamp(${t.ledgerEntry.at}) end)`
    })
    .from(t.ledgerEntry)
    .innerJoin(t.term, eq(t.term.id, t.ledgerEntry.termId))
    .where(inArray(t.ledgerEntry.studentId, students))
    .groupBy(t.ledgerEntry.studentId, t.term.startsOn, t.term.code, t.ledgerEntry.item)
    .orderBy(t.ledgerEntry.studentId, t.term.startsOn, desc(t.ledgerEntry.item))
  const asked = await db
    .select({ student: t.payment.studentId, term: t.term.code, amount: t.payment.amount })
    .from(t.payment)
    .innerJoin(t.term, eq(t.term.id, t.payment.termId))
    .where(all(inArray(t.payment.studentId, students), eq(t.payment.state, 'asked')))
  const notices = await db
    .select({ student: t.paymentNotice.studentId, term: t.term.code, at: t.paymentNotice.at })
    .from(t.paymentNotice)
    .innerJoin(t.term, eq(t.term.id, t.paymentNotice.termId))
    .where(all(inArray(t.paymentNotice.studentId, students), isNull(t.paymentNotice.settledAt)))
    .orderBy(t.paymentNotice.at)
  const found = new Map<number, TermAccount[]>()
  for (const [student, own] of groupBy(rows, (row) => row.student)) {
    const accounts = [...groupBy(own, (row) => row.term)].map(([code, items]): TermAccount => {
      const term = termCode(code)
      const released = items.flatMap((row) => (row.released === null ? [] : [Number(row.released)]))
      return {
        term,
        charges: items.flatMap(({ item, owing }) =>
          item === 'payment' || Number(owing) === 0 ? [] : [{ item, amount: Number(owing) }]
        ),
        paid: items.reduce((sum, row) => (row.item === 'payment' ? sum - Number(row.owing) : sum), 0),
        asked: asked
          .filter((one) => one.student === student && one.term === code)
          .reduce((sum, one) => sum + one.amount, 0),
        notices: notices
          .filter((one) => one.student === student && one.term === code)
          .map((one) => one.at.getTime()),
        releasedAt: released.length ? Math.max(...released) * 1000 : null
      }
    })
    found.set(student, accounts)
  }
  return found
}

/** The entries of a student's term in their order; those of one item at one instant, as of the lines of a run, as one. */
export async function readStatement(db: Reader, student: number, code: TermCode): Promise<LedgerEntry[]> {
  const rows = await db
    .select({
      at: t.ledgerEntry.at,
      kind: t.ledgerEntry.kind,
      item: t.ledgerEntry.item,
      amount: sql<string>`sum(${t.ledgerEntry.amount})`,
      by: t.account.name
    })
    .from(t.ledgerEntry)
    .innerJoin(t.term, eq(t.term.id, t.ledgerEntry.termId))
    .leftJoin(t.account, eq(t.account.id, t.ledgerEntry.byId))
    .where(all(eq(t.ledgerEntry.studentId, student), eq(t.term.code, code)))
    .groupBy(t.ledgerEntry.at, t.ledgerEntry.kind, t.ledgerEntry.item, t.account.name)
    .orderBy(sql`min(${t.ledgerEntry.id})`)
  return rows.map((row) => ({ ...row, at: row.at.getTime(), amount: Number(row.amount) }))
}
