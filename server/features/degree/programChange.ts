/** A program on record that is wrong: reported by its student, put right by the registrar. */
import { asc, desc, eq, inArray } from 'drizzle-orm'
import type { StudentId } from '#core/ids'
import type { Instant } from '#core/time'
import { all, type Reader, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { readProgramVersion } from '#server/features/catalog/programs'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import type { ProgramVersion } from '#shared/advising/asking'
import { effectsOf, type Effect } from '#shared/advising/effects'
import type { CatalogContext } from '#shared/catalog/context'
import { readStudent } from '#shared/reading'

/** A student reports a program as wrong: what is right instead waits for the registrar. */
export async function reportProgram(
  tx: Transaction,
  { who, student, now }: { who: Who; student: StudentId; now: Instant },
  versionId: number,
  instead: string
): Promise<void> {
  const waiting = ofProgram(student, versionId)
  const [before] = await tx.select({ id: t.request.id }).from(t.request).where(waiting)
  const values = { reason: instead, askedAt: new Date(now) }
  if (before) await tx.update(t.request).set(values).where(eq(t.request.id, before.id))
  else
    await tx.insert(t.request).values({
      ...{ studentId: student, kind: 'program' as const, programVersionId: versionId, ...values },
      ...{ state: 'asked' as const, waitsFor: 'registrar' as const }
    })
  const after = { kind: 'program', reason: instead, waitsFor: 'registrar', by: who.name }
  await logEvent(tx, { at: now, account: who.id, student, action: 'request.asked', after })
}

/** It is right after all. */
export async function withdrawReport(tx: Transaction, student: StudentId, versionId: number): Promise<void> {
  await tx.update(t.request).set({ state: 'withdrawn' }).where(ofProgram(student, versionId))
}

const ofProgram = (student: StudentId, versionId: number) =>
  all(
    eq(t.request.studentId, student),
    eq(t.request.kind, 'program'),
    eq(t.request.programVersionId, versionId),
    eq(t.request.state, 'asked')
  )

/** All versions of all programs, the newest of each first. */
export async function readVersions(db: Reader): Promise<ProgramVersion[]> {
  return db
    .select({
      id: t.programVersion.id,
      code: t.program.code,
      title: t.program.title,
      catalogYear: t.programVersion.catalogYear
    })
    .from(t.programVersion)
    .innerJoin(t.program, eq(t.program.id, t.programVersion.programId))
    .orderBy(asc(t.program.title), desc(t.programVersion.catalogYear))
}

/** The student is asked to confirm the program on record anew, or the one that takes its place. */
export async function askToConfirm(
  tx: Transaction,
  { studentId, programVersionId }: Pick<typeof t.request.$inferSelect, 'studentId' | 'programVersionId'>,
  version = programVersionId!
): Promise<void> {
  await tx
    .update(t.studentProgram)
    .set({ programVersionId: version, confirmed: 'open', saidInstead: null, saidAt: null })
    .where(
      all(eq(t.studentProgram.studentId, studentId), eq(t.studentProgram.programVersionId, programVersionId!))
    )
}

/** What it would make of a student's degree, read with another program in place of the one on record. */
export async function effectOfProgram(
  db: Reader,
  request: number,
  version: number,
  { catalogContext, now }: { catalogContext: CatalogContext; now: Instant }
): Promise<Effect[]> {
  const [row] = await db
    .select({ student: t.request.studentId, code: t.program.code })
    .from(t.request)
    .innerJoin(t.programVersion, eq(t.programVersion.id, t.request.programVersionId))
    .innerJoin(t.program, eq(t.program.id, t.programVersion.programId))
    .where(all(eq(t.request.id, request), eq(t.request.kind, 'program')))
  if (!row) throw new Refused(404, 'noRequest', 'There is no such request.')
  const { spec } = await readProgramVersion(db, version)
  const [record] = await readStudentRecords(db, [row.student], 'registrar')
  const programs = record!.programs.map((one) => (one.spec.code === row.code ? { ...one, spec } : one))
  const shortTerm = (code: string) => catalogContext.terms.find((one) => one.code === code)?.name ?? code
  const read = (of: typeof programs) => readStudent({ ...record!, programs: of }, catalogContext, now)
  return effectsOf(read(record!.programs), read(programs), [], shortTerm)
}

/**
 * Answers a report: the program on record gives way to another version, or stays. The student is asked to confirm anew.
 *
 * @throws Refused without the version that is right, or where the student has that program already
 */
export async function settleProgram(
  tx: Transaction,
  { who, now }: { who: Who; now: Instant },
  row: Pick<typeof t.request.$inferSelect, 'studentId' | 'programVersionId' | 'state'>,
  version: number | null
): Promise<void> {
  if (row.state !== 'asked')
    throw new Refused(409, 'settled', 'It is settled. Another change of the program is reported anew.')
  if (version === null) return askToConfirm(tx, row)
  const { spec: next } = await readProgramVersion(tx, version)
  const [has] = await tx
    .select({ id: t.studentProgram.programVersionId })
    .from(t.studentProgram)
    .where(
      all(
        eq(t.studentProgram.studentId, row.studentId),
        inArray(t.studentProgram.programVersionId, [version])
      )
    )
  if (has)
    throw new Refused(409, 'hasAlready', `${next.title} is on the record already.`, [
      { field: 'version', message: 'has to be a program that is not on the record' }
    ])
  const { spec: before } = await readProgramVersion(tx, row.programVersionId!)
  await askToConfirm(tx, row, version)
  await logEvent(tx, {
    at: now,
    account: who.id,
    student: row.studentId,
    action: 'program.changed',
    before: { program: before.title, catalogYear: before.catalogYear },
    after: { program: next.title, catalogYear: next.catalogYear }
  })
}
