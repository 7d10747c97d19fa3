/** Who may register from when. */
import { termCode } from '#core/ids'
import type { Opening } from '#core/registration'
import type { Reader } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { asc, eq } from 'drizzle-orm'

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
    students: opening.studentId === null ? [] : [opening.studentId]
  }))
}
