/** The draft weeks of a student: made, copied, named, shared, taken away; of each term one that they go with. */
import { randomBytes } from 'node:crypto'
import { asc, eq } from 'drizzle-orm'
import { termCode, type SectionCode, type StudentId, type TermCode } from '#core/ids'
import type { SharedWeek } from '#shared/week/responses'
import { FIRST_DRAFT } from '#shared/reading'
import { all, type Reader, type Transaction } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { logEvent } from '#server/db/log'
import { Refused } from '#server/http/problem'
import type { ActorContext } from '#server/features/route/route'
import { lockStudent } from '#server/features/record/lock'
import { mustBeOptions, openTerm, putPicks } from '#server/features/sections/options'
import { sectionsByCode } from '#server/features/sections/sections'

/** Draft weeks of a term at most; people keep about five. */
const MOST = 12

const rowsOf = (tx: Transaction, student: StudentId, termId: number) =>
  tx
    .select()
    .from(t.draftWeek)
    .where(all(eq(t.draftWeek.studentId, student), eq(t.draftWeek.termId, termId)))
    .orderBy(asc(t.draftWeek.id))

/** A draft week of the term, with the student locked: the one named, else the one gone with, made when there is none. */
export async function lockDraft(
  tx: Transaction,
  student: StudentId,
  term: { id: number; name: string },
  id: number | null
): Promise<number> {
  await lockStudent(tx, student)
  const rows = await rowsOf(tx, student, term.id)
  if (id !== null) {
    if (!rows.some((row) => row.id === id)) throw noWeek(term.name)
    return id
  }
  const going = rows.find((row) => row.goingWith)
  if (going) return going.id
  const values = { studentId: student, termId: term.id, name: FIRST_DRAFT, goingWith: true }
  const [made] = await tx.insert(t.draftWeek).values(values).$returningId()
  return made!.id
}

const noWeek = (term: string) =>
  new Refused(
    404,
    'noWeek',
    `There is no such draft week of ${term} any more. Reload to see those there are.`
  )

/** A new draft week: of sections that were found, a copy of another one, or empty. */
export async function makeDraft(
  tx: Transaction,
  at: ActorContext,
  body: {
    term: TermCode
    name: string
    sections: SectionCode[]
    copyOf: number | null
    goingWith: boolean
  }
): Promise<{ week: number }> {
  const term = await openTerm(tx, body.term, at)
  await lockStudent(tx, at.student)
  const rows = await rowsOf(tx, at.student, term.id)
  if (rows.length >= MOST)
    throw new Refused(
      422,
      'tooMany',
      `There are ${MOST} draft weeks of ${term.name} already. Take one away first.`
    )
  mustBeFree(rows, body.name, term.name)
  if (body.copyOf !== null && !rows.some((row) => row.id === body.copyOf)) throw noWeek(term.name)
  await mustBeOptions(tx, term, body.sections)
  const going = body.goingWith || !rows.length
  if (going) await goWithNone(tx, rows)
  const [made] = await tx
    .insert(t.draftWeek)
    .values({ studentId: at.student, termId: term.id, name: body.name, goingWith: going || null })
    .$returningId()
  if (body.copyOf === null) await putPicks(tx, { student: at.student, draft: made!.id }, body.sections)
  else await copyPicks(tx, body.copyOf, made!.id)
  await logEvent(tx, {
    at: at.now,
    account: at.who.id,
    student: at.student,
    action: 'week.made',
    after: { ...body, week: made!.id, goingWith: going }
  })
  return { week: made!.id }
}

async function copyPicks(tx: Transaction, from: number, to: number): Promise<void> {
  const rows = await tx.select().from(t.pickedSection).where(eq(t.pickedSection.draftWeekId, from))
  if (rows.length)
    await tx
      .insert(t.pickedSection)
      .values(
        rows.map(({ sectionId, asPicked, exchange }) => ({ draftWeekId: to, sectionId, asPicked, exchange }))
      )
}

const goWithNone = async (tx: Transaction, rows: { id: number; goingWith: boolean | null }[]) => {
  for (const row of rows)
    if (row.goingWith) await tx.update(t.draftWeek).set({ goingWith: null }).where(eq(t.draftWeek.id, row.id))
}

function mustBeFree(rows: { id: number; name: string }[], name: string, term: string, but = 0): void {
  // As the database compares names: without regard to case or accents.
  const same = (a: string, b: string) => a.localeCompare(b, 'en', { sensitivity: 'base' }) === 0
  if (rows.some((row) => row.id !== but && same(row.name, name)))
    throw new Refused(422, 'nameTaken', `You have a draft week “${name}” of ${term} already.`, [
      { field: 'name', message: 'has to be another name' }
    ])
}

