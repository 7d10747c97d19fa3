/**
 * Every demo student at every boundary of two academic years, a minute before and after, and on a day between
 * each two: what the views are told agrees with the facts, which are read here from the rows themselves.
 */
import { afterAll, beforeAll, expect, it } from 'vitest'
import { DateTime } from 'luxon'
import type { StudentRecord } from '#shared/record/responses'
import type { TermView } from '#shared/catalog/responses'
import { datesAhead } from '#shared/route/datesAhead'
import { registerState, routeState } from '#shared/today/placeStates'
import { readStudent, termAtWork, termsAlive, type Reading } from '#shared/reading'
import { nothingToDo, thingsToDo } from '#shared/today/todo'
import type { Todo } from '#shared/today/task'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { LONG } from '../long'
import { demoWorld, type World } from './world'

const MINUTE = 60_000
/** One in so many is looked at, but in a long run. */
const EACH = 700
let world: World
let studentRecords: StudentRecord[]
beforeAll(async () => {
  world = await demoWorld('everyday')
  const ids = Array.from({ length: 317 }, (_, i) => i + 1)
  studentRecords = await readStudentRecords(world.db, ids, 'self')
})
afterAll(() => world.close())

const midnight = (date: string) => DateTime.fromISO(date, { zone: world.catalogContext.zone }).toMillis()

/** Boundaries of the terms from autumn 2026 to summer 2028, with what stands on either side of each. */
function instants(): number[] {
  const years = world.catalogContext.terms.filter(
    (one) => one.start >= '2026-08-01' && one.start < '2028-08-01'
  )
  const after = (date: string) =>
    DateTime.fromISO(date, { zone: world.catalogContext.zone }).plus({ days: 1 }).toMillis()
  const boundaries = new Set<number>()
  for (const term of years) {
    boundaries.add(term.addEndsAt).add(term.dropEndsAt)
    boundaries.add(after(term.paymentDueOn)).add(midnight(term.paymentDueOn))
    for (const { start, end } of [term, ...term.sessions])
      boundaries.add(midnight(start)).add(after(start)).add(midnight(end)).add(after(end))
  }
  for (const { openings } of studentRecords) for (const { opens } of openings) boundaries.add(opens)
  const order = [...boundaries].sort((a, b) => a - b)
  return order.flatMap((at, i) => {
    const next = order[i + 1]
    return [at - MINUTE, at, at + MINUTE, ...(next ? [(at + next) / 2] : [])]
  })
}

interface Told {
  studentRecord: StudentRecord
  reading: Reading
  work: ReturnType<typeof termAtWork>
  todo: Todo[]
  register: string
  now: number
  today: string
}

function tell(studentRecord: StudentRecord, now: number): Told {
  const { catalogContext } = world
  const reading = readStudent(studentRecord, catalogContext, now)
  const work = termAtWork(reading, undefined)
  return {
    studentRecord,
    reading,
    work,
    todo: thingsToDo({ studentRecord, reading, catalogContext, work, now }),
    register: registerState(work, now),
    now,
    today: DateTime.fromMillis(now, { zone: catalogContext.zone }).toISODate()!
  }
}

/** What is wrong with what is told; empty where all of it is so. */
function faults(told: Told): string[] {
  return [...faultsOfWork(told), ...faultsOfSeats(told), ...faultsOfTodo(told), ...faultsOfDates(told)]
}

const isIn = (term: { code: string }) => (one: { term: string | null }) => one.term === term.code

function faultsOfWork({ studentRecord, reading, work, register, now, today }: Told): string[] {
  if (!work) return ['no term to work with']
  const { term } = work
  const found: string[] = []
  const opens = studentRecord.openings.find(isIn(term))?.opens
  const begun = opens !== undefined && opens <= now
  const seats = studentRecord.held.filter(isIn(term)).length
  if (/^opens in/.test(register) && (begun || opens === undefined))
    found.push(`"${register}" of ${term.name}`)
  if (/^open/.test(register) && !/^opens in/.test(register) && !(begun && now < term.addEndsAt))
    found.push(`"${register}" of ${term.name}, which is not open`)
  if (/ended/.test(register) && now < term.addEndsAt) found.push(`"${register}" before adding ended`)
  if (/grades due/.test(register) !== (term.end < today && ungraded(studentRecord, term) > 0))
    found.push(`"${register}" of ${term.name}, ${ungraded(studentRecord, term)} without a grade`)
  if (seats === 0 && /registered/.test(register) && !studentRecord.record.some(isIn(term)))
    found.push(`"${register}" without a seat`)
  // Whoever sits in a term, or may still change it, finds it among those to work with.
  for (const one of world.catalogContext.terms) {
    const mine =
      studentRecord.held.some(isIn(one)) || studentRecord.record.some((r) => isIn(one)(r) && r.grade === null)
    const running = one.start <= today && one.end >= today
    if (mine && (running || (one.end < today && ungraded(studentRecord, one) > 0)) && !isAmong(reading, one))
      found.push(`${one.name} cannot be chosen`)
  }
  const ahead = world.catalogContext.terms.find((one) => one.start > today)
  if (!studentRecord.held.some(isIn(term)) && ahead && term.start > ahead.start && !term.published)
    found.push(`works with ${term.name}, far ahead`)
  if (routeState(reading) === 'nothing planned')
    if (studentRecord.route.courses.some((one) => now < termOf(one.term).addEndsAt))
      found.push('"nothing planned"')
  return found
}

