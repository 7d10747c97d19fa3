/** Sections that an advisor proposes for the student's week; accepted, they are picked as by the student. */
import { asc, eq, inArray, ne } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import { courseCode, termCode, type SectionCode, type StudentId } from '#core/ids'
import { all, type Reader, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { courseIds } from '#server/features/catalog/catalog'
import { lockStudent } from '#server/features/record/lock'
import type { ActorContext } from '#server/features/route/route'
import { mustBeOption, openTerm } from '#server/features/sections/options'
import { offerOf } from '#server/features/sections/sections'
import { pick } from '#server/features/week/pick'
import { isTalker, type Relation } from '#server/http/access'
import { Refused } from '#server/http/problem'
import type { SectionsSuggested } from '#shared/advising/requests'
import type { SectionSuggestion } from '#shared/advising/sectionSuggestions'
import { nextNumber } from './numbers'

/** In the order in which they were made, without those taken back. */
export async function readSectionSuggestions(
  db: Reader,
  student: StudentId,
  reader: { account: number; relation: Relation }
): Promise<SectionSuggestion[]> {
  if (!isTalker(reader.relation)) return []
  const answerer = alias(t.account, 'answerer')
  const rows = await db
    .select({
      one: t.sectionSuggestion,
      term: t.term.code,
      course: t.course.code,
      by: t.account.name,
      answeredBy: answerer.name
    })
    .from(t.sectionSuggestion)
    .innerJoin(t.term, eq(t.term.id, t.sectionSuggestion.termId))
    .innerJoin(t.course, eq(t.course.id, t.sectionSuggestion.courseId))
    .innerJoin(t.account, eq(t.account.id, t.sectionSuggestion.byId))
    .leftJoin(answerer, eq(answerer.id, t.sectionSuggestion.answeredById))
    .where(all(eq(t.sectionSuggestion.studentId, student), ne(t.sectionSuggestion.state, 'withdrawn')))
    .orderBy(asc(t.sectionSuggestion.id))
  const codes = rows.flatMap((row) => row.one.sections)
  const numbers = new Map(
    codes.length
      ? (
          await db
            .select({ code: t.section.code, number: t.section.number })
            .from(t.section)
            .where(inArray(t.section.code, codes))
        ).map((row) => [row.code, row.number])
      : []
  )
  return rows.map(({ one, term, course, by, answeredBy }) => ({
    ...{ id: one.id, number: one.number, by, own: one.byId === reader.account, at: one.at.getTime() },
    ...{ term: termCode(term), course: courseCode(course) },
    sections: one.sections.map((code) => ({ code, number: numbers.get(code) ?? code })),
    state: one.state as SectionSuggestion['state'],
    answer: answeredBy && one.answeredAt ? { by: answeredBy, at: one.answeredAt.getTime() } : null
  }))
}

/** Proposes sections of a course; what the same advisor proposed of it and what waits gives way. @throws Refused */
export async function suggestSections(
  tx: Transaction,
  at: ActorContext,
  said: SectionsSuggested
): Promise<{ suggestion: number }> {
  const { who, student, now } = at
  const term = await openTerm(tx, said.term, at)
  const ids = await courseIds(tx, [said.course])
  await lockStudent(tx, student)
  mustBeOption(await offerOf(tx, said.term, [said.course]), said, term.name)
  const same = all(
    eq(t.sectionSuggestion.studentId, student),
    eq(t.sectionSuggestion.termId, term.id),
    eq(t.sectionSuggestion.courseId, ids.get(said.course)!),
    eq(t.sectionSuggestion.byId, who.id),
    eq(t.sectionSuggestion.state, 'waiting')
  )
  const [before] = await tx.select().from(t.sectionSuggestion).where(same)
  if (before) await tx.update(t.sectionSuggestion).set({ state: 'withdrawn' }).where(same)
  const [made] = await tx
    .insert(t.sectionSuggestion)
    .values({
      ...{ studentId: student, termId: term.id, courseId: ids.get(said.course)!, sections: said.sections },
      ...{ byId: who.id, at: new Date(now), state: 'waiting' },
      number: before?.number ?? (await nextNumber(tx, student))
    })
    .$returningId()
  await logEvent(tx, {
    ...{ at: now, account: who.id, student, action: 'suggestion.sections' },
    after: {
      suggestion: made!.id,
      by: who.name,
      term: said.term,
      course: said.course,
      sections: said.sections
    }
  })
  return { suggestion: made!.id }
}

/** @throws Refused where it does not wait any more */
export async function withdrawSections(
  tx: Transaction,
  { who, student, now }: Omit<ActorContext, 'zone'>,
  id: number
): Promise<void> {
  await lockStudent(tx, student)
  const found = await lockWaiting(tx, student, id)
  if (found.byId !== who.id) throw new Refused(404, 'noSuggestion', 'There is no such suggestion of yours.')
  await tx.update(t.sectionSuggestion).set({ state: 'withdrawn' }).where(eq(t.sectionSuggestion.id, id))
  const before = { suggestion: id }
  await logEvent(tx, { at: now, account: who.id, student, action: 'suggestion.withdrawn', before })
}

/** Accepted, the sections are picked in the draft week that the student goes with. @throws Refused where that cannot be */
export async function answerSections(
  tx: Transaction,
  at: ActorContext,
  id: number,
  answer: 'accepted' | 'declined'
): Promise<void> {
  const { who, student, now } = at
  await lockStudent(tx, student)
  const found = await lockWaiting(tx, student, id)
  if (answer === 'accepted') {
    const [about] = await tx
      .select({ term: t.term.code, course: t.course.code })
      .from(t.sectionSuggestion)
      .innerJoin(t.term, eq(t.term.id, t.sectionSuggestion.termId))
      .innerJoin(t.course, eq(t.course.id, t.sectionSuggestion.courseId))
      .where(eq(t.sectionSuggestion.id, id))
    const picks = [{ course: courseCode(about!.course), sections: found.sections }]
    await pick(tx, who, student, { term: termCode(about!.term), picks }, at)
  }
  await tx
    .update(t.sectionSuggestion)
    .set({ state: answer, answeredById: who.id, answeredAt: new Date(now) })
    .where(eq(t.sectionSuggestion.id, id))
  const after = { suggestion: id, answer, sections: found.sections satisfies SectionCode[] }
  await logEvent(tx, { at: now, account: who.id, student, action: 'suggestion.answered', after })
}

async function lockWaiting(tx: Transaction, student: StudentId, id: number) {
  const [found] = await tx
    .select()
    .from(t.sectionSuggestion)
    .where(all(eq(t.sectionSuggestion.id, id), eq(t.sectionSuggestion.studentId, student)))
    .for('update')
  if (!found) throw new Refused(404, 'noSuggestion', 'There is no such suggestion.')
  if (found.state === 'waiting') return found
  throw new Refused(409, 'notWaiting', 'This suggestion was answered or taken back meanwhile.')
}
