/** Exceptions: an advisor or the registrar grants and withdraws a waiver, whole or in part, or a substitution, with a reason. */
import { eq, isNull } from 'drizzle-orm'
import { isChoice, takes, type Need, type ProgramSpec, type RequirementSpec } from '#core/degree'
import type { CourseCode, StudentId } from '#core/ids'
import type { Instant } from '#core/time'
import type { Who } from '#shared/accounts/responses'
import { programOf, type CatalogContext } from '#shared/catalog/context'
import { all, type Transaction } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { courseIds } from '#server/features/catalog/catalog'
import { programSpec } from '#server/features/catalog/programs'
import { logEvent } from '#server/db/log'
import { Refused } from '#server/http/problem'
import { lockStudent } from '#server/features/record/lock'

type Excepted = { program: string; need: string } & (
  | { kind: 'waiver'; amount?: number | undefined }
  | { kind: 'substitution'; course: CourseCode }
)
export type ExceptionBody = { reason: string } & Excepted

/**
 * What an exception would be of.
 *
 * @throws Refused where there is no such requirement, the course fits without one, or it is granted already
 */
export async function mayHaveException(
  tx: Transaction,
  student: StudentId,
  body: Excepted,
  catalogContext: CatalogContext
): Promise<{ versionId: number; courseId: number | null; title: string }> {
  const { versionId, spec } = await programOn(tx, student, body.program)
  const compiled = programOf(spec, catalogContext).needs.find((one) => one.id === body.need)
  const condition = body.kind === 'waiver' && spec.conditions?.find((one) => one.id === body.need)
  const of = compiled ?? condition
  if (!of)
    throw new Refused(422, 'noNeed', `${spec.title} has no requirement "${body.need}".`, [
      { field: 'need', message: 'has to be a requirement of the program' }
    ])
  const course = body.kind === 'substitution' ? body.course : undefined
  const courseId = course ? (await courseIds(tx, [course])).get(course)! : null
  if (course && compiled && takes(compiled, catalogContext.catalog.course(course)))
    throw new Refused(422, 'fitsAlready', `${course} fits "${of.title}" without an exception.`, [
      { field: 'course', message: 'has to be a course that the requirement does not take' }
    ])
  await lockStudent(tx, student)
  const standing = await tx
    .select({ kind: t.exception.kind, courseId: t.exception.courseId, amount: t.exception.amount })
    .from(t.exception)
    .where(all(ofNeed(student, versionId, body.need), isNull(t.exception.withdrawnAt)))
  const isWhole = standing.some((one) => one.kind === 'waiver' && one.amount === null)
  if (isWhole || standing.some((one) => courseId !== null && one.courseId === courseId))
    throw new Refused(409, 'grantedAlready', `An exception for "${of.title}" is granted already.`)
  if (body.kind === 'waiver' && body.amount !== undefined)
    mustBePart(
      body.amount,
      compiled,
      standing.reduce((sum, one) => sum + (one.amount ?? 0), 0)
    )
  return { versionId, courseId, title: of.title }
}

/** @throws Refused where it is not part of what the requirement still asks for */
function mustBePart(amount: number, need: Need | undefined, before: number): void {
  const refuse = (message: string) =>
    new Refused(422, 'noPart', `That is no part of it: the amount ${message}.`, [
      { field: 'amount', message }
    ])
  if (!need) throw refuse('has to be left out: a condition is waived as a whole')
  if (need.measure === 'courses' && !Number.isInteger(amount))
    throw refuse('has to be whole: it is measured in courses')
  if (amount + before >= need.amount)
    throw refuse(
      before
        ? `has to be less than ${need.amount - before}, ${before} are waived; all of it is waived without an amount`
        : `has to be less than ${need.amount}; all of it is waived without an amount`
    )
}

const ofNeed = (student: StudentId, versionId: number, need: string) =>
  all(
    eq(t.exception.studentId, student),
    eq(t.exception.programVersionId, versionId),
    eq(t.exception.needId, need)
  )

export async function grantException(
  tx: Transaction,
  who: Who,
  student: StudentId,
  body: ExceptionBody,
  at: { now: Instant; catalogContext: CatalogContext }
): Promise<void> {
  const { versionId, courseId } = await mayHaveException(tx, student, body, at.catalogContext)
  await tx.insert(t.exception).values({
    studentId: student,
    kind: body.kind,
    programVersionId: versionId,
    needId: body.need,
    courseId,
    amount: body.kind === 'waiver' ? (body.amount ?? null) : null,
    reason: body.reason,
    byId: who.id,
    at: new Date(at.now)
  })
  await logEvent(tx, { at: at.now, account: who.id, student, action: 'exception.granted', after: body })
}

/** Withdraws the exception that stands for just this, where one does. */
export async function takeBackException(
  tx: Transaction,
  who: Who,
  student: StudentId,
  body: Excepted,
  now: Instant
): Promise<void> {
  const { versionId } = await programOn(tx, student, body.program)
  const courseId =
    body.kind === 'substitution' ? (await courseIds(tx, [body.course])).get(body.course)! : null
  const standing = await tx
    .select({ id: t.exception.id, courseId: t.exception.courseId, amount: t.exception.amount })
    .from(t.exception)
    .where(all(ofNeed(student, versionId, body.need), isNull(t.exception.withdrawnAt)))
  const own = standing.find((one) => one.courseId === courseId && one.amount === null)
  if (own) await withdrawException(tx, who, student, own.id, now)
}

export async function withdrawException(
  tx: Transaction,
  who: Who,
  student: StudentId,
  exception: number,
  now: Instant
): Promise<void> {
  const own = all(eq(t.exception.id, exception), eq(t.exception.studentId, student))
  const [row] = await tx.select().from(t.exception).where(own).for('update')
  if (!row) throw new Refused(404, 'noException', 'There is no such exception on this record.')
  if (row.withdrawnAt) throw new Refused(409, 'withdrawnAlready', 'This exception was withdrawn already.')
  await tx
    .update(t.exception)
    .set({ withdrawnAt: new Date(now) })
    .where(own)
  await logEvent(tx, {
    at: now,
    account: who.id,
    student,
    action: 'exception.withdrawn',
    before: { kind: row.kind, need: row.needId, reason: row.reason }
  })
}

async function programOn(tx: Transaction, student: StudentId, code: string) {
  const [row] = await tx
    .select({ version: t.programVersion, program: t.program })
    .from(t.studentProgram)
    .innerJoin(t.programVersion, eq(t.programVersion.id, t.studentProgram.programVersionId))
    .innerJoin(t.program, eq(t.program.id, t.programVersion.programId))
    .where(all(eq(t.studentProgram.studentId, student), eq(t.program.code, code)))
  if (!row)
    throw new Refused(422, 'noProgram', `${code} is not a program on this record.`, [
      { field: 'program', message: 'has to be a program on the record' }
    ])
  return { versionId: row.version.id, spec: programSpec({ ...row.program, ...row.version }) }
}

/** A requirement of a program, in any branch. */
export function needIn(spec: Pick<ProgramSpec, 'areas'>, id: string): { title: string } | undefined {
  const search = (requirements: readonly RequirementSpec[]): { title: string } | undefined => {
    for (const one of requirements) {
      if (!isChoice(one)) {
        if (one.id === id) return one
        continue
      }
      const found = one.of.map((branch) => search(branch.needs)).find(Boolean)
      if (found) return found
    }
    return undefined
  }
  return search(spec.areas.flatMap((area) => area.needs))
}
