/**
 * Whether what is written in several places agrees: the counts of sections with their rows, the seats with what the log
 * tells when it is replayed, the receipts with the log, the ledger with the seats and the payments. It changes nothing.
 */
import { and, eq, inArray, isNotNull, isNull, ne, or, sql } from 'drizzle-orm'
import { assess } from '#core/charges'
import { groupBy } from '#server/db/groupBy'
import type { Reader } from '#server/db/connect'
import type { Action } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { pricedSeats } from '#server/features/charges/ledger'
import { heldByOffers } from './offers'

/** One sentence for each thing that does not agree; none where all of it does. */
export async function disagreements(db: Reader): Promise<string[]> {
  return [
    ...(await ofCounts(db)),
    ...(await ofSeats(db)),
    ...(await ofReceipts(db)),
    ...(await ofLedger(db)),
    ...(await ofPayments(db))
  ]
}

async function ofCounts(db: Reader): Promise<string[]> {
  // Written out: inside them, columns of the outer table need their table's name.
  const rows = sql<number>`(select count(*) from registration r where r.section_id = section.id)`
  const places = sql<number>`(select count(*) from waitlist_place w where w.section_id = section.id)`
  const wrong = await db
    .select({
      code: t.section.code,
      taken: t.section.taken,
      rows,
      waiting: t.section.waiting,
      places,
      offered: t.section.offered,
      held: heldByOffers
    })
    .from(t.section)
    .where(
      or(
        ne(t.section.taken, rows),
        ne(t.section.waiting, places),
        sql`${t.section.offered} < ${heldByOffers}`
      )
    )
  return wrong.map(
    (one) =>
      `${one.code} says ${one.taken} taken, ${one.waiting} waiting, ${one.offered} offered; there are ${one.rows}, ${one.places}, ${one.held}.`
  )
}

interface Told {
  student: number
  action: Action
  before: { sections?: string[] } | null
  after: { term: string; course: string; sections?: string[]; answer?: string; gaveBack?: string[] }
}

const OF_SEATS: Action[] = [
  'registration.made',
  'registration.exchanged',
  'registration.dropped',
  'registration.released',
  'registration.cancelled',
  'registration.partCancelled',
  'offer.answered'
]

async function readLog(db: Reader): Promise<Told[]> {
  const rows = await db
    .select({
      student: t.eventLog.studentId,
      action: t.eventLog.action,
      before: t.eventLog.before,
      after: t.eventLog.after
    })
    .from(t.eventLog)
    .where(inArray(t.eventLog.action, OF_SEATS))
    .orderBy(t.eventLog.id)
  return (rows as Told[]).filter((one) => one.action !== 'offer.answered' || one.after.answer === 'accepted')
}

const TAKEN_AWAY = new Set<Action>([
  'registration.dropped',
  'registration.released',
  'registration.cancelled'
])

/** Sections that an entry of the log gave somebody; none for one that took them away. */
const given = ({ action, before, after }: Told): string[] =>
  action === 'offer.answered'
    ? (before?.sections ?? [])
    : TAKEN_AWAY.has(action)
      ? []
      : (after.sections ?? [])
const RELEASED = new Set<Action>([
  'registration.released',
  'registration.cancelled',
  'registration.partCancelled'
])
const listed = (codes: readonly string[]) => [...codes].sort().join(' + ')

async function ofSeats(db: Reader): Promise<string[]> {
  const replayed = new Map<string, string>()
  for (const one of await readLog(db)) {
    const key = `${one.student} ${one.after.term} ${one.after.course}`
    const sections = given(one)
    if (sections.length) replayed.set(key, listed(sections))
    else replayed.delete(key)
  }
  const rows = await db
    .select({
      student: t.registration.studentId,
      term: t.term.code,
      course: t.course.code,
      section: t.section.code
    })
    .from(t.registration)
    .innerJoin(t.section, eq(t.section.id, t.registration.sectionId))
    .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    .innerJoin(t.term, eq(t.term.id, t.section.termId))
  const held = groupBy(rows, (row) => `${row.student} ${row.term} ${row.course}`)
  const keys = new Set([...held.keys(), ...replayed.keys()])
  return [...keys].flatMap((key) => {
    const [is, told] = [listed((held.get(key) ?? []).map((row) => row.section)), replayed.get(key) ?? '']
    return is === told
      ? []
      : [`Student ${key}: held is ${is || 'nothing'}, the log tells ${told || 'nothing'}.`]
  })
}

