/** The sections of somebody who teaches, or of a department, in terms that are not over, with who is in them. */
import { asc, eq, gte, inArray } from 'drizzle-orm'
import type { SectionCode } from '#core/ids'
import { all, type Reader } from '#server/db/connect'
import { groupBy } from '#server/db/groupBy'
import * as t from '#server/db/schema/index'
import type { Who } from '#shared/accounts/responses'
import type { InSection, TaughtSection } from '#shared/sections/teaching'
import { sectionsByCode } from './sections'

const person = { name: t.account.name, number: t.student.number, mail: t.account.mail }

/** @param today the day on campus */
export async function readTaught(db: Reader, who: Pick<Who, 'id'>, today: string): Promise<TaughtSection[]> {
  const own = await ownSections(db, who, today)
  if (!own.length) return []
  const ids = own.map((row) => row.id)
  const registered = await db
    .select({ section: t.registration.sectionId, ...person })
    .from(t.registration)
    .innerJoin(t.student, eq(t.student.id, t.registration.studentId))
    .innerJoin(t.account, eq(t.account.id, t.student.accountId))
    .where(inArray(t.registration.sectionId, ids))
    .orderBy(asc(t.account.name), asc(t.student.id))
  const waiting = await db
    .select({ section: t.waitlistPlace.sectionId, ...person })
    .from(t.waitlistPlace)
    .innerJoin(t.student, eq(t.student.id, t.waitlistPlace.studentId))
    .innerJoin(t.account, eq(t.account.id, t.student.accountId))
    .where(inArray(t.waitlistPlace.sectionId, ids))
    .orderBy(asc(t.waitlistPlace.id))
  const [inThem, inLine] = [groupBy(registered, (row) => row.section), groupBy(waiting, (row) => row.section)]
  const byCode = new Map(own.map((row) => [row.code, row]))
  const sections = await sectionsByCode(
    db,
    own.map((row) => row.code as SectionCode)
  )
  return sections.map((section): TaughtSection => {
    const { id, title } = byCode.get(section.code)!
    return {
      section,
      title,
      registered: (inThem.get(id) ?? []).map(nameOf),
      waiting: (inLine.get(id) ?? []).map(nameOf)
    }
  })
}

const nameOf = ({ name, number, mail }: InSection): InSection => ({ name, number, mail })

async function ownSections(db: Reader, { id }: Pick<Who, 'id'>, today: string) {
  const [account] = await db
    .select({ instructor: t.account.instructorId, department: t.account.departmentId })
    .from(t.account)
    .where(eq(t.account.id, id))
  const taught = db
    .select({ id: t.sectionInstructor.sectionId })
    .from(t.sectionInstructor)
    .where(eq(t.sectionInstructor.instructorId, account?.instructor ?? 0))
  const subjects = db
    .select({ id: t.subject.id })
    .from(t.subject)
    .where(eq(t.subject.departmentId, account?.department ?? 0))
  return db
    .select({ id: t.section.id, code: t.section.code, title: t.course.title })
    .from(t.section)
    .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    .innerJoin(t.term, eq(t.term.id, t.section.termId))
    .where(
      all(
        eq(t.term.published, true),
        gte(t.term.endsOn, today),
        account?.department ? inArray(t.course.subjectId, subjects) : inArray(t.section.id, taught)
      )
    )
}
