/** Students are handed over from one advisor to another, with a note that only advisors read. */
import { asc, eq, inArray } from 'drizzle-orm'
import { studentId } from '#core/ids'
import type { Instant } from '#core/time'
import { all, type Reader, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { advisorOf } from '#server/features/appointments/hours'
import { lockStudents } from '#server/features/record/lock'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import type { AdvisorName } from '#shared/advising/handOver'
import type { HandOverSaid } from '#shared/advising/requests'
import { campusDate } from '#shared/when'
import { addRemark } from './talk'

/** Everybody who advises, by name. */
export async function readAdvisors(db: Reader): Promise<AdvisorName[]> {
  const rows = await db
    .select({ id: t.advisor.id, name: t.account.name, office: t.advisor.office, role: t.account.role })
    .from(t.advisor)
    .innerJoin(t.account, eq(t.account.id, t.advisor.accountId))
    .where(inArray(t.account.role, ['programAdvisor', 'supportAdvisor']))
    .orderBy(asc(t.account.name))
  return rows as AdvisorName[]
}

/**
 * Hands students over, all of them or none: what was advised on stays, who advises is another.
 *
 * @throws Refused where one of them is not advised by whoever asks, or by the other one already
 */
export async function handOver(
  tx: Transaction,
  { who, now, zone }: { who: Who; now: Instant; zone: string },
  { students, to, note }: HandOverSaid
): Promise<void> {
  const from = await advisorOf(tx, who.id)
  const next = await takerOf(tx, who, from, to)
  await lockStudents(tx, students.map(studentId))
  const rows = await tx
    .select({ student: t.advising.studentId, advisor: t.advising.advisorId, purpose: t.advising.purpose })
    .from(t.advising)
    .where(all(inArray(t.advising.studentId, students), inArray(t.advising.advisorId, [from, to])))
  for (const [i, id] of students.entries()) {
    const own = rows.find((row) => row.student === id && row.advisor === from)
    if (!own) throw refused(i, 'You do not advise one of them yourself.', 'has to be a student of yours')
    if (rows.some((row) => row.student === id && row.advisor === to))
      throw refused(i, `${next.name} advises one of them already.`, 'has to be advised by somebody else')
    await tx
      .update(t.advising)
      .set({ advisorId: to, sinceOn: campusDate(now, zone) })
      .where(all(eq(t.advising.studentId, id), eq(t.advising.advisorId, from)))
    const student = studentId(id)
    if (note) {
      const relation = own.purpose === 'program' ? 'programAdvisor' : 'supportAdvisor'
      const about = { is: 'route' as const, key: null }
      const said = { to: 'matter' as const, about, advisorsOnly: true, text: note, named: [] }
      await addRemark(tx, { who, student, now, relation }, said)
    }
    await logEvent(tx, {
      at: now,
      account: who.id,
      student,
      action: 'advising.handedOver',
      // One mail tells whoever takes them on of all of them.
      also: i === 0 ? [next.account] : [],
      before: { advisor: from, by: who.name },
      after: {
        advisor: to,
        to: next.name,
        by: who.name,
        purpose: own.purpose,
        students: students.length,
        noted: note !== null
      }
    })
  }
}

const refused = (i: number, message: string, field: string) =>
  new Refused(422, 'notHandedOver', message, [{ field: `students.${i}`, message: field }])

/** The advisor who takes them on: another one, who may do what whoever hands over may. */
async function takerOf(tx: Transaction, who: Who, from: number, to: number) {
  const [next] = await tx
    .select({ name: t.account.name, account: t.account.id, role: t.account.role })
    .from(t.advisor)
    .innerJoin(t.account, eq(t.account.id, t.advisor.accountId))
    .where(eq(t.advisor.id, to))
  if (to === from || next?.role !== who.role)
    throw new Refused(422, 'noAdvisor', 'Choose another advisor who may do what you do.', [
      { field: 'to', message: 'has to be another advisor of the same kind' }
    ])
  return next
}
