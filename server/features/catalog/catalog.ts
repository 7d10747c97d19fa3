/** The catalog as every screen needs it, and the page of one course. */
import { asc, desc, eq, inArray, isNull, sql } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import { courseCode, termCode, type CourseCode } from '#core/ids'
import type { LinePolicy, SessionDates } from '#core/registration'
import type { CatalogView, CoursePage } from '#shared/catalog/responses'
import { groupBy } from '#server/db/groupBy'
import { all, type Reader } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { Refused } from '#server/http/problem'
import { readGuidance } from './guidance'

/** A section whose classes all begin from here on is an evening one (common practice). */
const EVENING = 17 * 60

async function readHeldAs(db: Reader): Promise<CatalogView['heldAs']> {
  const rows = await db
    .select({
      course: t.course.code,
      campus: t.campus.code,
      mode: t.section.mode,
      first: sql<number | null>`min(${t.meeting.startsMin})`
    })
    .from(t.section)
    .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    .innerJoin(t.term, eq(t.term.id, t.section.termId))
    .innerJoin(t.campus, eq(t.campus.id, t.section.campusId))
    .leftJoin(t.meeting, eq(t.meeting.sectionId, t.section.id))
    .where(all(eq(t.term.published, true), eq(t.section.cancelled, false), isNull(t.section.parentId)))
    .groupBy(t.section.id)
  return Object.fromEntries(
    [...groupBy(rows, (row) => row.course)].map(([course, sections]) => [
      course,
      {
        online: sections.some(({ mode }) => mode === 'online' || mode === 'onlineHours'),
        evening: sections.some(({ first }) => first !== null && first >= EVENING),
        campuses: [...new Set(sections.map(({ campus }) => campus))]
      }
    ])
  )
}

export async function readCatalog(db: Reader): Promise<CatalogView> {
  const [institution] = await db.select().from(t.institution).limit(1)
  if (!institution)
    throw new Refused(409, 'notSetUp', 'Nothing is set up here yet: the database holds no institution.')
  return {
    institution: { name: institution.name, timeZone: institution.timeZone, grades: institution.grades },
    ...(await readCampuses(db)),
    terms: await readTerms(db),
    ...(await readCourses(db)),
    subjects: await db
      .select({ code: t.subject.code, name: t.subject.name, college: t.subject.college })
      .from(t.subject)
      .orderBy(asc(t.subject.code)),
    categories: await db
      .select({ family: t.category.family, code: t.category.code, title: t.category.title })
      .from(t.category)
      .orderBy(asc(t.category.id)),
    lists: await db
      .select({
        name: t.courseList.name,
        catalogYear: t.courseList.catalogYear,
        title: t.courseList.title,
        from: t.courseList.fromText
      })
      .from(t.courseList)
      .orderBy(asc(t.courseList.name), asc(t.courseList.catalogYear)),
    running: await readRunning(db),
    heldAs: await readHeldAs(db),
    guidance: await readGuidance(db)
  }
}

async function readCampuses(db: Reader): Promise<Pick<CatalogView, 'campuses' | 'travel'>> {
  const other = alias(t.campus, 'other')
  return {
    campuses: await db
      .select({ code: t.campus.code, name: t.campus.name })
      .from(t.campus)
      .orderBy(asc(t.campus.id)),
    travel: await db
      .select({ from: t.campus.code, to: other.code, minutes: t.campusTravel.minutes })
      .from(t.campusTravel)
      .innerJoin(t.campus, eq(t.campus.id, t.campusTravel.fromId))
      .innerJoin(other, eq(other.id, t.campusTravel.toId))
  }
}

async function readTerms(db: Reader): Promise<CatalogView['terms']> {
  const terms = await db.select().from(t.term).orderBy(asc(t.term.startsOn))
  const sessions = groupBy(await db.select().from(t.session), (s) => s.termId)
  const holidays = groupBy(await db.select().from(t.holiday).orderBy(asc(t.holiday.onDate)), (h) => h.termId)
  return terms.map((term) => ({
    code: termCode(term.code),
    name: term.name,
    season: term.season,
    year: term.year,
    start: term.startsOn,
    end: term.endsOn,
    published: term.published,
    addEndsAt: term.addEndsAt.getTime(),
    dropFreeEndsAt: term.dropFreeEndsAt.getTime(),
    dropEndsAt: term.dropEndsAt.getTime(),
    arming: term.arming,
    line: linePolicyOf(term),
    intentionsDueAt: term.intentionsDueAt?.getTime() ?? null,
    graduateBy: term.graduateBy?.getTime() ?? null,
    paymentDueOn: term.paymentDueOn,
    prices: term.prices,
    loadMost: term.loadMost,
    repeatBelow: term.repeatBelow,
    signOffPolicy: term.signOffPolicy,
    agreement: term.agreement,
    sessions: (sessions.get(term.id) ?? []).map((session) => ({
      code: session.code,
      name: session.name,
      half: session.half,
      start: session.startsOn,
      end: session.endsOn,
      dates: sessionDates(session, term)
    })),
    holidays: (holidays.get(term.id) ?? []).map(({ onDate, name }) => ({ date: onDate, name }))
  }))
}

