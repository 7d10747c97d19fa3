/** Who of the demo's students comes to an opening: those who play no part of their own. */
import { asc, eq, isNotNull, isNull, sql } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import { courseCode, studentId, type CourseCode, type StudentId, type TermCode } from '#core/ids'
import type { Instant } from '#core/time'
import { groupBy } from '#server/db/groupBy'
import { all, type Reader } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { opensFor } from '#server/features/registration/openings'

export interface Member {
  student: StudentId
  signIn: string
  /** The program advisor, who signs the term off where nobody has. */
  advisor: string | null
  isSignedOff: boolean
  /** Planned for the term. */
  courses: CourseCode[]
}

/** Students for whom a term opens by an instant, who have planned something for it and hold no seat in it. */
export async function membersAt(db: Reader, term: TermCode, opens: Instant, most: number): Promise<Member[]> {
  const byAdvisor = alias(t.account, 'by_advisor')
  const rows = await db
    .select({
      student: t.student.id,
      signIn: t.account.signIn,
      advisor: byAdvisor.signIn,
      course: t.course.code,
      signedOff: sql<number>`exists (select 1 from sign_off s where s.student_id = ${t.student.id} and s.term_id = ${t.term.id})`
    })
    .from(t.plannedCourse)
    .innerJoin(t.route, eq(t.route.id, t.plannedCourse.routeId))
    .innerJoin(t.student, eq(t.student.id, t.route.studentId))
    .innerJoin(t.account, eq(t.account.id, t.student.accountId))
    .innerJoin(t.term, eq(t.term.id, t.plannedCourse.termId))
    .innerJoin(t.course, eq(t.course.id, t.plannedCourse.courseId))
    .leftJoin(t.advising, all(eq(t.advising.studentId, t.student.id), eq(t.advising.purpose, 'program')))
    .leftJoin(t.advisor, eq(t.advisor.id, t.advising.advisorId))
    .leftJoin(byAdvisor, eq(byAdvisor.id, t.advisor.accountId))
    .where(
      all(
        eq(t.term.code, term),
        isNotNull(t.route.chosen),
        eq(t.route.chosen, true),
        isNull(t.account.situation),
        sql`not exists (select 1 from registration r join section s on s.id = r.section_id
          where r.student_id = ${t.student.id} and s.term_id = ${t.term.id})`
      )
    )
    .orderBy(asc(t.student.id), asc(t.plannedCourse.id))
  const people = [...groupBy(rows, (row) => row.student)]
  const openings = await opensFor(
    db,
    term,
    people.map(([id]) => studentId(id))
  )
  return people
    .filter(([id]) => (openings.get(studentId(id)) ?? Infinity) <= opens)
    .slice(0, most)
    .map(([id, own]) => ({
      student: studentId(id),
      signIn: own[0]!.signIn,
      advisor: own[0]!.advisor,
      isSignedOff: Number(own[0]!.signedOff) === 1,
      courses: [...new Set(own.map((row) => courseCode(row.course)))]
    }))
}
