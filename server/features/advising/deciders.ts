/** Who decides a request: by the institution's policy, among those who have to do with what it is about. */
import { eq, isNotNull, isNull, or } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import { all, type Reader } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import type { Who } from '#shared/accounts/responses'
import { asDecider, USUAL_POLICY, type Decider, type RequestPolicy } from '#shared/advising/asking'
import { programAdvisorsOf } from './advisedBy'

export type RequestRow = typeof t.request.$inferSelect
export type AboutRequest = Pick<typeof t.request.$inferInsert, 'studentId' | 'sectionId' | 'courseId'>

export async function readPolicy(db: Reader): Promise<RequestPolicy> {
  const [row] = await db.select({ policy: t.institution.requestPolicy }).from(t.institution)
  return { ...USUAL_POLICY, ...row?.policy }
}

/** Accounts that would decide a request in one of the capacities. */
export async function accountsOf(db: Reader, about: AboutRequest, decider: Decider): Promise<number[]> {
  const rows = await {
    registrar: () =>
      db
        .select({ id: t.account.id })
        .from(t.account)
        .where(all(eq(t.account.role, 'registrar'), isNull(t.account.endedAt))),
    programAdvisor: () => programAdvisorsOf(db, about.studentId),
    instructor: () => instructorsOf(db, about),
    department: () => departmentOf(db, about)
  }[decider]()
  return rows.map((row) => row.id)
}

/** Who teaches the section, or the one that it is a component of. */
async function instructorsOf(db: Reader, { sectionId }: AboutRequest): Promise<{ id: number }[]> {
  if (!sectionId) return []
  const asked = alias(t.section, 'asked')
  return db
    .select({ id: t.account.id })
    .from(asked)
    .innerJoin(
      t.sectionInstructor,
      or(eq(t.sectionInstructor.sectionId, asked.id), eq(t.sectionInstructor.sectionId, asked.parentId))
    )
    .innerJoin(t.account, eq(t.account.instructorId, t.sectionInstructor.instructorId))
    .where(all(eq(asked.id, sectionId), isNull(t.account.endedAt)))
}

async function departmentOf(db: Reader, { sectionId, courseId }: AboutRequest): Promise<{ id: number }[]> {
  if (!sectionId && !courseId) return []
  const course = sectionId
    ? db.select({ id: t.section.courseId }).from(t.section).where(eq(t.section.id, sectionId))
    : db.select({ id: t.course.id }).from(t.course).where(eq(t.course.id, courseId!))
  const [found] = await course
  return db
    .select({ id: t.account.id })
    .from(t.course)
    .innerJoin(t.subject, eq(t.subject.id, t.course.subjectId))
    .innerJoin(t.account, eq(t.account.departmentId, t.subject.departmentId))
    .where(all(eq(t.course.id, found!.id), isNotNull(t.subject.departmentId), isNull(t.account.endedAt)))
}

/** The capacities in which there is somebody to decide a request. */
export async function decidersFor(db: Reader, about: AboutRequest): Promise<Set<Decider>> {
  const found = new Set<Decider>(['registrar'])
  for (const one of ['programAdvisor', 'instructor', 'department'] as const)
    if ((await accountsOf(db, about, one)).length) found.add(one)
  return found
}

/** As whom somebody has to do with a request; undefined where it is none of their business. */
export async function deciderFor(
  db: Reader,
  { id, role }: Pick<Who, 'id' | 'role'>,
  about: AboutRequest
): Promise<Decider | undefined> {
  const as = asDecider(role)
  return as && (await accountsOf(db, about, as)).includes(id) ? as : undefined
}
