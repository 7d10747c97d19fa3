/** Any student, found by number, name or program. */
import { asc, eq, inArray, isNull, like, or, sql } from 'drizzle-orm'
import { studentId } from '#core/ids'
import { all, type Reader } from '#server/db/connect'
import { groupBy } from '#server/db/groupBy'
import * as t from '#server/db/schema/index'
import type { FoundStudents } from '#shared/offices/people'

/** How many are listed at most. */
const MOST = 60

/** What would stand for something else in a pattern stands for itself. */
const literal = (text: string) => text.replace(/[\\%_]/g, (one) => `\\${one}`)

/** Students whose number, name or program has each of the words asked for, by name. */
export async function findStudents(db: Reader, asked: string): Promise<FoundStudents> {
  const inProgram = (pattern: string) =>
    inArray(
      t.student.id,
      db
        .select({ id: t.studentProgram.studentId })
        .from(t.studentProgram)
        .innerJoin(t.programVersion, eq(t.programVersion.id, t.studentProgram.programVersionId))
        .innerJoin(t.program, eq(t.program.id, t.programVersion.programId))
        .where(or(like(t.program.shortTitle, pattern), like(t.program.code, pattern)))
    )
  const words = asked.split(/\s+/).filter(Boolean)
  const fits = words.map((word) => {
    const pattern = `%${literal(word)}%`
    return or(like(t.account.name, pattern), like(t.student.number, pattern), inProgram(pattern))!
  })
  const where = fits.length ? all(fits[0]!, ...fits.slice(1)) : sql`true`
  const [count] = await db
    .select({ all: sql<number>`count(*)`.mapWith(Number) })
    .from(t.student)
    .innerJoin(t.account, eq(t.account.id, t.student.accountId))
    .where(where)
  const listed = await db
    .select({
      id: t.student.id,
      account: t.account.id,
      name: t.account.name,
      number: t.student.number,
      standing: t.student.standing,
      block: t.block.title
    })
    .from(t.student)
    .innerJoin(t.account, eq(t.account.id, t.student.accountId))
    .leftJoin(t.block, eq(t.block.id, t.student.blockId))
    .where(where)
    .orderBy(asc(t.account.name), asc(t.student.id))
    .limit(MOST)
  const ids = listed.map((row) => row.id)
  const programs = groupBy(ids.length ? await programsOf(db, ids) : [], (row) => row.student)
  const holds = groupBy(
    ids.length
      ? await db
          .select({ student: t.hold.studentId, title: t.hold.title })
          .from(t.hold)
          .where(all(inArray(t.hold.studentId, ids), isNull(t.hold.liftedAt)))
      : [],
    (row) => row.student
  )
  return {
    all: count?.all ?? 0,
    students: listed.map(({ id, ...row }) => ({
      ...row,
      id: studentId(id),
      programs: (programs.get(id) ?? []).map((one) => one.title).join(', '),
      holds: (holds.get(id) ?? []).map((one) => one.title),
      reported: (programs.get(id) ?? []).some((one) => one.confirmed === 'wrong')
    }))
  }
}

const programsOf = (db: Reader, ids: number[]) =>
  db
    .select({
      student: t.studentProgram.studentId,
      title: t.program.shortTitle,
      confirmed: t.studentProgram.confirmed
    })
    .from(t.studentProgram)
    .innerJoin(t.programVersion, eq(t.programVersion.id, t.studentProgram.programVersionId))
    .innerJoin(t.program, eq(t.program.id, t.programVersion.programId))
    .where(inArray(t.studentProgram.studentId, ids))
    .orderBy(asc(t.studentProgram.ordinal))
