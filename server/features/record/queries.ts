/** The rows behind the records of students, each kind in one sweep over all of them. */
import { termCode } from '#core/ids'
import { alias } from 'drizzle-orm/mysql-core'
import { all, type Reader } from '#server/db/connect'
import { groupBy } from '#server/db/groupBy'
import * as t from '#server/db/schema/index'
import type { ProgramPolicy } from '#shared/advising/review'
import { PROGRAM_COLUMNS } from '#server/features/catalog/programs'
import { asc, desc, eq, inArray, isNull, ne, sql } from 'drizzle-orm'

export const programRows = (db: Reader, ids: number[]) =>
  db
    .select({
      studentId: t.studentProgram.studentId,
      confirmed: t.studentProgram.confirmed,
      saidInstead: t.studentProgram.saidInstead,
      programId: t.program.id,
      review: t.programVersion.review,
      ...PROGRAM_COLUMNS
    })
    .from(t.studentProgram)
    .innerJoin(t.programVersion, eq(t.programVersion.id, t.studentProgram.programVersionId))
    .innerJoin(t.program, eq(t.program.id, t.programVersion.programId))
    .where(inArray(t.studentProgram.studentId, ids))
    .orderBy(asc(t.studentProgram.ordinal))

/** What students handed in as meant for a term, in the order of the terms. */
export const intentionRows = (db: Reader, ids: number[]) =>
  db
    .select({
      studentId: t.intention.studentId,
      term: t.term.code,
      course: t.course.code,
      at: t.intention.at
    })
    .from(t.intention)
    .innerJoin(t.term, eq(t.term.id, t.intention.termId))
    .innerJoin(t.course, eq(t.course.id, t.intention.courseId))
    .where(inArray(t.intention.studentId, ids))
    .orderBy(asc(t.term.startsOn), asc(t.course.code))

/** What programs say of the sign-off of terms, by the number of the program. */
export async function readPolicies(db: Reader): Promise<Map<number, ProgramPolicy[]>> {
  const rows = await db
    .select({ program: t.programSignOff.programId, term: t.term.code, policy: t.programSignOff.policy })
    .from(t.programSignOff)
    .innerJoin(t.term, eq(t.term.id, t.programSignOff.termId))
  const byProgram = groupBy(rows, (row) => row.program)
  return new Map(
    [...byProgram].map(([program, own]) => [
      program,
      own.map(({ term, policy }) => ({ term: termCode(term), policy }))
    ])
  )
}

export const exceptionRows = (db: Reader, ids: number[]) =>
  db
    .select({ grant: t.exception, program: t.program.code, course: t.course.code, by: t.account.name })
    .from(t.exception)
    .innerJoin(t.programVersion, eq(t.programVersion.id, t.exception.programVersionId))
    .innerJoin(t.program, eq(t.program.id, t.programVersion.programId))
    .innerJoin(t.account, eq(t.account.id, t.exception.byId))
    .leftJoin(t.course, eq(t.course.id, t.exception.courseId))
    .where(all(inArray(t.exception.studentId, ids), isNull(t.exception.withdrawnAt)))
    .orderBy(asc(t.exception.at), asc(t.exception.id))

export const recordRows = (db: Reader, ids: number[]) =>
  db
    .select({
      studentId: t.recordCourse.studentId,
      course: t.course.code,
      term: t.term.code,
      credits: t.recordCourse.credits,
      grade: t.recordCourse.grade,
      origin: t.recordCourse.origin,
      campus: t.campus.code,
      mode: t.recordCourse.mode,
      categories: t.recordCourse.categories
    })
    .from(t.recordCourse)
    .innerJoin(t.course, eq(t.course.id, t.recordCourse.courseId))
    .leftJoin(t.term, eq(t.term.id, t.recordCourse.termId))
    .leftJoin(t.campus, eq(t.campus.id, t.recordCourse.campusId))
    .where(inArray(t.recordCourse.studentId, ids))
    .orderBy(asc(t.term.startsOn), asc(t.course.code))

/** Credits of a seat: those that were chosen, or those of its section. */
export const creditsHeld = sql<number>`coalesce(${t.registration.credits}, ${t.section.credits})`.mapWith(
  Number
)

export const advisorRows = (db: Reader, ids: number[]) =>
  db
    .select({
      studentId: t.advising.studentId,
      id: t.advisor.id,
      purpose: t.advising.purpose,
      name: t.account.name,
      kind: t.advisor.kind,
      office: t.advisor.office,
      mail: t.advisor.mail,
      phone: t.advisor.phone,
      hours: t.advisor.hours
    })
    .from(t.advising)
    .innerJoin(t.advisor, eq(t.advisor.id, t.advising.advisorId))
    .innerJoin(t.account, eq(t.account.id, t.advisor.accountId))
    .where(inArray(t.advising.studentId, ids))
    .orderBy(asc(t.advising.purpose), asc(t.advisor.id))

export const routeRows = (db: Reader, ids: number[]) =>
  db
    .select({ route: t.route, changedBy: t.account.name })
    .from(t.route)
    .innerJoin(t.account, eq(t.account.id, t.route.changedBy))
    .where(all(inArray(t.route.studentId, ids), eq(t.route.chosen, true)))

export const plannedRows = (db: Reader, routeIds: number[]) =>
  db
    .select({
      routeId: t.plannedCourse.routeId,
      course: t.course.code,
      term: t.term.code,
      credits: t.plannedCourse.credits,
      note: t.plannedCourse.note,
      locked: t.plannedCourse.locked
    })
    .from(t.plannedCourse)
    .innerJoin(t.course, eq(t.course.id, t.plannedCourse.courseId))
    .innerJoin(t.term, eq(t.term.id, t.plannedCourse.termId))
    .where(inArray(t.plannedCourse.routeId, routeIds))
    .orderBy(asc(t.term.startsOn), asc(t.course.code))

