/** The rows of planned courses. */
import type { PlannedCourse } from '#core/degree'
import { all, type Transaction } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { Refused } from '#server/http/problem'
import { eq } from 'drizzle-orm'

export const placeOf = ({ course, term }: PlannedCourse) => `${course}@${term}`

type PlannedKey = Pick<typeof t.plannedCourse.$inferInsert, 'routeId' | 'courseId' | 'termId'>

/** Writes the rows of planned courses that are new or other, and takes out those that are gone. */
export async function writePlanned(
  tx: Transaction,
  before: readonly PlannedCourse[],
  after: readonly PlannedCourse[],
  row: (planned: PlannedCourse) => PlannedKey
): Promise<void> {
  const known = new Map(before.map((planned) => [placeOf(planned), planned]))
  for (const planned of after) {
    const old = known.get(placeOf(planned))
    known.delete(placeOf(planned))
    const { credits, note, locked } = planned
    if (old?.credits === credits && old.note === note && old.locked === locked) continue
    await tx
      .insert(t.plannedCourse)
      .values({ ...row(planned), credits, note, locked })
      .onDuplicateKeyUpdate({ set: { credits, note, locked } })
  }
  for (const gone of known.values()) {
    const { routeId, courseId, termId } = row(gone)
    await tx
      .delete(t.plannedCourse)
      .where(
        all(
          eq(t.plannedCourse.routeId, routeId),
          eq(t.plannedCourse.courseId, courseId),
          eq(t.plannedCourse.termId, termId)
        )
      )
  }
}

/** @throws Refused when the course does not carry that many credits. */
export async function mustCarry(tx: Transaction, { course, credits }: PlannedCourse): Promise<void> {
  const [row] = await tx.select().from(t.course).where(eq(t.course.code, course))
  if (credits >= row!.credits && credits <= row!.creditsMost) return
  throw new Refused(422, 'credits', `${course} carries ${row!.credits} credits, not ${credits}.`, [
    { field: 'change.planned.credits', message: `has to be ${row!.credits}` }
  ])
}
