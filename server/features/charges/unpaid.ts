/** What is unpaid: told twice, then the seats are given back, where the term says so; student by student, see `core/charges`. */
import { asc, eq, gt, isNotNull, isNull, lte } from 'drizzle-orm'
import { FIRST_NOTICE_DAYS, unpaidStep } from '#core/charges'
import { studentId, type StudentId } from '#core/ids'
import { dayNumber, isoDate, type Instant } from '#core/time'
import { all, inTransaction, type Database, type Reader, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { lockStudent } from '#server/features/record/lock'
import { releaseSeats } from '#server/features/registration/releasing'
import { campusNow } from '#server/gateways/clock'
import { momentOf } from '#shared/catalog/context'
import { openOf, unpaidOf } from '#shared/charges/balance'
import type { TermAccount } from '#shared/charges/responses'
import { readAccounts } from './ledger'

type TermRow = typeof t.term.$inferSelect

/** Does what is due of all terms as of the campus time. */
export async function followUnpaid(db: Database, zone: string): Promise<void> {
  const now = await campusNow(db)
  const today = momentOf(now, zone).today
  const soon = isoDate(dayNumber(today) + FIRST_NOTICE_DAYS)
  const terms = await db
    .select()
    .from(t.term)
    .where(
      all(
        isNotNull(t.term.prices),
        gt(t.term.addEndsAt, new Date(now)),
        // Before the first notice is due there is nothing to follow.
        lte(t.term.paymentDueOn, soon)
      )
    )
  for (const term of terms) {
    if (!term.prices?.releasesUnpaid) continue
    const students = await withSeats(db, term)
    for (const [student, accounts] of await readAccounts(db, students)) {
      const account = accounts.find((one) => one.term === term.code)
      if (account && stepFor(account, term, now, zone) !== 'none')
        await takeStep(db, term, studentId(student), now, zone)
    }
  }
}

/** Those who hold a seat of a term that no office placed them in. */
async function withSeats(db: Reader, term: TermRow): Promise<number[]> {
  const rows = await db
    .selectDistinct({ student: t.registration.studentId })
    .from(t.registration)
    .innerJoin(t.section, eq(t.section.id, t.registration.sectionId))
    .where(all(eq(t.section.termId, term.id), eq(t.registration.placedByOffice, false)))
    .orderBy(asc(t.registration.studentId))
  return rows.map((row) => row.student)
}

function stepFor(account: TermAccount, term: TermRow, now: Instant, zone: string) {
  if (openOf(account) <= 0) return account.notices.length ? 'settle' : 'none'
  const about = { paymentDueOn: term.paymentDueOn, addEndsAt: term.addEndsAt.getTime() }
  return unpaidStep(unpaidOf(account, about, now, zone))
}

/** Judged anew under the student's lock: what was paid meanwhile counts, and no step is taken twice. */
function takeStep(
  db: Database,
  term: TermRow,
  student: StudentId,
  now: Instant,
  zone: string
): Promise<void> {
  return inTransaction(db, async (tx) => {
    await lockStudent(tx, student)
    const account = (await readAccounts(tx, [student])).get(student)?.find((one) => one.term === term.code)
    const step = account ? stepFor(account, term, now, zone) : 'none'
    if (step === 'notice') await giveNotice(tx, term, student, now)
    if (step === 'release') await release(tx, term, student, now)
    if (step === 'settle' || step === 'release') await settleNotices(tx, term, student, now)
  })
}

async function giveNotice(tx: Transaction, term: TermRow, student: StudentId, now: Instant): Promise<void> {
  await tx.insert(t.paymentNotice).values({ studentId: student, termId: term.id, at: new Date(now) })
  await logEvent(tx, {
    at: now,
    account: null,
    student,
    action: 'payment.noticed',
    after: { term: term.code }
  })
}

const settleNotices = (tx: Transaction, term: TermRow, student: StudentId, now: Instant) =>
  tx
    .update(t.paymentNotice)
    .set({ settledAt: new Date(now) })
    .where(
      all(
        eq(t.paymentNotice.studentId, student),
        eq(t.paymentNotice.termId, term.id),
        isNull(t.paymentNotice.settledAt)
      )
    )

/** Gives back the seats of a student; those that an office placed stay with the office. */
async function release(tx: Transaction, term: TermRow, student: StudentId, now: Instant): Promise<void> {
  const seats = await tx
    .select({ id: t.section.id, code: t.section.code, course: t.course.code, courseId: t.course.id })
    .from(t.registration)
    .innerJoin(t.section, eq(t.section.id, t.registration.sectionId))
    .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    .where(
      all(
        eq(t.registration.studentId, student),
        eq(t.section.termId, term.id),
        eq(t.registration.placedByOffice, false)
      )
    )
    .orderBy(asc(t.section.id))
  await releaseSeats(tx, term, seats, { student, by: null, now, why: { action: 'registration.released' } })
}
