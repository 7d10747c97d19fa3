/** Appointments: booked by a student in hours that are offered, or an advisor's invitation; moved, answered, cancelled. */
import { overlap, type Slot } from '#core/appointments'
import type { Instant, IsoDate, Minutes } from '#core/time'
import { all, type Transaction } from '#server/db/connect'
import { logEvent, type Action } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { lockStudent } from '#server/features/record/lock'
import type { ActorContext } from '#server/features/route/route'
import type { Relation } from '#server/http/access'
import { Refused } from '#server/http/problem'
import type { AppointmentAct, AppointmentSaid } from '#shared/appointments/requests'
import type { CatalogContext } from '#shared/catalog/context'
import { eq } from 'drizzle-orm'
import { advisorOf, freeSlots, lockAdvisor } from './hours'
import { activeFrom, appointmentsOf } from './queries'
import { instantAt, slotAt } from './times'

interface Doing extends Omit<ActorContext, 'zone'> {
  relation: Relation
  catalogContext: Pick<CatalogContext, 'terms' | 'zone'>
}

/** Books a slot, as the student; or invites to any time that is free, as the advisor. */
export async function makeAppointment(
  tx: Transaction,
  doing: Doing,
  said: AppointmentSaid
): Promise<{ appointment: number }> {
  const { who, student, now, relation, catalogContext } = doing
  await lockStudent(tx, student)
  const isOwn = relation === 'self'
  const advisor = isOwn ? await chosenAdvisor(tx, student, said.advisor) : await advisorOf(tx, who.id)
  await lockAdvisor(tx, advisor)
  const wanted = { advisor, date: said.date, start: said.start }
  const { slot, place } = isOwn
    ? await offeredAt(tx, doing, wanted)
    : await freeAt(tx, doing, {
        ...wanted,
        length: needed(said.length, 'length'),
        place: needed(said.place, 'place')
      })
  const [made] = await tx
    .insert(t.appointment)
    .values({
      studentId: student,
      advisorId: advisor,
      ...instantsOf(slot, catalogContext.zone),
      place,
      about: said.about,
      bring: isOwn ? null : said.bring,
      state: isOwn ? 'booked' : 'invited',
      active: true,
      changedById: who.id,
      changedAt: new Date(now)
    })
    .$returningId()
  await tell(tx, doing, made!.id, isOwn ? 'appointment.booked' : 'appointment.invited')
  return { appointment: made!.id }
}

function needed<T>(value: T | null, field: string): T {
  if (value !== null) return value
  throw new Refused(422, 'missing', 'An invitation says how long it is and where.', [
    { field, message: 'is needed for an invitation' }
  ])
}

/** @throws Refused for somebody who does not advise the student */
async function chosenAdvisor(tx: Transaction, student: number, advisor: number | null): Promise<number> {
  const [found] = advisor
    ? await tx
        .select({ id: t.advising.advisorId })
        .from(t.advising)
        .where(all(eq(t.advising.studentId, student), eq(t.advising.advisorId, advisor)))
    : []
  if (found) return found.id
  throw new Refused(422, 'notYourAdvisor', 'You can book a time with your own advisors.', [
    { field: 'advisor', message: 'has to be the number of one of your advisors' }
  ])
}

interface Wanted {
  advisor: number
  date: IsoDate
  start: Minutes
  /** The appointment that is moved, which stands in nobody's way. */
  without?: number
}

/** The offered slot that begins then. @throws Refused where none is free */
async function offeredAt(
  tx: Transaction,
  { student, now, catalogContext }: Doing,
  { advisor, date, start, without }: Wanted
): Promise<{ slot: Slot; place: string }> {
  const free = await freeSlots(
    tx,
    { advisor, student, ...(without ? { without } : {}) },
    { catalogContext, now }
  )
  const found = free.find((one) => one.date === date && one.start === start)
  if (found) return { slot: found, place: found.place }
  throw new Refused(
    409,
    'notFree',
    'This time is not free any more. You now see those that are; choose another.',
    [{ field: 'start', message: 'has to be the beginning of a time that is free' }]
  )
}

/** A time of the advisor's own choice. @throws Refused where they or the student have something else */
async function freeAt(
  tx: Transaction,
  { student, now, catalogContext: { zone } }: Doing,
  { advisor, date, start, length, place, without }: Wanted & { length: Minutes; place: string }
): Promise<{ slot: Slot; place: string }> {
  const slot: Slot = { date, start, end: start + length }
  if (instantsOf(slot, zone).startsAt.getTime() <= now)
    throw new Refused(422, 'past', 'This time has passed.', [
      { field: 'date', message: 'has to be a time to come' }
    ])
  for (const [whose, text] of [
    [eq(t.appointment.advisorId, advisor), 'You have another appointment then.'],
    [eq(t.appointment.studentId, student), 'The student has another appointment then.']
  ] as const) {
    const others = await activeFrom(tx, whose, now)
    const isTaken = others.some(
      (one) => one.id !== without && overlap(slotAt(one.startsAt.getTime(), one.endsAt.getTime(), zone), slot)
    )
    if (isTaken)
      throw new Refused(409, 'taken', text, [{ field: 'start', message: 'has to be a time that is free' }])
  }
  return { slot, place }
}

