/** Appointments: never two at once for anybody, whoever is faster; moved, answered, cancelled, told, in both calendars. */
import ICAL from 'ical.js'
import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { minutes } from '#core/time'
import type { Who } from '#shared/accounts/responses'
import { appointmentBody, hoursBody, type AppointmentAct } from '#shared/appointments/requests'
import { mailOf, type MailedEvent } from '#shared/mail/mails'
import * as t from '#server/db/schema/index'
import { changeAppointment, makeAppointment } from '#server/features/appointments/appointments'
import { calendarAtAddress, eventsOfStudent } from '#server/features/appointments/calendars'
import {
  advisorOf,
  freeSlots,
  readHours,
  setCalendarAddress,
  writeHours
} from '#server/features/appointments/hours'
import { readAppointments } from '#server/features/appointments/queries'
import { remindOfAppointments } from '#server/features/appointments/reminders'
import { recordTalk, readTalkRecords } from '#server/features/advising/talkRecords'
import { classCalendar } from '#server/features/week/calendar'
import { at, demoWorld, idOf, person, setTime, within, type World } from './world'

type Person = Who & { id: number }
let world: World
let imke: Person
let mira: Person
let orla: Person
let nell: Person
let advisor: number
beforeAll(async () => {
  world = await demoWorld('appointments')
  imke = await person(world.db, 'Imke Varga')
  mira = await person(world.db, 'Mira Sandoval')
  orla = await person(world.db, 'Orla Denholt')
  nell = await person(world.db, 'Nell Fairweather')
  advisor = await advisorOf(world.db, orla.id)
})
afterAll(() => world.close())
beforeEach(async () => {
  await world.db.delete(t.appointment)
  await setTime(world, Date.parse('2027-04-09T13:40:00Z'))
})

const doing = async (who: Person, of: Person, relation: 'self' | 'programAdvisor') => {
  const { now } = await at(world)
  return { who, student: idOf(of), now, relation, catalogContext: world.catalogContext }
}
/** Thursday 15 April, one of Orla's days. */
const THURSDAY = '2027-04-15'
const books = async (who: Person, start = '13:00', date = THURSDAY) => {
  const own = await doing(who, who, 'self')
  const said = appointmentBody.parse({ advisor, date, start: minutes(start), about: 'The minor' })
  return (await within(world, (tx) => makeAppointment(tx, own, said))).appointment
}
const invites = async (of: Person, start = '09:00', date = '2027-04-14') => {
  const hers = await doing(orla, of, 'programAdvisor')
  const said = appointmentBody.parse({
    date,
    start: minutes(start),
    length: 20,
    place: 'Slate 118',
    bring: 'the plan'
  })
  return (await within(world, (tx) => makeAppointment(tx, hers, said))).appointment
}
const acts = async (who: Person, id: number, said: AppointmentAct, of = imke) => {
  const side = await doing(who, of, who.id === of.id ? 'self' : 'programAdvisor')
  return within(world, (tx) => changeAppointment(tx, side, id, said))
}
const seen = (who: Person, of = imke) =>
  readAppointments(world.db, idOf(of), {
    account: who.id,
    relation: who.id === of.id ? 'self' : 'programAdvisor'
  })
const free = async (of: Person) => {
  const { now } = await at(world)
  const slots = await freeSlots(
    world.db,
    { advisor, student: idOf(of) },
    { catalogContext: world.catalogContext, now }
  )
  return slots.filter((one) => one.date === THURSDAY).map((one) => one.start)
}

