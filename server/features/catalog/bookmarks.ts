/** What a student marks of courses: stars, a note of their own, and what was looked at last. */
import { desc, eq, isNotNull, isNull, or } from 'drizzle-orm'
import { courseCode, type CourseCode, type StudentId } from '#core/ids'
import type { CourseBookmark } from '#shared/catalog/responses'
import { all, type Reader, type Transaction } from '#server/db/connect'
import { tell } from '#server/db/news'
import * as t from '#server/db/schema/index'
import type { ActorContext } from '#server/features/route/route'
import { courseIds } from './catalog'

/** As many as fit on a line or two. */
const LOOKED_MOST = 12

export async function readBookmarks(
  db: Reader,
  student: StudentId,
  account: number
): Promise<CourseBookmark[]> {
  const notes = await db
    .select({ course: t.course.code, text: t.note.text })
    .from(t.note)
    .innerJoin(t.course, eq(t.course.id, t.note.courseId))
    .where(all(...ownNote(student, account)))
  const rows = await db
    .select({ course: t.course.code, starredAt: t.courseMark.starredAt, lookedAt: t.courseMark.lookedAt })
    .from(t.courseMark)
    .innerJoin(t.course, eq(t.course.id, t.courseMark.courseId))
    .where(
      all(
        eq(t.courseMark.studentId, student),
        or(isNotNull(t.courseMark.starredAt), isNotNull(t.courseMark.lookedAt))
      )
    )
    .orderBy(desc(t.courseMark.lookedAt))
  const marks = new Map<string, CourseBookmark>()
  let looked = 0
  for (const { course, starredAt, lookedAt } of rows) {
    const recent = lookedAt !== null && looked++ < LOOKED_MOST
    if (!recent && starredAt === null) continue
    marks.set(course, {
      course: courseCode(course),
      starred: starredAt !== null,
      lookedAt: recent ? lookedAt.getTime() : null,
      note: null
    })
  }
  for (const { course, text } of notes) {
    const mark = marks.get(course) ?? { course: courseCode(course), starred: false, lookedAt: null }
    marks.set(course, { ...mark, note: text })
  }
  return [...marks.values()]
}

const ownNote = (student: StudentId, account: number) => [
  eq(t.note.studentId, student),
  eq(t.note.authorId, account),
  eq(t.note.visibility, 'own'),
  isNull(t.note.termId)
]

/** Stars, looks at, or notes something on a course; what is not said stays. An empty note is taken away. */
export async function bookmarkCourse(
  tx: Transaction,
  at: ActorContext,
  code: CourseCode,
  change: { starred?: boolean | undefined; looked?: true | undefined; note?: string | null | undefined }
): Promise<void> {
  const course = (await courseIds(tx, [code])).get(code)!
  const moment = new Date(at.now)
  const set = {
    ...(change.starred === undefined ? {} : { starredAt: change.starred ? moment : null }),
    ...(change.looked ? { lookedAt: moment } : {})
  }
  if (Object.keys(set).length)
    await tx
      .insert(t.courseMark)
      .values({ studentId: at.student, courseId: course, ...set })
      .onDuplicateKeyUpdate({ set })
  await tell(tx, ['own'], { account: at.who.id, student: at.student })
  if (change.note === undefined) return
  await tx.delete(t.note).where(all(...ownNote(at.student, at.who.id), eq(t.note.courseId, course)))
  if (change.note)
    await tx.insert(t.note).values({
      studentId: at.student,
      authorId: at.who.id,
      courseId: course,
      visibility: 'own',
      text: change.note,
      at: moment
    })
}