async function ofReceipts(db: Reader): Promise<string[]> {
  const count = new Map<string, number>()
  const add = (key: string, by: number) => count.set(key, (count.get(key) ?? 0) + by)
  for (const one of await readLog(db)) {
    const sections = given(one)
    const released = RELEASED.has(one.action)
    const outcome = released
      ? 'released'
      : !sections.length
        ? 'dropped'
        : one.action === 'registration.exchanged' || one.after.gaveBack?.length
          ? 'exchanged'
          : 'registered'
    const codes = sections.length && !released ? sections : (one.before?.sections ?? [])
    add(`${one.student} ${one.after.term} ${one.after.course} ${outcome} ${listed(codes)}`, 1)
  }
  const lines = await db
    .select({
      student: t.receipt.studentId,
      term: t.term.code,
      course: t.course.code,
      outcome: t.receiptLine.outcome,
      sections: t.receiptLine.sections
    })
    .from(t.receiptLine)
    .innerJoin(t.receipt, eq(t.receipt.id, t.receiptLine.receiptId))
    .innerJoin(t.term, eq(t.term.id, t.receipt.termId))
    .innerJoin(t.course, eq(t.course.id, t.receiptLine.courseId))
    .where(inArray(t.receiptLine.outcome, ['registered', 'exchanged', 'dropped', 'released']))
  for (const { student, term, course, outcome, sections } of lines)
    add(`${student} ${term} ${course} ${outcome} ${listed(sections)}`, -1)
  return [...count].flatMap(([key, left]) =>
    left === 0
      ? []
      : [`Student ${key}: ${left > 0 ? 'in the log without a receipt' : 'on a receipt and not in the log'}.`]
  )
}

async function ofLedger(db: Reader): Promise<string[]> {
  const terms = await db.select().from(t.term).where(isNotNull(t.term.prices))
  const found: string[] = []
  for (const { id, code, prices } of terms) {
    const seats = await pricedSeats(db, id)
    const rows = await db
      .select({
        student: t.ledgerEntry.studentId,
        item: t.ledgerEntry.item,
        assessed: sql<string>`sum(${t.ledgerEntry.assessed})`
      })
      .from(t.ledgerEntry)
      .where(and(eq(t.ledgerEntry.termId, id), ne(t.ledgerEntry.item, 'payment')))
      .groupBy(t.ledgerEntry.studentId, t.ledgerEntry.item)
    const assessed = groupBy(
      rows.filter((row) => Number(row.assessed) !== 0),
      (row) => row.student
    )
    const people = await db
      .select({ id: t.student.id, level: t.student.level, residency: t.student.residency })
      .from(t.student)
    for (const person of people) {
      const is = (assessed.get(person.id) ?? []).map((row) => `${row.item} ${row.assessed}`)
      const should = assess(prices!, person, seats.get(person.id) ?? []).map(
        (one) => `${one.item} ${one.amount}`
      )
      if (listed(is) !== listed(should))
        found.push(
          `Student ${person.id} ${code}: the ledger has ${listed(is) || 'nothing'}, the seats come to ${listed(should) || 'nothing'}.`
        )
    }
  }
  return found
}

async function ofPayments(db: Reader): Promise<string[]> {
  const wrong = await db
    .select({ id: t.payment.id })
    .from(t.payment)
    .leftJoin(t.ledgerEntry, eq(t.ledgerEntry.paymentId, t.payment.id))
    .where(
      or(
        and(
          eq(t.payment.state, 'taken'),
          or(isNull(t.ledgerEntry.id), ne(t.ledgerEntry.amount, t.payment.amount))
        ),
        and(ne(t.payment.state, 'taken'), isNotNull(t.ledgerEntry.id))
      )
    )
  return wrong.map(({ id }) => `Payment ${id} and the ledger do not agree.`)
}
