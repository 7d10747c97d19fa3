/** Applications to graduate: made by the student, followed by all, and the degree awarded by the registrar. */
import { asc, eq, isNull } from 'drizzle-orm'
import { studentId, termCode, type StudentId, type TermCode } from '#core/ids'
import type { Instant } from '#core/time'
import { all, type Reader, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { termRow } from '#server/features/catalog/catalog'
import { lockStudent } from '#server/features/record/lock'
import { readStudentRecords } from '#server/features/record/studentRecords'
import type { ActorContext } from '#server/features/route/route'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import type { CatalogContext } from '#shared/catalog/context'
import { graduationOf, type GraduationReading } from '#shared/degree/graduation'
import type { GraduationCase } from '#shared/offices/graduations'
import { readStudent } from '#shared/reading'

/** A student's record against the degree, as of an instant. */
async function standingOf(
  db: Reader,
  student: StudentId,
  { catalogContext, now }: { catalogContext: CatalogContext; now: Instant }
): Promise<GraduationReading & { seats: string[] }> {
  const [record] = await readStudentRecords(db, [student], 'registrar')
  const termName = (code: string) => catalogContext.terms.find((one) => one.code === code)?.name ?? code
  const reading = readStudent(record!, catalogContext, now)
  // The seat of a course that has its grade stays as what was held.
  const isGraded = ({ course, term }: { course: string; term: string }) =>
    record!.record.some((one) => one.course === course && one.term === term && one.grade !== null)
  const held = record!.held.filter((seat) => !isGraded(seat))
  const ahead = [...held, ...record!.waiting, ...record!.offers].map(
    (one) => `${one.course} (${termName(one.term)})`
  )
  return { ...graduationOf(reading, record!.programs, { termName, zone: catalogContext.zone }), seats: ahead }
}

/**
 * Applies for the degree on record, at the end of the term in which all is complete.
 *
 * @throws Refused with what is in the way, or where one stands already
 */
export async function applyToGraduate(
  tx: Transaction,
  { who, student, now }: ActorContext,
  code: TermCode,
  catalogContext: CatalogContext
): Promise<{ graduation: number }> {
  await lockStudent(tx, student)
  const live = all(eq(t.graduation.studentId, student), eq(t.graduation.live, true))
  const [before] = await tx.select({ state: t.graduation.state }).from(t.graduation).where(live)
  if (before)
    throw new Refused(
      409,
      'askedAlready',
      before.state === 'awarded' ? 'The degree is awarded already.' : 'The application stands already.'
    )
  const { steps, term, mayApply } = await standingOf(tx, student, { catalogContext, now })
  const first = steps.find((step) => step.state === 'inTheWay')
  if (!mayApply || !term)
    throw new Refused(
      422,
      'notInReach',
      first ? `${first.title}: ${first.detail}.` : 'The end of the degree is not in reach yet.'
    )
  if (term.code !== code)
    throw new Refused(422, 'otherTerm', `By your route all is complete at the end of ${term.name}.`, [
      { field: 'term', message: `has to be ${term.code}, at whose end all is complete` }
    ])
  const mine = await tx
    .select({ version: t.studentProgram.programVersionId, title: t.program.title, kind: t.program.kind })
    .from(t.studentProgram)
    .innerJoin(t.programVersion, eq(t.programVersion.id, t.studentProgram.programVersionId))
    .innerJoin(t.program, eq(t.program.id, t.programVersion.programId))
    .where(eq(t.studentProgram.studentId, student))
    .orderBy(asc(t.studentProgram.ordinal))
  // Who studies for no degree is awarded what they study for.
  const of = mine.find((one) => one.kind === 'degree') ?? mine[0]!
  const [made] = await tx
    .insert(t.graduation)
    .values({
      ...{ studentId: student, programVersionId: of.version, termId: (await termRow(tx, code)).id },
      ...{ state: 'asked' as const, live: true, askedAt: new Date(now) }
    })
    .$returningId()
  const after = { graduation: made!.id, program: of.title, term: code }
  await logEvent(tx, { at: now, account: who.id, student, action: 'graduation.asked', after })
  return { graduation: made!.id }
}

/** @throws Refused where none waits */
export async function withdrawApplication(
  tx: Transaction,
  { who, student, now }: ActorContext
): Promise<void> {
  await lockStudent(tx, student)
  const waiting = all(eq(t.graduation.studentId, student), eq(t.graduation.state, 'asked'))
  const [done] = await tx.update(t.graduation).set({ state: 'withdrawn', live: null }).where(waiting)
  if (!done.affectedRows)
    throw new Refused(409, 'notWaiting', 'No application waits: there is none, or the degree is awarded.')
  await logEvent(tx, { at: now, account: who.id, student, action: 'graduation.withdrawn' })
}

/**
 * Awards the degree: all of it is earned, and the student holds no seat and no place in line any more. The record is
 * closed by it.
 *
 * @throws Refused with what is still open
 */
export async function awardDegree(
  tx: Transaction,
  who: Who,
  id: number,
  { catalogContext, now }: { catalogContext: CatalogContext; now: Instant }
): Promise<void> {
  const [known] = await tx
    .select({ student: t.graduation.studentId })
    .from(t.graduation)
    .where(eq(t.graduation.id, id))
  if (!known) throw new Refused(404, 'noApplication', 'There is no such application.')
  const student = studentId(known.student)
  await lockStudent(tx, student)
  const [row] = await tx
    .select({ state: t.graduation.state, program: t.program.title })
    .from(t.graduation)
    .innerJoin(t.programVersion, eq(t.programVersion.id, t.graduation.programVersionId))
    .innerJoin(t.program, eq(t.program.id, t.programVersion.programId))
    .where(eq(t.graduation.id, id))
  if (row!.state !== 'asked')
    throw new Refused(
      409,
      'notWaiting',
      row!.state === 'awarded' ? 'It is awarded already.' : 'It was withdrawn.'
    )
  const { isComplete, steps, seats } = await standingOf(tx, student, { catalogContext, now })
  const open = steps.find((step) => step.state !== 'done')
  if (!isComplete || open)
    throw new Refused(
      422,
      'notComplete',
      open ? `Not all is earned yet. ${open.title}: ${open.detail}.` : 'Not all is earned yet.'
    )
  const [running] = await tx
    .select({ id: t.receipt.id })
    .from(t.receipt)
    .where(all(eq(t.receipt.studentId, student), isNull(t.receipt.endedAt)))
  if (running)
    throw new Refused(409, 'runUnderWay', 'A run of the student is under way; try again in a minute.')
  if (seats.length)
    throw new Refused(422, 'seatsHeld', `Seats or places in line are held yet: ${seats.join(', ')}.`)
  await tx
    .update(t.graduation)
    .set({ state: 'awarded', awardedAt: new Date(now), awardedById: who.id })
    .where(eq(t.graduation.id, id))
  // Nothing is registered by itself any more.
  await tx.update(t.preparedSheet).set({ armedAt: null }).where(eq(t.preparedSheet.studentId, student))
  const after = { graduation: id, program: row!.program }
  await logEvent(tx, { at: now, account: who.id, student, action: 'graduation.awarded', after })
}

/** Applications that wait, with what is open of each, those of the earliest term first. */
export async function readApplications(
  db: Reader,
  at: { catalogContext: CatalogContext; now: Instant }
): Promise<GraduationCase[]> {
  const rows = await db
    .select({
      id: t.graduation.id,
      student: t.graduation.studentId,
      name: t.account.name,
      number: t.student.number,
      program: t.program.title,
      term: t.term.code,
      askedAt: t.graduation.askedAt
    })
    .from(t.graduation)
    .innerJoin(t.student, eq(t.student.id, t.graduation.studentId))
    .innerJoin(t.account, eq(t.account.id, t.student.accountId))
    .innerJoin(t.programVersion, eq(t.programVersion.id, t.graduation.programVersionId))
    .innerJoin(t.program, eq(t.program.id, t.programVersion.programId))
    .innerJoin(t.term, eq(t.term.id, t.graduation.termId))
    .where(eq(t.graduation.state, 'asked'))
    .orderBy(asc(t.term.startsOn), asc(t.account.name))
  const found: GraduationCase[] = []
  for (const { id, student, askedAt, term, ...row } of rows) {
    const { steps, isComplete, seats } = await standingOf(db, studentId(student), at)
    const open = steps.filter((step) => step.state !== 'done')
    found.push({
      ...{ id, ...row, student: studentId(student), term: termCode(term), askedAt: askedAt.getTime() },
      ...{ open, seats, mayAward: isComplete && !open.length && !seats.length }
    })
  }
  return found
}

/** A degree that was awarded closes the record. @throws Refused */
export async function mustBeOpen(db: Reader, student: StudentId): Promise<void> {
  const [awarded] = await db
    .select({ id: t.graduation.id })
    .from(t.graduation)
    .where(all(eq(t.graduation.studentId, student), eq(t.graduation.state, 'awarded')))
    .limit(1)
  if (awarded)
    throw new Refused(
      409,
      'recordClosed',
      'The degree is awarded and the record closed: nothing is changed any more.'
    )
}
