/** The first hour of openings: how many run and take seats in each minute, measured, or expected from what was measured. */
import { and, asc, eq, gte, lt, sql } from 'drizzle-orm'
import type { StudentId, TermCode } from '#core/ids'
import type { Instant } from '#core/time'
import type { Reader } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { termRow } from '#server/features/catalog/catalog'
import { expectedHour, HOUR_MINUTES, type OpeningHour } from '#shared/offices/openings'

const MINUTE_MS = 60_000

interface OfOpening {
  of: { id: number; opensAt: Date }
  people: readonly StudentId[]
}

/** By the number of the opening; those are left out of which nothing can be said yet. */
export async function hoursOf(
  db: Reader,
  openings: readonly OfOpening[],
  { term, now }: { term: TermCode; now: Instant }
): Promise<Map<number, OpeningHour>> {
  const { id } = await termRow(db, term)
  const hours = new Map<number, OpeningHour>()
  const measured: { students: number; hour: OpeningHour }[] = []
  for (const { of, people } of openings)
    if (of.opensAt.getTime() <= now && people.length) {
      const hour = await measuredHour(db, id, of.opensAt.getTime(), new Set(people))
      hours.set(of.id, hour)
      measured.push({ students: people.length, hour })
    }
  for (const { of, people } of openings) {
    const hour = hours.has(of.id) ? undefined : expectedHour(measured, people.length)
    if (hour && people.length) hours.set(of.id, hour)
  }
  return hours
}

async function measuredHour(
  db: Reader,
  termId: number,
  opens: Instant,
  people: ReadonlySet<number>
): Promise<OpeningHour> {
  const rows = await db
    .select({
      student: t.receipt.studentId,
      at: t.receipt.at,
      seats: sql<number>`sum(${t.receiptLine.outcome} in ('registered', 'exchanged'))`.mapWith(Number)
    })
    .from(t.receipt)
    .leftJoin(
      t.receiptLine,
      and(eq(t.receiptLine.receiptId, t.receipt.id), eq(t.receiptLine.action, 'register'))
    )
    .where(
      and(
        eq(t.receipt.termId, termId),
        gte(t.receipt.at, new Date(opens)),
        lt(t.receipt.at, new Date(opens + HOUR_MINUTES * MINUTE_MS))
      )
    )
    .groupBy(t.receipt.id)
    .orderBy(asc(t.receipt.id))
  const runs = Array.from({ length: HOUR_MINUTES }, () => 0)
  const seats = Array.from({ length: HOUR_MINUTES }, () => 0)
  for (const row of rows) {
    if (!people.has(row.student)) continue
    const minute = Math.floor((row.at.getTime() - opens) / MINUTE_MS)
    runs[minute]! += 1
    seats[minute]! += row.seats || 0
  }
  return { isMeasured: true, runs, seats }
}
