/** Courses written by the registrar: what is wrong is refused, what it does to degrees is told before. */
import { and, eq, inArray, sql } from 'drizzle-orm'
import { union } from 'drizzle-orm/mysql-core'
import { Catalog, subjectOf } from '#core/catalog'
import { scaleOf } from '#core/grades'
import { studentId, type CourseCode } from '#core/ids'
import type { Instant } from '#core/time'
import { all, type Reader, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { pause } from '#server/pause'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import { effectsOf } from '#shared/advising/effects'
import type { CatalogView } from '#shared/catalog/responses'
import type { CatalogContext } from '#shared/catalog/context'
import {
  courseFaults,
  courseOf,
  EFFECT_LOT,
  type CourseEffects,
  type WrittenCourse,
  type WrittenCoursePage
} from '#shared/catalog/writing'
import { readStudent } from '#shared/reading'
import { courseIds, readCatalog } from './catalog'

interface At {
  who: Who
  now: Instant
}

const noCourse = (code: string) => new Refused(404, 'noCourse', `The catalog has no course ${code}.`)

/** A course as it stands, for who writes it anew. */
export async function readWrittenCourse(db: Reader, code: CourseCode): Promise<WrittenCoursePage> {
  const [row] = await db.select().from(t.course).where(eq(t.course.code, code))
  const known = (await readCatalog(db)).courses.find((one) => one.code === code)
  if (!row || !known) throw noCourse(code)
  const { offered, ...course } = known
  return {
    course: { ...course, ...offered, description: row.description, fee: row.fee },
    version: row.version,
    students: (await concerned(db, [code])).length
  }
}

/** Catalogs are written one after another: what is checked is what there is. */
export async function lockCatalog(
  tx: Transaction
): Promise<{ catalog: Catalog; lists: CatalogView['lists'] }> {
  await tx.select({ id: t.institution.id }).from(t.institution).for('update')
  const { courses, lists, institution } = await readCatalog(tx)
  return { catalog: new Catalog(courses, scaleOf(institution.grades)), lists }
}

/** A course that is new. @throws Refused where there is one of that code, or anything is wrong with it */
export async function makeCourse(
  tx: Transaction,
  at: At,
  said: WrittenCourse
): Promise<{ code: CourseCode }> {
  const { catalog } = await lockCatalog(tx)
  if (catalog.maybeCourse(said.code))
    throw new Refused(409, 'known', `There is a course ${said.code} already.`, [
      { field: 'code', message: 'has to be a code that no course has' }
    ])
  await mustBeRight(tx, said, catalog)
  const [made] = await tx
    .insert(t.course)
    .values({ subjectId: await subjectFor(tx, said.code), code: said.code, ...columnsOf(said) })
    .$returningId()
  await relate(tx, made!.id, said)
  await logWritten(tx, at, said, 1)
  return { code: said.code }
}

/** A course as it is from now on: what is on record keeps its credits. @throws Refused where it was written meanwhile */
export async function changeCourse(
  tx: Transaction,
  at: At,
  code: CourseCode,
  { version, ...said }: WrittenCourse & { version: number }
): Promise<{ version: number }> {
  const { catalog } = await lockCatalog(tx)
  const [row] = await tx.select().from(t.course).where(eq(t.course.code, code)).for('update')
  if (!row) throw noCourse(code)
  if (said.code !== code)
    throw new Refused(422, 'code', 'A course keeps its code: records name it.', [
      { field: 'code', message: `has to stay ${code}` }
    ])
  if (row.version !== version)
    throw new Refused(409, 'changedMeanwhile', `Somebody else has changed ${code} meanwhile.`)
  await mustBeRight(tx, said, catalog)
  await tx
    .update(t.course)
    .set({ ...columnsOf(said), version: version + 1 })
    .where(eq(t.course.id, row.id))
  await relate(tx, row.id, said)
  await logWritten(tx, at, said, version + 1)
  return { version: version + 1 }
}

const logWritten = (tx: Transaction, { who, now }: At, { code }: WrittenCourse, version: number) =>
  logEvent(tx, {
    at: now,
    account: who.id,
    student: null,
    action: 'course.written',
    after: { code, version }
  })

const columnsOf = ({
  title,
  description,
  credits,
  creditsMost,
  level,
  yearLevel,
  ...said
}: WrittenCourse) => ({
  ...{ title, description, credits, creditsMost, level, yearLevel },
  ...{ seasons: said.seasons, years: said.years, prerequisite: said.prerequisite },
  ...{ repeatable: said.repeatable, fee: said.fee }
})

async function mustBeRight(db: Reader, said: WrittenCourse, catalog: Catalog): Promise<void> {
  const known = new Set((await db.select({ code: t.category.code }).from(t.category)).map((one) => one.code))
  const strange = said.categories.find((one) => !known.has(one))
  const faults = [
    ...(strange === undefined
      ? []
      : [{ field: 'categories', message: `has to name categories that there are, not ${strange}` }]),
    ...courseFaults(said, catalog)
  ]
  const [first] = faults
  if (first)
    throw new Refused(422, 'faults', `The course cannot be so: ${first.field} ${first.message}.`, faults)
}

async function subjectFor(tx: Transaction, code: CourseCode): Promise<number> {
  const subject = subjectOf(code)
  const [known] = await tx.select({ id: t.subject.id }).from(t.subject).where(eq(t.subject.code, subject))
  if (known) return known.id
  const [made] = await tx
    .insert(t.subject)
    .values({ code: subject, name: subject, college: '' })
    .$returningId()
  return made!.id
}

const RELATED = ['equivalent', 'exclusive'] as const

async function relate(tx: Transaction, courseId: number, said: WrittenCourse): Promise<void> {
  const ids = await courseIds(tx, [...said.equivalents, ...said.exclusive])
  await tx
    .delete(t.courseRelation)
    .where(all(eq(t.courseRelation.courseId, courseId), inArray(t.courseRelation.kind, [...RELATED])))
  const named = { equivalent: said.equivalents, exclusive: said.exclusive }
  const rows = RELATED.flatMap((kind) =>
    [...new Set(named[kind])].map((code) => ({ courseId, otherId: ids.get(code)!, kind }))
  )
  if (rows.length) await tx.insert(t.courseRelation).values(rows)
  await tx.delete(t.courseCategory).where(eq(t.courseCategory.courseId, courseId))
  if (!said.categories.length) return
  const categories = await tx
    .select({ id: t.category.id })
    .from(t.category)
    .where(inArray(t.category.code, said.categories))
  await tx.insert(t.courseCategory).values(categories.map(({ id }) => ({ courseId, categoryId: id })))
}

/** Students who have one of the courses on their route, in a seat or on their record. */
async function concerned(db: Reader, codes: readonly CourseCode[]): Promise<number[]> {
  const among = inArray(t.course.code, [...codes])
  const rows = await union(
    db
      .select({ id: t.recordCourse.studentId })
      .from(t.recordCourse)
      .innerJoin(t.course, eq(t.course.id, t.recordCourse.courseId))
      .where(among),
    db
      .select({ id: t.route.studentId })
      .from(t.plannedCourse)
      .innerJoin(t.route, and(eq(t.route.id, t.plannedCourse.routeId), eq(t.route.chosen, true)))
      .innerJoin(t.course, eq(t.course.id, t.plannedCourse.courseId))
      .where(among),
    db
      .select({ id: t.registration.studentId })
      .from(t.registration)
      .innerJoin(t.section, eq(t.section.id, t.registration.sectionId))
      .innerJoin(t.course, eq(t.course.id, t.section.courseId))
      .where(among)
  ).orderBy(sql`1`)
  return rows.map((row) => row.id)
}

/** What a course as it is written would make of the degrees of those who have it, or what counts with it. */
export async function effectOfCourse(
  db: Reader,
  { from, ...said }: WrittenCourse & { from: number },
  { catalogContext, now }: { catalogContext: CatalogContext; now: Instant }
): Promise<CourseEffects> {
  const faults = courseFaults(said, catalogContext.catalog)
  if (faults.length) throw new Refused(422, 'faults', 'The course cannot be so yet.', faults)
  const before = catalogContext.catalog.maybeCourse(said.code)
  const with_ = [before, courseOf(said)].flatMap((one) => (one ? [...one.equivalents, ...one.exclusive] : []))
  const ids = await concerned(db, [said.code, ...with_])
  const lot = ids.slice(from, from + EFFECT_LOT)
  const fresh = { ...catalogContext, catalog: catalogContext.catalog.with(courseOf(said)) }
  const shortTerm = (code: string) => catalogContext.terms.find((one) => one.code === code)?.name ?? code
  const found: CourseEffects['students'] = []
  for (const record of lot.length ? await readStudentRecords(db, lot, 'registrar') : []) {
    const effects = effectsOf(
      readStudent(record, catalogContext, now),
      readStudent(record, fresh, now),
      [],
      shortTerm
    )
    const { id, name, number } = record.student
    found.push({ id: studentId(id), name, number, effects })
    // Others are answered in between.
    await pause()
  }
  return { of: ids.length, students: found }
}