/** The courses with what they belong to and how they stand to each other. */
async function readCourses(db: Reader): Promise<Pick<CatalogView, 'courses' | 'supportLabs'>> {
  const courses = await db.select().from(t.course).orderBy(asc(t.course.code))
  const categories = groupBy(
    await db
      .select({ courseId: t.courseCategory.courseId, code: t.category.code })
      .from(t.courseCategory)
      .innerJoin(t.category, eq(t.category.id, t.courseCategory.categoryId)),
    (row) => row.courseId
  )
  const relations = groupBy(
    await db
      .select({ courseId: t.courseRelation.courseId, code: t.course.code, kind: t.courseRelation.kind })
      .from(t.courseRelation)
      .innerJoin(t.course, eq(t.course.id, t.courseRelation.otherId)),
    (row) => `${row.kind} ${row.courseId}`
  )
  const related = (kind: string, id: number) =>
    (relations.get(`${kind} ${id}`) ?? []).map((row) => courseCode(row.code))
  return {
    courses: courses.map((c) => ({
      code: courseCode(c.code),
      title: c.title,
      credits: c.credits,
      creditsMost: c.creditsMost,
      level: c.level,
      yearLevel: c.yearLevel,
      offered: { seasons: c.seasons, years: c.years },
      prerequisite: c.prerequisite,
      categories: (categories.get(c.id) ?? []).map((row) => row.code),
      equivalents: related('equivalent', c.id),
      exclusive: related('exclusive', c.id),
      repeatable: c.repeatable
    })),
    supportLabs: courses.flatMap((c) =>
      related('supportLab', c.id).map((lab) => ({ course: courseCode(c.code), lab }))
    )
  }
}

/** By published term, the courses of which a section runs. */
async function readRunning(db: Reader): Promise<CatalogView['running']> {
  const running = await db
    .selectDistinct({ term: t.term.code, course: t.course.code })
    .from(t.section)
    .innerJoin(t.term, eq(t.term.id, t.section.termId))
    .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    .where(all(eq(t.term.published, true), eq(t.section.cancelled, false)))
  return Object.fromEntries(
    [...groupBy(running, (r) => r.term)].map(([term, rows]) => [term, rows.map((r) => r.course)])
  )
}

export async function readCoursePage(db: Reader, code: CourseCode): Promise<CoursePage> {
  const [course] = await db.select().from(t.course).where(eq(t.course.code, code))
  if (!course) throw new Refused(404, 'noCourse', `The catalog has no course ${code}.`)
  const history = await db
    .select({
      term: t.term.code,
      sections: sql<number>`count(*)`.mapWith(Number),
      seats: sql<number>`sum(${t.section.capacity})`.mapWith(Number),
      taken: sql<number>`sum(${t.section.taken} + ${t.section.takenFormerly})`.mapWith(Number)
    })
    .from(t.section)
    .innerJoin(t.term, eq(t.term.id, t.section.termId))
    .where(all(eq(t.section.courseId, course.id), eq(t.section.cancelled, false), isNull(t.section.parentId)))
    .groupBy(t.term.id)
    .orderBy(desc(t.term.startsOn))
  return {
    code,
    description: course.description,
    fee: course.fee,
    history: history.map((row) => ({ ...row, term: termCode(row.term) }))
  }
}

/** The description of every course, for searching. */
export async function readDescriptions(db: Reader): Promise<Record<string, string>> {
  const rows = await db.select({ code: t.course.code, text: t.course.description }).from(t.course)
  return Object.fromEntries(rows.map((row) => [row.code, row.text]))
}

/** Row ids of courses and terms, by code. @throws Refused naming the first unknown one. */
export async function courseIds(db: Reader, codes: readonly CourseCode[]): Promise<Map<CourseCode, number>> {
  if (!codes.length) return new Map()
  const rows = await db
    .select({ id: t.course.id, code: t.course.code })
    .from(t.course)
    .where(inArray(t.course.code, [...codes]))
  const found = new Map(rows.map((row) => [courseCode(row.code), row.id]))
  const missing = codes.find((code) => !found.has(code))
  if (missing)
    throw new Refused(422, 'noCourse', `The catalog has no course ${missing}.`, [
      { field: 'course', message: `is not in the catalog: ${missing}` }
    ])
  return found
}

/** How a term serves its lines. */
export function linePolicyOf(term: typeof t.term.$inferSelect): LinePolicy {
  return {
    serves: term.waitlistPolicy,
    closes: term.linesCloseAt.getTime(),
    hours: term.offerHours,
    hoursNear: term.offerHoursNear
  }
}

/** Dates of a session's own, each that it has not the term's; null where it has none. */
function sessionDates(
  session: typeof t.session.$inferSelect,
  term: typeof t.term.$inferSelect
): SessionDates | null {
  if (!session.addEndsAt && !session.dropFreeEndsAt && !session.dropEndsAt) return null
  return {
    addEnds: (session.addEndsAt ?? term.addEndsAt).getTime(),
    freeUntil: (session.dropFreeEndsAt ?? term.dropFreeEndsAt).getTime(),
    ends: (session.dropEndsAt ?? term.dropEndsAt).getTime()
  }
}

/** A row of a term as the calendar asks about it. */
export function datesOfTerm({ startsOn, endsOn, addEndsAt, published }: typeof t.term.$inferSelect) {
  return { start: startsOn, end: endsOn, addEndsAt: addEndsAt.getTime(), published }
}

export async function termRow(db: Reader, code: string) {
  const [row] = await db.select().from(t.term).where(eq(t.term.code, code))
  if (!row)
    throw new Refused(422, 'noTerm', `There is no term ${code}.`, [
      { field: 'term', message: `is not a term of the institution: ${code}` }
    ])
  return row
}
