/** Versions of programs written, tried on records, and published for good. */
import { asc, desc, eq, sql } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import { studentId } from '#core/ids'
import type { Instant } from '#core/time'
import { all, type Reader, type Transaction } from '#server/db/connect'
import { groupBy } from '#server/db/groupBy'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { readProgramVersion } from '#server/features/catalog/programs'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import type { CatalogContext } from '#shared/catalog/context'
import type { NewDraft } from '#shared/degree/draftRequests'
import {
  newProgram,
  type DraftPage,
  type DraftRow,
  type Follower,
  type ProgramPlans
} from '#shared/degree/drafts'
import {
  programText,
  readProgramText,
  type ExpectedProgram,
  type ProgramTextContext
} from '#shared/degree/programText'

export interface At {
  who: Who
  now: Instant
}

/** All programs with their versions, and what is being written. */
export async function readPlans(db: Reader): Promise<ProgramPlans> {
  const rows = await db
    .select({
      id: t.programVersion.id,
      code: t.program.code,
      title: t.program.title,
      kind: t.program.kind,
      catalogYear: t.programVersion.catalogYear,
      credits: t.programVersion.credits,
      students: sql<number>`count(${t.studentProgram.studentId})`.mapWith(Number)
    })
    .from(t.programVersion)
    .innerJoin(t.program, eq(t.program.id, t.programVersion.programId))
    .leftJoin(t.studentProgram, eq(t.studentProgram.programVersionId, t.programVersion.id))
    .groupBy(t.programVersion.id)
    .orderBy(asc(t.program.title), desc(t.programVersion.catalogYear))
  const programs = [...groupBy(rows, (row) => row.code).values()].map((versions) => ({
    ...{ code: versions[0]!.code, title: versions[0]!.title, kind: versions[0]!.kind },
    versions: versions.map(({ id, catalogYear, credits, students }) => ({
      id,
      catalogYear,
      credits,
      students
    }))
  }))
  return { programs, drafts: await draftRows(db) }
}

const from = alias(t.programVersion, 'from')

async function draftRows(db: Reader, id?: number): Promise<DraftRow[]> {
  const rows = await db
    .select({ draft: t.programDraft, from: from.catalogYear, by: t.account.name })
    .from(t.programDraft)
    .innerJoin(t.account, eq(t.account.id, t.programDraft.changedBy))
    .leftJoin(from, eq(from.id, t.programDraft.fromVersionId))
    .where(id === undefined ? sql`true` : eq(t.programDraft.id, id))
    .orderBy(asc(t.programDraft.code), asc(t.programDraft.catalogYear))
  return rows.map(({ draft, ...row }) => ({
    ...{ id: draft.id, code: draft.code, catalogYear: draft.catalogYear, title: draft.title },
    ...{ version: draft.version, changedAt: draft.changedAt.getTime(), ...row }
  }))
}

export const noDraft = () => new Refused(404, 'noDraft', 'There is no such draft any more.')

/** A draft with those who follow its program. */
export async function readDraft(db: Reader, id: number): Promise<DraftPage> {
  const [row] = await draftRows(db, id)
  if (!row) throw noDraft()
  const [draft] = await db
    .select({ text: t.programDraft.fromText })
    .from(t.programDraft)
    .where(eq(t.programDraft.id, id))
  if (!draft) throw noDraft()
  return { ...row, ...draft, expects: await expectedOf(db, row), followers: await followersOf(db, row.code) }
}

/** A program that has versions keeps its names: they stand on all of them. */
async function expectedOf(
  db: Reader,
  { code, catalogYear }: Pick<DraftRow, 'code' | 'catalogYear'>
): Promise<ExpectedProgram> {
  const { title, shortTitle, kind } = t.program
  const [known] = await db.select({ title, shortTitle, kind }).from(t.program).where(eq(t.program.code, code))
  return { code, catalogYear, ...known }
}

async function followersOf(db: Reader, code: string): Promise<Follower[]> {
  const rows = await db
    .select({
      id: t.student.id,
      name: t.account.name,
      number: t.student.number,
      catalogYear: t.programVersion.catalogYear
    })
    .from(t.studentProgram)
    .innerJoin(t.student, eq(t.student.id, t.studentProgram.studentId))
    .innerJoin(t.account, eq(t.account.id, t.student.accountId))
    .innerJoin(t.programVersion, eq(t.programVersion.id, t.studentProgram.programVersionId))
    .innerJoin(t.program, eq(t.program.id, t.programVersion.programId))
    .where(eq(t.program.code, code))
    .orderBy(asc(t.account.name), asc(t.student.id))
  return rows.map((row) => ({ ...row, id: studentId(row.id) }))
}

