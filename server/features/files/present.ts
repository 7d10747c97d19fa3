/** What is here, as rows of a OneRoster set under our own ids: what is taken away, and what is brought is compared with. */
import { asc, eq, isNotNull, isNull } from 'drizzle-orm'
import type { Reader } from '#server/db/connect'
import { all } from '#server/db/connect'
import { groupBy } from '#server/db/groupBy'
import * as t from '#server/db/schema/index'
import { TABLES, type Row, type Table } from '#shared/oneRoster/tables'
import { orgRows, gradeRows, sessionRows, courseRows, sectionRows, partsOf } from './presentOffer'
import { idOf } from './rosterIds'

/** Of each file what its lines are compared with, and what they name. */
const NEEDS: Record<Table, readonly Table[]> = {
  orgs: ['orgs'],
  grades: ['grades', 'orgs'],
  academicSessions: ['academicSessions'],
  courses: ['courses', 'orgs'],
  classes: ['classes', 'courses', 'orgs', 'academicSessions'],
  users: ['users', 'orgs'],
  roles: ['roles', 'users', 'orgs'],
  enrollments: ['enrollments', 'classes', 'courses', 'orgs', 'academicSessions', 'users'],
  lineItems: ['lineItems', 'classes', 'courses', 'orgs', 'academicSessions'],
  results: TABLES
}

/** What is here of the files of a set, and of those that they rest on. */
export async function readRosterTables(db: Reader, of: Iterable<Table> = TABLES): Promise<Map<Table, Row[]>> {
  const wanted = new Set([...of].flatMap((table) => NEEDS[table]))
  const record = ['classes', 'enrollments', 'lineItems', 'results'].some((one) => wanted.has(one as Table))
    ? await recordRows(db)
    : []
  const taken = [
    ...new Map(record.map(({ term, course }) => [`${term} ${course}`, { term, course }])).values()
  ]
  const users = wanted.has('users') ? await userRows(db) : []
  const READ: Record<Table, () => Promise<Row[]> | Row[]> = {
    orgs: () => orgRows(db),
    grades: () => gradeRows(db),
    academicSessions: () => sessionRows(db),
    courses: () => courseRows(db),
    classes: async () => [
      ...(await sectionRows(db)),
      ...taken.map(({ term, course }) => ({
        ...{ sourcedId: idOf.class(term, course), title: `${course} ${term}`, classType: 'scheduled' },
        ...{ courseSourcedId: idOf.course(course), schoolSourcedId: idOf.institution },
        termSourcedIds: idOf.term(term)
      }))
    ],
    users: () => users,
    roles: () => users.map(roleOf),
    enrollments: async () => [
      ...(await teachingRows(db)),
      ...(await heldRows(db)),
      ...record.map(({ term, course, number, credits }) => ({
        ...{ sourcedId: idOf.taken(term, course, number), classSourcedId: idOf.class(term, course) },
        ...{ schoolSourcedId: idOf.institution, userSourcedId: idOf.student(number), role: 'student' },
        'metadata.credits': String(credits)
      }))
    ],
    lineItems: () =>
      taken.map(({ term, course }) => ({
        ...{ sourcedId: idOf.final(term, course), title: 'Final grade' },
        classSourcedId: idOf.class(term, course)
      })),
    results: () => record.flatMap(gradeRow)
  }
  const tables = new Map<Table, Row[]>()
  for (const table of TABLES) if (wanted.has(table)) tables.set(table, await READ[table]())
  return tables
}

function gradeRow({
  term,
  course,
  number,
  grade,
  ends
}: Awaited<ReturnType<typeof recordRows>>[number]): Row[] {
  if (grade === null) return []
  return [
    {
      ...{ sourcedId: idOf.grade(term, course, number), lineItemSourcedId: idOf.final(term, course) },
      ...{ studentSourcedId: idOf.student(number), scoreStatus: 'fully graded' },
      ...{ scoreDate: ends, textScore: grade }
    }
  ]
}

