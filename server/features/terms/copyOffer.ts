/** The offer of a term as it was in an earlier one: sections with their parts, hours, rooms, instructors and rules. */
import { asc, eq, inArray } from 'drizzle-orm'
import { daysLater, wholeWeeksBetween } from '#core/calendar'
import { usuallyRuns } from '#core/catalog'
import { courseCode, type TermCode } from '#core/ids'
import type { Instant } from '#core/time'
import { all, type Reader, type Transaction } from '#server/db/connect'
import { groupBy } from '#server/db/groupBy'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { termRow } from '#server/features/catalog/catalog'
import { freeCodes } from '#server/features/sections/codes'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import { momentOf } from '#shared/catalog/context'
import type { OfferCopied } from '#shared/offices/terms'

type Row = typeof t.term.$inferSelect
type SectionRow = typeof t.section.$inferSelect

interface Copying {
  target: Row
  source: Row
  mains: SectionRow[]
  parts: SectionRow[]
  left: OfferCopied['left']
}

/** What would be copied. Courses that have sections already, or are not offered in such a term, are left out. */
async function copying(db: Reader, code: TermCode, from: TermCode): Promise<Copying> {
  const [target, source] = [await termRow(db, code), await termRow(db, from)]
  const rows = await db
    .select({ section: t.section, course: t.course })
    .from(t.section)
    .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    .where(all(eq(t.section.termId, source.id), eq(t.section.cancelled, false)))
    .orderBy(asc(t.course.code), asc(t.section.number))
  if (!rows.length)
    throw new Refused(422, 'noOffer', `${source.name} has no sections to copy.`, [
      { field: 'from', message: 'has to be a term with sections' }
    ])
  const there = await db
    .selectDistinct({ course: t.section.courseId })
    .from(t.section)
    .where(all(eq(t.section.termId, target.id), eq(t.section.cancelled, false)))
  const offered = new Set(there.map((one) => one.course))
  const left: OfferCopied['left'] = []
  const taken = [...groupBy(rows, (row) => row.course.id).values()].filter(([{ course } = rows[0]!]) => {
    // What ran in such a season once may again; what runs every other year does not.
    const seasons = source.season === target.season ? [target.season] : course.seasons
    const runs = usuallyRuns({ seasons, years: course.years }, target)
    const why = offered.has(course.id) ? ('offered' as const) : runs ? undefined : ('pattern' as const)
    if (why) left.push({ course: courseCode(course.code), why })
    return !why
  })
  const sections = taken.flat().map((row) => row.section)
  const mains = sections.filter((one) => one.parentId === null)
  const known = new Set(mains.map((one) => one.id))
  const parts = sections.filter((one) => one.parentId !== null && known.has(one.parentId))
  return { target, source, mains, parts, left }
}

const figuresOf = ({ mains, left }: Copying): OfferCopied => ({
  courses: new Set(mains.map((one) => one.courseId)).size,
  sections: mains.length,
  left
})

/** @throws Refused where there is nothing to copy */
export async function lookAtCopy(db: Reader, code: TermCode, from: TermCode): Promise<OfferCopied> {
  return figuresOf(await copying(db, code, from))
}

/**
 * Copies the offer of an earlier term. Classes keep weekdays, hours, rooms and instructors; who held a seat, stood in line
 * or was permitted is not copied.
 *
 * @throws Refused where a session is missing, or the term is over
 */
export async function copyOffer(
  tx: Transaction,
  who: Who,
  { term, from }: { term: TermCode; from: TermCode },
  { now, zone }: { now: Instant; zone: string }
): Promise<OfferCopied> {
  // Whoever copies at the same time waits here.
  await tx.select({ id: t.term.id }).from(t.term).where(eq(t.term.code, term)).for('update')
  const found = await copying(tx, term, from)
  const { target, source, mains, parts } = found
  if (momentOf(now, zone).today > target.endsOn)
    throw new Refused(422, 'termOver', `${target.name} is over; nothing is offered in it any more.`)
  const rows = [...mains, ...parts]
  if (rows.length) {
    const sessions = await sessionsFor(tx, target, source, rows)
    const codes = await freeCodes(tx, rows.length)
    const newCode = new Map(rows.map((one, i) => [one.id, codes[i]!]))
    const numbers = await freeNumbers(tx, target, mains, parts)
    const newId = new Map<number, number>()
    for (const some of [mains, parts]) {
      if (!some.length) continue
      await tx.insert(t.section).values(
        some.map(({ id, ...one }) => ({
          ...one,
          ...{
            code: newCode.get(id)!,
            number: numbers.get(id)!,
            termId: target.id,
            sessionId: sessions.get(one.sessionId)!.id
          },
          parentId: one.parentId === null ? null : newId.get(one.parentId)!,
          ...{ taken: 0, offered: 0, takenFormerly: 0, waiting: 0 }
        }))
      )
      const made = await tx
        .select({ id: t.section.id, code: t.section.code })
        .from(t.section)
        .where(
          inArray(
            t.section.code,
            some.map((one) => newCode.get(one.id)!)
          )
        )
      const idOf = new Map(made.map((one) => [one.code, one.id]))
      for (const one of some) newId.set(one.id, idOf.get(newCode.get(one.id)!)!)
    }
    await copyClasses(tx, { target, source }, rows, sessions, newId)
  }
  const figures = figuresOf(found)
  await logEvent(tx, {
    ...{ at: now, account: who.id, student: null, action: 'term.offerCopied' },
    after: { term, from, courses: figures.courses, sections: figures.sections }
  })
  return figures
}

