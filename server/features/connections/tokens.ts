/**
 * Tokens: a program of an office asks with a key, in a name of its own, for what the token is for. It has an account as
 * whoever signs in has, so that the log and the student see its name; nobody signs in with that account. Times are the
 * machine's.
 */
import { randomBytes } from 'node:crypto'
import { desc, eq, getTableColumns, isNull, or, lt } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import type { Instant } from '#core/time'
import { all, untilThrough, type Reader, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { findWho } from '#server/features/accounts/accounts'
import { hashOf } from '#server/features/accounts/keyHash'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import type { TokenSaid } from '#shared/connections/requests'
import type { ServiceToken, TokenMade } from '#shared/connections/responses'
import type { Scope } from '#shared/connections/scopes'

const DAY_MS = 86_400_000
/** The last use is noted no more often than this. */
const NOTED_MS = 60_000
/** By which a key is known for one of ours, wherever it is found. */
const PREFIX = 'ridgeway_'
const KEY_BYTES = 32

/** All of them, the latest first. */
export async function readTokens(db: Reader, machineNow: number): Promise<ServiceToken[]> {
  const maker = alias(t.account, 'maker')
  const rows = await db
    .select({ token: getTableColumns(t.serviceToken), account: t.account, madeBy: maker.name })
    .from(t.serviceToken)
    .innerJoin(t.account, eq(t.account.id, t.serviceToken.accountId))
    .innerJoin(maker, eq(maker.id, t.serviceToken.madeById))
    .orderBy(desc(t.serviceToken.id))
  return rows.map(({ token, account, madeBy }) => ({
    ...{ id: token.id, name: account.name, scopes: token.scopes, madeBy },
    madeAt: token.madeAt.getTime(),
    until: token.expiresAt.getTime(),
    usedAt: token.usedAt?.getTime() ?? null,
    state: account.endedAt ? 'ended' : token.expiresAt.getTime() <= machineNow ? 'ranOut' : 'holds'
  }))
}

/** @returns the key, told once: only its hash is kept */
export async function makeToken(
  tx: Transaction,
  { who, now, machineNow }: { who: Who; now: Instant; machineNow: number },
  { name, scopes, days }: TokenSaid
): Promise<TokenMade> {
  const key = PREFIX + randomBytes(KEY_BYTES).toString('base64url')
  const keyHash = hashOf(key)
  const [account] = await tx
    .insert(t.account)
    .values({ name, signIn: `token ${keyHash.slice(0, 40)}`, role: 'registrar', passwordHash: '' })
    .$returningId()
  const [made] = await tx
    .insert(t.serviceToken)
    .values({
      ...{ accountId: account!.id, keyHash, scopes, madeById: who.id, madeAt: new Date(machineNow) },
      expiresAt: new Date(machineNow + days * DAY_MS)
    })
    .$returningId()
  const after = { token: made!.id, name, scopes, days }
  await logEvent(tx, { at: now, account: who.id, student: null, action: 'token.made', after })
  return { token: made!.id, key }
}

/** It holds no more, from the next request on. @throws Refused where there is none that holds */
export async function endToken(tx: Transaction, who: Who, id: number, now: Instant): Promise<void> {
  const [row] = await tx
    .select({ account: t.account })
    .from(t.serviceToken)
    .innerJoin(t.account, eq(t.account.id, t.serviceToken.accountId))
    .where(eq(t.serviceToken.id, id))
    .for('update')
  if (!row) throw new Refused(404, 'noToken', 'There is no such token.')
  if (row.account.endedAt) throw new Refused(409, 'endedAlready', 'This token was ended already.')
  await tx
    .update(t.account)
    .set({ endedAt: new Date(now) })
    .where(eq(t.account.id, row.account.id))
  const before = { token: id, name: row.account.name }
  await logEvent(tx, { at: now, account: who.id, student: null, action: 'token.ended', before })
}

/** Who asks with a key, and what for; undefined where the key is none that holds. */
export async function whoseToken(
  db: Reader,
  key: string,
  machineNow: number
): Promise<{ who: Who; scopes: readonly Scope[] } | undefined> {
  const [row] = await db
    .select()
    .from(t.serviceToken)
    .where(eq(t.serviceToken.keyHash, hashOf(key)))
  if (!row || row.expiresAt.getTime() <= machineNow) return undefined
  const who = await findWho(db, row.accountId)
  if (!who) return undefined
  const noted = new Date(machineNow - NOTED_MS)
  if (!row.usedAt || row.usedAt < noted)
    await untilThrough(() =>
      db
        .update(t.serviceToken)
        .set({ usedAt: new Date(machineNow) })
        .where(
          all(
            eq(t.serviceToken.id, row.id),
            or(isNull(t.serviceToken.usedAt), lt(t.serviceToken.usedAt, noted))
          )
        )
    )
  return { who, scopes: row.scopes }
}
