/** What a student asks for, in place from what it would settle: asked, and taken back. */
import { eq, isNull } from 'drizzle-orm'
import type { Refusal } from '#core/findings'
import { termCode, type CourseCode } from '#core/ids'
import { choiceOf, permissionFor } from '#core/registration'
import { all, type Reader, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { courseIds } from '#server/features/catalog/catalog'
import { askToConfirm } from '#server/features/degree/programChange'
import { mayHaveException } from '#server/features/degree/exceptions'
import { lockStudent } from '#server/features/record/lock'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { readSheet } from '#server/features/registration/sheet'
import type { ActorContext } from '#server/features/route/route'
import { Refused } from '#server/http/problem'
import { firstAsked, isPermission } from '#shared/advising/asking'
import type { RequestAsked } from '#shared/advising/requests'
import type { CatalogContext } from '#shared/catalog/context'
import { accountsOf, decidersFor, readPolicy, type RequestRow } from './deciders'

/** What a request is about, as its row has it, and what the log says of it. */
interface Subject {
  of: Pick<
    typeof t.request.$inferInsert,
    'sectionId' | 'courseId' | 'programVersionId' | 'needId' | 'against'
  >
  about: object
}

/** Asks whoever decides it first for something that the student cannot do alone. */
export async function askFor(
  tx: Transaction,
  { who, student, now }: ActorContext,
  asked: RequestAsked,
  catalogContext: CatalogContext
): Promise<{ request: number }> {
  await lockStudent(tx, student)
  const { of, about } = await subjectOf(tx, { student, now }, asked, catalogContext)
  const same = all(
    eq(t.request.studentId, student),
    eq(t.request.kind, asked.kind),
    sameAs(t.request.sectionId, of.sectionId),
    sameAs(t.request.courseId, of.courseId),
    sameAs(t.request.programVersionId, of.programVersionId),
    sameAs(t.request.needId, of.needId)
  )
  const before = await tx.select({ state: t.request.state }).from(t.request).where(same)
  if (before.some((one) => one.state === 'asked'))
    throw new Refused(409, 'askedAlready', 'It was asked for already and waits for an answer.')
  if (asked.kind === 'waiver' && before.some((one) => one.state === 'given'))
    throw new Refused(409, 'askedAlready', 'The waiver is given already.')
  const row = { studentId: student, kind: asked.kind, ...of }
  const there = await decidersFor(tx, row)
  const waitsFor = firstAsked(await readPolicy(tx), asked.kind, there)
  const [made] = await tx
    .insert(t.request)
    .values({ ...row, state: 'asked', reason: asked.reason, askedAt: new Date(now), waitsFor })
    .$returningId()
  await logEvent(tx, {
    at: now,
    account: who.id,
    student,
    action: 'request.asked',
    also: await accountsOf(tx, row, waitsFor),
    after: { request: made!.id, kind: asked.kind, ...about, reason: asked.reason, waitsFor, by: who.name }
  })
  return { request: made!.id }
}

const sameAs = (column: Parameters<typeof eq>[0], value: number | string | null | undefined) =>
  value === null || value === undefined ? isNull(column) : eq(column, value)

async function subjectOf(
  tx: Transaction,
  context: Pick<ActorContext, 'student' | 'now'>,
  asked: RequestAsked,
  catalogContext: CatalogContext
): Promise<Subject> {
  if (asked.kind === 'waiver') return waivable(tx, asked.course)
  if (asked.kind === 'need' || asked.kind === 'substitution') {
    const { program, need } = asked
    const body =
      asked.kind === 'need'
        ? { kind: 'waiver' as const, program, need }
        : { kind: 'substitution' as const, program, need, course: asked.course }
    const { versionId, courseId, title } = await mayHaveException(tx, context.student, body, catalogContext)
    const course = asked.kind === 'need' ? null : asked.course
    return {
      of: { programVersionId: versionId, needId: need, courseId },
      about: { program, need, title, course }
    }
  }
  return permissible(tx, context, asked, catalogContext)
}

async function waivable(tx: Transaction, code: CourseCode): Promise<Subject> {
  const courseId = (await courseIds(tx, [code])).get(code)!
  const [course] = await tx.select().from(t.course).where(eq(t.course.id, courseId))
  if (!course!.prerequisite)
    throw new Refused(422, 'noPrerequisite', `${code} has no prerequisite that could be waived.`, [
      { field: 'course', message: 'has to be a course with a prerequisite' }
    ])
  return { of: { courseId }, about: { course: code } }
}

/** A section of which a line of the run sheet stands against a rule that a permission of the kind sets aside. */
async function permissible(
  tx: Transaction,
  { student, now }: Pick<ActorContext, 'student' | 'now'>,
  { section: code, kind }: Extract<RequestAsked, { section: string }>,
  catalogContext: CatalogContext
): Promise<Subject> {
  const [section] = await tx
    .select({ id: t.section.id, term: t.term.code, course: t.course.code })
    .from(t.section)
    .innerJoin(t.term, eq(t.term.id, t.section.termId))
    .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    .where(eq(t.section.code, code))
  if (!section)
    throw new Refused(422, 'noSection', `There is no section ${code}.`, [
      { field: 'section', message: 'has to be the code of a section' }
    ])
  const [record] = await readStudentRecords(tx, [student], 'self')
  const sheet = await readSheet(tx, record!, catalogContext, termCode(section.term), now)
  const against = sheet.lines
    .flatMap((line): { refusal: Refusal; option: ReturnType<typeof choiceOf> }[] => {
      const sections = line.sections ?? []
      const option = choiceOf(
        sections,
        sections.map((one) => one.code)
      )
      const closed = line.setAside.includes('late')
        ? []
        : sheet.general.filter((one) => one.code === 'closed')
      const refusals = line.drop ? line.drop.refusals : [...closed, ...line.refusals]
      return refusals.map((refusal) => ({ refusal, option }))
    })
    .find(({ refusal, option }) => {
      const settles = option && permissionFor(refusal, option)
      return settles?.kind === kind && settles.section === code
    })?.refusal
  if (!against)
    throw new Refused(422, 'nothingToSettle', `Nothing that it would settle stands in the way of ${code}.`, [
      { field: 'kind', message: 'has to settle what stands in the way of a line of the run sheet' }
    ])
  return {
    of: { sectionId: section.id, against },
    about: { term: section.term, section: code, course: section.course }
  }
}

/** Takes a request back, or a permission that was given. */
export async function withdrawRequest(
  tx: Transaction,
  { who, student, now }: ActorContext,
  id: number
): Promise<void> {
  await lockStudent(tx, student)
  const row = await requestOf(tx, id)
  if (row?.studentId !== student) throw new Refused(404, 'noRequest', 'There is no such request.')
  if (row.state !== 'asked' && !(row.state === 'given' && isPermission(row.kind)))
    throw new Refused(409, 'notWaiting', 'It is answered or withdrawn already.')
  await tx.update(t.request).set({ state: 'withdrawn' }).where(eq(t.request.id, id))
  if (row.kind === 'program') await askToConfirm(tx, row)
  const before = { request: id, kind: row.kind, state: row.state }
  await logEvent(tx, { at: now, account: who.id, student, action: 'request.withdrawn', before })
}

async function requestOf(db: Reader, id: number): Promise<RequestRow | undefined> {
  const [row] = await db.select().from(t.request).where(eq(t.request.id, id))
  return row
}
