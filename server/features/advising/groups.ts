/** Planning with a group: what is offered to each is a suggestion and an agreed line of their own. */
import { asc, desc, eq, inArray } from 'drizzle-orm'
import { alignSequence, plan } from '#core/route'
import { courseCode, studentId, termCode, type CourseCode, type StudentId } from '#core/ids'
import type { PlannedCourse } from '#core/degree'
import type { Instant } from '#core/time'
import { all, inTransaction, type Database, type Reader, type Transaction } from '#server/db/connect'
import { groupBy } from '#server/db/groupBy'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { courseIds, termRow } from '#server/features/catalog/catalog'
import { lockStudent } from '#server/features/record/lock'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import type { GroupMember, GroupSession } from '#shared/advising/groups'
import type { GroupSaid } from '#shared/advising/requests'
import type { CatalogContext } from '#shared/catalog/context'
import { readStudent, type Reading } from '#shared/reading'
import type { StudentRecord } from '#shared/record/responses'
import { advisedBy } from './advisedBy'
import { addAgreed } from './agreed'
import { suggest } from './suggestions'

interface Planning {
  who: Who
  now: Instant
  catalogContext: CatalogContext
}

/**
 * Offers the same to several students of an advisor. Each has a transaction of its own: what cannot be offered to one is
 * said of that one, and keeps nobody else from it.
 *
 * @throws Refused where one of them is not advised by whoever asks, or there is no such course
 */
export async function planWithGroup(
  db: Database,
  { who, now, catalogContext }: Planning,
  said: GroupSaid
): Promise<{ group: number }> {
  const own = new Set((await advisedBy(db, who.id)).map((one) => one.student))
  const stranger = said.students.findIndex((id) => !own.has(id))
  if (stranger >= 0)
    throw new Refused(422, 'notYours', 'One of them is not a student of yours.', [
      { field: `students.${stranger}`, message: 'has to be a student of yours' }
    ])
  await courseIds(db, said.courses)
  const term = await termRow(db, said.term)
  const group = await inTransaction(db, async (tx) => {
    const { title, courses, sequence, task } = said
    const values = { byId: who.id, title, termId: term.id, courses, sequence, madeAt: new Date(now) }
    const [made] = await tx
      .insert(t.groupSession)
      .values({ ...values, task: task?.what ?? null, dueOn: task?.due ?? null })
      .$returningId()
    return made!.id
  })
  for (const id of said.students)
    await inTransaction(db, (tx) => offerTo(tx, { who, now, catalogContext }, group, studentId(id), said))
  return { group }
}

async function offerTo(
  tx: Transaction,
  { who, now, catalogContext }: Planning,
  group: number,
  student: StudentId,
  said: GroupSaid
): Promise<void> {
  await lockStudent(tx, student)
  const [record] = await readStudentRecords(tx, [student], 'programAdvisor')
  const { planned, without } = offeredTo(record!, catalogContext, said, now)
  const doing = { who, student, now }
  const [advised] = await advisedBy(tx, who.id, student)
  const relation = advised?.purpose === 'program' ? 'programAdvisor' : 'supportAdvisor'
  const change = {
    kind: 'several' as const,
    changes: planned.map((one) => ({ kind: 'add' as const, planned: one }))
  }
  const suggestion = planned.length
    ? await suggest(
        tx,
        { ...doing, zone: catalogContext.zone },
        relation,
        { route: null, version: record!.route.version, change, why: said.title },
        'told'
      )
    : null
  const line = said.task
    ? await addAgreed(tx, doing, { what: said.task.what, who: 'student', due: said.task.due })
    : null
  await tx.insert(t.groupMember).values({
    sessionId: group,
    studentId: student,
    suggestionId: suggestion?.suggestion ?? null,
    agreedId: line?.line ?? null,
    without
  })
  await logEvent(tx, {
    at: now,
    account: who.id,
    student,
    action: 'group.offered',
    after: {
      ...{ group, title: said.title, term: said.term, by: who.name },
      ...{
        courses: planned.map((one) => one.course),
        task: said.task?.what ?? null,
        due: said.task?.due ?? null
      }
    }
  })
}

/** What of it a student neither has nor plans yet; the rest is named. */
function offeredTo(
  record: StudentRecord,
  catalogContext: CatalogContext,
  { term: code, courses, sequence }: GroupSaid,
  now: Instant
): { planned: PlannedCourse[]; without: CourseCode[] } {
  const reading = readStudent(record, catalogContext, now)
  const wanted = [...new Set([...courses, ...(sequence ? suggestedIn(record, reading, code) : [])])]
  const known = new Set([...reading.attempts.counted, ...record.route.courses].map((one) => one.course))
  const has = (course: CourseCode) => catalogContext.catalog.sameAs(course).some((same) => known.has(same))
  return {
    planned: wanted.filter((one) => !has(one)).map((one) => plan(catalogContext.catalog.course(one), code)),
    without: wanted.filter(has)
  }
}

/** Courses that the first program suggests for a term, from where the student stands. */
function suggestedIn({ programs }: StudentRecord, { context }: Reading, term: string): CourseCode[] {
  const suggested = programs[0]?.spec.suggested
  if (!suggested) return []
  return alignSequence(context, suggested)
    .placed.filter(({ planned }) => planned.term === term)
    .map(({ planned }) => planned.course)
}

/** Groups that somebody has planned with, the last first, and how they stand. */
export async function readGroups(db: Reader, who: Who): Promise<GroupSession[]> {
  const sessions = await db
    .select({ session: t.groupSession, term: t.term.code })
    .from(t.groupSession)
    .innerJoin(t.term, eq(t.term.id, t.groupSession.termId))
    .where(eq(t.groupSession.byId, who.id))
    .orderBy(desc(t.groupSession.id))
  if (!sessions.length) return []
  const own = new Set((await advisedBy(db, who.id)).map((one) => one.student))
  const rows = await db
    .select({
      member: t.groupMember,
      name: t.account.name,
      state: t.suggestion.state,
      doneAt: t.agreed.doneAt,
      droppedAt: t.agreed.droppedAt
    })
    .from(t.groupMember)
    .innerJoin(t.student, eq(t.student.id, t.groupMember.studentId))
    .innerJoin(t.account, eq(t.account.id, t.student.accountId))
    .leftJoin(t.suggestion, eq(t.suggestion.id, t.groupMember.suggestionId))
    .leftJoin(t.agreed, eq(t.agreed.id, t.groupMember.agreedId))
    .where(
      all(
        inArray(
          t.groupMember.sessionId,
          sessions.map(({ session }) => session.id)
        )
      )
    )
    .orderBy(asc(t.account.name), asc(t.student.id))
  const members = groupBy(rows, (row) => row.member.sessionId)
  return sessions.map(({ session: one, term }): GroupSession => ({
    id: one.id,
    title: one.title,
    term: termCode(term),
    courses: one.courses.map(courseCode),
    sequence: one.sequence,
    task: one.task === null ? null : { what: one.task, due: one.dueOn },
    madeAt: one.madeAt.getTime(),
    members: (members.get(one.id) ?? [])
      .filter(({ member }) => own.has(member.studentId))
      .map(({ member, name, state, doneAt, droppedAt }): GroupMember => ({
        id: studentId(member.studentId),
        name,
        courses: state,
        done: member.agreedId === null || droppedAt ? null : doneAt !== null,
        without: member.without
      }))
  }))
}
