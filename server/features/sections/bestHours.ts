/** Hours at which most of those who want a course could come. */
import { eq, inArray } from 'drizzle-orm'
import { parseDayLetters } from '#core/formats'
import type { CourseCode, TermCode } from '#core/ids'
import type { Minutes, Weekday } from '#core/time'
import type { Section } from '#core/week'
import { all, type Reader } from '#server/db/connect'
import { groupBy } from '#server/db/groupBy'
import * as t from '#server/db/schema/index'
import type { OfferedCourse, FreeHours } from '#shared/sections/offering'
import { offerOf } from './sections'

interface Hours {
  days: readonly Weekday[]
  start: Minutes
  end: Minutes
}

const MOST = 5

/**
 * What is usual in the term for a section that meets as often and as long, with how many could come: those who have
 * planned the course, hold no seat of it, and have nothing else then.
 */
export async function bestHours(
  db: Reader,
  { term, course }: { term: TermCode; course: CourseCode },
  sections: readonly Section[]
): Promise<Pick<OfferedCourse, 'wanting' | 'hours'>> {
  const wanting = await wantingStudents(db, term, course)
  const like = sections.find((one) => one.parent === null)?.meetings[0]
  if (!like || !wanting.length) return { wanting: wanting.length, hours: [] }
  const usual = new Map<string, Hours>()
  for (const { parent, meetings } of await offerOf(db, term))
    for (const { days, start, end } of parent === null ? meetings : [])
      if (days.length === like.days.length && end - start === like.end - like.start)
        usual.set(`${days.join('')} ${start}`, { days, start, end })
  const busy = await busyHours(db, term, course, wanting)
  const found = [...usual.values()].map(({ days, start, end }): FreeHours => ({
    ...{ days: [...days], start, end },
    free: wanting.filter((id) => !(busy.get(id) ?? []).some((one) => overlap(one, { days, start, end })))
      .length
  }))
  found.sort((a, b) => b.free - a.free || a.start - b.start || (a.days[0] ?? 0) - (b.days[0] ?? 0))
  return { wanting: wanting.length, hours: found.slice(0, MOST) }
}

const overlap = (a: Hours, b: Hours) =>
  a.start < b.end && b.start < a.end && a.days.some((day) => b.days.includes(day))

async function wantingStudents(db: Reader, term: string, course: string): Promise<number[]> {
  const planned = await db
    .select({ student: t.route.studentId })
    .from(t.plannedCourse)
    .innerJoin(t.route, eq(t.route.id, t.plannedCourse.routeId))
    .innerJoin(t.course, eq(t.course.id, t.plannedCourse.courseId))
    .innerJoin(t.term, eq(t.term.id, t.plannedCourse.termId))
    .where(all(eq(t.term.code, term), eq(t.course.code, course), eq(t.route.chosen, true)))
  const holding = await db
    .select({ student: t.registration.studentId })
    .from(t.registration)
    .innerJoin(t.section, eq(t.section.id, t.registration.sectionId))
    .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    .innerJoin(t.term, eq(t.term.id, t.section.termId))
    .where(all(eq(t.term.code, term), eq(t.course.code, course)))
  const held = new Set(holding.map((row) => row.student))
  return planned.map((row) => row.student).filter((student) => !held.has(student))
}

/** What lies in the week of each: seats and picks of other courses, and hours that have to be kept free. */
async function busyHours(
  db: Reader,
  term: string,
  course: string,
  students: readonly number[]
): Promise<Map<number, Hours[]>> {
  const columns = {
    course: t.course.code,
    days: t.meeting.days,
    start: t.meeting.startsMin,
    end: t.meeting.endsMin
  }
  const held = await db
    .select({ student: t.registration.studentId, ...columns })
    .from(t.registration)
    .innerJoin(t.section, eq(t.section.id, t.registration.sectionId))
    .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    .innerJoin(t.term, eq(t.term.id, t.section.termId))
    .innerJoin(t.meeting, eq(t.meeting.sectionId, t.section.id))
    .where(all(eq(t.term.code, term), inArray(t.registration.studentId, [...students])))
  const picked = await db
    .select({ student: t.draftWeek.studentId, ...columns })
    .from(t.pickedSection)
    .innerJoin(t.draftWeek, eq(t.draftWeek.id, t.pickedSection.draftWeekId))
    .innerJoin(t.section, eq(t.section.id, t.pickedSection.sectionId))
    .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    .innerJoin(t.term, eq(t.term.id, t.section.termId))
    .innerJoin(t.meeting, eq(t.meeting.sectionId, t.section.id))
    .where(
      all(
        eq(t.term.code, term),
        eq(t.draftWeek.goingWith, true),
        inArray(t.draftWeek.studentId, [...students])
      )
    )
  const kept = await db
    .select({
      student: t.keepFree.studentId,
      days: t.keepFree.days,
      start: t.keepFree.startsMin,
      end: t.keepFree.endsMin
    })
    .from(t.keepFree)
    .where(all(eq(t.keepFree.hard, true), inArray(t.keepFree.studentId, [...students])))
  const rows = [...[...held, ...picked].filter((row) => row.course !== course), ...kept]
  const byStudent = groupBy(rows, (row) => row.student)
  return new Map(
    [...byStudent].map(([student, own]) => [
      student,
      own.map(({ days, start, end }) => ({ days: parseDayLetters(days) ?? [], start, end }))
    ])
  )
}
