/** Hours that advisors offer, and what of them is free. */
import { slotsOf, type OfferedSlot, type OfferedTime } from '#core/appointments'
import { WEEKDAYS, isoDate, dayNumber, type Instant } from '#core/time'
import { all, type Reader, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { secretKey } from '#server/features/week/drafts'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import { isActive, type AwayTime, type HoursView } from '#shared/appointments/appointments'
import type { HoursSaid } from '#shared/appointments/requests'
import type { CatalogContext } from '#shared/catalog/context'
import { campusDate, campusMinute } from '#shared/when'
import { asc, eq, inArray } from 'drizzle-orm'
import { activeFrom, appointmentsOf } from './queries'
import { slotAt } from './times'

/** How far ahead slots are shown. */
const AHEAD_DAYS = 42

async function maybeAdvisor(db: Reader, account: number): Promise<number | undefined> {
  const [row] = await db.select({ id: t.advisor.id }).from(t.advisor).where(eq(t.advisor.accountId, account))
  return row?.id
}

/** The advisor who somebody is. @throws Refused for who is none */
export async function advisorOf(db: Reader, account: number): Promise<number> {
  const advisor = await maybeAdvisor(db, account)
  if (advisor !== undefined) return advisor
  throw new Refused(404, 'noAdvisor', 'You are not set up as an advisor. The registrar can do that.')
}

async function offeredBy(db: Reader, advisor: number): Promise<OfferedTime[]> {
  const rows = await db
    .select()
    .from(t.offeredTime)
    .where(eq(t.offeredTime.advisorId, advisor))
    .orderBy(asc(t.offeredTime.id))
  return rows.map(
    ({ weekday, onDate, startsMin, endsMin, lengthMin, place, fromDate, untilDate }): OfferedTime => {
      const hours = { start: startsMin, end: endsMin, length: lengthMin, place }
      return onDate === null
        ? { ...hours, weekday: WEEKDAYS[weekday! - 1]!, on: null, from: fromDate, until: untilDate }
        : { ...hours, weekday: null, on: onDate, from: null, until: null }
    }
  )
}

async function awayOf(db: Reader, advisor: number): Promise<AwayTime[]> {
  const rows = await db
    .select({
      from: t.advisorAway.fromDate,
      to: t.advisorAway.toDate,
      id: t.advisor.id,
      name: t.account.name
    })
    .from(t.advisorAway)
    .leftJoin(t.advisor, eq(t.advisor.id, t.advisorAway.standInId))
    .leftJoin(t.account, eq(t.account.id, t.advisor.accountId))
    .where(eq(t.advisorAway.advisorId, advisor))
    .orderBy(asc(t.advisorAway.fromDate))
  return rows.map(({ from, to, id, name }) => ({
    from,
    to,
    standIn: id !== null && name !== null ? { id, name } : null
  }))
}

/** What of an advisor's hours can be booked from now on; of `student`, what they have already is no time either. */
export async function freeSlots(
  db: Reader,
  { advisor, student, without }: { advisor: number; student: number; without?: number },
  { catalogContext, now }: { catalogContext: Pick<CatalogContext, 'terms' | 'zone'>; now: Instant }
): Promise<OfferedSlot[]> {
  const { zone } = catalogContext
  const taken = [
    ...(await activeFrom(db, eq(t.appointment.advisorId, advisor), now)),
    ...(await activeFrom(db, eq(t.appointment.studentId, student), now))
  ]
  const today = campusDate(now, zone)
  return slotsOf(await offeredBy(db, advisor), {
    after: { date: today, minute: campusMinute(now, zone) },
    to: isoDate(dayNumber(today) + AHEAD_DAYS),
    away: await awayOf(db, advisor),
    holidays: new Set(catalogContext.terms.flatMap((term) => term.holidays.map((one) => one.date))),
    taken: taken
      .filter((one) => one.id !== without)
      .map((one) => slotAt(one.startsAt.getTime(), one.endsAt.getTime(), zone))
  })
}

/** The hours of whoever asks; none for an account that is not set up as an advisor yet. */
export async function readHours(db: Reader, who: Who, now: Instant): Promise<HoursView> {
  const advisor = await maybeAdvisor(db, who.id)
  if (advisor === undefined) return { times: [], away: [], calendarKey: null, appointments: [] }
  const [address] = await db.select().from(t.advisorCalendar).where(eq(t.advisorCalendar.advisorId, advisor))
  return {
    times: await offeredBy(db, advisor),
    away: await awayOf(db, advisor),
    calendarKey: address?.key ?? null,
    appointments: (await appointmentsOf(db, eq(t.appointment.advisorId, advisor))).filter(
      (one) => one.endsAt > now && isActive(one)
    )
  }
}

/** All hours that an advisor offers, in place of those before; what is booked stays. */
export async function writeHours(
  tx: Transaction,
  { who, now }: { who: Who; now: Instant },
  { times, away }: HoursSaid
): Promise<void> {
  const advisor = await advisorOf(tx, who.id)
  await lockAdvisor(tx, advisor)
  await mayStandIn(tx, who, advisor, away)
  const before = { times: await offeredBy(tx, advisor), away: await awayOf(tx, advisor) }
  await tx.delete(t.offeredTime).where(eq(t.offeredTime.advisorId, advisor))
  await tx.delete(t.advisorAway).where(eq(t.advisorAway.advisorId, advisor))
  if (times.length)
    await tx.insert(t.offeredTime).values(
      times.map(({ weekday, on, start, end, length, place, from, until }) => ({
        ...{
          advisorId: advisor,
          weekday,
          onDate: on,
          startsMin: start,
          endsMin: end,
          lengthMin: length,
          place
        },
        ...{ fromDate: from, untilDate: until }
      }))
    )
  if (away.length)
    await tx.insert(t.advisorAway).values(
      away.map(({ from, to, standIn }) => ({
        advisorId: advisor,
        fromDate: from,
        toDate: to,
        standInId: standIn
      }))
    )
  await logEvent(tx, {
    at: now,
    account: who.id,
    student: null,
    action: 'hours.changed',
    before,
    after: { times, away }
  })
}

/** @throws Refused where somebody named to stand in is not an advisor who may do what is done for them */
async function mayStandIn(
  tx: Transaction,
  who: Who,
  advisor: number,
  away: HoursSaid['away']
): Promise<void> {
  const named = [...new Set(away.flatMap((one) => one.standIn ?? []))]
  const known = named.length
    ? await tx
        .select({ id: t.advisor.id })
        .from(t.advisor)
        .innerJoin(t.account, eq(t.account.id, t.advisor.accountId))
        .where(all(inArray(t.advisor.id, named), eq(t.account.role, who.role)))
    : []
  const may = new Set(known.map((row) => row.id).filter((id) => id !== advisor))
  const at = away.findIndex((one) => one.standIn !== null && !may.has(one.standIn))
  if (at >= 0)
    throw new Refused(
      422,
      'noStandIn',
      'Whoever stands in has to be another advisor who may do what you do.',
      [{ field: `away.${at}.standIn`, message: 'has to be another advisor of the same kind' }]
    )
}

/** Locks an advisor's row: bookings that come at once are put in order. */
export async function lockAdvisor(tx: Transaction, advisor: number): Promise<void> {
  await tx.select({ id: t.advisor.id }).from(t.advisor).where(eq(t.advisor.id, advisor)).for('update')
}

/** A new private calendar address of an advisor, or none; the one before leads nowhere from now on. */
export async function setCalendarAddress(
  tx: Transaction,
  { who, now }: { who: Who; now: Instant },
  wanted: boolean
): Promise<{ key: string | null }> {
  const advisor = await advisorOf(tx, who.id)
  await lockAdvisor(tx, advisor)
  await tx.delete(t.advisorCalendar).where(eq(t.advisorCalendar.advisorId, advisor))
  const key = wanted ? secretKey() : null
  if (key) await tx.insert(t.advisorCalendar).values({ advisorId: advisor, key, madeAt: new Date(now) })
  await logEvent(tx, {
    at: now,
    account: who.id,
    student: null,
    action: wanted ? 'calendarAddress.made' : 'calendarAddress.withdrawn'
  })
  return { key }
}
