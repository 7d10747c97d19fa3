/** Terms as they are written, for who makes and changes them. */
import { asc, eq, isNull, sql } from 'drizzle-orm'
import { DateTime } from 'luxon'
import type { TermPrices } from '#core/charges'
import { termCode, type TermCode } from '#core/ids'
import type { CivilTime } from '#core/time'
import { all, type Reader } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { termRow } from '#server/features/catalog/catalog'
import type { SaidPrices } from '#shared/offices/prices'
import type { TermPlan, TermRow } from '#shared/offices/terms'

/** The campus time of an instant, as it is written. */
const civilOf = (at: Date, zone: string): CivilTime =>
  DateTime.fromJSDate(at, { zone }).toFormat("yyyy-MM-dd'T'HH:mm")

const count = (what: ReturnType<typeof sql>) => sql<number>`count(distinct ${what})`.mapWith(Number)

/** All terms, the latest first, with what is in them. */
export async function readTerms(db: Reader): Promise<TermRow[]> {
  const terms = await db.select().from(t.term).orderBy(asc(t.term.startsOn))
  const sections = await db
    .select({
      term: t.section.termId,
      sections: count(sql`${t.section.id}`),
      courses: count(sql`${t.section.courseId}`)
    })
    .from(t.section)
    .where(all(isNull(t.section.parentId), eq(t.section.cancelled, false)))
    .groupBy(t.section.termId)
  const openings = await db
    .select({ term: t.opening.termId, openings: count(sql`${t.opening.id}`) })
    .from(t.opening)
    .groupBy(t.opening.termId)
  const planned = await db
    .select({ term: t.plannedCourse.termId, planned: count(sql`${t.route.studentId}`) })
    .from(t.plannedCourse)
    .innerJoin(t.route, eq(t.route.id, t.plannedCourse.routeId))
    .where(eq(t.route.chosen, true))
    .groupBy(t.plannedCourse.termId)
  const held = await db
    .select({ term: t.section.termId, held: count(sql`${t.registration.studentId}`) })
    .from(t.registration)
    .innerJoin(t.section, eq(t.section.id, t.registration.sectionId))
    .groupBy(t.section.termId)
  const rowsOf = [sections, openings, planned, held].map(
    (rows) => new Map((rows as { term: number }[]).map((row) => [row.term, row]))
  )
  return terms.map(({ id, code, name, season, year, startsOn: start, endsOn: end, published }) => {
    const found = Object.assign({}, ...rowsOf.map((rows) => rows.get(id))) as Partial<TermRow>
    const { sections = 0, courses = 0, openings = 0, planned = 0, held = 0 } = found
    const figures = { sections, courses, openings, planned, held }
    return { code: termCode(code), name, season, year, start, end, published, ...figures }
  })
}

export type Row = typeof t.term.$inferSelect

/** A term as it is written, to be changed. @throws Refused where there is none */
export async function readTermPlan(db: Reader, code: TermCode, zone: string): Promise<TermPlan> {
  return planOf(db, await termRow(db, code), zone)
}

export async function planOf(db: Reader, row: Row, zone: string): Promise<TermPlan> {
  const hour = (at: Date) => civilOf(at, zone)
  const maybe = (at: Date | null) => at && hour(at)
  const sessions = await db.select().from(t.session).where(eq(t.session.termId, row.id)).orderBy(t.session.id)
  const holidays = await db
    .select({ date: t.holiday.onDate, name: t.holiday.name })
    .from(t.holiday)
    .where(eq(t.holiday.termId, row.id))
    .orderBy(asc(t.holiday.onDate))
  return {
    code: termCode(row.code),
    season: row.season,
    published: row.published,
    held: await seatsHeld(db, row.id),
    version: row.version,
    name: row.name,
    start: row.startsOn,
    end: row.endsOn,
    addEnds: hour(row.addEndsAt),
    dropFreeEnds: hour(row.dropFreeEndsAt),
    dropEnds: hour(row.dropEndsAt),
    linesClose: hour(row.linesCloseAt),
    intentionsDue: maybe(row.intentionsDueAt),
    graduateBy: maybe(row.graduateBy),
    paymentDue: row.paymentDueOn,
    prices: row.prices && saidPrices(row.prices),
    refunds: (row.prices?.refunds ?? []).map((one) => ({
      until: hour(new Date(one.until)),
      percent: one.percent
    })),
    sessions: sessions.map((one) => ({
      ...{ code: one.code, name: one.name, half: one.half, start: one.startsOn, end: one.endsOn },
      addEnds: maybe(one.addEndsAt),
      dropFreeEnds: maybe(one.dropFreeEndsAt),
      dropEnds: maybe(one.dropEndsAt)
    })),
    holidays,
    loadMost: row.loadMost,
    signOffPolicy: row.signOffPolicy,
    waitlistPolicy: row.waitlistPolicy,
    offerHours: row.offerHours,
    offerHoursNear: row.offerHoursNear,
    arming: row.arming,
    agreement: row.agreement
  }
}

/** Students who hold a seat in a term. */
export async function seatsHeld(db: Reader, term: number): Promise<number> {
  const [row] = await db
    .select({ held: count(sql`${t.registration.studentId}`) })
    .from(t.registration)
    .innerJoin(t.section, eq(t.section.id, t.registration.sectionId))
    .where(eq(t.section.termId, term))
  return row!.held
}

/** Prices without what is given back, which stands with the dates. */
export const saidPrices = ({ tuition, fees, releasesUnpaid }: TermPrices): SaidPrices => ({
  ...{ tuition, fees, releasesUnpaid }
})