/** @throws Refused where the year has a version already, or comes before one that is published */
export async function mustBeNext(tx: Transaction, code: string, catalogYear: string): Promise<void> {
  const [newest] = await tx
    .select({ catalogYear: t.programVersion.catalogYear })
    .from(t.programVersion)
    .innerJoin(t.program, eq(t.program.id, t.programVersion.programId))
    .where(eq(t.program.code, code))
    .orderBy(desc(t.programVersion.catalogYear))
    .limit(1)
  if (newest && newest.catalogYear >= catalogYear)
    throw new Refused(
      409,
      'published',
      `${code} is published up to ${newest.catalogYear}; a published version is never edited.`,
      [{ field: 'catalogYear', message: `has to come after ${newest.catalogYear}` }]
    )
}

/** Begins a draft: of the next year of a program, or of a new one. */
export async function makeDraft(tx: Transaction, at: At, asked: NewDraft): Promise<{ id: number }> {
  const written = asked.of === 'new' ? newProgram(asked) : await nextOf(tx, asked)
  const { code, catalogYear, title } = written
  if (asked.of === 'new') {
    const [known] = await tx.select({ id: t.program.id }).from(t.program).where(eq(t.program.code, code))
    if (known)
      throw new Refused(409, 'known', `There is a program ${code} already.`, [
        { field: 'code', message: 'has to be a code that no program has' }
      ])
  }
  await mustBeNext(tx, code, catalogYear)
  const [same] = await tx
    .select({ id: t.programDraft.id })
    .from(t.programDraft)
    .where(all(eq(t.programDraft.code, code), eq(t.programDraft.catalogYear, catalogYear)))
    .for('update')
  if (same)
    throw new Refused(409, 'drafted', `${code} ${catalogYear} is being written already.`, [
      { field: 'catalogYear', message: 'has to be a year that is not being written' }
    ])
  const [made] = await tx
    .insert(t.programDraft)
    .values({
      ...{ code, catalogYear, title, fromText: programText(written) },
      ...{ fromVersionId: asked.of === 'version' ? asked.version : null },
      ...{ changedBy: at.who.id, changedAt: new Date(at.now) }
    })
    .$returningId()
  await logDraft(tx, at, 'program.drafted', { code, catalogYear, version: 1 })
  return { id: made!.id }
}

/** A published version as the draft of a later year begins with it. */
async function nextOf(tx: Transaction, { version, catalogYear }: { version: number; catalogYear: string }) {
  const { spec: read, obliges } = await readProgramVersion(tx, version)
  const { suggested, ...spec } = { ...read, catalogYear }
  return {
    ...spec,
    ...(suggested?.length ? { suggested } : {}),
    ...(obliges.length ? { obliges } : {})
  }
}

export const logDraft = (
  tx: Transaction,
  { who, now }: At,
  action: 'program.drafted' | 'program.draftDropped' | 'program.published',
  after: { code: string; catalogYear: string; version: number }
) => logEvent(tx, { at: now, account: who.id, student: null, action, after })

/** The draft, locked. @throws Refused where it is gone, or was changed since */
export async function lockDraft(tx: Transaction, id: number, version: number) {
  const [draft] = await tx.select().from(t.programDraft).where(eq(t.programDraft.id, id)).for('update')
  if (!draft) throw noDraft()
  if (draft.version !== version)
    throw new Refused(409, 'changedMeanwhile', 'Somebody else has changed this draft meanwhile.')
  return draft
}

/** Keeps the text as it is now, right or wrong. */
export async function saveDraft(
  tx: Transaction,
  at: At & { catalogContext: CatalogContext },
  id: number,
  { text, version }: { text: string; version: number }
): Promise<{ version: number }> {
  const draft = await lockDraft(tx, id, version)
  if (draft.fromText === text) return { version }
  const { written } = readProgramText(text, await contextOf(tx, draft, at.catalogContext))
  await tx
    .update(t.programDraft)
    .set({
      ...{ fromText: text, version: version + 1, title: written?.title ?? draft.title },
      ...{ changedBy: at.who.id, changedAt: new Date(at.now) }
    })
    .where(eq(t.programDraft.id, id))
  await logDraft(tx, at, 'program.drafted', { ...draft, version: version + 1 })
  return { version: version + 1 }
}

export const contextOf = async (
  db: Reader,
  draft: Pick<DraftRow, 'code' | 'catalogYear'>,
  { catalog, lists }: CatalogContext
): Promise<ProgramTextContext> => ({ catalog, lists, expects: await expectedOf(db, draft) })

export async function dropDraft(tx: Transaction, at: At, id: number): Promise<void> {
  const [draft] = await tx.select().from(t.programDraft).where(eq(t.programDraft.id, id)).for('update')
  if (!draft) throw noDraft()
  await tx.delete(t.programDraft).where(eq(t.programDraft.id, id))
  await logDraft(tx, at, 'program.draftDropped', draft)
}
