/** Who signs in, and how they stand to a record. */
import { asc, eq, isNotNull, isNull } from 'drizzle-orm'
import { studentId, type StudentId } from '#core/ids'
import type { Role, Who } from '#shared/accounts/responses'
import type { StudentRecord } from '#shared/record/responses'
import { all, inTransaction, untilThrough, type Database, type Reader } from '#server/db/connect'
import { account, institution, student } from '#server/db/schema/index'
import { advisedBy } from '#server/features/advising/advisedBy'
import { campusNow } from '#server/gateways/clock'
import { logAlone, logEvent } from '#server/db/log'
import { Refused } from '#server/http/problem'
import type { SignInAttempts } from './attempts'
import { checkPassword, newHash } from './password'
import { mustPassSecondStep } from './secondStep'

/** Signs somebody in who gives the right password. The time it takes does not tell whether there is such a name. */
export async function signIn(
  db: Database,
  attempts: Pick<SignInAttempts, 'begin' | 'wasRight'>,
  given: { name: string; password: string; code?: string | undefined; address: string }
): Promise<Who> {
  const { name } = given
  const [row] = await db.select().from(account).where(eq(account.signIn, name))
  // The database takes capitals, letters with accents and spaces at the end for the same; names match exactly.
  const known = row?.signIn === name && !row.endedAt ? row : undefined
  const { isRight, renewed } = await checkPassword(given.password, known?.passwordHash || undefined, () =>
    attempts.begin(name, given.address)
  ).catch(async (error: unknown) => {
    if (error instanceof Refused) await note(db, 'signIn.refused', known?.id, { code: error.code })
    throw error
  })
  if (!known || !isRight) {
    await note(db, 'signIn.refused', known?.id, { code: 'signIn' })
    throw new Refused(
      401,
      'signIn',
      'This name and password do not belong together. Check both and try again.',
      [{ field: 'password', message: 'does not belong to this name' }]
    )
  }
  await mustPassSecondStep(db, known.id, given.code).catch(async (error: unknown) => {
    if (error instanceof Refused) await note(db, 'signIn.refused', known.id, { code: error.code })
    throw error
  })
  await attempts.wasRight(name, given.address)
  if (renewed)
    await untilThrough(() =>
      db.update(account).set({ passwordHash: renewed }).where(eq(account.id, known.id))
    )
  await note(db, 'signIn.made', known.id)
  return whoIs(db, known.id)
}

/** Notes what somebody did about signing in; nobody knows who where there is no such name. */
export function note(
  db: Database,
  action: 'signIn.made' | 'signIn.refused' | 'signIn.ended',
  id: number | undefined,
  after?: unknown
): Promise<void> {
  return logAlone(db, { account: id ?? null, student: null, action, after })
}

/** What a password may not hold, beside names of the person and of the institution. */
const KNOWN_WORDS = ['ridgeway', 'password']

/**
 * Gives an account another password.
 *
 * @throws Refused where the present one is not right, or the next one is easy to guess
 */
export async function changePassword(
  db: Database,
  attempts: Pick<SignInAttempts, 'begin' | 'wasRight'>,
  who: Who,
  { present, next, address }: { present: string; next: string; address: string }
): Promise<void> {
  const row = await mustBePassword(db, attempts, who, { present, address })
  const guessed = next === present ? 'is the present one' : await easyToGuess(db, row, next)
  if (guessed) throw weakPassword(guessed)
  const passwordHash = await newHash(next)
  await inTransaction(db, async (tx) => {
    await tx.update(account).set({ passwordHash }).where(eq(account.id, who.id))
    const at = await campusNow(tx)
    await logEvent(tx, { at, account: who.id, student: null, action: 'password.changed' })
  })
}

