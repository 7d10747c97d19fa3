/** Permissions to set a rule aside for a section: asked for from a refusal, handed on, decided, withdrawn. */
import { courseCode, studentId, termCode, type SectionCode, type StudentId } from '#core/ids'
import { choiceOf, permissionFor } from '#core/registration'
import { all, type Reader, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { lockStudent } from '#server/features/record/lock'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { readSheet } from '#server/features/registration/sheet'
import type { ActorContext } from '#server/features/route/route'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import { mayDecide, type WaitingRequest } from '#shared/advising/permissions'
import type { PermissionAnswer, PermissionAsked } from '#shared/advising/requests'
import type { Shelf } from '#shared/catalog/shelf'
import { standsUntil } from './days'
import { alias } from 'drizzle-orm/mysql-core'
import { asc, eq, inArray } from 'drizzle-orm'

/** Asks for a permission that would settle what stands in the way of a line of the run sheet. */
export async function askPermission(
  tx: Transaction,
  { who, student, now }: ActorContext,
  { section: code, kind, reason }: PermissionAsked,
  shelf: Shelf
): Promise<{ permission: number }> {
  await lockStudent(tx, student)
  const [section] = await tx
    .select({ id: t.section.id, term: t.term.code })
    .from(t.section)
    .innerJoin(t.term, eq(t.term.id, t.section.termId))
    .where(eq(t.section.code, code))
  if (!section)
    throw new Refused(422, 'noSection', `There is no section ${code}.`, [
      { field: 'section', message: 'has to be the code of a section' }
    ])
  const [record] = await readStudentRecords(tx, [student], 'self')
  const sheet = await readSheet(tx, record!, shelf, termCode(section.term), now)
  const against = sheet.lines
    .flatMap((line) => {
      const option =
        line.sections &&
        choiceOf(
          line.sections,
          line.sections.map((one) => one.code)
        )
      return option ? line.refusals.map((refusal) => ({ refusal, option })) : []
    })
    .find(({ refusal, option }) => {
      const settles = permissionFor(refusal, option)
      return settles?.kind === kind && settles.section === code
    })?.refusal
  if (!against)
    throw new Refused(422, 'nothingToSettle', `Nothing that it would settle stands in the way of ${code}.`, [
      { field: 'kind', message: 'has to settle what stands in the way of a line of the run sheet' }
    ])
  const [before] = await tx
    .select({ state: t.permission.state })
    .from(t.permission)
    .where(
      all(
        eq(t.permission.studentId, student),
        eq(t.permission.sectionId, section.id),
        eq(t.permission.kind, kind),
        eq(t.permission.state, 'asked')
      )
    )
  if (before) throw new Refused(409, 'askedAlready', 'It was asked for already and waits for an answer.')
  const values = { studentId: student, sectionId: section.id, kind, state: 'asked' as const, reason, against }
  const [made] = await tx
    .insert(t.permission)
    .values({ ...values, askedAt: new Date(now) })
    .$returningId()
  const after = { permission: made!.id, term: section.term, section: code, kind, reason }
  await logEvent(tx, { at: now, account: who.id, student, action: 'permission.asked', after })
  return { permission: made!.id }
}

/** Decides a request; what was given can be declined later and the other way round. */
export async function answerPermission(
  tx: Transaction,
  { who, student, now, zone, relation }: ActorContext & { relation: string },
  id: number,
  { answer, until, words }: PermissionAnswer
): Promise<void> {
  const { row, about } = await lockPermission(tx, student, id)
  if (!mayDecide(relation, row.kind))
    throw new Refused(
      422,
      'registrarDecides',
      'The registrar decides this in the name of the department. Hand it on.',
      [{ field: 'answer', message: 'has to be given by the registrar' }]
    )
  if (row.state === 'withdrawn') throw new Refused(409, 'withdrawn', 'It was withdrawn by the student.')
  const ends = answer === 'given' ? standsUntil(until, { now, zone }) : null
  await tx
    .update(t.permission)
    .set({ state: answer, byId: who.id, decidedAt: new Date(now), words, until: ends })
    .where(eq(t.permission.id, id))
  await logEvent(tx, {
    at: now,
    account: who.id,
    student,
    action: 'permission.answered',
    before: { state: row.state },
    after: { ...about, kind: row.kind, answer, words, until: ends?.getTime() ?? null }
  })
}

/** Hands a request on to the registrar. */
export async function forwardPermission(
  tx: Transaction,
  { who, student, now }: ActorContext,
  id: number
): Promise<void> {
  const { row, about } = await lockPermission(tx, student, id)
  if (row.state !== 'asked' || row.forwardedAt)
    throw new Refused(409, 'notWaiting', 'It is answered or handed on already.')
  await tx
    .update(t.permission)
    .set({ forwardedAt: new Date(now), forwardedById: who.id })
    .where(eq(t.permission.id, id))
  await logEvent(tx, { at: now, account: who.id, student, action: 'permission.forwarded', after: about })
}

/** Takes a request back, or a permission that was given. */
export async function withdrawPermission(
  tx: Transaction,
  { who, student, now }: ActorContext,
  id: number
): Promise<void> {
  const { row, about } = await lockPermission(tx, student, id)
  if (row.state !== 'asked' && row.state !== 'given')
    throw new Refused(409, 'notWaiting', 'It is answered or withdrawn already.')
  await tx.update(t.permission).set({ state: 'withdrawn' }).where(eq(t.permission.id, id))
  const before = { ...about, state: row.state }
  await logEvent(tx, { at: now, account: who.id, student, action: 'permission.withdrawn', before })
}

async function lockPermission(tx: Transaction, student: StudentId, id: number) {
  await lockStudent(tx, student)
  const [found] = await tx
    .select({ row: t.permission, section: t.section.code, term: t.term.code, course: t.course.code })
    .from(t.permission)
    .innerJoin(t.section, eq(t.section.id, t.permission.sectionId))
    .innerJoin(t.term, eq(t.term.id, t.section.termId))
    .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    .where(all(eq(t.permission.id, id), eq(t.permission.studentId, student)))
  if (!found) throw new Refused(404, 'noPermission', 'There is no such request.')
  const { row, section, term, course } = found
  return { row, about: { permission: id, term, section, course } }
}

/** Requests that wait for somebody's decision, or for them to be handed on; those asked for first come first. */
export async function readWaitingRequests(db: Reader, who: Who): Promise<WaitingRequest[]> {
  const isRegistrar = who.role === 'registrar'
  const forwarder = alias(t.account, 'forwarder')
  const mine = db
    .select({ id: t.advising.studentId })
    .from(t.advising)
    .innerJoin(t.advisor, eq(t.advisor.id, t.advising.advisorId))
    .where(all(eq(t.advisor.accountId, who.id), eq(t.advising.purpose, 'program')))
  const rows = await db
    .select({
      permission: t.permission,
      section: t.section,
      name: t.account.name,
      course: t.course.code,
      term: t.term.code,
      forwardedBy: forwarder.name
    })
    .from(t.permission)
    .innerJoin(t.section, eq(t.section.id, t.permission.sectionId))
    .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    .innerJoin(t.term, eq(t.term.id, t.section.termId))
    .innerJoin(t.student, eq(t.student.id, t.permission.studentId))
    .innerJoin(t.account, eq(t.account.id, t.student.accountId))
    .leftJoin(forwarder, eq(forwarder.id, t.permission.forwardedById))
    .where(
      isRegistrar
        ? eq(t.permission.state, 'asked')
        : all(eq(t.permission.state, 'asked'), inArray(t.permission.studentId, mine))
    )
    .orderBy(asc(t.permission.id))
  return rows.flatMap(({ permission: row, section, name, course, term, forwardedBy }): WaitingRequest[] => {
    const mayAnswer = mayDecide(isRegistrar ? 'registrar' : 'programAdvisor', row.kind)
    // What an advisor has handed on waits for the registrar; what an advisor decides does not wait for the registrar.
    if (isRegistrar ? !row.forwardedAt && mayDecide('programAdvisor', row.kind) : row.forwardedAt !== null)
      return []
    return [
      {
        id: row.id,
        student: { id: studentId(row.studentId), name },
        term: termCode(term),
        course: courseCode(course),
        section: section.code as SectionCode,
        number: section.number,
        kind: row.kind,
        against: row.against,
        reason: row.reason,
        askedAt: row.askedAt.getTime(),
        forwarded: forwardedBy && row.forwardedAt ? { by: forwardedBy, at: row.forwardedAt.getTime() } : null,
        seats: {
          taken: section.taken + section.offered,
          capacity: section.capacity,
          waiting: section.waiting
        },
        mayDecide: mayAnswer
      }
    ]
  })
}