describe('an appointment that a student books', () => {
  it('takes a slot of the offered hours, as long and where the advisor offers it, from everybody', async () => {
    expect(await free(mira)).toEqual(['13:00', '13:30', '14:00', '14:30'].map(minutes))
    const id = await books(imke)
    expect(await seen(imke)).toMatchObject([
      {
        id,
        state: 'booked',
        place: 'Slate 118',
        about: 'The minor',
        bring: null,
        advisor: { name: 'Orla Denholt' }
      }
    ])
    const [one] = await seen(orla)
    // 1 pm of the summer time on campus.
    expect(new Date(one!.startsAt).toISOString()).toBe('2027-04-15T17:00:00.000Z')
    expect(one!.endsAt - one!.startsAt).toBe(30 * 60_000)
    expect(await free(mira)).toEqual(['13:30', '14:00', '14:30'].map(minutes))
    await expect(books(mira)).rejects.toMatchObject({ status: 409, code: 'notFree' })
  })

  it('is had by one of many who book it at once', async () => {
    const tries = await Promise.allSettled([books(imke), books(mira), books(imke), books(mira)])
    expect(tries.filter((one) => one.status === 'fulfilled')).toHaveLength(1)
    const rows = await world.db.select().from(t.appointment)
    expect(rows).toHaveLength(1)
  })

  it('is with an own advisor, at a time that is offered and has not passed', async () => {
    await expect(books(imke, '13:10')).rejects.toMatchObject({ code: 'notFree' })
    await expect(books(imke, '13:00', '2027-04-16')).rejects.toMatchObject({ code: 'notFree' })
    await expect(books(imke, '13:00', '2027-04-08')).rejects.toMatchObject({ code: 'notFree' })
    const own = await doing(imke, imke, 'self')
    const stranger = await advisorOf(world.db, (await person(world.db, 'Casimir Boyle')).id)
    const said = appointmentBody.parse({ advisor: stranger, date: '2027-04-12', start: minutes('10:00') })
    await expect(within(world, (tx) => makeAppointment(tx, own, said))).rejects.toMatchObject({
      code: 'notYourAdvisor'
    })
  })

  it('frees its time when it is cancelled or moved, and only then', async () => {
    const id = await books(imke)
    await acts(imke, id, { act: 'move', date: THURSDAY, start: minutes('14:00'), place: null })
    expect(await free(mira)).toEqual(['13:00', '13:30', '14:30'].map(minutes))
    expect(await seen(orla)).toMatchObject([{ state: 'booked' }])
    await acts(imke, id, { act: 'cancel', words: 'I am ill.' })
    expect(await free(mira)).toEqual(['13:00', '13:30', '14:00', '14:30'].map(minutes))
    expect(await seen(orla)).toMatchObject([
      { state: 'cancelled', words: 'I am ill.', changedBy: 'Imke Varga' }
    ])
    await expect(acts(imke, id, { act: 'cancel', words: null })).rejects.toMatchObject({ status: 409 })
    await books(mira, '14:00')
  })

  it('stays where it is when what it would be moved to is taken', async () => {
    const id = await books(imke)
    await books(mira, '13:30')
    const taken: AppointmentAct = { act: 'move', date: THURSDAY, start: minutes('13:30'), place: null }
    await expect(acts(imke, id, taken)).rejects.toMatchObject({ code: 'notFree' })
    expect(await free(imke)).toEqual(['14:00', '14:30'].map(minutes))
  })
})

describe('an invitation', () => {
  it('is to any time that both have free; the student accepts, or declines in a word', async () => {
    const id = await invites(imke)
    expect(await seen(imke)).toMatchObject([{ id, state: 'invited', bring: 'the plan' }])
    await expect(acts(orla, id, { act: 'accept' })).rejects.toMatchObject({ status: 403 })
    await acts(imke, id, { act: 'accept' })
    await expect(acts(imke, id, { act: 'decline', words: null })).rejects.toMatchObject({ code: 'answered' })
    expect(await seen(imke)).toMatchObject([{ state: 'booked' }])
    await expect(invites(mira, '09:10')).rejects.toMatchObject({ code: 'taken' })
    const second = await invites(mira, '09:20')
    await acts(mira, second, { act: 'decline', words: 'I work then.' }, mira)
    expect(await seen(orla, mira)).toMatchObject([{ state: 'declined', words: 'I work then.' }])
    await invites(mira, '09:20')
  })

  it('moved by the advisor is asked again', async () => {
    const id = await books(imke)
    await acts(orla, id, { act: 'move', date: '2027-04-16', start: minutes('08:00'), place: 'Fern 2' })
    expect(await seen(imke)).toMatchObject([{ state: 'invited', place: 'Fern 2' }])
  })

  it('is not to a time that has passed, nor without a place', async () => {
    await expect(invites(imke, '09:00', '2027-04-09')).rejects.toMatchObject({ code: 'past' })
    const hers = await doing(orla, imke, 'programAdvisor')
    const said = appointmentBody.parse({ date: THURSDAY, start: 600, length: 20 })
    await expect(within(world, (tx) => makeAppointment(tx, hers, said))).rejects.toMatchObject({
      fields: [{ field: 'place' }]
    })
  })

  it("is nobody else's to read or change", async () => {
    const id = await invites(imke)
    expect(await seen(nell)).toEqual([])
    await expect(acts(nell, id, { act: 'cancel', words: null })).rejects.toMatchObject({ status: 404 })
    await expect(acts(mira, id, { act: 'accept' }, mira)).rejects.toMatchObject({ status: 404 })
  })
})

