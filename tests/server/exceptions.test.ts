import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { courseCode } from '#core/ids'
import { readStudent } from '#shared/reading'
import { inTransaction } from '#server/db/connect'
import { eventLog } from '#server/db/schema/index'
import { grantException, withdrawException, type ExceptionBody } from '#server/features/degree/exceptions'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { demoWorld, idOf, person, type World } from './world'

const NOW = Date.parse('2027-04-09T13:40:00Z')
const waiver: ExceptionBody = {
  kind: 'waiver',
  program: 'ENVD',
  need: 'speaking',
  reason: 'Speaks for a living'
}

describe('exceptions', () => {
  let world: World
  beforeAll(async () => {
    world = await demoWorld('exceptions')
  })
  afterAll(() => world.close())

  async function setting() {
    const advisor = await person(world.db, 'Orla Denholt')
    const student = idOf(await person(world.db, 'Imke Varga'))
    const at = { now: NOW, catalogContext: world.catalogContext }
    const look = async () => {
      const [studentRecord] = await readStudentRecords(world.db, [student], 'self')
      return {
        studentRecord: studentRecord!,
        reading: readStudent(studentRecord!, world.catalogContext, NOW)
      }
    }
    const grant = (body: ExceptionBody) =>
      inTransaction(world.db, (tx) => grantException(tx, advisor, student, body, at))
    return { advisor, student, look, grant }
  }
  const needOf = (
    reading: Awaited<ReturnType<Awaited<ReturnType<typeof setting>>['look']>>['reading'],
    id: string
  ) =>
    reading.audits
      .flatMap((audit) => audit.areas.flatMap((area) => area.needs))
      .find((one) => one.need.id === id)!

  it('are seen in the audit as long as they stand, and the log keeps both ends', async () => {
    const { advisor, student, look, grant } = await setting()
    expect(needOf((await look()).reading, 'speaking').state).toBe('needed')
    await grant(waiver)
    const { studentRecord, reading } = await look()
    expect(needOf(reading, 'speaking')).toMatchObject({
      state: 'met',
      need: { waived: { by: 'Orla Denholt', reason: 'Speaks for a living' } }
    })
    await inTransaction(world.db, (tx) =>
      withdrawException(tx, advisor, student, studentRecord.exceptions[0]!.id, NOW)
    )
    expect(needOf((await look()).reading, 'speaking').state).toBe('needed')
    const log = await world.db.select().from(eventLog).where(eq(eventLog.studentId, student))
    expect(log.map((event) => event.action)).toEqual(
      expect.arrayContaining(['exception.granted', 'exception.withdrawn'])
    )
  })
  it('take a course for a need that does not name it', async () => {
    const { look, grant } = await setting()
    await grant({
      kind: 'substitution',
      program: 'ENVD',
      need: 'writing-upper',
      course: courseCode('ARTS 120'),
      reason: 'A photo essay of that length'
    })
    const { reading } = await look()
    expect(needOf(reading, 'writing-upper').evidence.map((attempt) => attempt.course)).toEqual(['ARTS 120'])
  })
  it.each<[ExceptionBody, string]>([
    [{ ...waiver, program: 'HERI' }, 'HERI is not a program on this record.'],
    [{ ...waiver, need: 'gone' }, 'has no requirement "gone"'],
    [
      { ...waiver, kind: 'substitution', course: courseCode('SPCH 101') },
      'SPCH 101 fits "A course in speaking" without an exception.'
    ],
    [
      { ...waiver, kind: 'substitution', course: courseCode('MATH 999') },
      'The catalog has no course MATH 999.'
    ]
  ])('are refused where they make no sense: %o', async (body, message) => {
    await expect((await setting()).grant(body)).rejects.toThrow(message)
  })
  it('are granted once, however many ask at the same time', async () => {
    const { grant, look } = await setting()
    const asked = await Promise.allSettled(
      Array.from({ length: 4 }, () => grant({ ...waiver, need: 'place-credits' }))
    )
    expect(asked.filter((one) => one.status === 'fulfilled')).toHaveLength(1)
    expect(
      (await look()).studentRecord.exceptions.filter((one) => one.need === 'place-credits')
    ).toHaveLength(1)
  })
  it('waive part of a requirement, no more than there is of it, and a condition as a whole', async () => {
    const { advisor, student, grant, look } = await setting()
    const part = (amount: number, need = 'free-credits') => grant({ ...waiver, need, amount })
    const before = needOf((await look()).reading, 'free-credits')
    await part(2)
    const after = needOf((await look()).reading, 'free-credits')
    expect(after.need).toMatchObject({ amount: before.need.amount - 2 })
    await expect(part(before.need.amount - 2)).rejects.toMatchObject({
      code: 'noPart',
      fields: [{ field: 'amount', message: expect.stringContaining('has to be less than') }]
    })
    await expect(part(1.5, 'data-foundations')).rejects.toMatchObject({
      fields: [{ field: 'amount', message: 'has to be whole: it is measured in courses' }]
    })
    await expect(part(1, 'envd-portfolio')).rejects.toMatchObject({ code: 'noPart' })
    await grant({ ...waiver, need: 'envd-portfolio' })
    const { studentRecord, reading } = await look()
    expect(reading.audits[0]!.conditions.find((one) => one.spec.id === 'envd-portfolio')).toMatchObject({
      status: 'earned',
      waived: { by: 'Orla Denholt' }
    })
    for (const { id, need } of studentRecord.exceptions)
      if (['free-credits', 'envd-portfolio'].includes(need))
        await inTransaction(world.db, (tx) => withdrawException(tx, advisor, student, id, NOW))
    expect(needOf((await look()).reading, 'free-credits').need.amount).toBe(before.need.amount)
  })
  it('are withdrawn once, and only from their own record', async () => {
    const { advisor, student, grant, look } = await setting()
    await grant({ ...waiver, need: 'project-both' })
    const { id } = (await look()).studentRecord.exceptions.find((one) => one.need === 'project-both')!
    const other = idOf(await person(world.db, 'Priya Castellane'))
    const withdraw = (of: typeof student) =>
      inTransaction(world.db, (tx) => withdrawException(tx, advisor, of, id, NOW))
    await expect(withdraw(other)).rejects.toThrow('There is no such exception on this record.')
    await withdraw(student)
    await expect(withdraw(student)).rejects.toThrow('was withdrawn already')
  })
})
