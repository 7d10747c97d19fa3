/** The opening morning of the demo: the next opening, those who come to it, and what they want. */
import { asc, eq, gt } from 'drizzle-orm'
import { dayNumber, type Instant } from '#core/time'
import { termCode, type TermCode } from '#core/ids'
import type { Database } from '#server/db/connect'
import { all } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { offerOf } from '#server/features/sections/sections'
import type { Crowd, Guest } from '#server/gateways/crowd'
import { campusNow } from '#server/gateways/clock'
import { Refused } from '#server/http/problem'
import { termOf, type CatalogContext } from '#shared/catalog/context'
import type { Morning } from '#shared/registration/morning'
import { membersAt } from './members'
import { wishesFor } from './wishes'

/** So long before the opening the clock is set, once all are there. */
const BEFORE_MS = 8000
const LOOK_MS = 100
/** By the machine's clock: somebody has set the campus clock otherwise. */
const LONGEST_MS = 60_000

/** Begins it; the campus clock is moved to just before the opening once the crowd is there. */
export async function beginMorning(
  db: Database,
  catalogContext: CatalogContext,
  crowd: Crowd,
  most: number,
  moveClock: (at: Instant) => Promise<void>,
  random: () => number = Math.random
): Promise<Morning> {
  const about = await nextOpening(db)
  const guests = await guestsOf(db, catalogContext, about, most, random)
  if (!guests.length)
    throw new Refused(422, 'nobodyComes', 'Nobody of the crowd has anything to register at the next opening.')
  const ready = async () => {
    await moveClock(about.opens - BEFORE_MS)
    const began = Date.now()
    while ((await campusNow(db)) < about.opens) {
      if (Date.now() - began > LONGEST_MS) throw new Error('the opening did not come')
      await new Promise((resolve) => setTimeout(resolve, LOOK_MS))
    }
  }
  if (!crowd.begin(about, guests, ready))
    throw new Refused(409, 'underWay', 'An opening morning is under way; wait until it is over.')
  return crowd.view()
}

async function nextOpening(db: Database): Promise<{ term: TermCode; opens: Instant }> {
  const now = new Date(await campusNow(db))
  const [next] = await db
    .select({ term: t.term.code, opens: t.opening.opensAt })
    .from(t.opening)
    .innerJoin(t.term, eq(t.term.id, t.opening.termId))
    .where(all(gt(t.opening.opensAt, now), gt(t.term.addEndsAt, now)))
    .orderBy(asc(t.opening.opensAt))
    .limit(1)
  if (!next)
    throw new Refused(
      422,
      'noOpening',
      'No opening is to come. Set the campus clock to before one, then begin again.'
    )
  return { term: termCode(next.term), opens: next.opens.getTime() }
}

async function guestsOf(
  db: Database,
  catalogContext: CatalogContext,
  { term, opens }: { term: TermCode; opens: Instant },
  most: number,
  random: () => number
): Promise<Guest[]> {
  const members = await membersAt(db, term, opens, most)
  const { holidays, signOffPolicy } = termOf(catalogContext, term)
  const free = new Set(holidays.map((one) => dayNumber(one.date)))
  const offer = await offerOf(db, term, [...new Set(members.flatMap((one) => one.courses))])
  return members
    .map(({ courses, isSignedOff, advisor, ...member }) => ({
      ...member,
      advisor: signOffPolicy === 'none' || isSignedOff ? null : advisor,
      wishes: wishesFor(courses, offer, free, random)
    }))
    .filter((guest) => guest.wishes.length)
}
