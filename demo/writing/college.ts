/** The college itself: its places, terms and sessions, and the clock that the demo stands at. */
import * as t from '#server/db/schema/index'
import { agreementOf } from '../agreement'
import { campuses, campusTime, DEMO_NOW, holidaysOf, rooms, terms, TRAVEL_MINUTES, ZONE } from '../college'
import { pricesOf } from '../prices'
import type { Numbers, Put } from './numbers'

export async function writeCollege(put: Put, { buildings, sessions, campusId, buildingId, termId }: Numbers) {
  await put(t.institution, [{ id: 1, name: 'Harrowmere College', timeZone: ZONE }])
  await put(
    t.campus,
    campuses.map((c, i) => ({ id: i + 1, institutionId: 1, ...c }))
  )
  await put(
    t.campusTravel,
    [
      [1, 2],
      [2, 1]
    ].map(([fromId, toId]) => ({ fromId, toId, minutes: TRAVEL_MINUTES }))
  )
  await put(
    t.building,
    buildings.map((b, i) => ({ id: i + 1, campusId: campusId.get(b.campus), name: b.building }))
  )
  await put(
    t.room,
    rooms.map((r, i) => ({
      id: i + 1,
      buildingId: buildingId.get(`${r.campus} ${r.building}`),
      name: r.name,
      seats: r.seats
    }))
  )
  await put(
    t.term,
    terms.map((term, i) => ({ id: i + 1, ...term, ...policyOf(term) }))
  )
  await put(
    t.session,
    sessions.map((s, i) => ({ id: i + 1, ...s, termId: termId.get(s.term) }))
  )
  await put(
    t.holiday,
    terms.flatMap((term) => holidaysOf(term).map((h) => ({ termId: termId.get(term.code), ...h })))
  )
  await put(t.campusClock, [{ id: 1, mode: 'standing', campusAt: DEMO_NOW, setAt: DEMO_NOW }])
}

/** Days before a term begins on which what is meant for it was to be handed in. */
const INTENTIONS_DAYS = 245

function policyOf({ startsOn, endsOn, season }: (typeof terms)[number]) {
  const day = (date: string, shift: number) =>
    new Date(Date.parse(date) + shift * 86_400_000).toISOString().slice(0, 10)
  return {
    addEndsAt: campusTime(`${day(startsOn, 12)}T00:00`),
    dropFreeEndsAt: campusTime(`${day(startsOn, 12)}T00:00`),
    linesCloseAt: campusTime(`${day(startsOn, 10)}T00:00`),
    offerHours: 48,
    offerHoursNear: 12,
    dropEndsAt: campusTime(`${day(endsOn, season === 'summer' ? -14 : -27)}T00:00`),
    graduateBy: campusTime(`${day(endsOn, -28)}T00:00`),
    intentionsDueAt: season === 'summer' ? null : campusTime(`${day(startsOn, -INTENTIONS_DAYS)}T00:00`),
    paymentDueOn: day(startsOn, -28),
    prices: pricesOf(startsOn),
    loadMost: season === 'summer' ? 9 : 18,
    repeatBelow: 'C',
    signOffPolicy: 'term',
    waitlistPolicy: 'offer',
    arming: true,
    agreement: agreementOf({ startsOn })
  }
}
