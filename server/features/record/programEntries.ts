/** Programs that the registrar adds to a record, or takes off it. */
import { eq, max } from 'drizzle-orm'
import type { StudentId } from '#core/ids'
import { all, type Reader, type Transaction } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { readProgramVersion } from '#server/features/catalog/programs'
import { Refused } from '#server/http/problem'
import { type At, type Of, before, hasAlready } from './entryWords'

const programsOf = (db: Reader, student: StudentId) =>
  db
    .select({
      version: t.programVersion.id,
      code: t.program.code,
      title: t.program.title,
      year: t.programVersion.catalogYear
    })
    .from(t.studentProgram)
    .innerJoin(t.programVersion, eq(t.programVersion.id, t.studentProgram.programVersionId))
    .innerJoin(t.program, eq(t.program.id, t.programVersion.programId))
    .where(eq(t.studentProgram.studentId, student))

/** A program, or another version of one that is on the record, which gives way. */
export async function addProgram(tx: Transaction, at: At, { version }: Of<'addProgram'>): Promise<string> {
  const { spec: next } = await readProgramVersion(tx, version, 'entry.version')
  const own = await programsOf(tx, at.student)
  const same = own.find((one) => one.code === next.code)
  const name = `${next.title}, catalog ${next.catalogYear}`
  if (same?.version === version) throw hasAlready('entry.version', `${name} is on the record already.`)
  const fresh = { programVersionId: version, confirmed: 'open' as const, saidInstead: null, saidAt: null }
  if (same) {
    await tx
      .update(t.studentProgram)
      .set(fresh)
      .where(
        all(eq(t.studentProgram.studentId, at.student), eq(t.studentProgram.programVersionId, same.version))
      )
    return `${name}${before(`catalog ${same.year}`)}`
  }
  const [last] = await tx
    .select({ ordinal: max(t.studentProgram.ordinal) })
    .from(t.studentProgram)
    .where(eq(t.studentProgram.studentId, at.student))
  await tx
    .insert(t.studentProgram)
    .values({ studentId: at.student, ordinal: (last?.ordinal ?? 0) + 1, ...fresh })
  return `${name}: added`
}

export async function dropProgram(tx: Transaction, at: At, { program }: Of<'dropProgram'>): Promise<string> {
  const own = await programsOf(tx, at.student)
  const gone = own.find((one) => one.code === program)
  if (!gone)
    throw new Refused(422, 'noProgram', `${program} is not on the record.`, [
      { field: 'entry.program', message: `has to be among ${own.map((one) => one.code).join(', ')}` }
    ])
  if (own.length === 1)
    throw new Refused(422, 'onlyProgram', `${gone.title} is the only program on the record.`, [
      { field: 'entry.program', message: 'has to leave another program; enter that one first' }
    ])
  await tx
    .delete(t.studentProgram)
    .where(
      all(eq(t.studentProgram.studentId, at.student), eq(t.studentProgram.programVersionId, gone.version))
    )
  return `${gone.title}, catalog ${gone.year}: taken off`
}
