/**
 * What the desk says of a record that rests on its audits and checks: worked out once for each state of what is read,
 * and kept by this server. What is asked about again is known by a print of all that is read, not by who changed what.
 */
import { createHash } from 'node:crypto'
import { deadlines } from '#core/calendar'
import type { Instant } from '#core/time'
import { momentOf, type Shelf } from '#shared/catalog/shelf'
import { routeFigures, type RouteFigures } from '#shared/degree/figures'
import { READ_KEYS, readStudent, type Reading } from '#shared/reading'
import type { StudentRecord } from '#shared/record/responses'

export interface DeskReading extends Pick<Reading, 'today' | 'standings' | 'climb'> {
  figures: RouteFigures
  /** The route finishes later than the student wants, or not at all. */
  late: boolean
}

/** By student, the last one. */
const kept = new Map<number, { print: string; reading: DeskReading }>()
/** How many students are kept at most; the ones asked about least lately go. */
const MOST = 5000

export function deskReading(picture: StudentRecord, shelf: Shelf, now: Instant): DeskReading {
  const print = printOf(picture, shelf, now)
  const { id } = picture.student
  const known = kept.get(id)
  kept.delete(id)
  const reading = known?.print === print ? known.reading : read(picture, shelf, now)
  kept.set(id, { print, reading })
  if (kept.size > MOST) kept.delete(kept.keys().next().value!)
  return reading
}

function read(picture: StudentRecord, shelf: Shelf, now: Instant): DeskReading {
  const reading = readStudent(picture, shelf, now)
  const { today, standings, climb } = reading
  const late = reading.findings.some((one) => one.code === 'late' || one.code === 'needLeft')
  return { today, standings, climb, figures: routeFigures(reading), late }
}

/** Seats come and go, and no audit or check asks about them. */
const SEATS = new Set(['taken', 'waiting', 'left'])
const withoutSeats = (key: string, value: unknown): unknown =>
  SEATS.has(key) && typeof value === 'number' ? undefined : value
const hash = (text: string): string => createHash('sha256').update(text).digest('base64')

const shelves = new WeakMap<Shelf, string>()
function printOfShelf(shelf: Shelf): string {
  const known = shelves.get(shelf)
  if (known) return known
  const { catalog, terms, running, lists, campuses, travel, heldAt, offers, zone } = shelf
  const text = JSON.stringify(
    [
      ...[catalog.courses, terms, lists, campuses, travel, zone, [...heldAt]],
      [...running].map(([term, courses]) => [term, [...courses]]),
      [...offers].map(([term, { sections, holidays }]) => [term, sections, [...holidays]])
    ],
    withoutSeats
  )
  const print = hash(text)
  shelves.set(shelf, print)
  return print
}

/** What a reading rests on: the record, the catalog, the day, and how many deadlines have passed. */
function printOf(picture: StudentRecord, shelf: Shelf, now: Instant): string {
  const ends = picture.permitted.flatMap((one) => (one.until === null ? [] : [one.until]))
  const passed = [...deadlines(shelf.terms, picture.openings), ...ends].filter((one) => one <= now).length
  const record = READ_KEYS.map((key) => (key === 'route' ? picture.route.courses : picture[key]))
  const { today } = momentOf(now, shelf.zone)
  return hash(JSON.stringify([printOfShelf(shelf), today, passed, record], withoutSeats))
}
