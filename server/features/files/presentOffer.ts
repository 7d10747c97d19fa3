/** The rows of what is offered: places, terms, courses, sections. */
import { asc, eq } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import { scaleOf } from '#core/grades'
import type { Reader } from '#server/db/connect'
import { groupBy } from '#server/db/groupBy'
import * as t from '#server/db/schema/index'
import type { Row } from '#shared/oneRoster/tables'
import { timeField } from '#shared/when'
import { idOf } from './rosterIds'

/** `MW 09:30-10:45; F 13:00-14:50` */
const meetingText = (rows: readonly { days: string; startsMin: number; endsMin: number }[]) =>
  rows.map((one) => `${one.days} ${timeField(one.startsMin)}-${timeField(one.endsMin)}`).join('; ')

export async function orgRows(db: Reader): Promise<Row[]> {
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

export async function gradeRows(db: Reader): Promise<Row[]> {
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

export async function sessionRows(db: Reader): Promise<Row[]> {
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

export async function courseRows(db: Reader): Promise<Row[]> {
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

export async function sectionRows(db: Reader): Promise<Row[]> {
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
export function partsOf(name: string): Pick<Row, 'givenName' | 'familyName'> {
  const at = name.lastIndexOf(' ')
  return at < 0
    ? { givenName: name, familyName: '-' }
    : { givenName: name.slice(0, at), familyName: name.slice(at + 1) }
}
