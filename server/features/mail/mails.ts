/** Mails: sent in their order of need, each taken by one server at a time, and read by those they are for. */
import { asc, desc, eq, lte } from 'drizzle-orm'
import { all, inTransaction, type Database, type Reader, type Transaction } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { linkLine } from '#server/features/accounts/links'
import type { Post } from '#server/gateways/post'
import { theSettings } from '#server/settings'
import type { CatalogContext } from '#shared/catalog/context'
import { mailOf, type MailedEvent, type MailText } from '#shared/mail/mails'
import type { MailView } from '#shared/mail/responses'
import { mailRows, wordsOf } from './digests'

/** After so many tries, the last a day after the first, it is not tried any more. */
const MOST_TRIES = 11
const MINUTE_MS = 60_000
const AT_ONCE = 200

/** Sends what is to be sent by now, the machine's. What fails is tried again after a minute, two, four, and so on. */
export async function sendMails(
  db: Database,
  catalogContext: CatalogContext,
  post: Post,
  now = Date.now(),
  origin = theSettings().origin
): Promise<void> {
  for (let i = 0; i < AT_ONCE && (await sendOne(db, { catalogContext, post, now, origin })); i++);
}

/** @returns false once nothing is left to be sent */
function sendOne(
  db: Database,
  {
    catalogContext,
    post,
    now,
    origin
  }: { catalogContext: CatalogContext; post: Post; now: number; origin: URL | undefined }
): Promise<boolean> {
  return inTransaction(db, async (tx) => {
    const [due] = await tx
      .select()
      .from(t.mail)
      .where(all(eq(t.mail.state, 'waiting'), lte(t.mail.nextTryAt, new Date(now))))
      .orderBy(asc(t.mail.id))
      .limit(1)
      .for('update', { skipLocked: true })
    if (!due) return false
    const [of] = await mailRows(tx, eq(t.mail.id, due.id))
    const words = await wordsOf(tx, of!.event as MailedEvent, of!.own !== null, catalogContext)
    const told = words && (await withLink(tx, words, { event: of!.event, account: due.accountId, origin }))
    const sent =
      told && of!.to
        ? await post.send({ reference: `ridgeway-mail-${due.id}`, to: of!.to, ...told }).then(
            () => true,
            () => false
          )
        : false
    const tries = due.tries + 1
    const isLost = !told || !of!.to || tries >= MOST_TRIES
    await tx
      .update(t.mail)
      .set(
        sent
          ? { state: 'sent', tries, sentAt: new Date(now) }
          : {
              state: isLost ? 'failed' : 'waiting',
              tries,
              nextTryAt: new Date(now + MINUTE_MS * 2 ** due.tries)
            }
      )
      .where(eq(t.mail.id, due.id))
    return true
  })
}

/** A link is made as the mail that brings it is sent: it is kept nowhere else. */
async function withLink(
  tx: Transaction,
  { subject, text }: MailText,
  { event, account, origin }: { event: { action: string }; account: number; origin: URL | undefined }
): Promise<MailText | undefined> {
  if (event.action !== 'account.linked') return { subject, text }
  return origin && { subject, text: `${text}\n\n${await linkLine(tx, account, origin)}` }
}

/** Somebody's mails, the newest first. */
export async function readMails(
  db: Reader,
  account: number,
  catalogContext: CatalogContext
): Promise<MailView[]> {
  const rows = await mailRows(db, eq(t.mail.accountId, account)).orderBy(desc(t.mail.id)).limit(100)
  return rows.flatMap(({ id, state, event, own }) => {
    const told = mailOf(event as MailedEvent, catalogContext, own !== null)
    return told ? [{ id, at: event.at.getTime(), state, ...told }] : []
  })
}
