/** A draft of a program's rules tried on records, and published for good. */
import { desc, eq } from 'drizzle-orm'
import type { Instant } from '#core/time'
import type { Reader, Transaction } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { readProgramVersion } from '#server/features/catalog/programs'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { pause } from '#server/pause'
import { Refused } from '#server/http/problem'
import { effectsOf } from '#shared/advising/effects'
import { withDraft, type CatalogContext } from '#shared/catalog/context'
import type { DraftAgainst, DraftEffect } from '#shared/degree/drafts'
import { readProgramText } from '#shared/degree/programText'
import { readStudent } from '#shared/reading'
import { count } from '#shared/words'
import { type At, noDraft, mustBeNext, logDraft, lockDraft, contextOf } from './programDrafts'

/** What a text would make of the degrees of some students: each is audited with it, and with what it is compared with. */
export async function effectOfDraft(
  db: Reader,
  id: number,
  { text, against, students }: { text: string; against: DraftAgainst; students: readonly number[] },
  { catalogContext, now }: { catalogContext: CatalogContext; now: Instant }
): Promise<DraftEffect[]> {
  const [draft] = await db.select().from(t.programDraft).where(eq(t.programDraft.id, id))
  if (!draft) throw noDraft()
  const { spec } = readProgramText(text, await contextOf(db, draft, catalogContext))
  if (!spec)
    throw new Refused(422, 'unreadable', 'The text cannot be read as a program yet.', [
      { field: 'text', message: 'has to be a program without faults' }
    ])
  const fresh = withDraft(spec, catalogContext)
  const from = against === 'from' ? draft.fromVersionId : null
  const base = from === null ? undefined : (await readProgramVersion(db, from)).spec
  const records = await readStudentRecords(db, [...new Set(students)], 'registrar')
  const shortTerm = (code: string) => catalogContext.terms.find((one) => one.code === code)?.name ?? code
  const found: DraftEffect[] = []
  for (const record of records) {
    const programs = record.programs
    // Only of those who follow the program something can be said.
    if (!programs.some((one) => one.spec.code === draft.code)) continue
    const reading = (of: typeof spec | undefined) =>
      readStudent(
        {
          ...record,
          programs: programs.map((one) => (of && one.spec.code === draft.code ? { ...one, spec: of } : one))
        },
        catalogContext,
        now
      )
    found.push({
      student: record.student.id,
      effects: effectsOf(reading(base), reading(fresh), [], shortTerm)
    })
    // Others are answered in between.
    await pause()
  }
  return found
}

/**
 * Makes a version of a draft, which is never edited again; nobody's record changes by it.
 *
 * @throws Refused while anything is wrong with it, or where it obliges to a program that is not there
 */
export async function publishDraft(
  tx: Transaction,
  at: At & { catalogContext: CatalogContext },
  id: number,
  version: number
): Promise<{ version: number }> {
  const draft = await lockDraft(tx, id, version)
  await mustBeNext(tx, draft.code, draft.catalogYear)
  const { written, faults } = readProgramText(draft.fromText, await contextOf(tx, draft, at.catalogContext))
  if (!written || faults.length)
    throw new Refused(
      422,
      'faults',
      `It has ${count(faults.length, 'fault')}; the first is in line ${faults[0]!.line}.`,
      [{ field: 'text', message: `has to be right: ${faults[0]!.message}` }]
    )
  const { code, title, shortTitle, kind, catalogYear, credits, areas, suggested = [], obliges = [] } = written
  const { limits, mayShare, conditions, entry, repeats, note } = written
  for (const other of obliges) {
    const [known] = await tx.select({ id: t.program.id }).from(t.program).where(eq(t.program.code, other))
    if (!known)
      throw new Refused(422, 'noProgram', `It obliges to ${other}, and there is no such program.`, [
        { field: 'text', message: `obliges to a program that is not there: ${other}` }
      ])
  }
  const program = await programRow(tx, { code, title, shortTitle, kind })
  const [made] = await tx
    .insert(t.programVersion)
    .values({
      ...{ programId: program.id, catalogYear, credits, areas, obliges, suggested },
      rules: { limits, mayShare, conditions, entry, repeats, note },
      ...(program.review ? { review: program.review } : {})
    })
    .$returningId()
  await tx.delete(t.programDraft).where(eq(t.programDraft.id, id))
  await logDraft(tx, at, 'program.published', { code, catalogYear, version })
  return { version: made!.id }
}

/** The program's own row, with what its last version asks of a review. */
async function programRow(tx: Transaction, values: typeof t.program.$inferInsert) {
  const [known] = await tx
    .select({ id: t.program.id, review: t.programVersion.review })
    .from(t.program)
    .innerJoin(t.programVersion, eq(t.programVersion.programId, t.program.id))
    .where(eq(t.program.code, values.code))
    .orderBy(desc(t.programVersion.catalogYear))
    .limit(1)
  if (known) return known
  const [made] = await tx.insert(t.program).values(values).$returningId()
  return { id: made!.id, review: undefined }
}
