/** The grades that the institution gives. */
import { scaleOf, type GradeScale } from '#core/grades'
import type { Reader } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { Refused } from '#server/http/problem'

export async function readScale(db: Reader): Promise<GradeScale> {
  const [institution] = await db.select({ grades: t.institution.grades }).from(t.institution).limit(1)
  return scaleOf(institution?.grades)
}

/** @throws Refused naming the field, for what is no grade of the scale; where `points` are asked for, for one without them */
export async function mustBeGrade(
  db: Reader,
  grade: string,
  field: string,
  { points = false } = {}
): Promise<void> {
  const scale = await readScale(db)
  const usable = scale.grades.filter((one) => !points || one.points !== null)
  if (usable.some((one) => one.grade === grade)) return
  const some = usable.slice(0, 4).map((one) => one.grade)
  const message = `has to be a grade${points ? ' with points' : ''} such as ${some.join(', ')}`
  throw new Refused(400, 'malformed', `${field} ${message}.`, [{ field, message }])
}
