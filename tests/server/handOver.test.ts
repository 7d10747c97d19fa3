/** Who advises: students handed over, and somebody who stands in while an advisor is away. */
import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Who } from '#shared/accounts/responses'
import { handOverBody, requestBody } from '#shared/advising/requests'
import { hoursBody } from '#shared/appointments/requests'
import * as t from '#server/db/schema/index'
import { mustBe } from '#server/features/accounts/accounts'
import { advisedBy } from '#server/features/advising/advisedBy'
import { readDesk } from '#server/features/advising/desk'
import { readDeskRequests } from '#server/features/advising/deskRequests'
import { handOver, readAdvisors } from '#server/features/advising/handOver'
import { askFor } from '#server/features/advising/requests'
import { readTalk } from '#server/features/advising/talk'
import { writeHours } from '#server/features/appointments/hours'
import { readAudience } from '#server/features/news/audience'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { at, demoWorld, idOf, person, setTime, within, type World } from './world'

type Person = Who & { id: number }
let world: World
let imke: Person
let mira: Person
let orla: Person
let rhys: Person
let nell: Person
beforeAll(async () => {
  world = await demoWorld('hand_over')
  const named = (name: string) => person(world.db, name)
  imke = await named('Imke Varga')
  mira = await named('Mira Sandoval')
  orla = await named('Orla Denholt')
  rhys = await named('Rhys Calder')
  nell = await named('Nell Fairweather')
})
afterAll(() => world.close())

const numberOf = async (who: Person) =>
  (await readAdvisors(world.db)).find((one) => one.name === who.name)!.id
const give = async (from: Person, students: number[], to: Person, note: string | null = null) => {
  const body = handOverBody.parse({ students, to: await numberOf(to), note })
  const { now, zone } = await at(world)
  return within(world, (tx) => handOver(tx, { who: from, now, zone }, body))
}
const away = async (who: Person, list: { from: string; to: string; standIn?: Person }[]) => {
  const said = await Promise.all(
    list.map(async ({ standIn, ...days }) => ({
      ...days,
      standIn: standIn ? await numberOf(standIn) : null
    }))
  )
  const { now } = await at(world)
  return within(world, (tx) => writeHours(tx, { who, now }, hoursBody.parse({ times: [], away: said })))
}
const relation = (who: Person) =>
  mustBe(world.db, who, idOf(imke), ['programAdvisor', 'supportAdvisor']).catch(() => undefined)
const hears = async (who: Person) =>
  (await readAudience(world.db, who))({ kind: 'record', student: idOf(imke), by: null, change: null })

describe('who stands in', () => {
  it('is another advisor who may do the same', async () => {
    const days = { from: '2027-04-08', to: '2027-04-10' }
    for (const standIn of [nell, orla])
      await expect(away(orla, [{ ...days, standIn }])).rejects.toMatchObject({
        fields: [{ field: 'away.0.standIn' }]
      })
  })
  it('does all that the advisor does on those days, hears of it, and no longer', async () => {
    expect([await relation(rhys), await hears(rhys)]).toEqual([undefined, false])
    await away(orla, [
      { from: '2027-03-01', to: '2027-03-05', standIn: rhys },
      { from: '2027-04-08', to: '2027-04-10', standIn: rhys }
    ])
    expect([await relation(rhys), await hears(rhys)]).toEqual(['programAdvisor', true])
    const desk = await readDesk(world.db, rhys, world.catalogContext, (await at(world)).now)
    expect(desk.rows.find((row) => row.id === idOf(imke))!.standsInFor).toBe('Orla Denholt')
    expect(desk.rows.some((row) => row.standsInFor === null)).toBe(true)
    const context = { who: imke, student: idOf(imke), ...(await at(world)) }
    const body = requestBody.parse({ kind: 'waiver', course: 'ENDA 410', reason: 'took its like' })
    await within(world, (tx) => askFor(tx, context, body, world.catalogContext))
    expect(await readDeskRequests(world.db, rhys, context.now)).toMatchObject([{ course: 'ENDA 410' }])
    const [card] = (await readStudentRecords(world.db, [idOf(imke)], 'self'))[0]!.advisors
    expect(card!.away.at(-1)).toEqual({ from: '2027-04-08', to: '2027-04-10', standIn: 'Rhys Calder' })
    // The eleventh begins at four in the morning, UTC.
    const night = Date.parse('2027-04-11T04:00:00Z')
    await setTime(world, night - 1)
    expect(await relation(rhys)).toBe('programAdvisor')
    await setTime(world, night)
    expect([await relation(rhys), await hears(rhys)]).toEqual([undefined, false])
    expect(await readDeskRequests(world.db, rhys, night)).toEqual([])
  })
  it('of one who is advised by both counts as their own', async () => {
    await setTime(world, Date.parse('2027-04-09T13:40:00Z'))
    await world.db.insert(t.advising).values({
      advisorId: await numberOf(rhys),
      studentId: idOf(imke),
      purpose: 'program',
      sinceOn: '2027-01-01'
    })
    expect(await advisedBy(world.db, rhys.id, idOf(imke))).toEqual([
      { student: idOf(imke), purpose: 'program', standsInFor: null }
    ])
    await world.db.delete(t.advising).where(eq(t.advising.sinceOn, '2027-01-01'))
    await away(orla, [])
  })
})

describe('students who are handed over', () => {
  it('are advised by the other from then on, who reads the note; the student does not', async () => {
    await give(orla, [idOf(imke), idOf(mira)], rhys, 'Wants to finish a term early.')
    expect([await relation(orla), await relation(rhys)]).toEqual([undefined, 'programAdvisor'])
    const among = await readTalk(world.db, idOf(imke), { account: rhys.id, relation: 'programAdvisor' })
    expect(among.at(-1)).toMatchObject({ advisorsOnly: true, unread: 1 })
    const own = await readTalk(world.db, idOf(imke), { account: imke.id, relation: 'self' })
    expect(JSON.stringify(own)).not.toContain('finish a term early')
    const mails = await world.db
      .select({ to: t.mail.accountId })
      .from(t.mail)
      .innerJoin(t.eventLog, eq(t.eventLog.id, t.mail.eventId))
      .where(eq(t.eventLog.action, 'advising.handedOver'))
    expect(mails.map((row) => row.to).sort()).toEqual([imke.id, mira.id, rhys.id].sort())
  })
  it('are the own ones of whoever hands over, all of them or none', async () => {
    await expect(give(orla, [idOf(imke)], rhys)).rejects.toMatchObject({ fields: [{ field: 'students.0' }] })
    const [own] = (await advisedBy(world.db, orla.id)).filter((one) => one.purpose === 'program')
    await expect(give(orla, [own!.student, idOf(mira)], rhys)).rejects.toMatchObject({
      fields: [{ field: 'students.1' }]
    })
    expect((await advisedBy(world.db, orla.id)).map((one) => one.student)).toContain(own!.student)
    for (const to of [nell, orla])
      await expect(give(orla, [own!.student], to)).rejects.toMatchObject({ fields: [{ field: 'to' }] })
  })
})
