/** Picking sections for a term, in one of the student's draft weeks. */
import { eq, inArray } from 'drizzle-orm'
import type { CourseCode, SectionCode, StudentId, TermCode } from '#core/ids'
import type { Instant } from '#core/time'
import type { Who } from '#shared/accounts/responses'
import { all, type Transaction } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { courseIds } from '#server/features/catalog/catalog'
import { logEvent } from '#server/db/log'
import { lockDraft } from './drafts'
import { mustBeOption, openTerm, putPicks } from '#server/features/sections/options'
import { offerOf } from '#server/features/sections/sections'

/** Picks options of courses, or nothing of them, all in one; @returns the draft week in which they are. */
export async function pick(
  tx: Transaction,
  who: Who,
  student: StudentId,
  { term: termCode, picks, week }: PickBody,
  at: { now: Instant; zone: string }
): Promise<{ week: number }> {
  const term = await openTerm(tx, termCode, at)
  const courses = picks.map((one) => one.course)
  const ids = await courseIds(tx, courses)
  const offer = await offerOf(tx, termCode, courses)
  for (const one of picks) {
    const own = offer.filter((section) => section.course === one.course)
    if (one.sections.length) mustBeOption(own, one, term.name)
  }
  const draft = await lockDraft(tx, student, term, week ?? null)
  const before = await tx
    .select({ id: t.pickedSection.id, code: t.section.code })
    .from(t.pickedSection)
    .innerJoin(t.section, eq(t.section.id, t.pickedSection.sectionId))
    .where(all(eq(t.pickedSection.draftWeekId, draft), inArray(t.section.courseId, [...ids.values()])))
  if (before.length)
    await tx.delete(t.pickedSection).where(
      inArray(
        t.pickedSection.id,
        before.map((row) => row.id)
      )
    )
  const after = picks.flatMap((one) => one.sections)
  await putPicks(tx, { student, draft }, after)
  const about = { term: termCode, week: draft, courses }
  await logEvent(tx, {
    at: at.now,
    account: who.id,
    student,
    action: 'week.picked',
    before: { ...about, sections: before.map((row) => row.code) },
    after: { ...about, sections: after }
  })
  return { week: draft }
}

export interface PickBody {
  term: TermCode
  picks: { course: CourseCode; sections: SectionCode[] }[]
  /** The draft week; without it the one gone with. */
  week?: number | null | undefined
}