async function userRows(db: Reader): Promise<Row[]> {
  const programs = groupBy(
    await db
      .select({
        student: t.studentProgram.studentId,
        code: t.program.code,
        year: t.programVersion.catalogYear
      })
      .from(t.studentProgram)
      .innerJoin(t.programVersion, eq(t.programVersion.id, t.studentProgram.programVersionId))
      .innerJoin(t.program, eq(t.program.id, t.programVersion.programId))
      .orderBy(asc(t.studentProgram.ordinal)),
    (row) => row.student
  )
  const students = await db
    .select({ student: t.student, account: t.account, campus: t.campus.code })
    .from(t.student)
    .innerJoin(t.account, eq(t.account.id, t.student.accountId))
    .innerJoin(t.campus, eq(t.campus.id, t.student.homeCampusId))
    .orderBy(asc(t.student.number))
  const teachers = await db.select().from(t.instructor).orderBy(asc(t.instructor.id))
  return [
    ...students.map(({ student, account, campus }) => ({
      ...{ sourcedId: idOf.student(student.number), enabledUser: 'true', username: account.signIn },
      ...{ ...partsOf(account.name), identifier: student.number, email: account.mail ?? '' },
      primaryOrgSourcedId: idOf.campus(campus),
      'metadata.standing': student.standing,
      'metadata.programs': (programs.get(student.id) ?? []).map((one) => `${one.code} ${one.year}`).join('; ')
    })),
    ...teachers.map(({ name, mail }) => ({
      ...{ sourcedId: idOf.teacher(mail), enabledUser: 'true', username: mail.split('@')[0]! },
      ...{ ...partsOf(name), email: mail }
    }))
  ]
}

const roleOf = ({ sourcedId }: Row): Row => {
  const role = sourcedId!.startsWith('student-') ? 'student' : 'teacher'
  return {
    ...{ sourcedId: `role-${sourcedId!}-${role}`, userSourcedId: sourcedId!, roleType: 'primary', role },
    orgSourcedId: idOf.institution
  }
}

async function teachingRows(db: Reader): Promise<Row[]> {
  const rows = await db
    .select({ term: t.term.code, course: t.course.code, number: t.section.number, mail: t.instructor.mail })
    .from(t.sectionInstructor)
    .innerJoin(t.instructor, eq(t.instructor.id, t.sectionInstructor.instructorId))
    .innerJoin(t.section, eq(t.section.id, t.sectionInstructor.sectionId))
    .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    .innerJoin(t.term, eq(t.term.id, t.section.termId))
    .where(eq(t.section.cancelled, false))
    .orderBy(asc(t.section.id), asc(t.instructor.id))
  return rows.map(({ term, course, number, mail }) => {
    const classSourcedId = idOf.class(term, course, number)
    const userSourcedId = idOf.teacher(mail)
    return {
      ...{ sourcedId: `teaches-${classSourcedId}-${userSourcedId}`, classSourcedId, userSourcedId },
      ...{ schoolSourcedId: idOf.institution, role: 'teacher' }
    }
  })
}

/** Seats of terms to come; a component is held with its section. */
async function heldRows(db: Reader): Promise<Row[]> {
  const rows = await db
    .select({
      ...{ term: t.term.code, course: t.course.code, number: t.section.number },
      ...{ student: t.student.number }
    })
    .from(t.registration)
    .innerJoin(t.student, eq(t.student.id, t.registration.studentId))
    .innerJoin(t.section, eq(t.section.id, t.registration.sectionId))
    .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    .innerJoin(t.term, eq(t.term.id, t.section.termId))
    .leftJoin(
      t.recordCourse,
      all(
        eq(t.recordCourse.studentId, t.registration.studentId),
        eq(t.recordCourse.courseId, t.section.courseId),
        eq(t.recordCourse.termId, t.section.termId)
      )
    )
    .where(all(isNull(t.section.parentId), isNull(t.recordCourse.id)))
    .orderBy(asc(t.registration.sectionId), asc(t.student.number))
  return rows.map(({ term, course, number, student }) => ({
    ...{ sourcedId: idOf.taken(term, course, student), classSourcedId: idOf.class(term, course, number) },
    ...{ schoolSourcedId: idOf.institution, userSourcedId: idOf.student(student), role: 'student' }
  }))
}

/** What was taken here, term by term; credit from elsewhere is not in a set. */
async function recordRows(db: Reader) {
  return db
    .select({
      id: t.recordCourse.id,
      term: t.term.code,
      ends: t.term.endsOn,
      course: t.course.code,
      number: t.student.number,
      credits: t.recordCourse.credits,
      grade: t.recordCourse.grade
    })
    .from(t.recordCourse)
    .innerJoin(t.student, eq(t.student.id, t.recordCourse.studentId))
    .innerJoin(t.course, eq(t.course.id, t.recordCourse.courseId))
    .innerJoin(t.term, eq(t.term.id, t.recordCourse.termId))
    .where(all(eq(t.recordCourse.origin, 'here'), isNotNull(t.recordCourse.termId)))
    .orderBy(asc(t.recordCourse.id))
}
