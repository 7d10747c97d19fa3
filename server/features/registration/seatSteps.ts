/** The steps by which a group has its seats: taken or waited for, given back, written and logged. */
import type { CourseCode, StudentId, TermCode } from '#core/ids'
import {
  decide,
  decideLine,
  givenUpFor,
  seatRefusal,
  type LineDecision,
  type RegistrationFacts
} from '#core/registration'
import type { Instant } from '#core/time'
import { sectionsOf, type Option } from '#core/week'
import { all, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import type { Who } from '#shared/accounts/responses'
import { termOf, type CatalogContext } from '#shared/catalog/context'
import type { StudentRecord } from '#shared/record/responses'
import { waitingIn } from '#shared/registration/registering'
import type { ReceiptLine } from '#shared/registration/responses'
import { dropSeats } from './drops'
import { joinLine, leaveLines } from './lines'
import { giveBack, idsOf, takeSections } from './heldSeats'
import { endOffer, type OpenOffer } from './openOffers'
import { codesOf, lineOf } from './receiptLines'
import { eq, inArray, sql } from 'drizzle-orm'

/** What a group is decided and registered with. */
export interface Step {
  tx: Transaction
  catalogContext: CatalogContext
  who: Who
  student: StudentId
  term: TermCode
  now: Instant
  studentRecord: StudentRecord
  facts: RegistrationFacts
  /** Seats that are held of the courses, and of those that are given up for them. */
  seats: readonly { id: number; code: string; course: string; credits: number }[]
  locked: readonly { id: number; code: string }[]
  /** Offers that are open to the student for the courses. */
  offered: readonly OpenOffer[]
  /** Entries of the log that are written on the way. */
  logged: number[]
}

/** Other sections of the course, or of another one; a seat that is held is given up for its own course only. */
export async function registerInstead(
  step: Step,
  option: Option | undefined,
  asked: CourseCode
): Promise<ReceiptLine[] | undefined> {
  const isOther = option?.course !== asked
  if (!option || (isOther && step.seats.some((seat) => seat.course === asked))) return undefined
  const [decision] = decide(step.facts, [option])
  if (decision!.refusals.length) return undefined
  const [line, ...rest] = await register(step, [option])
  return [isOther ? { ...line!, insteadOf: asked } : line!, ...rest]
}

export async function waitInstead(
  { tx, catalogContext, who, student, term, now, studentRecord, locked }: Step,
  option: Option,
  decision: LineDecision
): Promise<ReceiptLine[] | undefined> {
  const policy = termOf(catalogContext, term).line
  const { refusals, lines } = decideLine(
    { now, policy, waiting: waitingIn(studentRecord, term) },
    option,
    decision
  )
  if (refusals.length) return undefined
  const joined = locked.filter((row) => (lines as string[]).includes(row.code))
  return [await joinLine(tx, who, { student, term, now }, option, joined)]
}

/**
 * Takes the seats of options that the decision lets in, gives back those exchanged, and logs both. What is given up for
 * one has a line of its own.
 */
export async function register(step: Step, options: readonly Option[]): Promise<ReceiptLine[]> {
  const { tx, catalogContext, who, student, term, now, studentRecord, facts, seats, locked, offered } = step
  const held = new Set<string>(seats.map((seat) => seat.code))
  const wanted = new Set<string>(options.flatMap(codesOf))
  const added = locked.filter((row) => wanted.has(row.code) && !held.has(row.code))
  const own = new Set<string>(options.map((option) => option.course))
  const gone = seats.filter((seat) => own.has(seat.course) && !wanted.has(seat.code))
  await giveBack(tx, student, gone)
  const chosen = new Map(
    options.flatMap(({ main }) => (main.creditsRange ? [[main.code as string, main.credits] as const] : []))
  )
  const recredited = await setCredits(step, chosen)
  await addSeats(step, options, added)
  const taking = offered.filter((one) => one.seats.some((seat) => wanted.has(seat.code)))
  const kept = taking.flatMap((one) => one.seats).filter((seat) => added.some((row) => row.id === seat.id))
  await takeSections(
    tx,
    { student, by: who.id, now, placedByOffice: facts.placing !== undefined },
    added.map(({ id, code }) => ({ id, credits: chosen.get(code) })),
    kept
  )
  for (const { row } of taking) {
    await endOffer(tx, row, 'accepted', now)
    const after = { term, offer: row.id, answer: 'taken by a run' }
    await logEvent(tx, { at: now, account: who.id, student, action: 'offer.answered', after })
  }
  const taken = locked.filter((row) => wanted.has(row.code))
  if (studentRecord.drafts.some((week) => week.exchanges.length)) await settlePicks(tx, student, taken)
  if (studentRecord.waiting.length) await leaveLines(tx, student, idsOf(taken))
  const lines = options.map((option): ReceiptLine => {
    const gaveBack = gone.filter((seat) => seat.course === option.course).map((seat) => seat.code)
    const isExchange = gaveBack.length > 0 || recredited.has(option.main.code)
    return lineOf(option.course, isExchange ? 'exchanged' : 'registered', {
      sections: codesOf(option),
      gaveBack,
      credits: chosen.get(option.main.code) ?? null
    })
  })
  for (const { course, sections, gaveBack, outcome, credits } of lines) {
    const entry = await logEvent(tx, {
      at: now,
      account: who.id,
      student,
      action: outcome === 'exchanged' ? 'registration.exchanged' : 'registration.made',
      ...(gaveBack.length ? { before: { term, course, sections: gaveBack } } : {}),
      after: { term, course, sections, ...(credits === null ? {} : { credits }) }
    })
    step.logged.push(entry)
  }
  const others = new Set(options.flatMap((option) => givenUpFor(facts, option.course) ?? []))
  const givenUp = [...others].filter((course) => !own.has(course))
  if (!givenUp.length) return lines
  return [
    ...lines,
    ...(await dropSeats(tx, who, { student, term }, givenUp, catalogContext, { givenUpAt: now }))
  ]
}

/** Writes the credits that are chosen anew for seats that stay. @returns their codes */
async function setCredits(
  { tx, student, seats }: Step,
  chosen: ReadonlyMap<string, number>
): Promise<Set<string>> {
  const other = seats.filter((seat) => chosen.has(seat.code) && chosen.get(seat.code) !== seat.credits)
  for (const { id, code } of other)
    await tx
      .update(t.registration)
      .set({ credits: chosen.get(code)! })
      .where(all(eq(t.registration.studentId, student), eq(t.registration.sectionId, id)))
  return new Set(other.map((seat) => seat.code))
}

/** A permission for a full section adds a seat to it: nobody in line and nobody for whom seats are kept loses one. */
async function addSeats(
  { tx, who, student, term, now, facts }: Step,
  options: readonly Option[],
  added: readonly { id: number; code: string }[]
) {
  const full = options
    .flatMap(sectionsOf)
    .filter(
      (section) =>
        seatRefusal(facts, section)?.code === 'full' && added.some((row) => row.code === section.code)
    )
  for (const { code, course, capacity } of full) {
    await tx
      .update(t.section)
      .set({ capacity: sql`${t.section.capacity} + 1` })
      .where(eq(t.section.code, code))
    await logEvent(tx, {
      at: now,
      account: who.id,
      student,
      action: 'section.seatAdded',
      before: { term, course, section: code, capacity },
      after: { term, course, section: code, capacity: capacity + 1 }
    })
  }
}

/** What is registered is picked like anything else from now on, and not to exchange a seat. */
async function settlePicks(tx: Transaction, student: StudentId, sections: readonly { id: number }[]) {
  const drafts = tx.select({ id: t.draftWeek.id }).from(t.draftWeek).where(eq(t.draftWeek.studentId, student))
  const ids = sections.map((row) => row.id)
  await tx
    .update(t.pickedSection)
    .set({ exchange: false })
    .where(all(inArray(t.pickedSection.sectionId, ids), inArray(t.pickedSection.draftWeekId, drafts)))
}
