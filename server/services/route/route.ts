/** Changes of a student's chosen route: one transaction each, refused when the route moved on meanwhile. */
import { eq } from 'drizzle-orm'
import { phaseOf } from '#core/catalog'
import type { PlannedCourse } from '#core/degree'
import type { RouteChange } from '#core/findings'
import { courseCode, termCode, type StudentId } from '#core/ids'
import { applyChange } from '#core/route'
import type { Instant } from '#core/time'
import type { Who } from '#wire/picture'
import { campusDate } from '#wire/when'
import { CHANGE_FAULTS } from '#wire/words'
import { all, type Reader, type Transaction } from '../../db/connect'
import * as t from '../../db/schema'
import { courseIds, termRow } from '../catalog/catalog'
import { logEvent } from '../log'
import { Refused } from '../problem'

/** The chosen route of a student, locked until the transaction ends; made when there is none. */
export async function lockRoute(tx: Transaction, student: StudentId, who: Who, now: Instant) {
  const condition = all(eq(t.route.studentId, student), eq(t.route.chosen, true))
  const [route] = await tx.select().from(t.route).where(condition).for('update')
  if (route) return route
  const values = {
    studentId: student,
    name: 'Main route',
    chosen: true,
    changedAt: new Date(now),
    changedBy: who.id
  }
  await tx.insert(t.route).values(values)
  const [made] = await tx.select().from(t.route).where(condition).for('update')
  return made!
}

export async function plannedOn(db: Reader, routeId: number): Promise<PlannedCourse[]> {
  const rows = await db
    .select({ planned: t.plannedCourse, course: t.course.code, term: t.term.code })
    .from(t.plannedCourse)
    .innerJoin(t.course, eq(t.course.id, t.plannedCourse.courseId))
    .innerJoin(t.term, eq(t.term.id, t.plannedCourse.termId))
    .where(eq(t.plannedCourse.routeId, routeId))
  return rows.map(({ planned: { credits, note, locked }, course, term }) => ({
    course: courseCode(course),
    term: termCode(term),
    credits,
    note,
    locked
  }))
}

export async function changeRoute(
  tx: Transaction,
  who: Who,
  student: StudentId,
  body: { version: number; change: RouteChange },
  at: { now: Instant; zone: string }
): Promise<{ version: number }> {
  const route = await lockRoute(tx, student, who, at.now)
  if (route.version !== body.version) {
    throw new Refused(
      409,
      'routeMovedOn',
      'The route was changed meanwhile, so your change was not made. You now see it as it is; try again.'
    )
  }
  const { change } = body
  const before = await plannedOn(tx, route.id)
  const today = campusDate(at.now, at.zone)
  const terms = new Map<string, Awaited<ReturnType<typeof termRow>>>()
  const codes = change.kind === 'move' ? [change.from, change.to] : [change.planned.term]
  for (const code of codes) terms.set(code, await termRow(tx, code))
  const isFuture = (code: string) => {
    const term = terms.get(code)!
    return phaseOf({ start: term.startsOn, end: term.endsOn }, today) === 'future'
  }
  const changed = applyChange(before, change, isFuture)
  if (!changed.ok) {
    const field = change.kind === 'move' ? 'change.to' : 'change.planned.term'
    throw new Refused(422, changed.fault, CHANGE_FAULTS[changed.fault], [
      { field, message: CHANGE_FAULTS[changed.fault] }
    ])
  }
  await writeChange(tx, route.id, change, (code) => terms.get(code)!.id)
  const version = route.version + 1
  await tx
    .update(t.route)
    .set({ version, changedAt: new Date(at.now), changedBy: who.id })
    .where(eq(t.route.id, route.id))
  await logEvent(tx, {
    at: at.now,
    account: who.id,
    student,
    action: 'route.changed',
    before: { version: route.version },
    after: { version, change }
  })
  return { version }
}

async function writeChange(
  tx: Transaction,
  routeId: number,
  change: RouteChange,
  termId: (code: string) => number
) {
  const course = change.kind === 'move' ? change.course : change.planned.course
  const courseId = (await courseIds(tx, [course])).get(course)!
  const row = (term: string) =>
    all(
      eq(t.plannedCourse.routeId, routeId),
      eq(t.plannedCourse.courseId, courseId),
      eq(t.plannedCourse.termId, termId(term))
    )
  switch (change.kind) {
    case 'add': {
      const { term, credits, note, locked } = change.planned
      const [catalog] = await tx.select().from(t.course).where(eq(t.course.id, courseId))
      if (credits < catalog!.credits || credits > catalog!.creditsMost) {
        throw new Refused(422, 'credits', `${course} carries ${catalog!.credits} credits, not ${credits}.`, [
          { field: 'change.planned.credits', message: `has to be ${catalog!.credits}` }
        ])
      }
      await tx
        .insert(t.plannedCourse)
        .values({ routeId, courseId, termId: termId(term), credits, note, locked })
      return
    }
    case 'remove':
      await tx.delete(t.plannedCourse).where(row(change.planned.term))
      return
    case 'move':
      await tx
        .update(t.plannedCourse)
        .set({ termId: termId(change.to) })
        .where(row(change.from))
  }
}

/** The student asks the advisor for a review of the chosen route. */
export async function askForReview(
  tx: Transaction,
  who: Who,
  student: StudentId,
  now: Instant
): Promise<void> {
  const route = await lockRoute(tx, student, who, now)
  await tx
    .update(t.route)
    .set({ reviewAskedAt: new Date(now) })
    .where(eq(t.route.id, route.id))
  await logEvent(tx, {
    at: now,
    account: who.id,
    student,
    action: 'review.asked',
    after: { version: route.version }
  })
}
