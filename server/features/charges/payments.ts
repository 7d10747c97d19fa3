/**
 * Payments. What is paid is written down before the cashier is asked, and posted once when they have answered: a payment
 * that is sent again, by its key, is the same one, and one without an answer is asked for again every minute.
 */
import { sayFailed } from '#server/gateways/log'
import { asc, eq } from 'drizzle-orm'
import { paymentOf, type Cents } from '#core/charges'
import { studentId, type StudentId, type TermCode } from '#core/ids'
import { all, inTransaction, type Database, type Reader } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import { keyUsed } from '#server/db/madeChange'
import * as t from '#server/db/schema/index'
import { termRow } from '#server/features/catalog/catalog'
import { lockStudent } from '#server/features/record/lock'
import type { Cashier } from '#server/gateways/cashier'
import { campusNow } from '#server/gateways/clock'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import { openOf } from '#shared/charges/balance'
import type { PaymentResult } from '#shared/charges/responses'
import { moneyText } from '#shared/charges/texts'
import { readAccounts } from './ledger'

export interface PaymentRequest {
  term: TermCode
  amount: Cents
  key: string
}

/** Pays for a term, once for its key, and says what became of it as far as the cashier has answered. */
export async function pay(
  db: Database,
  who: Who,
  student: StudentId,
  asked: PaymentRequest,
  cashier: Cashier
): Promise<PaymentResult> {
  const id = await write(db, who, student, asked)
  try {
    await ask(db, id, cashier)
  } catch {
    // No answer: it stays asked, and says so.
  }
  const [made] = await db.select().from(t.payment).where(eq(t.payment.id, id))
  return { id, state: made!.state, amount: made!.amount }
}

function write(
  db: Database,
  who: Who,
  student: StudentId,
  { term: code, amount, key }: PaymentRequest
): Promise<number> {
  return inTransaction(db, async (tx) => {
    await lockStudent(tx, student)
    const term = await termRow(tx, code)
    const [before] = await tx
      .select()
      .from(t.payment)
      .where(all(eq(t.payment.studentId, student), eq(t.payment.payKey, key)))
    if (before && (before.termId !== term.id || before.amount !== amount)) throw keyUsed()
    if (before) return before.id
    const account = (await readAccounts(tx, [student])).get(student)?.find((one) => one.term === code)
    const open = account ? openOf(account) : 0
    if (amount > open) {
      const left = open > 0 ? `${moneyText(open)} is still to be paid` : 'nothing is still to be paid'
      throw new Refused(409, 'notOwed', `For ${term.name} ${left}.`, [
        { field: 'amount', message: `has to be at most ${moneyText(Math.max(0, open))}` }
      ])
    }
    const [made] = await tx
      .insert(t.payment)
      .values({
        studentId: student,
        termId: term.id,
        amount,
        payKey: key,
        at: new Date(await campusNow(tx)),
        state: 'asked',
        byId: who.id
      })
      .$returningId()
    return made!.id
  })
}

/** Asks the cashier for a payment that has no answer yet, and writes theirs. */
async function ask(db: Database, id: number, cashier: Cashier): Promise<void> {
  const waiting = await payment(db, id)
  if (waiting?.row.state !== 'asked') return
  const { row, number } = waiting
  const state = await cashier.take({ reference: `ridgeway-${id}`, student: number, amount: row.amount })
  await inTransaction(db, async (tx) => {
    await lockStudent(tx, studentId(row.studentId))
    const still = await payment(tx, id)
    if (still?.row.state !== 'asked') return
    const now = await campusNow(tx)
    const at = new Date(now)
    await tx.update(t.payment).set({ state, answeredAt: at }).where(eq(t.payment.id, id))
    if (state === 'taken')
      await tx.insert(t.ledgerEntry).values({
        ...paymentOf(row.amount),
        studentId: row.studentId,
        termId: row.termId,
        at,
        paymentId: id,
        byId: row.byId
      })
    await logEvent(tx, {
      at: now,
      account: row.byId,
      student: row.studentId,
      action: 'payment.answered',
      after: { term: still.term, payment: id, amount: row.amount, state }
    })
  })
}

async function payment(db: Reader, id: number) {
  const [found] = await db
    .select({ row: t.payment, number: t.student.number, term: t.term.code })
    .from(t.payment)
    .innerJoin(t.student, eq(t.student.id, t.payment.studentId))
    .innerJoin(t.term, eq(t.term.id, t.payment.termId))
    .where(eq(t.payment.id, id))
  return found
}

/** Asks again for every payment that has no answer. */
export async function askAgain(db: Database, cashier: Cashier): Promise<void> {
  const open = await db
    .select({ id: t.payment.id })
    .from(t.payment)
    .where(eq(t.payment.state, 'asked'))
    .orderBy(asc(t.payment.id))
    .limit(100)
  for (const { id } of open)
    try {
      await ask(db, id, cashier)
    } catch (error) {
      sayFailed('The cashier did not answer', error)
      return
    }
}