async function picksOf(db: Reader, draft: number): Promise<SectionCode[]> {
  const rows = await db
    .select({ code: t.section.code })
    .from(t.pickedSection)
    .innerJoin(t.section, eq(t.section.id, t.pickedSection.sectionId))
    .where(eq(t.pickedSection.draftWeekId, draft))
    .orderBy(asc(t.pickedSection.id))
  return rows.map((row) => row.code as SectionCode)
}

/** Locks the student and finds one of their draft weeks with its siblings of the term. @throws Refused */
async function lockOwn(tx: Transaction, student: StudentId, id: number) {
  await lockStudent(tx, student)
  const [row] = await tx
    .select({ draft: t.draftWeek, term: t.term })
    .from(t.draftWeek)
    .innerJoin(t.term, eq(t.term.id, t.draftWeek.termId))
    .where(all(eq(t.draftWeek.studentId, student), eq(t.draftWeek.id, id)))
  if (!row) throw noWeek('the term')
  return { ...row, rows: await rowsOf(tx, student, row.term.id) }
}

/** Names a draft week, goes with it, shares it or no longer shares it, and notes something about it. */
export async function changeDraft(
  tx: Transaction,
  at: ActorContext,
  id: number,
  body: {
    name?: string | undefined
    goingWith?: true | undefined
    shared?: boolean | undefined
    note?: string | null | undefined
  }
): Promise<void> {
  const { draft, term, rows } = await lockOwn(tx, at.student, id)
  const { name = draft.name, note = draft.note } = body
  mustBeFree(rows, name, term.name, id)
  if (body.goingWith && !draft.goingWith) await goWithNone(tx, rows)
  const shareKey =
    body.shared === undefined ? draft.shareKey : body.shared ? (draft.shareKey ?? secretKey()) : null
  await tx
    .update(t.draftWeek)
    .set({ name, note, goingWith: body.goingWith ?? draft.goingWith, shareKey })
    .where(eq(t.draftWeek.id, id))
  await logEvent(tx, {
    at: at.now,
    account: at.who.id,
    student: at.student,
    action: 'week.changed',
    before: {
      week: id,
      name: draft.name,
      note: draft.note,
      goingWith: draft.goingWith,
      shared: draft.shareKey !== null
    },
    after: {
      week: id,
      name,
      note,
      goingWith: body.goingWith ?? draft.goingWith,
      shared: shareKey !== null
    }
  })
}

/** A key that nobody guesses: 128 bits. */
export const secretKey = () => randomBytes(16).toString('hex')

/** Takes a draft week away for good. The one gone with stays while there are others. */
export async function dropDraft(tx: Transaction, at: ActorContext, id: number): Promise<void> {
  const { draft, rows } = await lockOwn(tx, at.student, id)
  if (draft.goingWith && rows.length > 1)
    throw new Refused(
      422,
      'goingWith',
      `You are going with “${draft.name}”. Go with another draft week before you take it away.`
    )
  const sections = await picksOf(tx, id)
  await tx.delete(t.pickedSection).where(eq(t.pickedSection.draftWeekId, id))
  await tx.delete(t.draftWeek).where(eq(t.draftWeek.id, id))
  await logEvent(tx, {
    at: at.now,
    account: at.who.id,
    student: at.student,
    action: 'week.dropped',
    before: { week: id, name: draft.name, sections }
  })
}

/** A shared week by its key: its sections as they are now, and nothing else of the record. @throws Refused */
export async function readShared(db: Reader, key: string): Promise<SharedWeek> {
  const [row] = await db
    .select({ id: t.draftWeek.id, name: t.draftWeek.name, term: t.term.code, termName: t.term.name })
    .from(t.draftWeek)
    .innerJoin(t.term, eq(t.term.id, t.draftWeek.termId))
    .where(eq(t.draftWeek.shareKey, key))
  const [institution] = await db.select({ name: t.institution.name }).from(t.institution).limit(1)
  if (!row)
    throw new Refused(
      404,
      'notShared',
      'This week is not shared, or not any more. Ask whoever sent you the link.'
    )
  return {
    institution: institution!.name,
    name: row.name,
    term: termCode(row.term),
    termName: row.termName,
    sections: await sectionsByCode(db, await picksOf(db, row.id))
  }
}
