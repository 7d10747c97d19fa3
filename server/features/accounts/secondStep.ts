/**
 * The second step of signing in: a code that an app works out from a shared secret each half minute (TOTP, RFC 6238, by the
 * standard package), or one of some that were written down, each once. Times are the machine's, as those of the app are.
 */
import { randomBytes } from 'node:crypto'
import { eq, isNotNull, lt } from 'drizzle-orm'
import { Secret, TOTP } from 'otpauth'
import type { SecondStepBegun, SecondStepView, Who } from '#shared/accounts/responses'
import { all, inTransaction, type Database, type Reader, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import { account, institution, secondStep } from '#server/db/schema/index'
import { campusNow } from '#server/gateways/clock'
import { Refused } from '#server/http/problem'
import { theSettings } from '#server/settings'
import { hashOf } from './keyHash'

const PERIOD_S = 30
/** An app's clock may be so many half minutes off (RFC 6238, 5.2). */
const WINDOW = 1
const SECRET_BYTES = 20
const SPARE_CODES = 8
/** Letters and digits that are not taken for one another. */
const SPARE_LETTERS = 'abcdefghjkmnpqrstuvwxyz23456789'

const totpOf = (secret: string, label: string, issuer: string) =>
  new TOTP({
    issuer,
    label,
    algorithm: 'SHA1',
    digits: 6,
    period: PERIOD_S,
    secret: Secret.fromBase32(secret)
  })

/** The half minute of which a code is; undefined where it is of none about now. */
export function stepOf(secret: string, code: string, now: number): number | undefined {
  const delta = totpOf(secret, 'code', 'Ridgeway').validate({ token: code, timestamp: now, window: WINDOW })
  return delta === null ? undefined : Math.floor(now / 1000 / PERIOD_S) + delta
}

const confirmed = (id: number) => all(eq(secondStep.accountId, id), isNotNull(secondStep.confirmedAt))

/** Whether an account asks for one. */
export async function hasSecondStep(db: Reader, id: number): Promise<boolean> {
  return (await db.$count(secondStep, confirmed(id))) > 0
}

/** Whether somebody signs in with a password alone who, as it is set here, has to have a second step. */
export async function needsSecondStep(
  db: Reader,
  { id, role }: Who,
  { secondStep: of } = theSettings()
): Promise<boolean> {
  if (of !== 'staff' || role === 'student') return false
  const [row] = await db.select({ hash: account.passwordHash }).from(account).where(eq(account.id, id))
  return row?.hash !== '' && !(await hasSecondStep(db, id))
}

export async function readSecondStep(db: Reader, id: number): Promise<SecondStepView> {
  const [row] = await db.select().from(secondStep).where(confirmed(id))
  return { since: row?.confirmedAt?.getTime() ?? null, spareLeft: row?.spareHashes.length ?? 0 }
}

/** A new secret for an app; it asks for nothing until a code of it was given. @throws Refused where one stands already */
export async function beginSecondStep(tx: Transaction, id: number): Promise<SecondStepBegun> {
  if (await hasSecondStep(tx, id))
    throw new Refused(
      409,
      'secondStepStands',
      'The second step is on already. Take it off to set it up anew.'
    )
  const [who] = await tx.select({ signIn: account.signIn }).from(account).where(eq(account.id, id))
  const [place] = await tx.select({ name: institution.name }).from(institution)
  const secret = new Secret({ size: SECRET_BYTES }).base32
  const values = { secret, confirmedAt: null, lastStep: 0, spareHashes: [] }
  await tx
    .insert(secondStep)
    .values({ accountId: id, ...values })
    .onDuplicateKeyUpdate({ set: values })
  return { secret, address: totpOf(secret, who!.signIn, `Ridgeway ${place?.name ?? ''}`.trim()).toString() }
}

/** Turns it on by a code of the app. @returns the codes to be written down, told once */
export async function confirmSecondStep(
  tx: Transaction,
  id: number,
  code: string,
  now = Date.now()
): Promise<string[]> {
  const [row] = await tx.select().from(secondStep).where(eq(secondStep.accountId, id)).for('update')
  if (!row || row.confirmedAt) throw new Refused(409, 'notBegun', 'Nothing is being set up. Begin again.')
  const step = stepOf(row.secret, code, now)
  if (step === undefined) throw wrongCode()
  const spare = Array.from({ length: SPARE_CODES }, spareCode)
  await tx
    .update(secondStep)
    .set({ confirmedAt: new Date(now), lastStep: step, spareHashes: spare.map((one) => hashOf(plain(one))) })
    .where(eq(secondStep.accountId, id))
  await noted(tx, id, 'secondStep.turnedOn')
  return spare
}

/** Takes it off, by whoever may. */
export async function dropSecondStep(tx: Transaction, id: number, by: number): Promise<void> {
  const [done] = await tx.delete(secondStep).where(eq(secondStep.accountId, id))
  if (done.affectedRows) await noted(tx, by, 'secondStep.turnedOff', id)
}

/**
 * Passes where the account asks for no code, or the right one is given; a code passes once.
 *
 * @throws Refused where it is missing, wrong, or was taken before
 */
export async function mustPassSecondStep(
  db: Database,
  id: number,
  code: string | undefined,
  now = Date.now()
): Promise<void> {
  const [row] = await db.select().from(secondStep).where(confirmed(id))
  if (!row) return
  if (!code)
    throw new Refused(
      401,
      'secondStep',
      'Now give the code that your app shows, or one that you wrote down.',
      [{ field: 'code', message: 'is needed' }]
    )
  const step = stepOf(row.secret, code.replace(/\s/g, ''), now)
  if (step !== undefined) {
    const later = all(confirmed(id), lt(secondStep.lastStep, step))
    const [taken] = await db.update(secondStep).set({ lastStep: step }).where(later)
    if (taken.affectedRows) return
    throw new Refused(401, 'codeTaken', 'This code was used already. Wait for the next one.', [
      { field: 'code', message: 'was used already' }
    ])
  }
  if (!(await spendSpare(db, id, hashOf(plain(code))))) throw wrongCode(401)
}

/** One of those that are written down, if it is one; it is none any more. */
const spendSpare = (db: Database, id: number, hash: string): Promise<boolean> =>
  inTransaction(db, async (tx) => {
    const [row] = await tx.select().from(secondStep).where(confirmed(id)).for('update')
    const left = row?.spareHashes.filter((one) => one !== hash) ?? []
    if (!row || left.length === row.spareHashes.length) return false
    await tx.update(secondStep).set({ spareHashes: left }).where(eq(secondStep.accountId, id))
    await noted(tx, id, 'secondStep.spareUsed')
    return true
  })

const wrongCode = (status: 401 | 422 = 422) =>
  new Refused(status, 'wrongCode', 'This is not the code of this moment. Look at the app again.', [
    { field: 'code', message: 'is not the code of this moment' }
  ])

/** Two groups of five; each of its 31 letters as likely as the others. */
function spareCode(): string {
  const letters: string[] = []
  while (letters.length < 10)
    for (const byte of randomBytes(16))
      if (letters.length < 10 && byte < 248) letters.push(SPARE_LETTERS[byte % SPARE_LETTERS.length]!)
  return `${letters.slice(0, 5).join('')}-${letters.slice(5).join('')}`
}

/** As it is compared: however it is written. */
const plain = (code: string) => code.toLowerCase().replace(/[^a-z0-9]/g, '')

async function noted(
  tx: Transaction,
  by: number,
  action: 'secondStep.turnedOn' | 'secondStep.turnedOff' | 'secondStep.spareUsed',
  of = by
): Promise<void> {
  await logEvent(tx, { at: await campusNow(tx), account: by, student: null, action, after: { account: of } })
}
