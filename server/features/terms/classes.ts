/** Classes follow the sessions to which their sections belong. */
import { eq, gt, inArray, lt, or, sql } from 'drizzle-orm'
import { all, type Transaction } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { Refused } from '#server/http/problem'
import type { TermSaid } from '#shared/offices/terms'

/**
 * Meetings that reach from the first to the last day of a session do so after it was changed; the others stay.
 *
 * @throws Refused where one of them would lie outside of its session
 */
export async function moveClasses(
  tx: Transaction,
  term: number,
  before: Pick<TermSaid, 'sessions'>,
  said: Pick<TermSaid, 'sessions'>
): Promise<void> {
  const ids = await tx
    .select({ id: t.session.id, code: t.session.code })
    .from(t.session)
    .where(eq(t.session.termId, term))
  for (const [i, one] of said.sessions.entries()) {
    const was = before.sessions.find(({ code }) => code === one.code)
    const id = ids.find(({ code }) => code === one.code)?.id
    if (!was || id === undefined || (was.start === one.start && was.end === one.end)) continue
    const sections = tx.select({ id: t.section.id }).from(t.section).where(eq(t.section.sessionId, id))
    const own = inArray(t.meeting.sectionId, sections)
    // Both ends in one step: in between one could lie after the other.
    await tx
      .update(t.meeting)
      .set({
        fromOn: sql`if(${t.meeting.fromOn} = ${was.start}, ${one.start}, ${t.meeting.fromOn})`,
        toOn: sql`if(${t.meeting.toOn} = ${was.end}, ${one.end}, ${t.meeting.toOn})`
      })
      .where(own)
    const [outside] = await tx
      .select({ section: t.section.code, from: t.meeting.fromOn, to: t.meeting.toOn })
      .from(t.meeting)
      .innerJoin(t.section, eq(t.section.id, t.meeting.sectionId))
      .where(all(own, or(lt(t.meeting.fromOn, one.start), gt(t.meeting.toOn, one.end))!))
      .limit(1)
    if (outside)
      throw new Refused(
        422,
        'classesOutside',
        `Section ${outside.section} has classes from ${outside.from} to ${outside.to}, outside of ${one.name}.`,
        [
          {
            field: `sessions.${i}.${outside.from < one.start ? 'start' : 'end'}`,
            message: `has to hold the classes of ${outside.section}`
          }
        ]
      )
  }
}