const isAmong = (reading: Reading, term: TermView) =>
  termsAlive(reading).some((one) => one.term.code === term.code)
const termOf = (code: string) => world.catalogContext.terms.find((one) => one.code === code)!

/** Courses of a term with a seat or on the record, and no grade. */
function ungraded(studentRecord: StudentRecord, term: TermView): number {
  const mine = [...studentRecord.held, ...studentRecord.record].filter(isIn(term)).map((one) => one.course)
  const graded = studentRecord.record
    .filter((one) => isIn(term)(one) && one.grade !== null)
    .map((one) => one.course)
  return new Set(mine.filter((course) => !graded.includes(course))).size
}

function faultsOfSeats({ studentRecord, reading, today }: Told): string[] {
  const found: string[] = []
  const { counted, idle } = reading.attempts
  for (const seat of studentRecord.held) {
    const term = termOf(seat.term)
    if (
      studentRecord.record.some((r) => r.course === seat.course && r.term === seat.term && r.grade !== null)
    )
      continue
    const attempt = counted.find((one) => one.course === seat.course && one.term === seat.term)
    if (!attempt) {
      if (!idle.some((one) => one.entry.course === seat.course)) found.push(`${seat.course} is lost`)
      continue
    }
    const session = studentRecord.sections.find((one) => one.code === seat.section)?.session
    const { start, end } = term.sessions.find((one) => one.code === session) ?? term
    const is = `${attempt.status} ${attempt.detail === 'gradeDue' ? 'due' : ''}`.trim()
    const should = start > today ? 'registered' : end < today ? 'underWay due' : 'underWay'
    // What is on the record of a term is under way, whatever its seat.
    const onRecord = studentRecord.record.some((r) => r.course === seat.course && r.term === seat.term)
    if (is !== should && !(onRecord && is === 'underWay' && should === 'registered'))
      found.push(`${seat.course} in ${term.name} is ${is}, not ${should}`)
  }
  for (const { amounts, program } of reading.audits) {
    const running = counted.some((one) => one.status === 'underWay' && one.detail !== 'gradeDue')
    if (amounts.underWay > 0 && !running) found.push(`${program.spec.code}: under way, and nothing runs`)
  }
  return found
}

function faultsOfTodo({ studentRecord, todo, work, now, today }: Told): string[] {
  const found: string[] = []
  for (const { id, title, when } of todo) {
    const [kind, code = ''] = id.split(' ')
    const term = world.catalogContext.terms.find((one) => one.code === code)
    if (!term) continue
    const opens = studentRecord.openings.find(isIn(term))?.opens
    const planned = studentRecord.route.courses.filter(isIn(term))
    const seats = studentRecord.held.filter(isIn(term))
    if (/opens for you/.test(title) && !(opens !== undefined && opens > now)) found.push(title)
    if (/is open for you/.test(title) && !(opens !== undefined && opens <= now && now < term.addEndsAt))
      found.push(title)
    if (kind === 'plan' && (planned.length || seats.length)) found.push(title)
    if (kind === 'payment') {
      const past = /was due/.test(title) || when.startsWith('since')
      if (past !== term.paymentDueOn < today) found.push(`${title} (${term.paymentDueOn})`)
      if (!seats.length) found.push(`${title}, without a seat`)
    }
    if (kind === 'grades' && !(term.end < today && ungraded(studentRecord, term) > 0)) found.push(title)
    if ((kind === 'sign-off' || kind === 'changed') && now >= term.addEndsAt) found.push(`${title}, too late`)
  }
  if (!todo.length) {
    const said = nothingToDo({ work, studentRecord })
    const term = work?.term
    const left =
      term &&
      studentRecord.route.courses
        .filter(isIn(term))
        .some((p) => !studentRecord.held.some((h) => h.course === p.course && isIn(term)(h)))
    if (/every course/.test(said) && left) found.push(said)
  }
  return found
}

function faultsOfDates({ studentRecord, reading, work, now, today }: Told): string[] {
  const { zone } = world.catalogContext
  const rows = datesAhead(studentRecord, reading, { work: work?.term.code, zone, now, most: 99 })
  return rows.flatMap(({ on, what }) => {
    const late =
      on < today || (/opens for you/.test(what) && !studentRecord.openings.some((one) => one.opens >= now))
    const term = world.catalogContext.terms.find((one) => what.includes(one.name))!
    const ended =
      (/to add/.test(what) && now >= term.addEndsAt) || (/to drop/.test(what) && now >= term.dropEndsAt)
    return late || ended ? [`${on}: ${what}`] : []
  })
}

it('holds what it says, for every student on every day', { timeout: 1_200_000 }, () => {
  const found = new Map<string, string>()
  let told = 0
  const all = instants()
  expect(all.length).toBeGreaterThan(200)
  studentRecords.forEach((studentRecord, i) => {
    // Each student at other instants, so that a sample sees all of both.
    for (const [n, now] of all.entries()) {
      if (!LONG && (n + 7 * i) % EACH) continue
      told++
      for (const fault of faults(tell(studentRecord, now)))
        if (!found.has(fault))
          found.set(fault, `${studentRecord.student.name}, ${new Date(now).toISOString()}`)
    }
  })
  expect(told).toBeGreaterThan((all.length * 300) / (LONG ? 1 : EACH))
  expect([...found].slice(0, 20)).toEqual([])
})
