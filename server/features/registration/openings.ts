/** Who may register from when. */
import { studentId, termCode, type StudentId, type TermCode } from '#core/ids'
import { openingFor, type Opening } from '#core/registration'
import type { Instant } from '#core/time'
import type { Reader } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { groupBy } from '#server/db/groupBy'
import { earnedCredits } from '#server/features/record/earned'
import { programRows } from '#server/features/record/queries'
import { asc, eq, inArray } from 'drizzle-orm'

export async function readOpenings(db: Reader): Promise<Opening[]> {
  const rows = await db
    .select({ opening: t.opening, term: t.term.code })
    .from(t.opening)
    .innerJoin(t.term, eq(t.term.id, t.opening.termId))
    .orderBy(asc(t.opening.opensAt), asc(t.opening.id))
  return rows.map(({ opening, term }) => ({
    term: termCode(term),
    title: opening.title,
    opens: opening.opensAt.getTime(),
    standings: opening.standings,
    programs: opening.programs,
    blocks: opening.blocks,
    creditsLeast: opening.creditsLeast,
    students: opening.studentId === null ? [] : [opening.studentId]
  }))
}

/** From when students may register in a term; those for whom it does not open are left out. */
export async function opensFor(
  db: Reader,
  term: TermCode,
  students: readonly StudentId[]
): Promise<Map<StudentId, Instant>> {
  if (!students.length) return new Map()
  const openings = await readOpenings(db)
  const asksCredits = openings.some((one) => one.term === term && one.creditsLeast !== null)
  const credits = asksCredits ? await earnedCredits(db, students) : new Map<number, number>()
  const programs = groupBy(await programRows(db, [...students]), (row) => row.studentId)
  const people = await db
    .select({ id: t.student.id, standing: t.student.standing, block: t.block.code })
    .from(t.student)
    .leftJoin(t.block, eq(t.block.id, t.student.blockId))
    .where(inArray(t.student.id, [...students]))
  return new Map(
    people.flatMap((person) => {
      const own = (programs.get(person.id) ?? []).map((row) => row.code)
      const found = openingFor(
        { ...person, programs: own, credits: credits.get(person.id) ?? 0 },
        term,
        openings
      )
      return found ? [[studentId(person.id), found.opens] as const] : []
    })
  )
}
