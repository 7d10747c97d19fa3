/** The mail of the day: what somebody chose to be told together, once in the morning on campus. */
import { and, asc, eq, inArray, lt, type SQL } from 'drizzle-orm'
import { DateTime } from 'luxon'
import { all, inTransaction, type Database, type Reader, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { campusNow } from '#server/gateways/clock'
import type { Who } from '#shared/accounts/responses'
import type { CatalogContext } from '#shared/catalog/context'
import { USUAL_CHOICES, type MailChoices } from '#shared/mail/choices'
import { mailOf, type MailedEvent, type MailText } from '#shared/mail/mails'
import { count } from '#shared/words'

/** The hour on campus after which what was gathered before is mailed. */
const HOUR = 6

/** Makes a mail for each account of what was gathered for it until this morning; each is made once, by whichever server. */
export async function gatherMails(db: Database, zone: string): Promise<void> {
  const now = DateTime.fromMillis(await campusNow(db), { zone })
  const morning = now.set({ hour: HOUR, minute: 0, second: 0, millisecond: 0 })
  const until = (now < morning ? morning.minus({ days: 1 }) : morning).toJSDate()
  const due = await db
    .selectDistinct({ account: t.mail.accountId })
    .from(t.mail)
    .innerJoin(t.eventLog, eq(t.eventLog.id, t.mail.eventId))
    .where(all(eq(t.mail.state, 'gathered'), lt(t.eventLog.at, until)))
  for (const { account } of due)
    await inTransaction(db, (tx) => gatherFor(tx, account, until, now.toMillis()))
}

async function gatherFor(tx: Transaction, account: number, until: Date, now: number): Promise<void> {
  await tx.select({ id: t.account.id }).from(t.account).where(eq(t.account.id, account)).for('update')
  const rows = await tx
    .select({ id: t.mail.id })
    .from(t.mail)
    .innerJoin(t.eventLog, eq(t.eventLog.id, t.mail.eventId))
    .where(all(eq(t.mail.accountId, account), eq(t.mail.state, 'gathered'), lt(t.eventLog.at, until)))
    .orderBy(asc(t.mail.id))
  if (!rows.length) return
  const mails = rows.map((row) => row.id)
  const event = await logEvent(tx, {
    ...{ at: now, account: null, student: null, action: 'mail.gathered' as const, after: { mails } }
  })
  await tx.update(t.mail).set({ state: 'told' }).where(inArray(t.mail.id, mails))
  await tx.insert(t.mail).values({ accountId: account, eventId: event, nextTryAt: new Date() })
}

/** Mails with the entry of the log that each tells of, whom it goes to, and `own` where that is the student it is about. */
export const mailRows = (db: Reader, which: SQL) =>
  db
    .select({ id: t.mail.id, state: t.mail.state, event: t.eventLog, to: t.account.mail, own: t.student.id })
    .from(t.mail)
    .innerJoin(t.eventLog, eq(t.eventLog.id, t.mail.eventId))
    .innerJoin(t.account, eq(t.account.id, t.mail.accountId))
    .leftJoin(
      t.student,
      and(eq(t.student.id, t.eventLog.studentId), eq(t.student.accountId, t.mail.accountId))
    )
    .where(which)

/** The words of a mail; those of a mail of the day are those of all that is told in it. */
export async function wordsOf(
  db: Reader,
  event: MailedEvent,
  isOwn: boolean,
  catalogContext: CatalogContext
): Promise<MailText | undefined> {
  if (event.action !== 'mail.gathered') return mailOf(event, catalogContext, isOwn)
  const { mails } = event.after as { mails: number[] }
  const rows = await mailRows(db, inArray(t.mail.id, mails)).orderBy(asc(t.mail.id))
  const told = rows.flatMap((row) => mailOf(row.event as MailedEvent, catalogContext, row.own !== null) ?? [])
  return {
    subject: `${count(told.length, 'thing')} since the last mail of the day`,
    text: told.map(({ subject, text }) => `${subject}\n${text}`).join('\n\n')
  }
}

export async function readChoices(db: Reader, account: number): Promise<MailChoices> {
  const rows = await db.select().from(t.mailChoice).where(eq(t.mailChoice.accountId, account))
  return { ...USUAL_CHOICES, ...Object.fromEntries(rows.map((row) => [row.topic, row.choice])) }
}

/** What is gathered stays gathered; the choice holds for what comes from now on. */
export async function writeChoices(
  tx: Transaction,
  { who, now }: { who: Who; now: number },
  chosen: MailChoices
): Promise<void> {
  const before = await readChoices(tx, who.id)
  await tx.delete(t.mailChoice).where(eq(t.mailChoice.accountId, who.id))
  await tx.insert(t.mailChoice).values([
    { accountId: who.id, topic: 'advising', choice: chosen.advising },
    { accountId: who.id, topic: 'appointments', choice: chosen.appointments }
  ])
  await logEvent(tx, {
    ...{ at: now, account: who.id, student: null, action: 'mailChoices.changed' as const },
    ...{ before, after: chosen }
  })
}
