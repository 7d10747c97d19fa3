/**
 * Who is signed in, and where. A browser holds a random key, the database its hash: what leaks from there signs nobody
 * in. Times are the machine's, whatever the campus clock says.
 *
 * Every request asks, so what was read is remembered for two seconds; what ends here ends at once, what ends on another
 * server within that time.
 */
import { randomBytes } from 'node:crypto'
import { desc, eq, lt, ne } from 'drizzle-orm'
import type { Role, SignedInAt, Who } from '#shared/accounts/responses'
import { all, untilThrough, type Reader } from '#server/db/connect'
import { signedIn } from '#server/db/schema/index'
import { findWho } from './accounts'
import { hashOf } from './keyHash'
import { needsSecondStep } from './secondStep'

const HOUR = 3_600_000
/** How long somebody stays signed in without a request, and in all: from one evening over the morning for students. */
const LIMITS: Record<Role, { idle: number; whole: number }> = {
  student: { idle: 16 * HOUR, whole: 7 * 24 * HOUR },
  programAdvisor: { idle: 2 * HOUR, whole: 12 * HOUR },
  supportAdvisor: { idle: 2 * HOUR, whole: 12 * HOUR },
  registrar: { idle: 2 * HOUR, whole: 12 * HOUR },
  instructor: { idle: 2 * HOUR, whole: 12 * HOUR },
  department: { idle: 2 * HOUR, whole: 12 * HOUR },
  office: { idle: 2 * HOUR, whole: 12 * HOUR }
}
const LONGEST = Math.max(...Object.values(LIMITS).map(({ whole }) => whole))
const REMEMBERED_MS = 2000
/** The last request is noted no more often than this. */
const NOTED_MS = 60_000
const KEY_BYTES = 32

export interface Session {
  id: number
  who: Who
  signedInAt: number
  seenAt: number
  /** Until a second step is set up nothing else is answered. */
  needsSecondStep: boolean
}

const remembered = new Map<string, { session: Session; readAt: number }>()
/** Ended a moment ago: a read that was under way then does not bring one back. */
const ended = new Map<string, number>()
const listeners = new Map<number, Set<() => void>>()

/** The key of a new session, to be held by the browser. */
export async function openSession(
  db: Reader,
  account: number,
  browser: string,
  now = Date.now()
): Promise<string> {
  const key = randomBytes(KEY_BYTES).toString('base64url')
  const at = new Date(now)
  await untilThrough(() => db.delete(signedIn).where(all(lt(signedIn.signedInAt, new Date(now - LONGEST)))))
  await untilThrough(() =>
    db
      .insert(signedIn)
      .values({ accountId: account, keyHash: hashOf(key), signedInAt: at, seenAt: at, browser })
  )
  return key
}

/** The session of a key; undefined once it has ended. A stream that only looks is no `use` of it. */
export async function sessionOf(
  db: Reader,
  key: string,
  now = Date.now(),
  use = true
): Promise<Session | undefined> {
  const hash = hashOf(key)
  const known = remembered.get(hash)
  if (known && now - known.readAt < REMEMBERED_MS && isOpen(known.session, now)) return known.session
  remembered.delete(hash)
  const [row] = await db.select().from(signedIn).where(eq(signedIn.keyHash, hash))
  const who = row && (await findWho(db, row.accountId))
  if (!who) return undefined
  const session: Session = {
    ...{ id: row.id, who, signedInAt: row.signedInAt.getTime(), seenAt: row.seenAt.getTime() },
    needsSecondStep: await needsSecondStep(db, who)
  }
  if (!isOpen(session, now)) {
    await endSessions(db, eq(signedIn.id, row.id))
    return undefined
  }
  if (use && now - session.seenAt > NOTED_MS) {
    session.seenAt = now
    await untilThrough(() =>
      db
        .update(signedIn)
        .set({ seenAt: new Date(now) })
        .where(eq(signedIn.id, row.id))
    )
  }
  if (ended.has(hash)) return undefined
  if (!use) return session
  forgetOld(now)
  remembered.set(hash, { session, readAt: now })
  return session
}

function isOpen({ who, signedInAt, seenAt }: Session, now: number): boolean {
  const { idle, whole } = LIMITS[who.role]
  return now - seenAt < idle && now - signedInAt < whole
}

/** What is remembered stays small: nobody who has left is kept. */
function forgetOld(now: number): void {
  for (const [hash, { readAt }] of remembered) if (now - readAt >= REMEMBERED_MS) remembered.delete(hash)
  for (const [hash, at] of ended) if (now - at >= NOTED_MS) ended.delete(hash)
}

/** What was read of an account's sessions is read anew. */
export function forgetSessions(account: number): void {
  for (const [hash, { session }] of remembered) if (session.who.id === account) remembered.delete(hash)
}

/** The longest that a browser has to keep its key, in seconds. */
export const keptFor = (role: Role): number => LIMITS[role].whole / 1000

/** Where an account is signed in, the latest first. */
export async function listSessions(db: Reader, { who, id }: Session): Promise<SignedInAt[]> {
  const rows = await db
    .select()
    .from(signedIn)
    .where(eq(signedIn.accountId, who.id))
    .orderBy(desc(signedIn.seenAt), desc(signedIn.id))
  return rows.map((row) => ({
    id: row.id,
    browser: row.browser,
    signedInAt: row.signedInAt.getTime(),
    seenAt: row.seenAt.getTime(),
    here: row.id === id
  }))
}

/** Ends one session of an account; whether there was one. */
export function endSession(db: Reader, account: number, id: number): Promise<number> {
  return endSessions(db, all(eq(signedIn.accountId, account), eq(signedIn.id, id)))
}

/** Ends all sessions of an account, but for one. */
export function endOthers(db: Reader, account: number, but: number): Promise<number> {
  return endSessions(db, all(eq(signedIn.accountId, account), ne(signedIn.id, but)))
}

export function endAll(db: Reader, account: number): Promise<number> {
  return endSessions(db, eq(signedIn.accountId, account))
}

async function endSessions(db: Reader, which: ReturnType<typeof all>): Promise<number> {
  const rows = await db
    .select({ id: signedIn.id, keyHash: signedIn.keyHash })
    .from(signedIn)
    .where(all(which))
  await untilThrough(() => db.delete(signedIn).where(all(which)))
  for (const { id, keyHash } of rows) {
    ended.set(keyHash, Date.now())
    remembered.delete(keyHash)
    for (const told of listeners.get(id) ?? []) told()
  }
  return rows.length
}

/** Tells when a session is ended on this server, until the returned function is called. */
export function whenEnded(id: number, told: () => void): () => void {
  const here = listeners.get(id) ?? new Set()
  listeners.set(id, here)
  here.add(told)
  return () => {
    here.delete(told)
    if (!here.size) listeners.delete(id)
  }
}
