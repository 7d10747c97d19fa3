/** Planning with a group: offered to each, taken by each into their own route, followed by the advisor. */
import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { courseCode, studentId, type StudentId } from '#core/ids'
import * as t from '#server/db/schema/index'
import type { Who } from '#shared/accounts/responses'
import { standOf } from '#shared/advising/groups'
import { groupBody } from '#shared/advising/requests'
import { tickAgreed } from '#server/features/advising/agreed'
import { advisedBy } from '#server/features/advising/advisedBy'
import { planWithGroup, readGroups } from '#server/features/advising/groups'
import { answerSuggestions } from '#server/features/advising/suggestions'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { at, AUTUMN, demoWorld, person, within, type World } from './world'

type Person = Who & { id: number }
let world: World
let imke: Person
let orla: Person
let group: StudentId[]
beforeAll(async () => {
  world = await demoWorld('groups')
  imke = await person(world.db, 'Imke Varga')
  orla = await person(world.db, 'Orla Denholt')
  const own = (await advisedBy(world.db, orla.id)).map((one) => studentId(one.student))
  group = [imke.student!, ...own.filter((id) => id !== imke.student).slice(0, 29)]
})
afterAll(() => world.close())

const offer = async (said: object, who = orla) => {
  const { now } = await at(world)
  const body = groupBody.parse({ title: 'The autumn together', term: AUTUMN, students: group, ...said })
  return planWithGroup(world.db, { who, now, catalogContext: world.catalogContext }, body)
}
const look = async (student: StudentId) => (await readStudentRecords(world.db, [student], 'self'))[0]!

describe('what is offered to a group', () => {
  it('is a suggestion of what each neither has nor plans, and a task of each', async () => {
    // Imke plans WRIT 215 already, and has ENDA 110.
    const courses = ['WRIT 215', 'ENDA 110', 'HERI 320']
    await offer({ courses, task: { what: 'Ask for a review', due: '2027-04-20' } })
    const [session] = await readGroups(world.db, orla)
    expect(session!.members).toHaveLength(30)
    expect(session!.members.find((one) => one.id === imke.student)).toEqual({
      ...{ id: imke.student, name: 'Imke Varga', courses: 'waiting', done: false },
      without: ['WRIT 215', 'ENDA 110']
    })
    const record = await look(imke.student!)
    const line = { what: 'Ask for a review', who: 'student', due: '2027-04-20' }
    expect(record.agreed.find((one) => one.what === line.what)).toMatchObject(line)
    expect(record.route.courses.map((one) => one.course)).not.toContain('HERI 320')
    for (const { id, without } of session!.members) {
      const { route, record: taken, held } = await look(id)
      const known = new Set([...route.courses, ...taken, ...held].map((one) => one.course as string))
      for (const code of without) expect(known).toContain(code)
    }
  })
  it('is taken into the route by each, and the advisor sees how all stand', async () => {
    const route = (await look(imke.student!)).route
    const before = standOf((await readGroups(world.db, orla))[0]!)
    const [row] = await world.db
      .select({ suggestion: t.groupMember.suggestionId })
      .from(t.groupMember)
      .where(eq(t.groupMember.studentId, imke.student!))
    const { now, zone } = await at(world)
    const doing = { who: imke, student: imke.student!, now, zone }
    await within(world, (tx) =>
      answerSuggestions(tx, doing, {
        ...{ route: route.id, version: route.version, suggestions: [row!.suggestion!] },
        ...{ answer: 'accepted', words: null }
      })
    )
    expect((await look(imke.student!)).route.courses.map((one) => one.course)).toContain('HERI 320')
    const line = (await look(imke.student!)).agreed.find((one) => one.what === 'Ask for a review')
    await within(world, (tx) => tickAgreed(tx, doing, line!.id, true))
    const after = standOf((await readGroups(world.db, orla))[0]!)
    expect(after).toEqual({ ...before, accepted: before.accepted + 1, done: before.done + 1 })
    expect(after.asked).toBe(30)
  })
  it('may be what the program of each suggests for the term, from where they stand', async () => {
    await offer({ sequence: true, courses: [] })
    const [session] = await readGroups(world.db, orla)
    const offered = await Promise.all(
      session!.members
        .filter((one) => one.courses !== null)
        .map(async ({ id }) => (await look(id)).route.courses.filter((one) => one.term === AUTUMN))
    )
    expect(offered.length).toBeGreaterThan(0)
  })
  it('is for students of whoever offers it, and of the catalog', async () => {
    const casimir = await person(world.db, 'Casimir Boyle')
    await expect(offer({ courses: ['HERI 320'] }, casimir)).rejects.toMatchObject({
      fields: [{ field: 'students.0' }]
    })
    await expect(offer({ courses: [courseCode('NONE 999')] })).rejects.toMatchObject({ code: 'noCourse' })
    expect(groupBody.safeParse({ title: 'x', term: AUTUMN, students: [1] }).success).toBe(false)
    expect(await readGroups(world.db, casimir)).toEqual([])
  })
})
