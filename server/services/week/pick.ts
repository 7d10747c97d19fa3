/** Picking sections for a term: the draft week that the student is going with. */
import { eq, inArray } from 'drizzle-orm'
import { phaseOf } from '#core/catalog'
import type { CourseCode, SectionCode, StudentId, TermCode } from '#core/ids'
import type { Instant } from '#core/time'
import { optionsAmong } from '#core/week'
import type { Who } from '#wire/picture'
import { campusDate } from '#wire/when'
import { all, type Transaction } from '../../db/connect'
import * as t from '../../db/schema'
import { courseIds, termRow } from '../catalog/catalog'
import { logEvent } from '../log'
import { Refused } from '../problem'
import { offerOf } from './sections'

export async function pick(
  tx: Transaction,
  who: Who,
  student: StudentId,
  body: { term: TermCode; course: CourseCode; sections: SectionCode[] },
  at: { now: Instant; zone: string }
): Promise<void> {
  const term = await termRow(tx, body.term)
  if (phaseOf({ start: term.startsOn, end: term.endsOn }, campusDate(at.now, at.zone)) === 'past') {
    throw new Refused(422, 'termClosed', `${term.name} is over; its sections cannot be picked any more.`, [
      { field: 'term', message: 'has to be a term that is not over' }
    ])
  }
  const courseId = (await courseIds(tx, [body.course])).get(body.course)!
  const offer = await offerOf(tx, body.term, [body.course])
  if (body.sections.length) {
    const wanted = [...body.sections].sort().join()
    const option = optionsAmong(offer).find((o) => o.key.split('+').sort().join() === wanted)
    if (!option) {
      throw new Refused(
        422,
        'noOption',
        `These sections are not one choice of ${body.course} in ${term.name}: pick a section and one of each of its components.`,
        [
          {
            field: 'sections',
            message: `has to be a section of ${body.course} with one of each of its components`
          }
        ]
      )
    }
  }
  const draft = await lockDraft(tx, student, term.id)
  const before = await tx
    .select({ id: t.pickedSection.id, code: t.section.code })
    .from(t.pickedSection)
    .innerJoin(t.section, eq(t.section.id, t.pickedSection.sectionId))
    .where(all(eq(t.pickedSection.draftWeekId, draft), eq(t.section.courseId, courseId)))
  if (before.length)
    await tx.delete(t.pickedSection).where(
      inArray(
        t.pickedSection.id,
        before.map((row) => row.id)
      )
    )
  if (body.sections.length) {
    const rows = await tx
      .select({ id: t.section.id })
      .from(t.section)
      .where(inArray(t.section.code, body.sections))
    await tx.insert(t.pickedSection).values(rows.map((row) => ({ draftWeekId: draft, sectionId: row.id })))
  }
  await logEvent(tx, {
    at: at.now,
    account: who.id,
    student,
    action: 'week.picked',
    before: { term: body.term, course: body.course, sections: before.map((row) => row.code) },
    after: { term: body.term, course: body.course, sections: body.sections }
  })
}

/** The draft the student is going with, locked; made when there is none. */
async function lockDraft(tx: Transaction, student: StudentId, termId: number): Promise<number> {
  const condition = all(
    eq(t.draftWeek.studentId, student),
    eq(t.draftWeek.termId, termId),
    eq(t.draftWeek.goingWith, true)
  )
  const [draft] = await tx.select({ id: t.draftWeek.id }).from(t.draftWeek).where(condition).for('update')
  if (draft) return draft.id
  const [made] = await tx
    .insert(t.draftWeek)
    .values({ studentId: student, termId, name: 'First draft', goingWith: true })
    .$returningId()
  return made!.id
}
