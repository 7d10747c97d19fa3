/** Credits that stand on the record as earned, here and elsewhere. */
import { inArray } from 'drizzle-orm'
import type { GradeScale } from '#core/grades'
import type { Reader } from '#server/db/connect'
import { groupBy } from '#server/db/groupBy'
import * as t from '#server/db/schema/index'
import { readScale } from '#server/features/catalog/scale'

/** The sum of the credits of those entries whose grade earns them. */
export const earnedIn = (
  entries: readonly { credits: number; grade: string | null }[],
  scale: GradeScale
): number =>
  entries
    .filter(({ grade }) => grade !== null && scale.meaning(grade).result === 'earned')
    .reduce((sum, one) => sum + one.credits, 0)

/** By student; who has nothing on the record has no entry. */
export async function earnedCredits(db: Reader, students: readonly number[]): Promise<Map<number, number>> {
  if (!students.length) return new Map()
  const scale = await readScale(db)
  const rows = await db
    .select({
      student: t.recordCourse.studentId,
      credits: t.recordCourse.credits,
      grade: t.recordCourse.grade
    })
    .from(t.recordCourse)
    .where(inArray(t.recordCourse.studentId, [...students]))
  return new Map(
    [...groupBy(rows, (row) => row.student)].map(([student, own]) => [student, earnedIn(own, scale)])
  )
}
