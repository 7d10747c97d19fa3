/** Who signs in, and whose record they may read and write. */
import { asc, eq, isNotNull } from 'drizzle-orm'
import { studentId, type StudentId } from '#core/ids'
import type { StudentPicture, Who } from '#wire/picture'
import { all, type Reader } from '../../db/connect'
import { account, advising, advisor, student } from '../../db/schema'
import { Refused } from '../problem'
import { passwordMatches } from './password'

/** Verified against when no such account exists, so that the answer takes as long. */
const NOBODY = `scrypt$32768$8$1$${'A'.repeat(22)}$${'A'.repeat(43)}`

export async function signIn(db: Reader, name: string, password: string): Promise<Who> {
  const [row] = await db.select().from(account).where(eq(account.signIn, name.toLowerCase()))
  const matches = await passwordMatches(password, row?.passwordHash ?? NOBODY)
  if (!row || !matches) {
    throw new Refused(
      401,
      'signIn',
      'This name and password do not belong together. Check both and try again.',
      [{ field: 'password', message: 'does not belong to this name' }]
    )
  }
  return whoIs(db, row.id)
}

export async function whoIs(db: Reader, id: number): Promise<Who> {
  const [row] = await db
    .select({ id: account.id, name: account.name, role: account.role, student: student.id })
    .from(account)
    .leftJoin(student, eq(student.accountId, account.id))
    .where(eq(account.id, id))
  if (!row) throw new Refused(401, 'signedOut', 'You are signed out. Sign in again to go on.')
  return { ...row, student: row.student === null ? null : studentId(row.student) }
}

export type Relation = StudentPicture['relation']

/** How somebody stands to a record; undefined when it is none of their business. */
async function relationTo(db: Reader, who: Who, id: StudentId): Promise<Relation | undefined> {
  if (who.role === 'student') return who.student === id ? 'self' : undefined
  if (who.role === 'registrar') {
    const [there] = await db.select({ id: student.id }).from(student).where(eq(student.id, id))
    return there ? 'registrar' : undefined
  }
  const [row] = await db
    .select({ purpose: advising.purpose })
    .from(advising)
    .innerJoin(advisor, eq(advisor.id, advising.advisorId))
    .where(all(eq(advisor.accountId, who.id), eq(advising.studentId, id)))
  if (!row) return undefined
  return row.purpose === 'program' && who.role === 'programAdvisor' ? 'programAdvisor' : 'supportAdvisor'
}

/** The relation, when it is one of those wanted. A stranger learns nothing, not even that the record exists. */
export async function mustBe(db: Reader, who: Who, id: StudentId, ...wanted: Relation[]): Promise<Relation> {
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

export const ANYBODY: Relation[] = ['self', 'programAdvisor', 'supportAdvisor', 'registrar']

const NOT_ALLOWED: Record<Relation, string> = {
  self: 'Only your advisor can do this.',
  programAdvisor: 'Only the student can do this. You can write to them, or sign off their term.',
  supportAdvisor: 'Support advisors read and comment. The program advisor or the student can do this.',
  registrar: 'Only the student can do this.'
}

/** What only the registrar's office of the demo does: a college has its own system for it. @throws Refused */
export function mustBeDemoRegistrar(who: Who): void {
  if (process.env.RIDGEWAY_DEMO !== '1')
    throw new Refused(404, 'onlyInDemo', 'This is there in the demo only.')
  if (who.role !== 'registrar')
    throw new Refused(403, 'notAllowed', "Only the registrar's office of the demo can do this.")
}

/** Cards of the demo's sign-in page: people who stand for a situation. */
export async function demoPeople(db: Reader) {
  return db
    .select({ name: account.name, signIn: account.signIn, role: account.role, situation: account.situation })
    .from(account)
    .where(isNotNull(account.situation))
    .orderBy(asc(account.id))
}
