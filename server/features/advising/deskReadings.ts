/**
 * What the desk says of a record that rests on its audits and checks: worked out once for each state of what is read, and
 * kept, by this server and in the database for the others. What is asked about again is known by a print of all that is
 * read, not by who changed what.
 */
import { createHash } from 'node:crypto'
import { inArray, sql } from 'drizzle-orm'
import { deadlines } from '#core/calendar'
import type { CourseCode, TermCode } from '#core/ids'
import { slackOf, termsToPlan } from '#core/route'
import type { Instant } from '#core/time'
import { untilThrough, type Database } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { pause } from '#server/pause'
import type { TermView } from '#shared/catalog/responses'
import { momentOf, termOf, type CatalogContext } from '#shared/catalog/context'
import { routeFigures, type RouteFigures } from '#shared/degree/figures'
import { READ_KEYS, readStudent, type Reading } from '#shared/reading'
import type { StudentRecord } from '#shared/record/responses'

export interface DeskReading extends Pick<Reading, 'today' | 'standings' | 'climb'> {
  figures: RouteFigures
  /** The route finishes later than the student wants, or not at all. */
  late: boolean
  /** Planned courses of the next terms that cannot stand later without a later finish. */
  tight: { course: CourseCode; term: TermCode }[]
}

/** Terms ahead in which it is asked what cannot wait: sections are planned no further. */
const LOOKED_AHEAD = 3

/** By student, the last one. */
const kept = new Map<number, { print: string; reading: DeskReading }>()
/** How many students are kept at most; the ones asked about least lately go. */
const MOST = 5000

/** The readings of records, in their order. */
export async function deskReadings(
  db: Database,
  records: readonly StudentRecord[],
  catalogContext: CatalogContext,
  now: Instant
): Promise<DeskReading[]> {
  const asked = records.map((record) => ({ record, print: printOf(record, catalogContext, now) }))
  // Of this question alone: others may ask in between, of another state.
  const found = new Map<number, DeskReading>()
  for (const { record, print } of asked) {
    const known = kept.get(record.student.id)
    if (known?.print === print) found.set(record.student.id, known.reading)
  }
  const unknown = asked.filter(({ record }) => !found.has(record.student.id))
  const stored = await readStored(db, unknown)
  const made: { id: number; print: string; reading: DeskReading }[] = []
  for (const { record, print } of unknown) {
    const { id } = record.student
    const text = stored.get(id)
    // Somebody else's request comes in between.
    if (text === undefined) await pause()
    const reading = text === undefined ? read(record, catalogContext, now) : unpacked(text, catalogContext)
    if (text === undefined) made.push({ id, print, reading })
    found.set(id, reading)
  }
  await store(db, made)
  return asked.map(({ record, print }) => {
    const reading = found.get(record.student.id)!
    keep(record.student.id, print, reading)
    return reading
  })
}

function keep(id: number, print: string, reading: DeskReading): void {
  kept.delete(id)
  kept.set(id, { print, reading })
  if (kept.size > MOST) kept.delete(kept.keys().next().value!)
}

function read(record: StudentRecord, catalogContext: CatalogContext, now: Instant): DeskReading {
  const reading = readStudent(record, catalogContext, now)
  const { today, standings, climb } = reading
  const late = reading.findings.some((one) => one.code === 'late' || one.code === 'needLeft')
  const next = new Set(
    termsToPlan(reading.context)
      .slice(0, LOOKED_AHEAD)
      .map((one) => one.code)
  )
  const tight = slackOf(reading.context, next).flatMap(({ course, term, latest }) =>
    latest === undefined || latest.code === term.code ? [{ course, term: term.code }] : []
  )
  return { today, standings, climb, figures: routeFigures(reading), late, tight }
}

async function readStored(
  db: Database,
  asked: readonly { record: StudentRecord; print: string }[]
): Promise<Map<number, string>> {
  if (!asked.length) return new Map()
  const prints = new Map(asked.map(({ record, print }) => [record.student.id as number, print]))
  const rows = await db
    .select()
    .from(t.deskReading)
    .where(inArray(t.deskReading.studentId, [...prints.keys()]))
  return new Map(
    rows
      .filter(({ studentId, print }) => prints.get(studentId) === print)
      .map(({ studentId, reading }) => [studentId, reading])
  )
}

