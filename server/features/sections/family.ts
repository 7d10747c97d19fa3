/** A new section with its components: whether it fits into the term, and its rows. */
import { asc, eq } from 'drizzle-orm'
import { formatDayLetters } from '#core/formats'
import type { IsoDate, Minutes, Weekday } from '#core/time'
import { clashOf, type Section } from '#core/week'
import { all, type Transaction } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { Refused } from '#server/http/problem'
import type { CatalogContext } from '#shared/catalog/context'
import { holidaysOf, lockWanted, mustBeFree, NOWHERE } from './clashes'
import { freeCodes } from './codes'

export interface NewPart {
  kind: Section['kind']
  /** None for what has no hours. */
  days: Weekday[]
  start: Minutes
  end: Minutes
  from: IsoDate
  to: IsoDate
  seats: number
  room: number | null
}

/** Its parts do not clash, and their rooms and instructors are free. @throws Refused that says what is in the way */
export async function mustFit(
  tx: Transaction,
  term: typeof t.term.$inferSelect,
  parts: readonly NewPart[],
  { instructors, catalogContext }: { instructors: readonly number[]; catalogContext: CatalogContext }
): Promise<void> {
  const holidays = holidaysOf(catalogContext, term.code)
  const held = parts.filter((one) => one.days.length).map((one) => ({ ...one, ...NOWHERE, wanted: one.room }))
  // Of components of one kind a student takes one: these may be at the same hours.
  const isTakenBeside = (i: number, j: number) => i === 0 || parts[i]!.kind !== parts[j]!.kind
  for (const [i, one] of held.entries())
    for (const [j, other] of held.entries())
      if (i < j && isTakenBeside(i, j) && clashOf(one, other, holidays))
        throw new Refused(422, 'ownClash', 'The parts of the section would clash with one another.', [
          { field: 'parts', message: 'have to be at different hours' }
        ])
  await lockWanted(tx, { parts, instructors })
  for (const one of held) await mustBeFree(tx, term, one, { room: one.wanted, instructors, holidays })
}

type Values = Omit<typeof t.section.$inferInsert, 'id' | 'code' | 'number' | 'parentId' | 'capacity'>

/** Writes a section and its components, of which nobody holds a seat; the section first. */
export async function insertFamily(
  tx: Transaction,
  parts: readonly { values: Values; part: NewPart }[],
  instructors: readonly number[]
): Promise<{ id: number; code: string; parentId: number | null; capacity: number }[]> {
  const { courseId, termId } = parts[0]!.values
  // Whoever adds to the course at the same time waits here.
  await tx.select({ id: t.course.id }).from(t.course).where(eq(t.course.id, courseId)).for('update')
  const numbers = await tx
    .select({ number: t.section.number })
    .from(t.section)
    .where(all(eq(t.section.termId, termId), eq(t.section.courseId, courseId)))
    .orderBy(asc(t.section.id))
  const number = nextNumber(numbers.map((row) => row.number))
  const codes = await freeCodes(tx, parts.length)
  const made: { id: number; code: string; parentId: number | null; capacity: number }[] = []
  for (const [i, { values, part }] of parts.entries()) {
    const parentId = made[0]?.id ?? null
    const code = codes[i]!
    const [inserted] = await tx
      .insert(t.section)
      .values({
        ...values,
        ...{ code, number: i ? `${number}${String.fromCharCode(64 + i)}` : number, parentId },
        ...{ capacity: part.seats, taken: 0, offered: 0, takenFormerly: 0, waiting: 0, cancelled: false }
      })
      .$returningId()
    const { id } = inserted!
    if (part.days.length)
      await tx.insert(t.meeting).values({
        ...{ sectionId: id, days: formatDayLetters(part.days), startsMin: part.start, endsMin: part.end },
        ...{ fromOn: part.from, toOn: part.to, roomId: part.room }
      })
    if (instructors.length)
      await tx
        .insert(t.sectionInstructor)
        .values(instructors.map((instructorId) => ({ sectionId: id, instructorId })))
    made.push({ id, code, parentId, capacity: part.seats })
  }
  return made
}

/** One above the highest number there is. */
function nextNumber(numbers: readonly string[]): string {
  const highest = Math.max(0, ...numbers.map((one) => Number.parseInt(one, 10) || 0))
  return String(highest + 1).padStart(2, '0')
}