describe('hours', () => {
  it('are written as a whole; what is booked in them stays', async () => {
    const id = await books(imke)
    const { now } = await at(world)
    const before = await readHours(world.db, orla, now)
    expect(before.times).toHaveLength(2)
    expect(before.appointments).toMatchObject([{ id, student: { name: 'Imke Varga' } }])
    const away = [{ from: '2027-04-15', to: '2027-04-20' }]
    const said = hoursBody.parse({ times: before.times, away })
    await within(world, (tx) => writeHours(tx, { who: orla, now }, said))
    expect(await free(mira)).toEqual([])
    expect((await readHours(world.db, orla, now)).appointments).toHaveLength(1)
    await within(world, (tx) => writeHours(tx, { who: orla, now }, { ...said, away: [] }))
  })

  it('of an account that is not set up as an advisor are none, and cannot be offered', async () => {
    const { now } = await at(world)
    const edda = await person(world.db, 'Edda Whitlock')
    expect(await readHours(world.db, edda, now)).toMatchObject({ times: [], appointments: [] })
    await expect(
      within(world, (tx) => writeHours(tx, { who: edda, now }, { times: [], away: [] }))
    ).rejects.toMatchObject({ status: 404, code: 'noAdvisor' })
  })

  it('say which field is wrong', () => {
    const time = { weekday: 2, start: 600, end: 700, length: 30, place: 'Slate 118' }
    const faults = (over: object) =>
      hoursBody
        .safeParse({ times: [{ ...time, ...over }], away: [] })
        .error?.issues.map((one) => one.path.join('.'))
    expect(faults({})).toBeUndefined()
    expect(faults({ on: '2027-04-15' })).toEqual(['times.0.weekday'])
    expect(faults({ end: 629 })).toEqual(['times.0.end'])
    expect(faults({ weekday: 8 })).toEqual(['times.0.weekday'])
    expect(faults({ from: '2027-05-01', until: '2027-04-01' })).toEqual(['times.0.until'])
    expect(faults({ place: ' ' })).toEqual(['times.0.place'])
  })
})

const mailsTo = async (who: Person) => {
  const rows = await world.db
    .select({ event: t.eventLog })
    .from(t.mail)
    .innerJoin(t.eventLog, eq(t.eventLog.id, t.mail.eventId))
    .where(eq(t.mail.accountId, who.id))
  return rows
    .filter(({ event }) => event.action.startsWith('appointment.'))
    .map(({ event }) => mailOf(event as MailedEvent, world.catalogContext, who.id === imke.id)!)
}

