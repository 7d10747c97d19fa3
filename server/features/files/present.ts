/** What is here, as rows of a OneRoster set under our own ids: what is taken away, and what is brought is compared with. */
import { asc, eq, isNotNull, isNull } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import { scaleOf } from '#core/grades'
import type { Reader } from '#server/db/connect'
import { all } from '#server/db/connect'
import { groupBy } from '#server/db/groupBy'
import * as t from '#server/db/schema/index'
import { slug } from '#shared/oneRoster/plan'
import { TABLES, type Row, type Table } from '#shared/oneRoster/tables'
import { timeField } from '#shared/when'

export const idOf = {
  institution: 'institution',
  scale: (grade: string) => `scale-${grade}`,
  campus: (code: string) => `campus-${code}`,
  department: (name: string) => `department-${slug(name)}`,
  term: (code: string) => `term-${code}`,
  session: (term: string, start: string, end: string) => `session-${term}-${start}-${end}`,
  course: (code: string) => `course-${code.replace(' ', '-')}`,
  /** Without a number it is what was taken in a course in a term. */
  class: (term: string, course: string, number = '') =>
    `class-${term}-${course.replace(' ', '-')}${number && `-${number.toUpperCase()}`}`,
  student: (number: string) => `student-${number.toUpperCase()}`,
  teacher: (mail: string) => `person-${slug(mail)}`,
  taken: (term: string, course: string, number: string) =>
    `taken-${term}-${course.replace(' ', '-')}-student-${number.toUpperCase()}`,
  final: (term: string, course: string) => `final-${term}-${course.replace(' ', '-')}`,
  grade: (term: string, course: string, number: string) =>
    `grade-${term}-${course.replace(' ', '-')}-student-${number.toUpperCase()}`
}

/** `MW 09:30-10:45; F 13:00-14:50` */
const meetingText = (rows: readonly { days: string; startsMin: number; endsMin: number }[]) =>
  rows.map((one) => `${one.days} ${timeField(one.startsMin)}-${timeField(one.endsMin)}`).join('; ')

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

async function orgRows(db: Reader): Promise<Row[]> {
  const institutions = await db.select().from(t.institution).limit(1)
  const campuses = await db.select().from(t.campus).orderBy(asc(t.campus.id))
  const departments = await db.select().from(t.department).orderBy(asc(t.department.id))
  const parentSourcedId = idOf.institution
  return [
    ...institutions.map(({ name, timeZone }) => ({
      ...{ sourcedId: idOf.institution, name, type: 'district', 'metadata.timeZone': timeZone }
    })),
    ...campuses.map(({ code, name }) => ({
      ...{ sourcedId: idOf.campus(code), name, type: 'school', identifier: code, parentSourcedId }
    })),
    ...departments.map(({ name }) => ({
      ...{ sourcedId: idOf.department(name), name, type: 'department', parentSourcedId }
    }))
  ]
}

async function gradeRows(db: Reader): Promise<Row[]> {
  const [institution] = await db.select().from(t.institution).limit(1)
  if (!institution) return []
  return scaleOf(institution.grades).grades.map(({ grade, points, result, rank }) => ({
    ...{ sourcedId: idOf.scale(grade), grade, result, rank: String(rank) },
    points: points === null ? '' : String(points)
  }))
}

/** The year of study in which a day lies, by the year in which it ends. */
const schoolYearOf = (start: string) =>
  String(Number(start.slice(0, 4)) + (Number(start.slice(5, 7)) >= 7 ? 1 : 0))

async function sessionRows(db: Reader): Promise<Row[]> {
  const terms = await db.select().from(t.term).orderBy(asc(t.term.startsOn))
  const sessions = groupBy(await db.select().from(t.session).orderBy(asc(t.session.id)), (one) => one.termId)
  return terms.flatMap(({ id, code, name, season, startsOn, endsOn }) => {
    const common = { startDate: startsOn, endDate: endsOn, schoolYear: schoolYearOf(startsOn) }
    return [
      {
        sourcedId: idOf.term(code),
        title: name,
        type: 'term',
        ...common,
        'metadata.code': code,
        'metadata.season': season
      },
      ...(sessions.get(id) ?? []).map((one) => ({
        ...{
          sourcedId: idOf.session(code, one.startsOn, one.endsOn),
          title: one.name,
          type: 'gradingPeriod'
        },
        ...common,
        ...{ startDate: one.startsOn, endDate: one.endsOn, parentSourcedId: idOf.term(code) }
      }))
    ]
  })
}

async function courseRows(db: Reader): Promise<Row[]> {
  const rows = await db
    .select({ course: t.course, subject: t.subject, department: t.department.name })
    .from(t.course)
    .innerJoin(t.subject, eq(t.subject.id, t.course.subjectId))
    .leftJoin(t.department, eq(t.department.id, t.subject.departmentId))
    .orderBy(asc(t.course.code))
  return rows.map(({ course, subject, department }) => ({
    ...{ sourcedId: idOf.course(course.code), title: course.title, courseCode: course.code },
    orgSourcedId: department === null ? idOf.institution : idOf.department(department),
    ...{ subjects: subject.name, subjectCodes: subject.code },
    'metadata.credits': String(course.credits),
    'metadata.creditsMost': course.creditsMost > course.credits ? String(course.creditsMost) : '',
    'metadata.prerequisite': course.prerequisite,
    'metadata.description': course.description,
    'metadata.level': course.level,
    'metadata.seasons': course.seasons.join(',')
  }))
}

const parent = alias(t.section, 'parent')

async function sectionRows(db: Reader): Promise<Row[]> {
  const rows = await db
    .select({
      section: t.section,
      course: t.course.code,
      title: t.course.title,
      term: t.term.code,
      session: t.session,
      campus: t.campus.code,
      parent: parent.number
    })
    .from(t.section)
    .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    .innerJoin(t.term, eq(t.term.id, t.section.termId))
    .innerJoin(t.session, eq(t.session.id, t.section.sessionId))
    .innerJoin(t.campus, eq(t.campus.id, t.section.campusId))
    .leftJoin(parent, eq(parent.id, t.section.parentId))
    .where(eq(t.section.cancelled, false))
    .orderBy(asc(t.section.id))
  const meetings = groupBy(
    await db.select().from(t.meeting).orderBy(asc(t.meeting.id)),
    (one) => one.sectionId
  )
  return rows.map(({ section, course, title, term, session, campus, parent: main }) => ({
    ...{ sourcedId: idOf.class(term, course, section.number), title: section.topic ?? title },
    ...{ courseSourcedId: idOf.course(course), classCode: section.number, classType: 'scheduled' },
    schoolSourcedId: idOf.campus(campus),
    termSourcedIds: idOf.session(term, session.startsOn, session.endsOn),
    'metadata.seats': String(section.capacity),
    'metadata.meetings': meetingText(meetings.get(section.id) ?? []),
    ...{ 'metadata.kind': section.kind, 'metadata.mode': section.mode },
    'metadata.parentSourcedId': main === null ? '' : idOf.class(term, course, main)
  }))
}

/** A name of one piece, parted before its last word. */
function partsOf(name: string): Pick<Row, 'givenName' | 'familyName'> {
  const at = name.lastIndexOf(' ')
  return at < 0
    ? { givenName: name, familyName: '-' }
    : { givenName: name.slice(0, at), familyName: name.slice(at + 1) }
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
