/** Who cannot wait for a course, and who of those finds no seat: against each record by itself. */
import { sql } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { studentId, type StudentId } from '#core/ids'
import { slackOf } from '#core/route'
import * as t from '#server/db/schema/index'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { everybodyOf } from '#server/features/offices/openingFigures'
import { readDemand } from '#server/features/sections/demand'
import { readNeeds } from '#server/features/sections/needs'
import type { Who } from '#shared/accounts/responses'
import { readStudent } from '#shared/reading'
import type { CourseNeeds } from '#shared/sections/demand'
import { at, AUTUMN, demoWorld, person, type World } from './world'

let world: World
let needs: readonly CourseNeeds[]
/** Of each student: the courses planned for autumn without a seat, the tight ones of those, and the opening. */
const own = new Map<StudentId, { planned: string[]; tight: Set<string>; opens: number }>()
/** Asked for until all is read, which gets further each time. */
async function whole(who: Who): Promise<readonly CourseNeeds[]> {
  const { now } = await at(world)
  for (let before = -1; ;) {
    const { read, of, courses } = await readNeeds(world.db, who, AUTUMN, {
      catalogContext: world.catalogContext,
      now
    })
    if (read === of) return courses
    expect(courses).toEqual([])
    expect(read).toBeGreaterThan(before)
    before = read
  }
}
beforeAll(async () => {
  world = await demoWorld('needs')
  // Some of the students say as much as all of them.
  await world.db.execute(
    sql`delete p from planned_course p join route r on r.id = p.route_id where r.student_id % 5 <> 0`
  )
  await world.db.execute(sql`update section set capacity = greatest(taken, 4) where parent_id is null`)
  const { now } = await at(world)
  const edda = await person(world.db, 'Edda Whitlock')
  needs = await whole(edda)
  for (const student of (await everybodyOf(world.db)).filter((id) => id % 5 === 0)) {
    const [record] = await readStudentRecords(world.db, [student], 'programAdvisor')
    const held = new Set(record!.held.flatMap((one) => (one.term === AUTUMN ? [one.course] : [])))
    const planned = record!.route.courses.flatMap((one) =>
      one.term === AUTUMN && !held.has(one.course) ? [one.course] : []
    )
    if (!planned.length) continue
    const tight = slackOf(readStudent(record!, world.catalogContext, now).context).flatMap((one) =>
      one.term.code === AUTUMN && (one.latest ?? one.term).code === AUTUMN ? [one.course] : []
    )
    const opens = record!.openings.find((one) => one.term === AUTUMN)?.opens ?? Infinity
    own.set(student, { planned, tight: new Set(tight), opens })
  }
}, 120_000)
afterAll(() => world.close())

describe('what is needed of a term', () => {
  it('is counted of every student, whatever the order in which they are read', () => {
    const expected = new Map<string, number>()
    for (const { planned, tight } of own.values())
      for (const course of planned)
        if (tight.has(course)) expected.set(course, (expected.get(course) ?? 0) + 1)
    expect(Object.fromEntries(needs.map((one) => [one.course, one.needs]))).toEqual(
      Object.fromEntries(expected)
    )
    expect(expected.size).toBeGreaterThan(5)
  })
  it('names whom the seats leave out, with their number and opening', async () => {
    const { now } = await at(world)
    const demand = await readDemand(world.db, await person(world.db, 'Edda Whitlock'), AUTUMN, now)
    const numbers = new Map(
      (await world.db.select({ id: t.student.id, number: t.student.number }).from(t.student)).map((row) => [
        studentId(row.id),
        row.number
      ])
    )
    for (const { course, students, left, mayBeLeft } of needs) {
      const { seats, taken } = demand.find((one) => one.course === course)!
      const free = Math.max(0, (seats ?? 0) - taken)
      const waiting = [...own].filter(([, { planned }]) => planned.includes(course))
      const wanted = waiting.flatMap(([student, { tight, opens }]) => {
        const notLater = waiting.filter(([, other]) => other.opens <= opens).length
        if (!tight.has(course) || notLater <= free) return []
        const earlier = waiting.filter(([, other]) => other.opens < opens).length
        return [`${numbers.get(student)} ${earlier >= free}`]
      })
      expect(students.map((one) => `${one.number} ${one.surely}`).sort(), course).toEqual(wanted.sort())
      expect([left, mayBeLeft], course).toEqual([
        students.filter((one) => one.surely).length,
        students.filter((one) => !one.surely).length
      ])
    }
    expect(needs.some((one) => one.left)).toBe(true)
  })
  it('is told to a department of its own subjects, without names', async () => {
    const tamsin = await person(world.db, 'Tamsin Orford')
    const told = await whole(tamsin)
    expect(told.length).toBeGreaterThan(0)
    expect(told.length).toBeLessThan(needs.length)
    for (const one of told)
      expect(one).toEqual({ ...needs.find((other) => other.course === one.course)!, students: [] })
  })
  it('is nothing where nobody plans anything', async () => {
    await world.db.execute(sql`delete from planned_course`)
    expect(await whole(await person(world.db, 'Edda Whitlock'))).toEqual([])
  })
})
