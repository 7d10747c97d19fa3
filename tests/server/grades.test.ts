/** A term that is over: its grades are due until the registrar has them posted. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { termCode } from '#core/ids'
import { readStudent } from '#shared/reading'
import { inTransaction } from '#server/db/connect'
import { postGrades, readGradesDue } from '#server/features/record/grades'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { demoWorld, idOf, person, type World } from './world'

const SPRING = termCode('SP27')
const AFTER = Date.parse('2027-06-01T16:00:00Z')
const DURING = Date.parse('2027-04-09T16:00:00Z')

let world: World
beforeAll(async () => {
  world = await demoWorld('grades')
})
afterAll(() => world.close())

const zoned = (now: number) => ({ now, zone: world.catalogContext.zone })
const read = async (now: number) => {
  const imke = await person(world.db, 'Imke Varga')
  const [studentRecord] = await readStudentRecords(world.db, [idOf(imke)], 'self')
  return readStudent(studentRecord!, world.catalogContext, now)
}
const post = async (term: typeof SPRING, now: number) => {
  const registrar = await person(world.db, 'Edda Whitlock')
  return inTransaction(world.db, (tx) => postGrades(tx, registrar, { term, seed: 7 }, zoned(now)))
}

describe('grades of a term', () => {
  it('are not posted while it lasts, and the field is named', async () => {
    await expect(post(SPRING, DURING)).rejects.toMatchObject({ status: 422, code: 'termNotOver' })
    expect((await readGradesDue(world.db, zoned(DURING))).map((one) => one.term)).not.toContain(SPRING)
  })

  it('are due once it is over, neither under way nor lost, and then posted', async () => {
    const before = await read(AFTER)
    const due = before.audits[0]!.amounts.gradesDue
    expect(due).toBeGreaterThan(0)
    expect(before.audits[0]!.amounts.underWay).toBe(0)
    const [spring] = (await readGradesDue(world.db, zoned(AFTER))).filter((one) => one.term === SPRING)
    expect(spring!.grades).toBeGreaterThan(spring!.students)

    const posted = await post(SPRING, AFTER)
    expect(posted).toEqual({ posted: spring!.grades, students: spring!.students })
    const after = await read(AFTER)
    expect(after.audits[0]!.amounts.gradesDue).toBe(0)
    expect(after.audits[0]!.amounts.earned).toBeGreaterThan(before.audits[0]!.amounts.earned)
    expect((await readGradesDue(world.db, zoned(AFTER))).map((one) => one.term)).not.toContain(SPRING)
  })

  it('are posted once: a second time there is nothing to post', async () => {
    expect(await post(SPRING, AFTER)).toEqual({ posted: 0, students: 0 })
  })
})