/** Passes where somebody gives their present password. @throws Refused where it is another one */
export async function mustBePassword(
  db: Database,
  attempts: Pick<SignInAttempts, 'begin' | 'wasRight'>,
  who: Who,
  { present, address }: { present: string; address: string }
): Promise<typeof account.$inferSelect> {
  const [row] = await db.select().from(account).where(eq(account.id, who.id))
  const { isRight } = await checkPassword(present, row?.passwordHash, () =>
    attempts.begin(row!.signIn, address)
  )
  if (!row || !isRight)
    throw new Refused(422, 'wrongPassword', 'The present password is another one.', [
      { field: 'present', message: 'is not the password of this account' }
    ])
  await attempts.wasRight(row.signIn, address)
  return row
}

/** What makes a password of somebody easy to guess, as the end of a sentence. */
export async function easyToGuess(
  db: Reader,
  { signIn, name }: { signIn: string; name: string },
  password: string
): Promise<string | undefined> {
  const plain = password.toLowerCase()
  const [place] = await db.select({ name: institution.name }).from(institution)
  const names = `${signIn} ${name} ${place?.name ?? ''}`.toLowerCase().split(/[\s.]+/)
  const known = [...KNOWN_WORDS, ...names].find((word) => word.length > 3 && plain.includes(word))
  return known && `may not hold “${known}”: it is easy to guess`
}

export const weakPassword = (message: string) =>
  new Refused(422, 'weakPassword', `The new password ${message}.`, [{ field: 'next', message }])

export async function findWho(db: Reader, id: number): Promise<Who | undefined> {
  const [row] = await db
    .select({ id: account.id, name: account.name, role: account.role, student: student.id })
    .from(account)
    .leftJoin(student, eq(student.accountId, account.id))
    .where(all(eq(account.id, id), isNull(account.endedAt)))
  return row && { ...row, student: row.student === null ? null : studentId(row.student) }
}

export async function whoIs(db: Reader, id: number): Promise<Who> {
  const who = await findWho(db, id)
  if (!who) throw signedOut()
  return who
}

export const signedOut = () => new Refused(401, 'signedOut', 'You are signed out. Sign in again to go on.')

export type Relation = StudentRecord['relation']

/** How somebody stands to a record; undefined when it is none of their business. */
async function relationTo(db: Reader, who: Who, id: StudentId): Promise<Relation | undefined> {
  if (who.role === 'student') return who.student === id ? 'self' : undefined
  if (who.role === 'registrar') {
    const [there] = await db.select({ id: student.id }).from(student).where(eq(student.id, id))
    return there ? 'registrar' : undefined
  }
  const [row] = await advisedBy(db, who.id, id)
  if (!row) return undefined
  return row.purpose === 'program' && who.role === 'programAdvisor' ? 'programAdvisor' : 'supportAdvisor'
}

/** The relation, when it is one of those wanted. A stranger learns nothing, not even that the record exists. */
export async function mustBe(
  db: Reader,
  who: Who,
  id: StudentId,
  wanted: readonly Relation[]
): Promise<Relation> {
  const relation = await relationTo(db, who, id)
  if (!relation)
    throw new Refused(
      403,
      'notYours',
      'You may not open this record. It belongs to a student who is not yours.'
    )
  if (!wanted.includes(relation)) throw new Refused(403, 'notAllowed', NOT_ALLOWED[relation])
  return relation
}

const NOT_ALLOWED: Record<Relation, string> = {
  self: 'Only your advisor can do this.',
  programAdvisor: 'Only the student can do this. You can write to them, or sign off their term.',
  supportAdvisor: 'Support advisors read and comment. The program advisor or the student can do this.',
  registrar: 'Only the student can do this.'
}

/** @throws Refused for a role that is not one of those wanted */
export function mustHaveRole({ role }: Who, wanted: readonly Role[]): void {
  if (wanted.includes(role)) return
  const offices = wanted.length === 1 && wanted[0] === 'registrar'
  throw new Refused(
    403,
    'notAllowed',
    offices ? "Only the registrar's office can do this." : 'This is not for you: it belongs to others.'
  )
}

/** Cards of the demo's sign-in page: people who stand for a situation. */
export async function demoPeople(db: Reader) {
  return db
    .select({ name: account.name, signIn: account.signIn, role: account.role, situation: account.situation })
    .from(account)
    .where(isNotNull(account.situation))
    .orderBy(asc(account.id))
}
