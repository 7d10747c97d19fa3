/** Accounts of the staff: who has one, invited by a link that sets a password once, and ended. */
import { asc, count, eq, gt, inArray, isNull, ne } from 'drizzle-orm'
import { all, inTransaction, type Database, type Reader, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { handOnOrphans } from '#server/features/advising/requestAnswers'
import { officesOf } from '#server/features/offices/holds'
import { campusNow } from '#server/gateways/clock'
import { Refused } from '#server/http/problem'
import { theSettings } from '#server/settings'
import type { Invited } from '#shared/accounts/requests'
import type { StaffAccounts, Who } from '#shared/accounts/responses'
import { count as counted } from '#shared/words'
import { easyToGuess, weakPassword, whoIs } from './accounts'
import { hashOf } from './keyHash'
import { linkFor, readStudentSignIns } from './links'
import { dropSecondStep } from './secondStep'
import { newHash } from './password'

/** The name to sign in with of the first of the office. */
const FIRST = 'registrar'

export async function readStaff(
  db: Reader,
  now = Date.now(),
  signsOn = theSettings().signOn !== undefined
): Promise<StaffAccounts> {
  const rows = await db
    .select({
      account: t.account,
      link: t.invitation.expiresAt,
      instructor: t.instructor.name,
      department: t.department.name
    })
    .from(t.account)
    .leftJoin(t.invitation, eq(t.invitation.accountId, t.account.id))
    .leftJoin(t.instructor, eq(t.instructor.id, t.account.instructorId))
    .leftJoin(t.department, eq(t.department.id, t.account.departmentId))
    .leftJoin(t.serviceToken, eq(t.serviceToken.accountId, t.account.id))
    .where(all(ne(t.account.role, 'student'), isNull(t.serviceToken.id)))
    .orderBy(asc(t.account.name), asc(t.account.id))
  const advising = await db
    .select({ account: t.advisor.accountId, students: count() })
    .from(t.advising)
    .innerJoin(t.advisor, eq(t.advisor.id, t.advising.advisorId))
    .groupBy(t.advisor.accountId)
  const advises = new Map(advising.map((row) => [row.account, row.students]))
  return {
    people: rows.map(({ account, link, instructor, department }) => ({
      ...{
        id: account.id,
        name: account.name,
        signIn: account.signIn,
        role: account.role,
        mail: account.mail
      },
      state: account.endedAt ? 'ended' : account.passwordHash || signsOn ? 'active' : 'invited',
      linkUntil: link && link.getTime() > now ? link.getTime() : null,
      actsFor: instructor ?? department ?? account.office,
      advises: advises.get(account.id) ?? 0
    })),
    instructors: await db
      .select({ id: t.instructor.id, name: t.instructor.name })
      .from(t.instructor)
      .orderBy(asc(t.instructor.name)),
    departments: await db
      .select({ id: t.department.id, name: t.department.name })
      .from(t.department)
      .orderBy(asc(t.department.name)),
    offices: await officesOf(db),
    students: await readStudentSignIns(db, now)
  }
}

/**
 * Makes an account that has no password yet.
 *
 * @throws Refused where the name to sign in with is somebody's, or it is not said whom they act for
 * @returns the key of the link by which the password is set
 */
export async function invite(tx: Transaction, who: Who, said: Invited): Promise<string> {
  const { name, signIn, role, mail } = said
  const [taken] = await tx
    .select({ id: t.account.id })
    .from(t.account)
    .where(eq(t.account.signIn, signIn))
    .for('update')
  if (taken)
    throw new Refused(409, 'nameTaken', `Somebody signs in as ${signIn} already.`, [
      { field: 'signIn', message: 'has to be a name that nobody has' }
    ])
  const instructorId = role === 'instructor' ? await mustBeThere(tx, 'instructor', said.instructor) : null
  const departmentId = role === 'department' ? await mustBeThere(tx, 'department', said.department) : null
  const office = role === 'office' ? said.office : null
  if (role === 'office' && !(await officesOf(tx)).includes(office ?? ''))
    throw new Refused(422, 'actsForNobody', 'For this role it has to be said for which office.', [
      { field: 'office', message: 'has to be an office that a kind of hold names' }
    ])
  const id = await addAccount(tx, { name, signIn, role, mail, instructorId, departmentId, office })
  await logEvent(tx, {
    ...{ at: await campusNow(tx), account: who.id, student: null, action: 'account.invited' },
    after: { account: id, name, signIn, role }
  })
  return linkFor(tx, id)
}

/** An account without a password, and whoever advises as an advisor. @returns its number */
export async function addAccount(
  tx: Transaction,
  account: Omit<typeof t.account.$inferInsert, 'passwordHash'>
): Promise<number> {
  const [made] = await tx
    .insert(t.account)
    .values({ ...account, passwordHash: '' })
    .$returningId()
  const { id } = made!
  const contact = { kind: 'person', office: '', mail: account.mail ?? '', phone: '', hours: '' } as const
  if (account.role === 'programAdvisor' || account.role === 'supportAdvisor')
    await tx.insert(t.advisor).values({ accountId: id, ...contact })
  return id
}

/**
 * A link for the first of the registrar's office, by whom all others are invited; the one before holds no more.
 *
 * @returns its key; undefined where somebody of the office signs in already
 */
export async function inviteFirst(db: Database): Promise<string | undefined> {
  return inTransaction(db, async (tx) => {
    const ofOffice = await tx
      .select()
      .from(t.account)
      .where(all(eq(t.account.role, 'registrar'), isNull(t.account.endedAt)))
      .orderBy(asc(t.account.id))
      .for('update')
    if (ofOffice.some((one) => one.passwordHash)) return undefined
    const first = ofOffice.find((one) => one.signIn === FIRST)
    if (first) return linkFor(tx, first.id)
    const id = await addAccount(tx, { name: "Registrar's office", signIn: FIRST, role: 'registrar' })
    await logEvent(tx, {
      ...{ at: await campusNow(tx), account: null, student: null, action: 'account.invited' },
      after: { account: id, signIn: FIRST, role: 'registrar' }
    })
    return linkFor(tx, id)
  })
}

/**
 * A new link for an account: for somebody whose link has run out, who lost the password, or who comes back; the second step is
 * off by it. A student is told that there is one.
 */
export async function inviteAgain(tx: Transaction, who: Who, id: number): Promise<string> {
  const account = await mustBePersonal(tx, id)
  const [student] = await tx.select({ id: t.student.id }).from(t.student).where(eq(t.student.accountId, id))
  if (account.endedAt)
    await tx.update(t.account).set({ endedAt: null, passwordHash: '' }).where(eq(t.account.id, id))
  await logEvent(tx, {
    ...{ at: await campusNow(tx), account: who.id, student: student?.id ?? null, action: 'account.invited' },
    after: { account: id, name: account.name, signIn: account.signIn, role: account.role }
  })
  // The office knows whom it hands the link to: who lost the app with the password comes in again.
  await dropSecondStep(tx, id, who.id)
  return linkFor(tx, id)
}

/** Whoever has the account signs in no more; requests that waited for them alone are handed on. @throws Refused for oneself, the last of the office, and who advises */
export async function endAccount(tx: Transaction, who: Who, id: number): Promise<void> {
  // Two of the office who end each other wait here for one another.
  const office = await tx
    .select({ id: t.account.id })
    .from(t.account)
    .where(all(eq(t.account.role, 'registrar'), isNull(t.account.endedAt), ne(t.account.passwordHash, '')))
    .orderBy(asc(t.account.id))
    .for('update')
  const account = await mustBeStaff(tx, id)
  if (id === who.id) throw new Refused(422, 'oneself', 'Somebody else of the office has to end your account.')
  if (!office.some((one) => one.id === who.id))
    throw new Refused(409, 'endedMeanwhile', 'Your own account was ended in the meantime.')
  const [advising] = await tx
    .select({ students: count() })
    .from(t.advising)
    .innerJoin(t.advisor, eq(t.advisor.id, t.advising.advisorId))
    .where(eq(t.advisor.accountId, id))
  if (advising!.students)
    throw new Refused(
      409,
      'advises',
      `${account.name} advises ${counted(advising!.students, 'student')}. They have to be handed over first.`
    )
  const at = await campusNow(tx)
  await tx
    .update(t.account)
    .set({ endedAt: new Date(at) })
    .where(eq(t.account.id, id))
  await tx.delete(t.invitation).where(eq(t.invitation.accountId, id))
  await logEvent(tx, {
    ...{ at, account: who.id, student: null, action: 'account.ended' },
    after: { account: id, name: account.name, signIn: account.signIn, role: account.role }
  })
  await handOnOrphans(tx, { who, now: at })
}

/** Whose password the link sets. @throws Refused where it was used, has run out, or never was one */
export async function invited(
  db: Reader,
  key: string,
  now = Date.now()
): Promise<typeof t.account.$inferSelect> {
  const [row] = await db
    .select({ account: t.account })
    .from(t.invitation)
    .innerJoin(t.account, eq(t.account.id, t.invitation.accountId))
    .where(all(eq(t.invitation.keyHash, hashOf(key)), gt(t.invitation.expiresAt, new Date(now))))
  if (!row)
    throw new Refused(
      404,
      'noLink',
      "This link was used, or has run out. The registrar's office gives another one."
    )
  return row.account
}

/** Sets the password, once. @throws Refused where it is easy to guess */
export async function join(db: Database, key: string, next: string): Promise<Who> {
  const account = await invited(db, key)
  const guessed = await easyToGuess(db, account, next)
  if (guessed) throw weakPassword(guessed)
  const passwordHash = await newHash(next)
  await inTransaction(db, async (tx) => {
    await tx.select().from(t.invitation).where(eq(t.invitation.accountId, account.id)).for('update')
    // Somebody may have been faster with the same link.
    await invited(tx, key)
    await tx.delete(t.invitation).where(eq(t.invitation.accountId, account.id))
    await tx.update(t.account).set({ passwordHash }).where(eq(t.account.id, account.id))
    const at = await campusNow(tx)
    await logEvent(tx, { at, account: account.id, student: null, action: 'account.joined' })
  })
  return whoIs(db, account.id)
}

async function mustBeStaff(tx: Transaction, id: number) {
  const account = await mustBePersonal(tx, id)
  if (account.role === 'student')
    throw new Refused(404, 'noAccount', 'There is no such account of the staff.')
  return account
}

/** Of somebody, and not of a program with a token. @throws Refused */
async function mustBePersonal(tx: Transaction, id: number) {
  const [account] = await tx.select().from(t.account).where(eq(t.account.id, id)).for('update')
  const [ofToken] = await tx.select().from(t.serviceToken).where(eq(t.serviceToken.accountId, id))
  if (!account || ofToken) throw new Refused(404, 'noAccount', 'There is no such account.')
  return account
}

async function mustBeThere(
  tx: Transaction,
  field: 'instructor' | 'department',
  id: number | null
): Promise<number> {
  const table = field === 'instructor' ? t.instructor : t.department
  const [row] =
    id === null
      ? []
      : await tx
          .select({ id: table.id })
          .from(table)
          .where(inArray(table.id, [id]))
  if (!row)
    throw new Refused(422, 'actsForNobody', `For this role it has to be said for which ${field}.`, [
      { field, message: 'has to be named' }
    ])
  return row.id
}
