/** Who has read a student's record, from the log of all that is read by others. */
import type { StudentId } from '#core/ids'
import { all, type Reader } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { READS, type Read } from '#server/http/access'
import type { RecordRead } from '#shared/record/reads'
import { campusDate } from '#shared/when'
import { desc, eq, inArray, ne } from 'drizzle-orm'

/** So many of the last readings are looked at. */
const MOST = 3000

/** By day on campus and person, the last first: which parts they read, and when last. */
export async function readsOf(db: Reader, student: StudentId, zone: string): Promise<RecordRead[]> {
  const rows = await db
    .select({
      at: t.eventLog.at,
      action: t.eventLog.action,
      account: t.account.id,
      by: t.account.name,
      role: t.account.role
    })
    .from(t.eventLog)
    .innerJoin(t.account, eq(t.account.id, t.eventLog.accountId))
    .innerJoin(t.student, eq(t.student.id, t.eventLog.studentId))
    .where(
      all(
        eq(t.eventLog.studentId, student),
        inArray(t.eventLog.action, [...READS]),
        ne(t.account.id, t.student.accountId)
      )
    )
    .orderBy(desc(t.eventLog.id))
    .limit(MOST)
  const found = new Map<string, RecordRead>()
  for (const { at, action, account, by, role } of rows) {
    const on = campusDate(at.getTime(), zone)
    const key = `${on} ${account}`
    const known = found.get(key) ?? { by, role, on, last: at.getTime(), parts: [] }
    const part = (action as Read).split('.')[0] as RecordRead['parts'][number]
    found.set(key, { ...known, parts: known.parts.includes(part) ? known.parts : [...known.parts, part] })
  }
  return [...found.values()]
}
