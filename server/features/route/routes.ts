/** A student's routes as wholes: read, made, described, chosen and taken away, and given to the advisor to look at. */
import type { StudentId } from '#core/ids'
import { historyOf } from '#core/route'
import { all, untilThrough, type Reader, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { Refused } from '#server/http/problem'
import type { RouteView, RouteVersion } from '#shared/route/responses'
import { stepsOf, plannedOn, UNDO_MOST, type ActorContext, lockOwn, lockRoute } from './route'
import { asc, desc, eq, sql } from 'drizzle-orm'

/** All routes of a student, the chosen one first. */
export async function readRoutes(db: Reader, student: StudentId): Promise<RouteView[]> {
  const rows = await db
    .select({ route: t.route, changedBy: t.account.name })
    .from(t.route)
    .innerJoin(t.account, eq(t.account.id, t.route.changedBy))
    .where(eq(t.route.studentId, student))
    .orderBy(desc(t.route.chosen), asc(t.route.name))
  const studentRecords: RouteView[] = []
  for (const { route, changedBy } of rows) {
    const { undo, redo } = historyOf(await stepsOf(db, route.id))
    const [seer] = route.seenBy
      ? await db.select({ name: t.account.name }).from(t.account).where(eq(t.account.id, route.seenBy))
      : []
    studentRecords.push({
      id: route.id,
      name: route.name,
      note: route.note,
      chosen: route.chosen === true,
      version: route.version,
      changedAt: route.changedAt.getTime(),
      changedBy,
      advisorMayEdit: route.advisorMayEdit,
      seen:
        seer && route.seenAt && route.seenVersion !== null
          ? { by: seer.name, at: route.seenAt.getTime(), version: route.seenVersion }
          : null,
      courses: await plannedOn(db, route.id),
      undo: undo?.change ?? null,
      redo: redo?.change ?? null
    })
  }
  return studentRecords
}

/** The versions of a route that are kept, newest first, each with what made it. */
export async function readVersions(db: Reader, student: StudentId, id: number): Promise<RouteVersion[]> {
  const rows = await db
    .select({ step: t.routeStep, by: t.account.name })
    .from(t.routeStep)
    .innerJoin(t.route, eq(t.route.id, t.routeStep.routeId))
    .innerJoin(t.account, eq(t.account.id, t.routeStep.by))
    .where(all(eq(t.routeStep.routeId, id), eq(t.route.studentId, student)))
    .orderBy(desc(t.routeStep.version))
    .limit(UNDO_MOST)
  return rows.map(({ step, by }) => ({
    version: step.version,
    kind: step.kind,
    change: step.change,
    at: step.at.getTime(),
    by
  }))
}

/** A new route: empty, or a copy of another one. */
export async function makeRoute(
  tx: Transaction,
  { who, student, now }: ActorContext,
  body: { name: string; copyOf: number | null }
): Promise<{ route: number }> {
  const values = { studentId: student, name: body.name, changedAt: new Date(now), changedBy: who.id }
  await mustBeFree(tx, student, body.name)
  const [{ insertId }] = await tx.insert(t.route).values(values)
  if (body.copyOf !== null) {
    const rows = await tx
      .select()
      .from(t.plannedCourse)
      .innerJoin(t.route, eq(t.route.id, t.plannedCourse.routeId))
      .where(all(eq(t.plannedCourse.routeId, body.copyOf), eq(t.route.studentId, student)))
    const copies = rows.map(({ planned_course: { courseId, termId, credits, note, locked } }) => ({
      routeId: insertId,
      courseId,
      termId,
      credits,
      note,
      locked
    }))
    if (copies.length) await tx.insert(t.plannedCourse).values(copies)
  }
  await logEvent(tx, {
    at: now,
    account: who.id,
    student,
    action: 'route.made',
    after: { route: insertId, ...body }
  })
  return { route: insertId }
}

async function mustBeFree(tx: Transaction, student: StudentId, name: string, but = 0): Promise<void> {
  const [same] = await tx
    .select({ id: t.route.id })
    .from(t.route)
    .where(all(eq(t.route.studentId, student), eq(t.route.name, name)))
  if (same && same.id !== but)
    throw new Refused(422, 'nameTaken', `You have a route “${name}” already.`, [
      { field: 'name', message: 'has to be another name' }
    ])
}

/** Name, note, and whether the advisor may change it. */
export async function describeRoute(
  tx: Transaction,
  at: ActorContext,
  id: number,
  body: { name?: string | undefined; note?: string | null | undefined; advisorMayEdit?: boolean | undefined }
): Promise<void> {
  const route = await lockOwn(tx, at, id)
  if (body.name !== undefined) await mustBeFree(tx, at.student, body.name, id)
  const { name = route.name, note = route.note, advisorMayEdit = route.advisorMayEdit } = body
  await tx.update(t.route).set({ name, note, advisorMayEdit }).where(eq(t.route.id, id))
  await logEvent(tx, {
    at: at.now,
    account: at.who.id,
    student: at.student,
    action: 'route.described',
    before: { route: id, name: route.name, note: route.note, advisorMayEdit: route.advisorMayEdit },
    after: { route: id, name, note, advisorMayEdit }
  })
}

/** The route that the other places work with from now on. */
export async function chooseRoute(tx: Transaction, at: ActorContext, id: number): Promise<void> {
  const before = await lockRoute(tx, at.student, at.who, at.now)
  const route = await lockOwn(tx, at, id)
  if (route.chosen) return
  await tx.update(t.route).set({ chosen: null }).where(eq(t.route.id, before.id))
  await tx.update(t.route).set({ chosen: true }).where(eq(t.route.id, route.id))
  await logEvent(tx, {
    at: at.now,
    account: at.who.id,
    student: at.student,
    action: 'route.chosen',
    before: { route: before.id },
    after: { route: route.id }
  })
}

/** Takes a route away for good; the chosen one stays. */
export async function dropRoute(tx: Transaction, at: ActorContext, id: number): Promise<void> {
  const route = await lockOwn(tx, at, id)
  if (route.chosen)
    throw new Refused(422, 'chosen', 'The chosen route cannot be taken away. Choose another one first.')
  const courses = await plannedOn(tx, id)
  await tx.delete(t.suggestion).where(eq(t.suggestion.routeId, id))
  await tx.delete(t.note).where(eq(t.note.routeId, id))
  await tx.delete(t.routeStep).where(eq(t.routeStep.routeId, id))
  await tx.delete(t.plannedCourse).where(eq(t.plannedCourse.routeId, id))
  await tx.delete(t.route).where(eq(t.route.id, id))
  await logEvent(tx, {
    at: at.now,
    account: at.who.id,
    student: at.student,
    action: 'route.dropped',
    before: { route: id, name: route.name, courses }
  })
}

/** An advisor has looked at the routes as they are now. */
export async function markSeen(db: Reader, { who, student, now }: Omit<ActorContext, 'zone'>): Promise<void> {
  await untilThrough(() =>
    db
      .update(t.route)
      .set({ seenAt: new Date(now), seenBy: who.id, seenVersion: sql`${t.route.version}` })
      .where(eq(t.route.studentId, student))
  )
}
