/** Links by which a password is set, once: made by the office, or mailed to whoever cannot sign in. */
import { randomBytes } from 'node:crypto'
import { asc, count, eq, exists, gt, isNotNull, isNull, not, sql } from 'drizzle-orm'
import type { Instant } from '#core/time'
import { all, type Reader, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { Refused } from '#server/http/problem'
import { theSettings } from '#server/settings'
import type { LinksMailed, StudentSignIns, Who } from '#shared/accounts/responses'
import { hashOf } from './keyHash'

/** How long a link holds, by the machine's time. */
const LINK_MS = 7 * 24 * 3_600_000
/** Whoever asks again so soon has a mail on its way. */
const ASKED_MS = 10 * 60_000
/** How many are mailed at once: their office asks until none is left. */
const LOT = 200

/** A new link for an account; the one before holds no more. @returns its key, which is kept nowhere */
export async function linkFor(tx: Transaction, accountId: number): Promise<string> {
  const key = randomBytes(16).toString('hex')
  const link = { keyHash: hashOf(key), expiresAt: new Date(Date.now() + LINK_MS) }
  await tx
    .insert(t.invitation)
    .values({ accountId, ...link })
    .onDuplicateKeyUpdate({ set: link })
  return key
}

/** Where links that are mailed lead to; undefined where none can be: there is no mail server, or no address that people open. */
function mailedTo(): URL | undefined {
  const { smtp, origin } = theSettings()
  return smtp && origin
}

/** What is asked at: the machine's time, and where mailed links lead to. */
interface Mailing {
  machine?: number
  origin: URL | undefined
}

/** @throws Refused */
function mustMail(origin: URL | undefined): void {
  if (!origin)
    throw new Refused(
      409,
      'noMail',
      'Links are not mailed from here. The registrar’s office hands one to whoever cannot sign in.'
    )
}

/** What stands in a mail that brings a link: it is made as it is sent. */
export const linkLine = async (tx: Transaction, account: number, origin: URL): Promise<string> =>
  new URL(`/welcome/${await linkFor(tx, account)}`, origin).href

/** A mail with a link for the account is made, and has not been sent or was sent a moment ago. */
const isUnderWay = (db: Reader, now: number) =>
  exists(
    db
      .select({ id: t.mail.id })
      .from(t.mail)
      .innerJoin(t.eventLog, eq(t.eventLog.id, t.mail.eventId))
      .where(
        all(
          eq(t.mail.accountId, t.account.id),
          eq(t.eventLog.action, 'account.linked'),
          sql`(${t.mail.state} = 'waiting' or ${t.mail.sentAt} > ${new Date(now - ASKED_MS)})`
        )
      )
  )

/** Students who have no password, as those that files bring. */
const cannotSignIn = all(eq(t.account.passwordHash, ''), isNull(t.account.endedAt))

/** A link that holds, by the machine's time. */
const hasLink = (db: Reader, now: number) =>
  exists(
    db
      .select({ id: t.invitation.accountId })
      .from(t.invitation)
      .where(all(eq(t.invitation.accountId, t.account.id), gt(t.invitation.expiresAt, new Date(now))))
  )

/** How many students cannot sign in yet. */
export async function readStudentSignIns(db: Reader, now = Date.now()): Promise<StudentSignIns> {
  const of = async (...more: Parameters<typeof all>) => {
    const [row] = await db
      .select({ n: count() })
      .from(t.student)
      .innerJoin(t.account, eq(t.account.id, t.student.accountId))
      .where(all(cannotSignIn, ...more))
    return row!.n
  }
  return {
    without: await of(sql`true`),
    unmailed: await of(isNotNull(t.account.mail), not(hasLink(db, now)), not(isUnderWay(db, now))),
    mailless: await of(isNull(t.account.mail)),
    canMail: mailedTo() !== undefined
  }
}

/** Mails a link to students who cannot sign in and have none, so many at once. @throws Refused where none can be mailed */
export async function mailLinks(
  tx: Transaction,
  { who, now }: { who: Who; now: Instant },
  { machine = Date.now(), origin }: Mailing = { origin: mailedTo() }
): Promise<LinksMailed> {
  mustMail(origin)
  const rows = await tx
    .select({ student: t.student.id, signIn: t.account.signIn })
    .from(t.student)
    .innerJoin(t.account, eq(t.account.id, t.student.accountId))
    .where(
      all(cannotSignIn, isNotNull(t.account.mail), not(hasLink(tx, machine)), not(isUnderWay(tx, machine)))
    )
    .orderBy(asc(t.student.id))
    .limit(LOT)
    .for('update')
  for (const { student, signIn } of rows)
    await logEvent(tx, {
      ...{ at: now, account: who.id, student, action: 'account.linked' },
      after: { signIn, isFirst: true }
    })
  return { mailed: rows.length, left: (await readStudentSignIns(tx, machine)).unmailed }
}

/**
 * Mails a link to whoever lost the password. What is answered says nothing of who has an account.
 *
 * @throws Refused where none can be mailed
 */
export async function askForLink(
  tx: Transaction,
  { name, now }: { name: string; now: Instant },
  { machine = Date.now(), origin }: Mailing = { origin: mailedTo() }
): Promise<void> {
  mustMail(origin)
  const [account] = await tx
    .select({ id: t.account.id, signIn: t.account.signIn, student: t.student.id })
    .from(t.account)
    .leftJoin(t.student, eq(t.student.accountId, t.account.id))
    .leftJoin(t.serviceToken, eq(t.serviceToken.accountId, t.account.id))
    .where(
      all(
        eq(t.account.signIn, name.trim().toLowerCase()),
        isNotNull(t.account.mail),
        isNull(t.account.endedAt),
        isNull(t.serviceToken.id),
        not(isUnderWay(tx, machine))
      )
    )
    .for('update')
  if (!account) return
  await logEvent(tx, {
    ...{ at: now, account: null, student: account.student, action: 'account.linked', also: [account.id] },
    after: { signIn: account.signIn }
  })
}
