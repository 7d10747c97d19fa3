/** A section that an office moves to other hours: who is in it keeps the seat, and is told what it clashes with. */
import { eq } from 'drizzle-orm'
import { formatDayLetters } from '#core/formats'
import { termCode, type TermCode } from '#core/ids'
import type { Instant, Minutes, Weekday } from '#core/time'
import { clashesWith, type Section } from '#core/week'
import { inTransaction, type Database, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { factsOfOffer } from './facts'
import { campusNow } from '#server/gateways/clock'
import { forgetKept } from '#server/http/kept'
import type { Who } from '#shared/accounts/responses'
import type { CatalogContext } from '#shared/catalog/context'
import { sectionHours, sectionName } from '#shared/week/texts'
import { mustStayFree } from '#server/features/sections/clashes'
import { mustNotBeOver, mustPlan } from '#server/features/sections/planning'
import { sectionsByCode } from '#server/features/sections/sections'
import { lockChanged, instead } from './sectionChanges'

/** The days and hours at which a section meets from now on. */
export interface NewHours {
  days: readonly Weekday[]
  start: Minutes
  end: Minutes
  /** Whether it stays in its room, which has to be free then; yes where it is not said. */
  keepsRoom?: boolean
}

/** Moves a section, or a component, to other hours; who holds a seat keeps it, and is told what it clashes with. */
export async function moveSection(
  db: Database,
  who: Who,
  code: string,
  { days, start, end, keepsRoom = true }: NewHours,
  catalogContext: CatalogContext
): Promise<void> {
  const term = await inTransaction(db, async (tx) => {
    const found = await lockChanged(tx, code)
    await mustPlan(tx, who, found.course)
    const term = termCode(found.term.code)
    const now = await campusNow(tx)
    mustNotBeOver(found.term, now, catalogContext)
    const [was] = await sectionsByCode(tx, [found.code as Section['code']])
    const room = keepsRoom ? await roomOf(tx, found.id) : null
    const to = { days, start, end, from: found.session.startsOn, to: found.session.endsOn }
    await mustStayFree(tx, found, to, { room, catalogContext })
    await tx.delete(t.meeting).where(eq(t.meeting.sectionId, found.id))
    await tx.insert(t.meeting).values({
      sectionId: found.id,
      days: formatDayLetters(days),
      startsMin: start,
      endsMin: end,
      fromOn: found.session.startsOn,
      toOn: found.session.endsOn,
      roomId: room
    })
    const [is] = await sectionsByCode(tx, [found.code as Section['code']])
    await logEvent(tx, {
      at: now,
      account: who.id,
      student: null,
      action: 'section.moved',
      after: { term, course: found.course, code, ...hoursMoved(was!, is!) }
    })
    await tellMoved(tx, { who, catalogContext, now, term }, found, was!, is!)
    return term
  })
  forgetKept(db, `offer ${term}`)
}

const hoursMoved = (was: Section, is: Section) => ({
  section: sectionName(is),
  was: sectionHours(was),
  hours: sectionHours(is)
})

async function roomOf(tx: Transaction, section: number): Promise<number | null> {
  const [row] = await tx
    .select({ room: t.meeting.roomId })
    .from(t.meeting)
    .where(eq(t.meeting.sectionId, section))
    .limit(1)
  return row?.room ?? null
}

/** Tells everybody in a section that it has moved, what it clashes with now, and what they could have instead. */
async function tellMoved(
  tx: Transaction,
  {
    who,
    catalogContext,
    now,
    term
  }: { who: Who; catalogContext: CatalogContext; now: Instant; term: TermCode },
  found: Awaited<ReturnType<typeof lockChanged>>,
  was: Section,
  is: Section
): Promise<void> {
  const people = await tx
    .select({ student: t.registration.studentId })
    .from(t.registration)
    .where(eq(t.registration.sectionId, found.id))
  const ids = people.map((one) => one.student)
  for (const record of ids.length ? await readStudentRecords(tx, ids, 'self') : []) {
    const held = new Set<string>(record.held.flatMap((seat) => [seat.section, ...seat.components]))
    const week = record.sections.filter(
      (one) => one.term === term && held.has(one.code) && one.course !== found.course
    )
    const { holidays } = factsOfOffer(record, catalogContext, { term, now, course: found.course, offer: [] })
    const clashes = clashesWith({ course: found.course, sections: [is] }, week, holidays)
    const against = [...new Set(clashes.map((clash) => clash.with.course))]
    const about = { term, course: found.course, now, before: [was], gone: [was] }
    await logEvent(tx, {
      at: now,
      account: who.id,
      student: record.student.id,
      action: 'registration.moved',
      after: {
        ...{ term, course: found.course, against, ...hoursMoved(was, is) },
        instead: against.length ? await instead(tx, record, catalogContext, about) : null
      }
    })
  }
}
