/** Writing what an import brings of people: who they are, what they take and teach, and with which grade. */
import { eq, inArray } from 'drizzle-orm'
import * as t from '#server/db/schema/index'
import type { RosterItem } from '#shared/oneRoster/plan'
import { nameOf } from '#shared/oneRoster/rosterNames'
import type { Row } from '#shared/oneRoster/tables'
import { idOf } from './rosterIds'
import { ofChange, oneOf, type Apply, type OnTable, type Wanted } from './writing'

export const users: OnTable = async (work, items) => {
  const made = ofChange(items, 'new')
  const teachers = made.filter((one) => one.id.startsWith('person-'))
  await work.journal.insert(
    'instructor',
    teachers.map(({ row }) => ({ name: nameOf(row), mail: row.email }))
  )
  await newStudents(
    work,
    made.filter((one) => one.id.startsWith('student-')).map(({ row }) => row)
  )
  for (const item of ofChange(items, 'changed')) await changePerson(work, item)
}

/** Each with an account without a password, the programs named, and a route to begin with. */
async function newStudents(work: Apply, rows: readonly Row[]): Promise<void> {
  const { journal, at } = work
  const campuses = await work.rows('campus')
  const [firstCampus] = campuses.values()
  const versions = await versionIds(work.tx)
  const accounts = await journal.insert(
    'account',
    rows.map((row) => ({
      name: nameOf(row),
      signIn: row.username,
      mail: row.email || null,
      role: 'student',
      passwordHash: ''
    }))
  )
  const ids = await journal.insert(
    'student',
    rows.map((row, i) => ({
      accountId: accounts[i],
      number: row.identifier!.toUpperCase(),
      standing: row['metadata.standing'] || 'freshman',
      level: row['metadata.standing'] === 'graduate' ? 'graduate' : 'undergraduate',
      homeCampusId: campuses.get(row.primaryOrgSourcedId ?? '') ?? firstCampus,
      attendance: 'fullTime',
      aid: 'none'
    }))
  )
  await journal.insert(
    'studentProgram',
    rows.flatMap((row, i) =>
      programsIn(row).map((one, ordinal) => ({
        studentId: ids[i],
        programVersionId: versions.get(one),
        ordinal
      }))
    )
  )
  await journal.insert(
    'route',
    rows.map((_, i) => ({
      studentId: ids[i],
      name: 'My route',
      chosen: true,
      changedBy: at.by,
      changedAt: new Date(at.now)
    }))
  )
}

/** By program and catalog year, as a file names them. */
async function versionIds(tx: Apply['tx']): Promise<ReadonlyMap<string, number>> {
  const rows = await tx
    .select({ id: t.programVersion.id, code: t.program.code, year: t.programVersion.catalogYear })
    .from(t.programVersion)
    .innerJoin(t.program, eq(t.program.id, t.programVersion.programId))
  return new Map(rows.map((one) => [`${one.code} ${one.year}`, one.id]))
}

async function changePerson(work: Apply, { id, row, fields }: RosterItem): Promise<void> {
  const { tx, journal } = work
  const name = fields.some((one) => one.name !== 'email') ? { name: nameOf(row) } : {}
  if (id.startsWith('person-')) return journal.update('instructor', await oneOf(work, 'teacher', id), name)
  const [account] = await tx
    .select({ id: t.student.accountId })
    .from(t.student)
    .where(eq(t.student.number, id.slice('student-'.length)))
  await journal.update('account', account!.id, { ...name, ...(row.email ? { mail: row.email } : {}) })
}

/** `ENVD 2025-26; STAM 2025-26` */
export const programsIn = (row: Row): string[] =>
  (row['metadata.programs'] ?? '')
    .split(';')
    .map((one) => one.trim().replace(/\s+/g, ' '))
    .filter(Boolean)

export const enrollments: OnTable = async (work, items) => {
  const { tx, journal } = work
  const made = ofChange(items, 'new')
  const [sections, teachers] = [await work.rows('section'), await work.rows('teacher')]
  await journal.insert(
    'sectionInstructor',
    made
      .filter((one) => one.id.startsWith('teaches-'))
      .map(({ row }) => ({
        sectionId: sections.get(row.classSourcedId!),
        instructorId: teachers.get(row.userSourcedId!)
      }))
  )
  const [courseOf, termOf, students] = [
    await work.rows('course'),
    await work.rows('term'),
    await work.rows('student')
  ]
  const credits = new Map((await tx.select().from(t.course)).map((one) => [one.id, one.credits]))
  const grades = gradesIn(work.wanted)
  await journal.insert(
    'recordCourse',
    made
      .filter((one) => one.id.startsWith('taken-'))
      .map(({ id, row }) => {
        const [, term = '', subject = '', number = ''] = id.split('-')
        const courseId = courseOf.get(idOf.course(`${subject} ${number}`))!
        return {
          ...{ studentId: students.get(row.userSourcedId!), courseId, termId: termOf.get(idOf.term(term)) },
          ...{
            credits: Number(row['metadata.credits'] || credits.get(courseId)),
            grade: grades.get(id.replace(/^taken-/, 'grade-')) ?? null,
            origin: 'here'
          }
        }
      })
  )
}

const gradesIn = (wanted: Wanted): ReadonlyMap<string, string> =>
  new Map((wanted.get('results') ?? []).map((one) => [one.id, one.row.textScore!]))

/** Grades of what was on the record before; what is brought with them has its own already. */
export const results: OnTable = async ({ tx, journal, wanted }, items) => {
  const grades = gradesIn(wanted)
  const brought = new Set((wanted.get('enrollments') ?? []).map((one) => one.id.replace(/^taken-/, 'grade-')))
  const before = items.filter((one) => !brought.has(one.id))
  const numbers = [...new Set(before.map((one) => one.row.studentSourcedId!.slice('student-'.length)))]
  for (let i = 0; i < numbers.length; i += 500) {
    const rows = await tx
      .select({
        ...{ id: t.recordCourse.id, grade: t.recordCourse.grade, term: t.term.code },
        ...{ course: t.course.code, number: t.student.number }
      })
      .from(t.recordCourse)
      .innerJoin(t.student, eq(t.student.id, t.recordCourse.studentId))
      .innerJoin(t.course, eq(t.course.id, t.recordCourse.courseId))
      .innerJoin(t.term, eq(t.term.id, t.recordCourse.termId))
      .where(inArray(t.student.number, numbers.slice(i, i + 500)))
    for (const { id, term, course, number, grade } of rows) {
      const key = idOf.grade(term, course, number)
      const next = grades.get(key)
      if (next !== undefined && next !== grade && !brought.has(key))
        await journal.update('recordCourse', id, { grade: next })
    }
  }
}