const STORED_AT_ONCE = 100

async function store(
  db: Database,
  made: readonly { id: number; print: string; reading: DeskReading }[]
): Promise<void> {
  // In one order for every server, so that two never wait for each other.
  const rows = made
    .toSorted((a, b) => a.id - b.id)
    .map(({ id, print, reading }) => ({ studentId: id, print, reading: packed(reading) }))
  for (let i = 0; i < rows.length; i += STORED_AT_ONCE)
    await untilThrough(() =>
      db
        .insert(t.deskReading)
        .values(rows.slice(i, i + STORED_AT_ONCE))
        .onDuplicateKeyUpdate({ set: { print: sql`values(print)`, reading: sql`values(reading)` } })
    )
}

/** As text, with the codes of terms in place of all that is known of them. */
function packed({ figures, standings, climb, ...rest }: DeskReading): string {
  return JSON.stringify({
    ...rest,
    standings: standings.map((one) => ({ ...one, term: one.term.code })),
    climb: { ...climb, points: climb.points.map((one) => ({ ...one, term: one.term.code })) },
    figures: { ...figures, finish: figures.finish?.code }
  })
}

type Coded<T> = Omit<T, 'term'> & { term: TermView['code'] }
interface Packed extends Pick<DeskReading, 'today' | 'late' | 'tight'> {
  standings: Coded<DeskReading['standings'][number]>[]
  climb: { start: number; points: Coded<DeskReading['climb']['points'][number]>[] }
  figures: Omit<RouteFigures, 'finish'> & { finish?: TermView['code'] }
}

function unpacked(text: string, catalogContext: CatalogContext): DeskReading {
  const { figures, standings, climb, ...rest } = JSON.parse(text) as Packed
  return {
    ...rest,
    standings: standings.map((one) => ({ ...one, term: termOf(catalogContext, one.term) })),
    climb: {
      ...climb,
      points: climb.points.map((one) => ({ ...one, term: termOf(catalogContext, one.term) }))
    },
    figures: { ...figures, finish: figures.finish ? termOf(catalogContext, figures.finish) : undefined }
  }
}

/** Seats come and go, and no audit or check asks about them. */
const withoutSeats = <T extends { taken: number; waiting: number; reserved: readonly object[] }>(
  sections: readonly T[]
) =>
  sections.map(({ taken: _, waiting: __, ...section }) => ({
    ...section,
    reserved: section.reserved.map((one) => ({ ...one, left: 0 }))
  }))
const hash = (text: string): string => createHash('sha256').update(text).digest('base64')

/** Another build may read the same record otherwise: what one has stored is nothing to the next. */
const BUILD = process.env.RIDGEWAY_BUILD ?? ''

const catalogContexts = new WeakMap<CatalogContext, string>()
function printOfCatalogContext(catalogContext: CatalogContext): string {
  const known = catalogContexts.get(catalogContext)
  if (known) return known
  const { catalog, terms, running, lists, campuses, travel, heldAt, offers, zone } = catalogContext
  const text = JSON.stringify([
    ...[catalog.courses, terms, lists, campuses, travel, zone, [...heldAt]],
    ...[...running].map(([term, courses]) => [term, [...courses]]),
    ...[...offers].map(([term, { sections, holidays }]) => [term, withoutSeats(sections), [...holidays]])
  ])
  const print = hash(text)
  catalogContexts.set(catalogContext, print)
  return print
}

/** What a reading rests on: the record, the catalog, the day, and how many deadlines have passed. */
function printOf(record: StudentRecord, catalogContext: CatalogContext, now: Instant): string {
  const ends = record.permitted.flatMap((one) => (one.until === null ? [] : [one.until]))
  const passed = [...deadlines(catalogContext.terms, record.openings), ...ends].filter(
    (one) => one <= now
  ).length
  const read = READ_KEYS.map((key) => {
    if (key === 'route') return record.route.courses
    return key === 'sections' ? withoutSeats(record.sections) : record[key]
  })
  const { today } = momentOf(now, catalogContext.zone)
  return hash(JSON.stringify([BUILD, printOfCatalogContext(catalogContext), today, passed, read]))
}
