/** What a student can carry in a term, the terms spent elsewhere, and what is noted on a term. */
import { asc, eq, isNotNull } from 'drizzle-orm'
import { termCode, type StudentId, type TermCode } from '#core/ids'
import type { Carry } from '#shared/route/responses'
import type { StudentView } from '#shared/record/responses'
import { all, type Reader, type Transaction } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { termRow } from '#server/features/catalog/catalog'
import { logEvent } from '#server/db/log'
import type { ActorContext } from './route'

export async function writeCarry(tx: Transaction, at: ActorContext, carry: Carry): Promise<void> {
  const target = carry.target === null ? null : (await termRow(tx, carry.target)).id
  const before = await lockCarry(tx, at.student)
  await tx
    .update(t.student)
    .set({
      carryCredits: carry.credits,
      carryLeast: carry.least,
      carryHours: carry.hours,
      outsideHours: carry.outside,
      aimTermId: target
    })
    .where(eq(t.student.id, at.student))
  await tx.delete(t.studentTerm).where(eq(t.studentTerm.studentId, at.student))
  for (const { term, credits, hours, away } of carry.terms) {
    if (credits === null && hours === null && away === null) continue
    const values = { carryCredits: credits, carryHours: hours, away }
    await tx
      .insert(t.studentTerm)
      .values({ studentId: at.student, termId: (await termRow(tx, term)).id, ...values })
      .onDuplicateKeyUpdate({ set: values })
  }
  await logEvent(tx, {
    at: at.now,
    account: at.who.id,
    student: at.student,
    action: 'carry.changed',
    before,
    after: carry
  })
}

/** What was said before, with the student's row locked until the transaction ends. */
async function lockCarry(tx: Transaction, student: StudentId): Promise<Carry> {
  const [own] = await tx.select().from(t.student).where(eq(t.student.id, student)).for('update')
  const [aim] = own?.aimTermId
    ? await tx.select({ code: t.term.code }).from(t.term).where(eq(t.term.id, own.aimTermId))
    : []
  const terms = await tx
    .select({ term: t.term.code, one: t.studentTerm })
    .from(t.studentTerm)
    .innerJoin(t.term, eq(t.term.id, t.studentTerm.termId))
    .where(eq(t.studentTerm.studentId, student))
    .orderBy(asc(t.term.startsOn))
  return {
    credits: own!.carryCredits,
    least: own!.carryLeast,
    hours: own!.carryHours,
    outside: own!.outsideHours,
    target: aim ? termCode(aim.code) : null,
    terms: terms.map(({ term, one }) => ({
      term: termCode(term),
      credits: one.carryCredits,
      hours: one.carryHours,
      away: one.away
    }))
  }
}

export async function readTermNotes(db: Reader, student: StudentId): Promise<StudentView['termNotes']> {
  const rows = await db
    .select({ term: t.term.code, text: t.note.text, by: t.account.name })
    .from(t.note)
    .innerJoin(t.term, eq(t.term.id, t.note.termId))
    .innerJoin(t.account, eq(t.account.id, t.note.authorId))
    .where(all(...sharedTermNote(student), isNotNull(t.note.termId)))
    .orderBy(asc(t.note.at))
  return rows.map((row) => ({ ...row, term: termCode(row.term) }))
}

const sharedTermNote = (student: StudentId) => [
  eq(t.note.studentId, student),
  eq(t.note.visibility, 'shared')
]

/** One note on each term, shared with the advisors; an empty one is taken away. */
export async function writeTermNote(
  tx: Transaction,
  at: ActorContext,
  code: TermCode,
  text: string | null
): Promise<void> {
  const term = await termRow(tx, code)
  await tx.delete(t.note).where(all(...sharedTermNote(at.student), eq(t.note.termId, term.id)))
  if (text)
    await tx.insert(t.note).values({
      studentId: at.student,
      authorId: at.who.id,
      termId: term.id,
      visibility: 'shared',
      text,
      at: new Date(at.now)
    })
  await logEvent(tx, {
    at: at.now,
    account: at.who.id,
    student: at.student,
    action: 'termNote.written',
    after: { term: code, text }
  })
}