/** The numbers that they have, or where a section that was cancelled has one, the next; a part goes with its section. */
async function freeNumbers(
  tx: Transaction,
  target: Row,
  mains: readonly SectionRow[],
  parts: readonly SectionRow[]
): Promise<Map<number, string>> {
  const there = await tx
    .select({ course: t.section.courseId, number: t.section.number })
    .from(t.section)
    .where(eq(t.section.termId, target.id))
  const taken = groupBy(there, (row) => row.course)
  const found = new Map<number, string>()
  for (const [course, own] of groupBy(mains, (one) => one.courseId)) {
    const used = new Set((taken.get(course) ?? []).map((row) => row.number))
    let highest = Math.max(
      ...[...used, ...own.map((one) => one.number)].map((one) => Number.parseInt(one, 10) || 0)
    )
    for (const main of own) {
      const ofMain = parts.filter((one) => one.parentId === main.id)
      const isFree = [main, ...ofMain].every((one) => !used.has(one.number))
      const number = isFree ? main.number : String(++highest).padStart(2, '0')
      found.set(main.id, number)
      for (const [i, one] of ofMain.entries())
        found.set(one.id, isFree ? one.number : `${number}${String.fromCharCode(65 + i)}`)
    }
  }
  return found
}

type Sessions = Map<number, { id: number; was: Span; is: Span }>
interface Span {
  start: string
  end: string
}

/** For the sessions that the sections have, those of the same code. @throws Refused */
async function sessionsFor(
  tx: Transaction,
  target: Row,
  source: Row,
  rows: readonly SectionRow[]
): Promise<Sessions> {
  const spanOf = (one: typeof t.session.$inferSelect): Span => ({ start: one.startsOn, end: one.endsOn })
  const there = await tx.select().from(t.session).where(eq(t.session.termId, target.id))
  const used = new Set(rows.map((one) => one.sessionId))
  const found: Sessions = new Map()
  for (const was of await tx.select().from(t.session).where(eq(t.session.termId, source.id))) {
    if (!used.has(was.id)) continue
    const is = there.find((one) => one.code === was.code)
    if (!is)
      throw new Refused(
        422,
        'noSession',
        `${target.name} has no session ${was.code}, in which sections of ${source.name} are held.`,
        [{ field: 'from', message: `has to be a term of which the sessions are there: ${was.code} is not` }]
      )
    found.set(was.id, { id: is.id, was: spanOf(was), is: spanOf(is) })
  }
  return found
}

async function copyClasses(
  tx: Transaction,
  { target, source }: { target: Row; source: Row },
  rows: readonly SectionRow[],
  sessions: Sessions,
  newId: ReadonlyMap<number, number>
): Promise<void> {
  const ids = rows.map((one) => one.id)
  const sessionOf = new Map(rows.map((one) => [one.id, sessions.get(one.sessionId)!]))
  const shift = wholeWeeksBetween(source.startsOn, target.startsOn)
  const meetings = await tx.select().from(t.meeting).where(inArray(t.meeting.sectionId, ids))
  const moved = meetings.map(({ id: _, ...one }) => {
    const { was, is } = sessionOf.get(one.sectionId)!
    const day = (date: string) => into(daysLater(date, shift), is)
    return {
      ...one,
      sectionId: newId.get(one.sectionId)!,
      fromOn: one.fromOn === was.start ? is.start : day(one.fromOn),
      toOn: one.toOn === was.end ? is.end : day(one.toOn)
    }
  })
  if (moved.length) await tx.insert(t.meeting).values(moved)
  const teaching = await tx
    .select()
    .from(t.sectionInstructor)
    .where(inArray(t.sectionInstructor.sectionId, ids))
  if (teaching.length)
    await tx
      .insert(t.sectionInstructor)
      .values(teaching.map((one) => ({ ...one, sectionId: newId.get(one.sectionId)! })))
  const reserved = await tx.select().from(t.reservedSeats).where(inArray(t.reservedSeats.sectionId, ids))
  if (reserved.length)
    await tx
      .insert(t.reservedSeats)
      .values(reserved.map(({ id: _, ...one }) => ({ ...one, sectionId: newId.get(one.sectionId)! })))
}

/** The same weekday within a session. */
function into(date: string, { start, end }: Span): string {
  let found = date
  while (found > end) found = daysLater(found, -7)
  while (found < start) found = daysLater(found, 7)
  return found
}
