/** What a term is asked for: from all chosen routes, from what was handed in, from what was signed off. */
import { eq, isNull, sql } from 'drizzle-orm'
import { courseCode, type TermCode } from '#core/ids'
import type { Instant } from '#core/time'
import { all, type Reader } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { standingSignOffs } from '#server/features/advising/signOff'
import { termRow } from '#server/features/catalog/catalog'
import type { Who } from '#shared/accounts/responses'
import type { CourseDemand } from '#shared/sections/demand'

type Students = Map<string, Set<number>>

/** @returns courses that somebody wants or that have seats, in the order of their codes; of a department its own */
export async function readDemand(
  db: Reader,
  who: Pick<Who, 'id' | 'role'>,
  code: TermCode,
  now: Instant
): Promise<CourseDemand[]> {
  const term = await termRow(db, code)
  const courses = await coursesPlannedBy(db, who)
  const planned = byCourse(await plannedIn(db, term.id), await heldIn(db, term.id))
  const handedIn = byCourse(
    await db
      .select({ course: t.course.code, student: t.intention.studentId })
      .from(t.intention)
      .innerJoin(t.course, eq(t.course.id, t.intention.courseId))
      .where(eq(t.intention.termId, term.id))
  )
  const signed = byCourse(
    (await standingSignOffs(db, term.id, now)).flatMap(({ student, courses }) =>
      courses.map((course) => ({ course, student }))
    )
  )
  const seats = new Map((await seatsIn(db, term.id)).map((row) => [row.course, row]))
  return courses
    .map(({ code, title }): CourseDemand => {
      const want = planned.get(code) ?? new Set()
      return {
        course: courseCode(code),
        title,
        handedIn: handedIn.get(code)?.size ?? 0,
        planned: want.size,
        signedOff: [...want].filter((student) => signed.get(code)?.has(student)).length,
        seats: seats.get(code)?.seats ?? null,
        taken: seats.get(code)?.taken ?? 0
      }
    })
    .filter((one) => one.handedIn || one.planned || one.seats !== null)
}

/** Courses whose offer somebody plans: of a department those of its subjects. */
export async function coursesPlannedBy(db: Reader, { id, role }: Pick<Who, 'id' | 'role'>) {
  const every = { code: t.course.code, title: t.course.title }
  if (role !== 'department') return db.select(every).from(t.course).orderBy(t.course.code)
  return db
    .select(every)
    .from(t.course)
    .innerJoin(t.subject, eq(t.subject.id, t.course.subjectId))
    .innerJoin(t.account, eq(t.account.departmentId, t.subject.departmentId))
    .where(eq(t.account.id, id))
    .orderBy(t.course.code)
}

/** What chosen routes plan for a term. */
export const plannedIn = (db: Reader, term: number) =>
  db
    .select({ course: t.course.code, courseId: t.course.id, student: t.route.studentId })
    .from(t.plannedCourse)
    .innerJoin(t.route, eq(t.route.id, t.plannedCourse.routeId))
    .innerJoin(t.course, eq(t.course.id, t.plannedCourse.courseId))
    .where(all(eq(t.plannedCourse.termId, term), eq(t.route.chosen, true)))

/** The courses of which seats are held in a term. */
export const heldIn = (db: Reader, term: number) =>
  db
    .select({ course: t.course.code, courseId: t.course.id, student: t.registration.studentId })
    .from(t.registration)
    .innerJoin(t.section, eq(t.section.id, t.registration.sectionId))
    .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    .where(all(eq(t.section.termId, term), isNull(t.section.parentId)))

/** Seats of the sections of a term that are not cancelled, by course. */
export const seatsIn = (db: Reader, term: number) =>
  db
    .select({
      course: t.course.code,
      seats: sql<number>`sum(${t.section.capacity})`.mapWith(Number),
      taken: sql<number>`sum(${t.section.taken})`.mapWith(Number)
    })
    .from(t.section)
    .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    .where(all(eq(t.section.termId, term), eq(t.section.cancelled, false), isNull(t.section.parentId)))
    .groupBy(t.course.code)

function byCourse(...lists: { course: string; student: number }[][]): Students {
  const found: Students = new Map()
  for (const { course, student } of lists.flat())
    found.set(course, (found.get(course) ?? new Set()).add(student))
  return found
}
