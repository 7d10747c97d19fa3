/** What a student says of a line of the run sheet. */
import { eq } from 'drizzle-orm'
import type { CourseCode, SectionCode } from '#core/ids'
import { all, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { courseIds } from '#server/features/catalog/catalog'
import { lockStudent } from '#server/features/record/lock'
import { Refused } from '#server/http/problem'
import type { ActorContext } from '#server/features/route/route'
import { mustBeOptions, openTerm } from '#server/features/sections/options'
import { coursesOf } from '#server/features/sections/sections'
import type { LineFallbacks } from '#shared/registration/fallbacks'
import { seatsOf } from './heldSeats'

/** What is said of a line, in place of what was. */
export async function writeFallbacks(tx: Transaction, at: ActorContext, said: LineFallbacks): Promise<void> {
  const { term: code, course, list, onlyWith, givingUp, credits, note } = said
  const term = await openTerm(tx, code, at)
  if (onlyWith === course)
    throw new Refused(422, 'withItself', `${course} cannot wait for itself.`, [
      { field: 'onlyWith', message: 'has to be another course' }
    ])
  if (givingUp === course)
    throw new Refused(422, 'forItself', `${course} cannot be given up for itself.`, [
      { field: 'givingUp', message: 'has to be another course' }
    ])
  const named = [onlyWith, givingUp].filter((one) => one !== null)
  const ids = await courseIds(tx, [...new Set([course, ...named])])
  const courseId = ids.get(course)!
  await lockStudent(tx, at.student)
  const isHeld = (await seatsOf(tx, at.student, code, [course])).length > 0
  for (const one of list)
    if (one.kind === 'sections') await mustBeChoice(tx, term, course, one.sections, isHeld)
  const own = all(
    eq(t.fallback.studentId, at.student),
    eq(t.fallback.termId, term.id),
    eq(t.fallback.courseId, courseId)
  )
  const [before] = await tx.select().from(t.fallback).where(own)
  await tx.delete(t.fallback).where(own)
  const idOf = (other: CourseCode | null) => (other ? ids.get(other)! : null)
  if (credits !== null) await mustBeInRange(tx, course, credits)
  const values = { list, onlyWithId: idOf(onlyWith), givingUpId: idOf(givingUp), credits, note }
  if (list.length || onlyWith || givingUp || credits !== null || note)
    await tx.insert(t.fallback).values({ studentId: at.student, termId: term.id, courseId, ...values })
  await logEvent(tx, {
    at: at.now,
    account: at.who.id,
    student: at.student,
    action: 'fallbacks.changed',
    before: { term: code, course, list: before?.list ?? [] },
    after: said
  })
}

async function mustBeInRange(tx: Transaction, code: CourseCode, credits: number): Promise<void> {
  const [row] = await tx
    .select({ least: t.course.credits, most: t.course.creditsMost })
    .from(t.course)
    .where(eq(t.course.code, code))
  const { least, most } = row!
  if (credits < least || credits > most)
    throw new Refused(422, 'creditsOutside', `${code} carries ${least} to ${most} credits.`, [
      { field: 'credits', message: `has to be ${least} to ${most}` }
    ])
}

/** Refuses sections that are not one choice of a course; a seat that is held is exchanged within its course only. */
async function mustBeChoice(
  tx: Transaction,
  term: { code: string; name: string },
  course: CourseCode,
  sections: readonly SectionCode[],
  isHeld: boolean
): Promise<void> {
  await mustBeOptions(tx, term, sections)
  const courses = new Set(await coursesOf(tx, sections))
  if (courses.size > 1)
    throw new Refused(422, 'noOption', 'A fallback is one course; these sections are of several.', [
      { field: 'list', message: 'has to name the sections of one course in each fallback' }
    ])
  if (isHeld && !courses.has(course))
    throw new Refused(
      422,
      'heldAlready',
      `You hold a seat in ${course}; it is exchanged for other sections of ${course} only.`,
      [{ field: 'list', message: `has to name sections of ${course}` }]
    )
}
