/** Who needs a course of a term to finish no later, and who of those finds no seat in it. */
import { eq, inArray } from 'drizzle-orm'
import { courseCode, studentId, type StudentId, type TermCode } from '#core/ids'
import type { Instant } from '#core/time'
import type { Database } from '#server/db/connect'
import { groupBy } from '#server/db/groupBy'
import * as t from '#server/db/schema/index'
import { deskReadings } from '#server/features/advising/deskReadings'
import { termRow } from '#server/features/catalog/catalog'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { opensFor } from '#server/features/registration/openings'
import type { Who } from '#shared/accounts/responses'
import type { CatalogContext } from '#shared/catalog/context'
import { leftWithout, type CourseNeeds, type TermNeeds } from '#shared/sections/demand'
import { coursesPlannedBy, heldIn, plannedIn, seatsIn } from './demand'

/** Records are read so many at a time: nobody else waits longer than for these. */
const AT_ONCE = 20
/** What is known by then is answered, and the rest the next time. */
const MOST_MS = 1500

/**
 * As far as it is known after a while: what was worked out is kept, so whoever asks again gets further.
 *
 * @returns courses that somebody needs, in the order of their codes; of a department its own, without names
 */
export async function readNeeds(
  db: Database,
  who: Pick<Who, 'id' | 'role'>,
  code: TermCode,
  { catalogContext, now }: { catalogContext: CatalogContext; now: Instant }
): Promise<TermNeeds> {
  const term = await termRow(db, code)
  const held = new Set((await heldIn(db, term.id)).map((row) => `${row.student} ${row.course}`))
  const mine = new Set((await coursesPlannedBy(db, who)).map((one) => one.code))
  const planned = (await plannedIn(db, term.id)).filter(
    (row) => mine.has(row.course) && !held.has(`${row.student} ${row.course}`)
  )
  const students = [...new Set(planned.map((row) => studentId(row.student)))]
  const { tight, read } = await tightOf(db, students, { catalogContext, now })
  const of = students.length
  if (read < of) return { read, of, courses: [] }
  const opens = await opensFor(db, code, students)
  const people = await peopleOf(db, who, students)
  const seats = new Map((await seatsIn(db, term.id)).map((row) => [row.course, row.seats - row.taken]))
  const needed: CourseNeeds[] = []
  for (const [course, rows] of groupBy(planned, (row) => row.course)) {
    const waiting = rows.map(({ student }) => ({
      student: studentId(student),
      opens: opens.get(studentId(student)) ?? null,
      needs: tight.has(`${student} ${course} ${code}`)
    }))
    const needs = waiting.filter((one) => one.needs).length
    if (!needs) continue
    const left = leftWithout(Math.max(0, seats.get(course) ?? 0), waiting)
    needed.push({
      ...{ course: courseCode(course), needs },
      left: left.filter((one) => one.surely).length,
      mayBeLeft: left.filter((one) => !one.surely).length,
      students: left.flatMap((one) => {
        const is = people.get(one.student)
        return is ? [{ ...one, ...is, opens: opens.get(one.student) ?? null }] : []
      })
    })
  }
  return { read, of, courses: needed.sort((a, b) => (a.course < b.course ? -1 : 1)) }
}

/** `3 ENVI 310 AU27` where that cannot wait. */
async function tightOf(
  db: Database,
  students: readonly StudentId[],
  { catalogContext, now }: { catalogContext: CatalogContext; now: Instant }
): Promise<{ tight: Set<string>; read: number }> {
  const tight = new Set<string>()
  const ends = performance.now() + MOST_MS
  for (let i = 0; i < students.length; i += AT_ONCE) {
    if (performance.now() > ends) return { tight, read: i }
    const some = students.slice(i, i + AT_ONCE)
    // In an order of their own.
    const records = await readStudentRecords(db, some, 'programAdvisor')
    const readings = await deskReadings(db, records, catalogContext, now)
    records.forEach((record, n) => {
      for (const { course, term } of readings[n]!.tight) tight.add(`${record.student.id} ${course} ${term}`)
    })
  }
  return { tight, read: students.length }
}

async function peopleOf(
  db: Database,
  { role }: Pick<Who, 'role'>,
  students: readonly StudentId[]
): Promise<Map<StudentId, { name: string; number: string }>> {
  if (role !== 'registrar' || !students.length) return new Map()
  const rows = await db
    .select({ id: t.student.id, name: t.account.name, number: t.student.number })
    .from(t.student)
    .innerJoin(t.account, eq(t.account.id, t.student.accountId))
    .where(inArray(t.student.id, [...students]))
  return new Map(rows.map(({ id, ...is }) => [studentId(id), is]))
}
