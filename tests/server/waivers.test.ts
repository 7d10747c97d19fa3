/** Waivers of prerequisites: asked for, answered, and what they change. */
import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { courseCode } from '#core/ids'
import { decideCourse } from '#core/registration'
import { optionsAmong } from '#core/week'
import type { Who } from '#shared/accounts/responses'
import { readStudent } from '#shared/reading'
import { registrationFacts } from '#shared/registration/registering'
import * as t from '#server/db/schema/index'
import { answerWaiver, askWaiver } from '#server/features/advising/waivers'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { offerOf } from '#server/features/sections/sections'
import { at, AUTUMN, demoWorld, idOf, OPENS, person, within, type World } from './world'

let world: World
let imke: Who
let orla: Who
beforeAll(async () => {
  world = await demoWorld('waivers')
  imke = await person(world.db, 'Imke Varga')
  orla = await person(world.db, 'Orla Denholt')
})
afterAll(() => world.close())

const look = async () => (await readStudentRecords(world.db, [idOf(imke)], 'self'))[0]!
const occasion = async (who: Who) => ({ who, student: idOf(imke), now: (await at(world)).now })
const ask = async (code = 'ENDA 410') => {
  const when = await occasion(imke)
  await within(world, (tx) => askWaiver(tx, when, courseCode(code), 'took its like elsewhere'))
}
const answer = async (state: 'granted' | 'declined', code = 'ENDA 410') => {
  const when = await occasion(orla)
  await within(world, (tx) => answerWaiver(tx, when, courseCode(code), state))
}
const findings = async () => {
  const { findings: found } = readStudent(await look(), world.shelf, (await at(world)).now)
  return found.flatMap((one) => ('course' in one ? [`${one.course} ${one.code}`] : []))
}

describe('a waiver', () => {
  it('changes nothing while it is only asked for', async () => {
    expect(await findings()).toEqual(['ENDA 410 prerequisite'])
    await ask()
    expect((await look()).waivers).toMatchObject([
      { course: 'ENDA 410', state: 'asked', reason: 'took its like elsewhere', answered: null }
    ])
    expect(await findings()).toEqual(['ENDA 410 prerequisite'])
  })
  it('is asked for once at a time', async () => {
    await expect(ask()).rejects.toMatchObject({ code: 'askedAlready' })
  })
  it('settles the finding when it is granted, and not when that is taken back', async () => {
    await answer('granted')
    expect(await findings()).toEqual([])
    expect((await look()).waivers[0]).toMatchObject({ state: 'granted', answered: { by: 'Orla Denholt' } })
    await expect(answer('granted')).rejects.toMatchObject({ code: 'answeredAlready' })
    await answer('declined')
    expect(await findings()).toEqual(['ENDA 410 prerequisite'])
  })
  it('may be asked for again after a refusal', async () => {
    await ask()
    expect((await look()).waivers[0]!.state).toBe('asked')
  })
  it('is for a course of the catalog that has a prerequisite', async () => {
    await expect(ask('ENDA 110')).rejects.toMatchObject({ code: 'noPrerequisite' })
    await expect(ask('NONE 999')).rejects.toMatchObject({ code: 'noCourse' })
    await expect(answer('granted', 'ENDA 480')).rejects.toMatchObject({ code: 'notAsked' })
  })
  it('is kept in the log, before and after', async () => {
    const rows = await world.db.select().from(t.eventLog).where(eq(t.eventLog.action, 'waiver.answered'))
    expect(rows.map((row) => row.after)).toEqual([
      { course: 'ENDA 410', state: 'granted' },
      { course: 'ENDA 410', state: 'declined' }
    ])
  })
  it('counts at registration as well', async () => {
    const code = courseCode('ENDA 410')
    const reasons = async () => {
      const picture = await look()
      const offer = await offerOf(world.db, AUTUMN, [code])
      const facts = registrationFacts(picture, world.shelf, {
        term: AUTUMN,
        now: OPENS,
        heldSections: [],
        offer
      })
      return decideCourse(facts, code, optionsAmong(offer)).refusals.map((one) => one.code)
    }
    expect(await reasons()).toContain('prerequisite')
    await answer('granted')
    expect(await reasons()).not.toContain('prerequisite')
  })
})