const instantsOf = ({ date, start, end }: Slot, zone: string) => {
  const startsAt = instantAt(date, start, zone)
  return { startsAt: new Date(startsAt), endsAt: new Date(startsAt + (end - start) * 60_000) }
}

/** What either side does with an appointment. */
export async function changeAppointment(
  tx: Transaction,
  doing: Doing,
  id: number,
  said: AppointmentAct
): Promise<void> {
  const { student, now } = doing
  await lockStudent(tx, student)
  const found = await lockOne(tx, doing, id)
  await lockAdvisor(tx, found.advisorId)
  if (!found.active) throw new Refused(409, 'over', `This appointment was ${found.state} meanwhile.`)
  if (found.startsAt.getTime() <= now) throw new Refused(409, 'past', 'This appointment has begun.')
  switch (said.act) {
    case 'accept':
      mustAnswer(doing, found)
      return write(tx, doing, found, 'appointment.accepted', { state: 'booked' })
    case 'decline':
      mustAnswer(doing, found)
      return write(tx, doing, found, 'appointment.declined', {
        state: 'declined',
        active: null,
        words: said.words
      })
    case 'cancel':
      return write(tx, doing, found, 'appointment.cancelled', {
        state: 'cancelled',
        active: null,
        words: said.words
      })
    case 'prepare':
      if (doing.relation === 'self')
        throw new Refused(403, 'notYours', 'What to bring is said by the advisor.')
      // When it was agreed stays as it is: the reminder is still due.
      return write(tx, doing, found, 'appointment.prepared', {
        bring: said.bring,
        changedById: found.changedById,
        changedAt: found.changedAt
      })
    case 'move':
      return moveAppointment(tx, doing, found, said)
  }
}

type Row = typeof t.appointment.$inferSelect

/** Moved by the student it is booked; by the advisor, the student is asked again. */
async function moveAppointment(
  tx: Transaction,
  doing: Doing,
  found: Row,
  { date, start, place }: Extract<AppointmentAct, { act: 'move' }>
): Promise<void> {
  const length = (found.endsAt.getTime() - found.startsAt.getTime()) / 60_000
  const wanted = { advisor: found.advisorId, date, start, without: found.id }
  const isOwn = doing.relation === 'self'
  const to = isOwn
    ? await offeredAt(tx, doing, wanted)
    : await freeAt(tx, doing, { ...wanted, length, place: place ?? found.place })
  await write(tx, doing, found, 'appointment.moved', {
    ...instantsOf(to.slot, doing.catalogContext.zone),
    place: to.place,
    state: isOwn ? 'booked' : 'invited',
    remindedAt: null
  })
}

/** @throws Refused where there is none for whoever asks */
async function lockOne(tx: Transaction, { who, student, relation }: Doing, id: number): Promise<Row> {
  const [row] = await tx
    .select({ appointment: t.appointment, account: t.advisor.accountId })
    .from(t.appointment)
    .innerJoin(t.advisor, eq(t.advisor.id, t.appointment.advisorId))
    .where(all(eq(t.appointment.id, id), eq(t.appointment.studentId, student)))
    .for('update')
  if (!row || (relation !== 'self' && row.account !== who.id))
    throw new Refused(404, 'noAppointment', 'There is no such appointment.')
  return row.appointment
}

function mustAnswer({ relation }: Doing, { state }: Row): void {
  if (relation !== 'self') throw new Refused(403, 'notYours', 'An invitation is answered by the student.')
  if (state !== 'invited') throw new Refused(409, 'answered', 'This invitation was answered already.')
}

async function write(
  tx: Transaction,
  doing: Doing,
  { id, sequence, startsAt }: Row,
  action: Action,
  change: Partial<Row>
): Promise<void> {
  await tx
    .update(t.appointment)
    .set({ changedById: doing.who.id, changedAt: new Date(doing.now), ...change, sequence: sequence + 1 })
    .where(eq(t.appointment.id, id))
  await tell(tx, doing, id, action, startsAt.getTime())
}

/** Writes what was done into the log, for the other side to be told. */
export async function tell(
  tx: Transaction,
  { who, student, now }: { who: { id: number } | null; student: number; now: Instant },
  id: number,
  action: Action,
  was?: Instant
): Promise<void> {
  const [one] = await appointmentsOf(tx, eq(t.appointment.id, id))
  const { advisor, startsAt, endsAt, place, about, bring, words } = one!
  const [account] = await tx
    .select({ id: t.advisor.accountId })
    .from(t.advisor)
    .where(eq(t.advisor.id, advisor.id))
  await logEvent(tx, {
    at: now,
    account: who?.id ?? null,
    student,
    also: [account!.id],
    action,
    before: was === undefined || was === startsAt ? null : { startsAt: was },
    after: {
      ...{ appointment: id, advisor: advisor.name, student: one!.student.name },
      ...{ startsAt, endsAt, place, about, bring, words }
    }
  })
}
