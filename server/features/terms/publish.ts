/** Publication of a term: its sections can be seen from then on, and whoever planned for it is told. */
import { asc, eq, isNull } from 'drizzle-orm'
import { courseCode, studentId, termCode, type TermCode } from '#core/ids'
import type { Instant } from '#core/time'
import { all, type Reader, type Transaction } from '#server/db/connect'
import { groupBy } from '#server/db/groupBy'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { termRow } from '#server/features/catalog/catalog'
import { byOpening, everybodyOf } from '#server/features/offices/openingFigures'
import { opensFor } from '#server/features/registration/openings'
import { plannedIn } from '#server/features/sections/demand'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import { momentOf } from '#shared/catalog/context'
import type { PublicationEffect } from '#shared/offices/terms'

/** Whom a publication would concern, as the term stands now. */
export async function publicationEffect(db: Reader, code: TermCode): Promise<PublicationEffect> {
  const term = await termRow(db, code)
  const sections = await db
    .select({ course: t.section.courseId, id: t.section.id })
    .from(t.section)
    .where(all(eq(t.section.termId, term.id), eq(t.section.cancelled, false), isNull(t.section.parentId)))
  const running = new Set(sections.map((one) => one.course))
  const wanted = await plannedIn(db, term.id)
  const openings = await db
    .select({ title: t.opening.title, opensAt: t.opening.opensAt })
    .from(t.opening)
    .where(eq(t.opening.termId, term.id))
    .orderBy(asc(t.opening.opensAt), asc(t.opening.id))
  const opens = await opensFor(db, termCode(term.code), await everybodyOf(db))
  const planners = new Set(wanted.map((one) => one.student))
  return {
    sections: sections.length,
    courses: running.size,
    planned: planners.size,
    without: [...groupBy(wanted, (one) => one.course)]
      .filter(([, [first]]) => !running.has(first!.courseId))
      .map(([course, rows]) => ({ course: courseCode(course), students: rows.length }))
      .sort((a, b) => b.students - a.students || (a.course < b.course ? -1 : 1)),
    openings: byOpening(opens, openings).map(({ of, people }) => ({
      ...{ title: of.title, opens: of.opensAt.getTime(), students: people.length }
    })),
    unopened: [...planners].filter((one) => !opens.has(studentId(one))).length
  }
}

/**
 * Publishes a term, for good.
 *
 * @returns how many students were told
 * @throws Refused where it is published, over, or without a section
 */
export async function publishTerm(
  tx: Transaction,
  who: Who,
  code: TermCode,
  { now, zone }: { now: Instant; zone: string }
): Promise<{ told: number }> {
  const { id } = await termRow(tx, code)
  const [term] = await tx.select().from(t.term).where(eq(t.term.id, id)).for('update')
  if (term!.published) throw new Refused(409, 'published', `${term!.name} is published already.`)
  if (momentOf(now, zone).today > term!.endsOn) throw new Refused(422, 'termOver', `${term!.name} is over.`)
  const sections = await tx
    .selectDistinct({ course: t.section.courseId })
    .from(t.section)
    .where(all(eq(t.section.termId, id), eq(t.section.cancelled, false)))
  if (!sections.length)
    throw new Refused(
      422,
      'noOffer',
      `${term!.name} has no sections; students would find every planned course not offered.`
    )
  await tx
    .update(t.term)
    .set({ published: true, version: term!.version + 1 })
    .where(eq(t.term.id, id))
  await logEvent(tx, {
    ...{ at: now, account: who.id, student: null, action: 'term.published' },
    after: { term: code }
  })
  const running = new Set(sections.map((one) => one.course))
  const wanted = groupBy(await plannedIn(tx, id), (one) => one.student)
  const opens = await opensFor(
    tx,
    code,
    [...wanted.keys()].map((one) => studentId(one))
  )
  for (const [student, rows] of wanted)
    await logEvent(tx, {
      ...{ at: now, account: who.id, student: studentId(student), action: 'term.onOffer' },
      after: {
        term: code,
        planned: rows.length,
        without: rows.filter((one) => !running.has(one.courseId)).map((one) => one.course),
        opens: opens.get(studentId(student)) ?? null
      }
    })
  return { told: wanted.size }
}