/** Requests with their answers, but for what was withdrawn. */
export const requestRows = (db: Reader, ids: number[]) =>
  db
    .select({
      request: t.request,
      section: t.section.code,
      course: t.course.code,
      program: t.program.code,
      by: t.account.name
    })
    .from(t.request)
    .leftJoin(t.section, eq(t.section.id, t.request.sectionId))
    .leftJoin(t.course, eq(t.course.id, t.request.courseId))
    .leftJoin(t.programVersion, eq(t.programVersion.id, t.request.programVersionId))
    .leftJoin(t.program, eq(t.program.id, t.programVersion.programId))
    .leftJoin(t.account, eq(t.account.id, t.request.byId))
    .where(all(inArray(t.request.studentId, ids), ne(t.request.state, 'withdrawn')))
    .orderBy(asc(t.request.id))

export const signOffRows = (db: Reader, ids: number[]) =>
  db
    .select({ studentId: t.signOff.studentId, signOff: t.signOff, term: t.term.code, by: t.account.name })
    .from(t.signOff)
    .innerJoin(t.term, eq(t.term.id, t.signOff.termId))
    .innerJoin(t.account, eq(t.account.id, t.signOff.byId))
    .where(all(inArray(t.signOff.studentId, ids), isNull(t.signOff.withdrawnAt)))
    .orderBy(desc(t.signOff.at))

/** Reviews that were asked for and not withdrawn, the last of a term last. */
export const reviewRows = (db: Reader, ids: number[]) =>
  db
    .select({ studentId: t.review.studentId, review: t.review, term: t.term.code, by: t.account.name })
    .from(t.review)
    .innerJoin(t.term, eq(t.term.id, t.review.termId))
    .leftJoin(t.account, eq(t.account.id, t.review.answeredById))
    .where(all(inArray(t.review.studentId, ids), isNull(t.review.withdrawnAt)))
    .orderBy(asc(t.review.id))

/** Days on which advisors are away, and who stands in. */
export function awayRows(db: Reader, advisors: number[]) {
  const standIn = alias(t.advisor, 'stand_in')
  return db
    .select({
      advisor: t.advisorAway.advisorId,
      from: t.advisorAway.fromDate,
      to: t.advisorAway.toDate,
      standIn: t.account.name
    })
    .from(t.advisorAway)
    .leftJoin(standIn, eq(standIn.id, t.advisorAway.standInId))
    .leftJoin(t.account, eq(t.account.id, standIn.accountId))
    .where(inArray(t.advisorAway.advisorId, advisors))
    .orderBy(asc(t.advisorAway.fromDate))
}

/** Students themselves, in the order of their ids. */
export const studentRows = (db: Reader, ids: number[]) =>
  db
    .select({
      student: t.student,
      name: t.account.name,
      campus: t.campus.code,
      block: t.block.title,
      blockCode: t.block.code,
      aim: t.term.code
    })
    .from(t.student)
    .innerJoin(t.account, eq(t.account.id, t.student.accountId))
    .innerJoin(t.campus, eq(t.campus.id, t.student.homeCampusId))
    .leftJoin(t.block, eq(t.block.id, t.student.blockId))
    .leftJoin(t.term, eq(t.term.id, t.student.aimTermId))
    .where(inArray(t.student.id, ids))
    .orderBy(asc(t.student.id))

export const testRows = (db: Reader, ids: number[]) =>
  db.select().from(t.testScore).where(inArray(t.testScore.studentId, ids))

export const milestoneRows = (db: Reader, ids: number[]) =>
  db.select().from(t.milestone).where(inArray(t.milestone.studentId, ids))

/** Holds that nobody has lifted. */
export const holdRows = (db: Reader, ids: number[]) =>
  db
    .select()
    .from(t.hold)
    .where(all(inArray(t.hold.studentId, ids), isNull(t.hold.liftedAt)))

const awarder = alias(t.account, 'awarder')

/** Applications and awards of students. */
export const graduationRows = (db: Reader, ids: number[]) =>
  db
    .select({
      studentId: t.graduation.studentId,
      graduation: t.graduation,
      program: t.program.title,
      catalogYear: t.programVersion.catalogYear,
      term: t.term.code,
      by: awarder.name
    })
    .from(t.graduation)
    .innerJoin(t.programVersion, eq(t.programVersion.id, t.graduation.programVersionId))
    .innerJoin(t.program, eq(t.program.id, t.programVersion.programId))
    .innerJoin(t.term, eq(t.term.id, t.graduation.termId))
    .leftJoin(awarder, eq(awarder.id, t.graduation.awardedById))
    .where(all(inArray(t.graduation.studentId, ids), eq(t.graduation.live, true)))

/** What students say of single terms: how much they carry, or that they are away. */
export const carriedRows = (db: Reader, ids: number[]) =>
  db
    .select({ own: t.studentTerm, term: t.term.code })
    .from(t.studentTerm)
    .innerJoin(t.term, eq(t.term.id, t.studentTerm.termId))
    .where(inArray(t.studentTerm.studentId, ids))

export const keepFreeRows = (db: Reader, ids: number[]) =>
  db.select().from(t.keepFree).where(inArray(t.keepFree.studentId, ids)).orderBy(asc(t.keepFree.id))
