/** Programs and their versions as they are kept. */
import { asc, desc, eq } from 'drizzle-orm'
import type { ProgramSpec } from '#core/degree'
import { groupBy } from '#server/db/groupBy'
import type { Reader } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import type { ProgramRules } from '#server/db/schema/program'
import { Refused } from '#server/http/problem'

type ProgramRow = Omit<ProgramSpec, keyof ProgramRules> & { rules: ProgramRules }

/** A program as the core reads it, from its two rows. */
export function programSpec({
  rules,
  code,
  title,
  shortTitle,
  kind,
  catalogYear,
  credits,
  areas,
  suggested
}: ProgramRow): ProgramSpec {
  return { code, title, shortTitle, kind, catalogYear, credits, areas, suggested, ...rules }
}

/** What `programSpec` reads, of a program and its version. */
export const PROGRAM_COLUMNS = {
  code: t.program.code,
  title: t.program.title,
  shortTitle: t.program.shortTitle,
  kind: t.program.kind,
  catalogYear: t.programVersion.catalogYear,
  credits: t.programVersion.credits,
  areas: t.programVersion.areas,
  suggested: t.programVersion.suggested,
  rules: t.programVersion.rules
}

/** A version of a program, and the codes of programs to be taken along with it. @throws Refused where there is no such version */
export async function readProgramVersion(db: Reader, id: number, field = 'version') {
  const [row] = await db
    .select({ ...PROGRAM_COLUMNS, obliges: t.programVersion.obliges })
    .from(t.programVersion)
    .innerJoin(t.program, eq(t.program.id, t.programVersion.programId))
    .where(eq(t.programVersion.id, id))
  if (!row)
    throw new Refused(422, 'noProgram', 'There is no such version of a program.', [
      { field, message: 'has to be a version of a program' }
    ])
  return { spec: programSpec(row), obliges: row.obliges }
}

/** The newest version of every program. */
export async function readPrograms(db: Reader): Promise<ProgramSpec[]> {
  const rows = await db
    .select(PROGRAM_COLUMNS)
    .from(t.programVersion)
    .innerJoin(t.program, eq(t.program.id, t.programVersion.programId))
    .orderBy(asc(t.program.title), desc(t.programVersion.catalogYear))
  return [...groupBy(rows, (row) => row.code).values()].map(([newest]) => programSpec(newest!))
}