describe('what both are told', () => {
  beforeEach(async () => void (await world.db.delete(t.mail)))

  it('is mailed to the other side, in words for them', async () => {
    const id = await books(imke)
    await acts(imke, id, { act: 'move', date: THURSDAY, start: minutes('14:30'), place: null })
    await acts(orla, id, { act: 'cancel', words: 'The office is closed.' })
    expect((await mailsTo(orla)).map((one) => one.subject)).toEqual([
      'An appointment with Imke Varga is booked',
      'The appointment with Imke Varga is moved'
    ])
    expect(await mailsTo(imke)).toEqual([
      {
        subject: 'The appointment with Orla Denholt is cancelled',
        text: 'It was to be: With Orla Denholt on Thu 15 Apr 2027, 2:30 pm to 3:00 pm, Slate 118. It is about: The minor The office is closed.'
      }
    ])
  })

  it('is a reminder to both within a day before, once; not of what was made within that day', async () => {
    await books(imke)
    await setTime(world, Date.parse('2027-04-14T16:59:00Z'))
    await remindOfAppointments(world.db)
    const reminders = async (who: Person) =>
      (await mailsTo(who)).filter((one) => one.subject.includes(', Thu 15 Apr')).length
    expect([await reminders(imke), await reminders(orla)]).toEqual([0, 0])
    await acts(orla, (await seen(imke))[0]!.id, { act: 'prepare', bring: 'the plan' })
    await setTime(world, Date.parse('2027-04-14T17:00:00Z'))
    await Promise.all([remindOfAppointments(world.db), remindOfAppointments(world.db)])
    await remindOfAppointments(world.db)
    expect([await reminders(imke), await reminders(orla)]).toEqual([1, 1])
    await setTime(world, Date.parse('2027-04-14T18:00:00Z'))
    await books(mira, '14:00')
    await remindOfAppointments(world.db)
    expect(await reminders(orla)).toBe(1)
  })
})

/** Read with the ical.js package, a reference reader of RFC 5545. */
function eventsIn(text: string) {
  const calendar = new ICAL.Component(ICAL.parse(text) as unknown as string)
  return calendar.getAllSubcomponents('vevent').map((one) => {
    const event = new ICAL.Event(one)
    return {
      uid: event.uid,
      summary: event.summary,
      start: event.startDate.toJSDate().toISOString(),
      sequence: event.sequence,
      status: one.getFirstPropertyValue('status'),
      alarms: one.getAllSubcomponents('valarm').length
    }
  })
}

describe('the calendars', () => {
  it('of both have it, in UTC and with an alarm; a change counts its sequence up, and cancelled it is gone', async () => {
    const id = await books(imke)
    const { now } = await at(world)
    const { key } = await within(world, (tx) => setCalendarAddress(tx, { who: orla, now }, true))
    const ofOrla = async () => eventsIn((await calendarAtAddress(world.db, key!, now))!)
    const ofImke = async () => {
      const appointments = await eventsOfStudent(world.db, idOf(imke))
      return eventsIn(
        classCalendar('Classes', [], {
          zone: world.catalogContext.zone,
          holidays: new Set(),
          now,
          appointments
        })
      )
    }
    const uid = `appointment-${id}@ridgeway`
    const booked = { uid, start: '2027-04-15T17:00:00.000Z', sequence: 0, status: 'CONFIRMED', alarms: 1 }
    expect(await ofOrla()).toEqual([{ ...booked, summary: 'Appointment: Imke Varga' }])
    expect(await ofImke()).toEqual([{ ...booked, summary: 'Appointment: Orla Denholt' }])
    await acts(orla, id, { act: 'move', date: '2027-04-16', start: minutes('08:00'), place: null })
    expect(await ofImke()).toMatchObject([
      { uid, start: '2027-04-16T12:00:00.000Z', sequence: 1, status: 'TENTATIVE' }
    ])
    await acts(imke, id, { act: 'decline', words: null })
    expect(await ofOrla()).toEqual([])
    await within(world, (tx) => setCalendarAddress(tx, { who: orla, now }, false))
    expect(await calendarAtAddress(world.db, key!, now)).toBeUndefined()
  })
})

describe('a talk that was held', () => {
  it('is noted by the advisor, read by the student, and not before its day', async () => {
    const now = { who: orla, student: idOf(imke), ...(await at(world)) }
    const said = { on: '2027-04-09', how: 'byPhone' as const, summary: 'The summer stays free.' }
    await within(world, (tx) => recordTalk(tx, now, said))
    expect((await readTalkRecords(world.db, idOf(imke)))[0]).toMatchObject({ by: 'Orla Denholt', ...said })
    await expect(
      within(world, (tx) => recordTalk(tx, now, { ...said, on: '2027-04-10' }))
    ).rejects.toMatchObject({ fields: [{ field: 'on' }] })
  })
})
