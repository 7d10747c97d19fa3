/** Changes of a student's routes: one transaction each, refused when the route moved on meanwhile. */
import { takesPlans } from '#core/calendar'
import type { PlannedCourse } from '#core/degree'
import type { RouteChange } from '#core/findings'
import { courseCode, termCode, type StudentId } from '#core/ids'
import {
  applyChange,
  coursesBefore,
  coursesTouched,
  differenceOf,
  historyOf,
  inverse,
  termsTouched,
  type Step
} from '#core/route'
import type { Instant } from '#core/time'
import { all, type Reader, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { courseIds, datesOfTerm, termRow } from '#server/features/catalog/catalog'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import { momentOf } from '#shared/catalog/context'
import type { RouteAnswer } from '#shared/route/responses'
import { CHANGE_FAULTS } from '#shared/route/texts'
import { asc, desc, eq } from 'drizzle-orm'
import { placeOf, writePlanned, mustCarry } from './plannedRows'

type RouteRow = typeof t.route.$inferSelect

/** When and by whom a route is changed; `zone` is that of the campus. */
export interface ActorContext {
  who: Who
  student: StudentId
  now: Instant
  zone: string
}

/** Steps that undo goes back at most. */
export const UNDO_MOST = 200

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

/** A route of the student, locked; the chosen one without an id. @throws Refused when it is not theirs. */
export async function lockOwn(
  tx: Transaction,
  { student, who, now }: ActorContext,
  id: number | null
): Promise<RouteRow> {
  if (id === null) return lockRoute(tx, student, who, now)
  const [route] = await tx
    .select()
    .from(t.route)
    .where(all(eq(t.route.studentId, student), eq(t.route.id, id)))
    .for('update')
  if (!route)
    throw new Refused(404, 'noRoute', 'There is no such route any more. Reload to see those there are.')
  return route
}

/** @throws Refused when the student has not opened this route to the advisor. */
export async function mayEdit(tx: Transaction, student: StudentId, id: number | null): Promise<void> {
  const condition = id === null ? eq(t.route.chosen, true) : eq(t.route.id, id)
  const [route] = await tx
    .select()
    .from(t.route)
    .where(all(eq(t.route.studentId, student), condition))
  if (!route?.advisorMayEdit)
    throw new Refused(
      403,
      'notOpened',
      'The student has not opened this route to you. Ask them to, or write to them what you would change.'
    )
}

export async function plannedOn(db: Reader, routeId: number): Promise<PlannedCourse[]> {
  const rows = await db
    .select({ planned: t.plannedCourse, course: t.course.code, term: t.term.code })
    .from(t.plannedCourse)
    .innerJoin(t.course, eq(t.course.id, t.plannedCourse.courseId))
    .innerJoin(t.term, eq(t.term.id, t.plannedCourse.termId))
    .where(eq(t.plannedCourse.routeId, routeId))
    .orderBy(asc(t.plannedCourse.id))
  return rows.map(({ planned: { credits, note, locked }, course, term }) => ({
    course: courseCode(course),
    term: termCode(term),
    credits,
    note,
    locked
  }))
}

/** The last steps of a route, in order. */
export async function stepsOf(db: Reader, routeId: number): Promise<Step[]> {
  const rows = await db
    .select()
    .from(t.routeStep)
    .where(eq(t.routeStep.routeId, routeId))
    .orderBy(desc(t.routeStep.version))
    .limit(UNDO_MOST)
  return rows
    .reverse()
    .map(({ version, kind, ofVersion, change }) => ({ version, kind, of: ofVersion, change }))
}

export async function changeRoute(
  tx: Transaction,
  at: ActorContext,
  body: { route: number | null; version: number; change: RouteChange }
): Promise<RouteAnswer> {
  const route = await lockCurrent(tx, at, body)
  return makeChange(tx, at, route, body.change)
}

/** Takes the last change back, or makes the one taken back last again. */
export async function stepRoute(
  tx: Transaction,
  at: ActorContext,
  body: { route: number | null; version: number; step: 'undo' | 'redo' }
): Promise<RouteAnswer> {
  const route = await lockCurrent(tx, at, body)
  const found = historyOf(await stepsOf(tx, route.id))[body.step]
  if (!found) throw new Refused(409, 'nothingTo', `There is nothing to ${body.step} on this route.`)
  const change = body.step === 'undo' ? inverse(found.change) : found.change
  return makeChange(tx, at, route, change, { kind: body.step, of: found.version })
}

/** Makes the route what it was after an earlier version; as a change of its own, so that it can be undone. */
export async function returnTo(
  tx: Transaction,
  at: ActorContext,
  body: { route: number | null; version: number; to: number }
): Promise<RouteAnswer> {
  const route = await lockCurrent(tx, at, body)
  const now = await plannedOn(tx, route.id)
  const { added, removed, moved } = differenceOf(now, await plannedAt(tx, route, now, body.to))
  const changes = [
    ...removed.map((planned) => ({ kind: 'remove' as const, planned })),
    ...moved.map((one) => ({ kind: 'move' as const, ...one })),
    ...added.map((planned) => ({ kind: 'add' as const, planned }))
  ]
  if (!changes.length) throw new Refused(422, 'nothingChanged', 'The route is as it was then.')
  return makeChange(tx, at, route, { kind: 'several', changes })
}

/** What a route held after an earlier version: the later steps are taken back one by one. */
async function plannedAt(db: Reader, route: RouteRow, now: PlannedCourse[], version: number) {
  const later = (await stepsOf(db, route.id)).filter((step) => step.version > version)
  if (later.length !== route.version - version)
    throw new Refused(404, 'noVersion', 'That version of the route is not kept any more.')
  return coursesBefore(
    now,
    later.map((step) => step.change)
  )
}

/** The same, still at the version that was seen. @throws Refused when it has moved on meanwhile. */
export async function lockCurrent(
  tx: Transaction,
  at: ActorContext,
  seen: { route: number | null; version: number }
): Promise<RouteRow> {
  const route = await lockOwn(tx, at, seen.route)
  if (route.version === seen.version) return route
  throw new Refused(
    409,
    'routeMovedOn',
    'The route was changed meanwhile, so your change was not made. You now see it as it is; try again.'
  )
}

/** What a change would make of a route. @throws Refused when it cannot be made */
export async function tryChange(
  tx: Transaction,
  { now, zone }: Pick<ActorContext, 'now' | 'zone'>,
  route: Pick<RouteRow, 'id'>,
  change: RouteChange,
  kind: Step['kind'] = 'do'
) {
  const before = await plannedOn(tx, route.id)
  const terms = new Map<string, Awaited<ReturnType<typeof termRow>>>()
  for (const code of new Set(termsTouched(change))) terms.set(code, await termRow(tx, code))
  // What is taken back goes back to where it was, also into a term that takes nothing new.
  const mayEnter = (code: string) =>
    kind !== 'do' || takesPlans(datesOfTerm(terms.get(code)!), momentOf(now, zone))
  const changed = applyChange(before, change, mayEnter)
  if (!changed.ok) {
    const { fault, of } = changed
    const field =
      of.kind === 'move' ? 'change.to' : of.kind === 'edit' ? 'change.term' : 'change.planned.term'
    throw new Refused(422, fault, CHANGE_FAULTS[fault], [{ field, message: CHANGE_FAULTS[fault] }])
  }
  const courses = await courseIds(tx, [...new Set(coursesTouched(change))])
  const known = new Map(before.map((planned) => [placeOf(planned), planned]))
  for (const planned of changed.courses)
    if (known.get(placeOf(planned))?.credits !== planned.credits) await mustCarry(tx, planned)
  return { before, after: changed.courses, made: changed.made, terms, courses }
}

/** Makes a change of a route, as a step of its history. */
export async function makeChange(
  tx: Transaction,
  at: ActorContext,
  route: RouteRow,
  change: RouteChange,
  step: Pick<Step, 'kind' | 'of'> = { kind: 'do', of: null }
): Promise<RouteAnswer> {
  const { who, student, now } = at
  const { before, after, made, terms, courses } = await tryChange(tx, at, route, change, step.kind)
  await writePlanned(tx, before, after, ({ course, term }) => ({
    routeId: route.id,
    courseId: courses.get(course)!,
    termId: terms.get(term)!.id
  }))
  const version = route.version + 1
  await tx
    .update(t.route)
    .set({ version, changedAt: new Date(now), changedBy: who.id })
    .where(eq(t.route.id, route.id))
  await tx.insert(t.routeStep).values({
    routeId: route.id,
    version,
    kind: step.kind,
    ofVersion: step.of,
    change: made,
    at: new Date(now),
    by: who.id
  })
  await logEvent(tx, {
    at: now,
    account: who.id,
    student,
    action: 'route.changed',
    before: { route: route.id, version: route.version },
    after: { route: route.id, version, change: made, step: step.kind }
  })
  const { undo, redo } = historyOf(await stepsOf(tx, route.id))
  return {
    route: route.id,
    version,
    made,
    changedAt: now,
    changedBy: who.name,
    undo: undo?.change ?? null,
    redo: redo?.change ?? null
  }
}
