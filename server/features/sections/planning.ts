/** Who plans the offer of a course, and which of its sections may still be changed. */
import { eq } from 'drizzle-orm'
import type { Reader, Transaction } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import { momentOf, type CatalogContext } from '#shared/catalog/context'
import { coursesPlannedBy } from './demand'

/** @throws Refused where the course is of another department's */
export async function mustPlan(db: Reader, who: Pick<Who, 'id' | 'role'>, course: string): Promise<void> {
  const own = await coursesPlannedBy(db, who)
  if (!own.some((one) => one.code === course))
    throw new Refused(403, 'notYours', `The offer of ${course} is for another department to plan.`)
}

interface Known {
  section: typeof t.section.$inferSelect
  course: string
  term: typeof t.term.$inferSelect
}

/** A section, locked, with its course and term. @throws Refused where there is none, or it is another department's */
export async function lockKnown(tx: Transaction, who: Who, code: string): Promise<Known> {
  const [found] = await tx
    .select({ section: t.section, course: t.course.code, term: t.term })
    .from(t.section)
    .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    .innerJoin(t.term, eq(t.term.id, t.section.termId))
    .where(eq(t.section.code, code))
  if (!found) throw new Refused(404, 'noSection', `There is no section ${code}.`)
  await mustPlan(tx, who, found.course)
  const [locked] = await tx.select().from(t.section).where(eq(t.section.id, found.section.id)).for('update')
  return { ...found, section: locked! }
}

/** What has been held stays as it was held. @throws Refused */
export function mustNotBeOver(
  { name, endsOn }: { name: string; endsOn: string },
  now: number,
  { zone }: CatalogContext
): void {
  if (momentOf(now, zone).today > endsOn)
    throw new Refused(422, 'termOver', `${name} is over; its sections are not changed any more.`, [
      { field: 'section', message: 'has to be a section of a term that is not over' }
    ])
}
