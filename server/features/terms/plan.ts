/** Terms as the registrar makes them: made a year on, changed, and taken away again. */
import { eq, inArray, sql } from 'drizzle-orm'
import { DateTime } from 'luxon'
import { overlap } from '#core/calendar'
import type { TermCode } from '#core/ids'
import type { CivilTime, Instant } from '#core/time'
import type { Reader, Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { termRow } from '#server/features/catalog/catalog'
import { isReferenced } from '#server/db/referenced'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import { codeNextYear, likeNextYear, type TermPlan, type TermSaid } from '#shared/offices/terms'
import { moveClasses } from './classes'
import { planOf, type Row } from './readTerms'
import { tellChanges } from './told'

export interface At {
  now: Instant
  zone: string
}

/** The instant of a campus time; one that the clocks skip is the one after. */
const instantOf = (text: CivilTime, zone: string): Date => DateTime.fromISO(text, { zone }).toJSDate()

/** What is written of a term in its own row. */
function columnsOf(said: TermSaid, { prices }: Pick<Row, 'prices'>, zone: string) {
  const hour = (text: CivilTime) => instantOf(text, zone)
  const maybe = (text: CivilTime | null) => (text === null ? null : hour(text))
  const refunds = said.refunds.map(({ until, percent }) => ({ until: hour(until).getTime(), percent }))
  return {
    name: said.name,
    year: Number(said.start.slice(0, 4)),
    startsOn: said.start,
    endsOn: said.end,
    addEndsAt: hour(said.addEnds),
    dropFreeEndsAt: hour(said.dropFreeEnds),
    dropEndsAt: hour(said.dropEnds),
    linesCloseAt: hour(said.linesClose),
    intentionsDueAt: maybe(said.intentionsDue),
    graduateBy: maybe(said.graduateBy),
    paymentDueOn: said.paymentDue,
    prices: prices && { ...prices, refunds },
    loadMost: said.loadMost,
    signOffPolicy: said.signOffPolicy,
    waitlistPolicy: said.waitlistPolicy,
    offerHours: said.offerHours,
    offerHoursNear: said.offerHoursNear,
    arming: said.arming,
    agreement: said.agreement
  }
}

function sessionColumns(one: TermSaid['sessions'][number], zone: string) {
  const maybe = (text: CivilTime | null) => (text === null ? null : instantOf(text, zone))
  return {
    ...{ code: one.code, name: one.name, half: one.half, startsOn: one.start, endsOn: one.end },
    addEndsAt: maybe(one.addEnds),
    dropFreeEndsAt: maybe(one.dropFreeEnds),
    dropEndsAt: maybe(one.dropEnds)
  }
}

/** @throws Refused where another term has some of these days */
export async function mustBeApart(
  tx: Reader,
  said: Pick<TermSaid, 'start' | 'end'>,
  own?: number
): Promise<void> {
  const others = await tx
    .select({ id: t.term.id, name: t.term.name, start: t.term.startsOn, end: t.term.endsOn })
    .from(t.term)
  const other = others.find((one) => one.id !== own && overlap(one, said))
  if (other)
    throw new Refused(
      422,
      'overlap',
      `${other.name} has some of these days (${other.start} to ${other.end}).`,
      [
        {
          field: said.start <= other.end && said.start >= other.start ? 'start' : 'end',
          message: `has to be outside of ${other.name}`
        }
      ]
    )
}

/** Makes each of the terms once more, a year later, unpublished. @returns their codes */
export async function makeTerms(
  tx: Transaction,
  who: Who,
  like: readonly TermCode[],
  { now, zone }: At
): Promise<TermCode[]> {
  const made: TermCode[] = []
  for (const from of like) {
    const row = await termRow(tx, from)
    const code = codeNextYear(from)
    const [known] = await tx.select({ name: t.term.name }).from(t.term).where(eq(t.term.code, code))
    if (known)
      throw new Refused(409, 'termKnown', `There is a term ${code} already: ${known.name}.`, [
        { field: 'like', message: `has to name terms that are not there a year later: ${code} is` }
      ])
    const said = likeNextYear(await planOf(tx, row, zone))
    await mustBeApart(tx, said)
    const [inserted] = await tx
      .insert(t.term)
      .values({
        ...columnsOf(said, row, zone),
        ...{ code, season: row.season, published: false, repeatBelow: row.repeatBelow }
      })
      .$returningId()
    await writeSessions(tx, inserted!.id, said, zone)
    await writeHolidays(tx, inserted!.id, said)
    const after = { term: code, like: from }
    await logEvent(tx, { at: now, account: who.id, student: null, action: 'term.made', after })
    made.push(code)
  }
  return made
}

async function writeHolidays(tx: Transaction, term: number, { holidays }: TermSaid): Promise<void> {
  await tx.delete(t.holiday).where(eq(t.holiday.termId, term))
  if (holidays.length)
    await tx
      .insert(t.holiday)
      .values(holidays.map(({ date, name }) => ({ termId: term, onDate: date, name })))
}

/** Sessions as they are to be; one that has sections stays. @throws Refused */
async function writeSessions(tx: Transaction, term: number, said: TermSaid, zone: string): Promise<void> {
  const known = await tx.select().from(t.session).where(eq(t.session.termId, term))
  const gone = known.filter((one) => !said.sessions.some(({ code }) => code === one.code))
  if (gone.length) {
    const ids = gone.map((one) => one.id)
    const [used] = await tx
      .select({ id: t.section.sessionId })
      .from(t.section)
      .where(inArray(t.section.sessionId, ids))
      .limit(1)
    const session = gone.find((one) => one.id === used?.id)
    if (session)
      throw new Refused(422, 'sessionUsed', `${session.name} has sections, so it stays.`, [
        { field: 'sessions', message: `have to name ${session.code}: it has sections` }
      ])
    await tx.delete(t.session).where(inArray(t.session.id, ids))
  }
  for (const one of said.sessions) {
    const before = known.find(({ code }) => code === one.code)
    const columns = sessionColumns(one, zone)
    if (before) await tx.update(t.session).set(columns).where(eq(t.session.id, before.id))
    else await tx.insert(t.session).values({ termId: term, ...columns })
  }
}

/** A term to be changed, as it was seen. @throws Refused where it was changed meanwhile */
export async function lockTerm(tx: Transaction, id: number, { version }: { version: number }): Promise<Row> {
  const [row] = await tx.select().from(t.term).where(eq(t.term.id, id)).for('update')
  if (row!.version === version) return row!
  throw new Refused(
    409,
    'termMovedOn',
    `${row!.name} was changed meanwhile, so your change was not made. You now see it as it is; try again.`
  )
}

/**
 * Changes dates and rules of a term. Where seats are held the days of classes stay, and all who hold one are told what has
 * changed; else the classes of its sections follow their sessions.
 *
 * @returns how many students were told
 */
export async function changeTerm(
  tx: Transaction,
  who: Who,
  code: TermCode,
  said: TermSaid,
  { now, zone }: At
): Promise<{ told: number }> {
  const { id } = await termRow(tx, code)
  const row = await lockTerm(tx, id, said)
  const before = await planOf(tx, row, zone)
  if (said.refunds.length && !row.prices)
    throw new Refused(
      422,
      'noPrices',
      'It is not known here what this term costs, so nothing is given back.',
      [{ field: 'refunds', message: 'have to be none while there are no prices' }]
    )
  await mustBeApart(tx, said, id)
  if (before.held) mustKeepDays(before, said)
  await tx
    .update(t.term)
    .set({ ...columnsOf(said, row, zone), version: row.version + 1 })
    .where(eq(t.term.id, id))
  await writeSessions(tx, id, said, zone)
  await writeHolidays(tx, id, said)
  await moveClasses(tx, id, before, said)
  const after = { ...said, version: said.version + 1 }
  await logEvent(tx, {
    ...{ at: now, account: who.id, student: null, action: 'term.changed' },
    before: { term: code, ...termSaidOf(before) },
    after: { term: code, ...after }
  })
  return { told: row.published ? await tellChanges(tx, who, { id, code, before, after }, now) : 0 }
}

function termSaidOf({
  code: _c,
  season: _s,
  published: _p,
  held: _h,
  prices: _pr,
  ...said
}: TermPlan): TermSaid {
  return said
}

/** @throws Refused that names the first day that would move */
function mustKeepDays(before: TermPlan, said: TermSaid): void {
  const message = `has to stay: ${before.held} students hold seats in the term`
  const moved =
    said.start !== before.start
      ? 'start'
      : said.end !== before.end
        ? 'end'
        : said.sessions.findIndex((one) => {
            const was = before.sessions.find(({ code }) => code === one.code)
            return was && (was.start !== one.start || was.end !== one.end)
          })
  if (moved === -1) return
  throw new Refused(
    422,
    'seatsHeld',
    'The days of classes stay as they are while seats are held; a section is moved by itself, in the offer.',
    [{ field: typeof moved === 'number' ? `sessions.${moved}.start` : moved, message }]
  )
}

/** Takes a term away that nothing rests on yet. @throws Refused where something does */
export async function dropTerm(tx: Transaction, who: Who, code: TermCode, now: Instant): Promise<void> {
  const { id, name, published } = await termRow(tx, code)
  if (published)
    throw new Refused(409, 'published', `${name} is published; a published term is not taken away.`)
  const used = await tx.execute(sql`
    select (select count(*) from section where term_id = ${id}) as sections,
           (select count(*) from planned_course where term_id = ${id}) as planned,
           (select count(*) from opening where term_id = ${id}) as openings`)
  const [{ sections, planned, openings }] = used[0] as unknown as Record<string, unknown>[] as [
    { sections: number; planned: number; openings: number }
  ]
  if (Number(sections) + Number(planned) + Number(openings))
    throw new Refused(
      409,
      'termUsed',
      `${name} is used: ${sections} sections, ${planned} planned courses, ${openings} openings rest on it.`
    )
  for (const table of [t.session, t.holiday]) await tx.delete(table).where(eq(table.termId, id))
  try {
    await tx.delete(t.term).where(eq(t.term.id, id))
  } catch (error) {
    if (!isReferenced(error)) throw error
    throw new Refused(409, 'termUsed', `${name} is used: something on record rests on it.`)
  }
  await logEvent(tx, {
    ...{ at: now, account: who.id, student: null, action: 'term.dropped' },
    after: { term: code }
  })
}
