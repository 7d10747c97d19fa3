/** What one group of lines comes to: the decision as of now, the seats or a place in line, the log. The student's row is locked. */
import type { CourseCode, SectionCode, StudentId, TermCode } from '#core/ids'
import {
  decide,
  choiceOf,
  decideLine,
  pickedOptions,
  seatRefusal,
  type LineDecision,
  type RegistrationFacts
} from '#core/registration'
import type { Instant } from '#core/time'
import { sectionsOf, type Option, type Section } from '#core/week'
import { all, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { recordNow, type KnownRecord } from '#server/features/record/knownRecord'
import { asLocked, coursesOf, familiesOf, lockSections } from '#server/features/sections/sections'
import type { Who } from '#shared/accounts/responses'
import { termOf, type Shelf } from '#shared/catalog/shelf'
import type { StudentRecord } from '#shared/record/responses'
import { fallbacksOf } from '#shared/registration/fallbacks'
import { waitingIn } from '#shared/registration/registering'
import type { ReceiptLine } from '#shared/registration/responses'
import { factsWith } from './facts'
import { joinLine, leaveLines } from './lines'
import { endOffer, openOffers, type OpenOffer } from './openOffers'
import { codesOf, lineOf, refusedLine, type RunUnderWay } from './receiptLines'
import { eq, inArray, sql } from 'drizzle-orm'

/** One choice after the other, until one goes through: what is picked, then the fallbacks of a line that is alone. */
export async function takeSeats(
  { tx, clock, who }: { tx: Transaction; clock: () => Promise<Instant>; who: Who },
  of: RunUnderWay,
  known: KnownForRun,
  group: readonly Option[],
  shelf: Shelf
): Promise<ReceiptLine[]> {
  const { student, term } = of
  const courses = group.map((option) => option.course)
  // What goes through only together has no fallbacks: another section of one would not bring the other.
  const picture = await recordNow(tx, known)
  const fallbacks = group.length === 1 ? fallbacksOf(picture.fallbacks, term, courses[0]!).list : []
  const named = fallbacks.flatMap((one) => (one.kind === 'sections' ? one.sections : []))
  const offered = picture.offers.some((one) => one.term === term)
    ? await openOffers(tx, student, term, [...courses, ...(await coursesOf(tx, named))])
    : []
  const wanted = [...group.flatMap(codesOf), ...named]
  const heldOf = new Map(
    picture.held
      .filter((seat) => seat.term === term && courses.includes(seat.course))
      .flatMap(({ course, section, components }) => [section, ...components].map((code) => [code, course]))
  )
  const read = wanted.every((code) => known.offer.some((one) => one.code === code))
    ? known.offer
    : await familiesOf(tx, wanted as SectionCode[])
  const locked = await lockSections(tx, [...wanted, ...heldOf.keys()])
  const now = await clock()
  const sections = await asLocked(tx, read, locked)
  const facts = factsWith(picture, shelf, { term, now, offer: sections })
  const seats = locked.flatMap(({ id, code }) => {
    const course = heldOf.get(code as SectionCode)
    return course ? [{ id, code, course }] : []
  })
  // The seat that an offer holds is theirs.
  const theirs = new Set(offered.flatMap((one) => one.seats.map((seat) => seat.code)))
  const offer = sections.map((one) => (theirs.has(one.code) ? { ...one, taken: one.taken - 1 } : one))
  const step: Step = { tx, who, student, term, now, picture, facts, seats, locked, offered }
  const fresh = (options: readonly Option[]) => {
    const found = pickedOptions(offer, options.flatMap(codesOf))
    return options.map((option) => found.get(option.course) ?? option)
  }
  const options = fresh(group)
  const decisions = decide(facts, options)
  if (decisions.every((decision) => !decision.refusals.length)) return register(step, options)
  const refused = options.map((option, i) => refusedLine(option, decisions[i]!.refusals))
  for (const [i, one] of fallbacks.entries()) {
    const line =
      one.kind === 'sections'
        ? await registerInstead(step, choiceOf(offer, one.sections), courses[0]!)
        : await waitInstead(step, shelf, picture, options[0]!, decisions[0]!)
    // What stood in the way of the first choice stays told.
    if (line) return [{ ...line, fallback: i + 1, refusals: decisions[0]!.refusals }]
  }
  return refused
}

/** What was read of a student for a run, before anything was locked for it. */
export interface KnownForRun extends KnownRecord {
  /** The sections that are picked or named, with their components. */
  offer: readonly Section[]
}

/** What a group is decided and registered with. */
interface Step {
  tx: Transaction
  who: Who
  student: StudentId
  term: TermCode
  now: Instant
  picture: StudentRecord
  facts: RegistrationFacts
  /** Seats that are held of the courses. */
  seats: readonly { id: number; code: string; course: string }[]
  locked: readonly { id: number; code: string }[]
  /** Offers that are open to the student for the courses. */
  offered: readonly OpenOffer[]
}

/** Other sections of the course, or of another one; a seat that is held is given up for its own course only. */
async function registerInstead(
  step: Step,
  option: Option | undefined,
  asked: CourseCode
): Promise<ReceiptLine | undefined> {
  const isOther = option?.course !== asked
  if (!option || (isOther && step.seats.length)) return undefined
  const [decision] = decide(step.facts, [option])
  if (decision!.refusals.length) return undefined
  const [line] = await register(step, [option])
  return isOther ? { ...line!, insteadOf: asked } : line
}

async function waitInstead(
  { tx, who, student, term, now, locked }: Step,
  shelf: Shelf,
  picture: StudentRecord,
  option: Option,
  decision: LineDecision
): Promise<ReceiptLine | undefined> {
  const policy = termOf(shelf, term).line
  const { refusals, lines } = decideLine({ now, policy, waiting: waitingIn(picture, term) }, option, decision)
  if (refusals.length) return undefined
  const joined = locked.filter((row) => (lines as string[]).includes(row.code))
  return joinLine(tx, who, { student, term, now }, option, joined)
}

/** Takes the seats of options that the decision lets in, gives back those exchanged, and logs both. */
async function register(step: Step, options: readonly Option[]): Promise<ReceiptLine[]> {
  const { tx, who, student, term, now, picture, seats, locked, offered } = step
  const held = new Set<string>(seats.map((seat) => seat.code))
  const wanted = new Set<string>(options.flatMap(codesOf))
  const added = locked.filter((row) => wanted.has(row.code) && !held.has(row.code))
  const gone = seats.filter((seat) => !wanted.has(seat.code))
  await giveBack(tx, student, gone)
  await addSeats(step, options, added)
  const taking = offered.filter((one) => one.seats.some((seat) => wanted.has(seat.code)))
  const kept = taking.flatMap((one) => one.seats).filter((seat) => added.some((row) => row.id === seat.id))
  await takeSections(tx, { student, by: who.id, now }, added, kept)
  for (const { row } of taking) {
    await endOffer(tx, row, 'accepted', now)
    const after = { term, offer: row.id, answer: 'taken by a run' }
    await logEvent(tx, { at: now, account: who.id, student, action: 'offer.answered', after })
  }
  const taken = locked.filter((row) => wanted.has(row.code))
  if (picture.drafts.some((week) => week.exchanges.length)) await settlePicks(tx, student, taken)
  if (picture.waiting.length) await leaveLines(tx, student, idsOf(taken))
  const lines = options.map((option): ReceiptLine => {
    const gaveBack = gone.filter((seat) => seat.course === option.course).map((seat) => seat.code)
    return lineOf(option.course, gaveBack.length ? 'exchanged' : 'registered', {
      sections: codesOf(option),
      gaveBack
    })
  })
  for (const { course, sections, gaveBack, outcome } of lines) {
    await logEvent(tx, {
      at: now,
      account: who.id,
      student,
      action: outcome === 'exchanged' ? 'registration.exchanged' : 'registration.made',
      ...(gaveBack.length ? { before: { term, course, sections: gaveBack } } : {}),
      after: { term, course, sections }
    })
  }
  return lines
}

/** A permission for a full section adds a seat to it: nobody in line and nobody for whom seats are kept loses one. */
async function addSeats(
  { tx, who, student, term, now, facts }: Step,
  options: readonly Option[],
  added: readonly { id: number; code: string }[]
) {
  const full = options
    .flatMap(sectionsOf)
    .filter((section) => seatRefusal(facts, section) && added.some((row) => row.code === section.code))
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

export const idsOf = (rows: readonly { id: number }[]) => rows.map((row) => row.id)

/**
 * Gives seats back; the sections' rows are locked. A seat of a section for which somebody waits is kept for the line and
 * is never free in between.
 */
export async function giveBack(
  tx: Transaction,
  student: StudentId,
  sections: readonly { id: number }[]
): Promise<void> {
  if (!sections.length) return
  const ids = idsOf(sections)
  await tx
    .delete(t.registration)
    .where(all(eq(t.registration.studentId, student), inArray(t.registration.sectionId, ids)))
  await tx
    .update(t.section)
    .set({
      taken: sql`${t.section.taken} - 1`,
      offered: sql`${t.section.offered} + if(${t.section.waiting} > 0, 1, 0)`
    })
    .where(inArray(t.section.id, ids))
}

/** Takes seats; the sections' rows are locked. `held` are seats that an offer holds already. */
export async function takeSections(
  tx: Transaction,
  { student, by, now }: { student: StudentId; by: number; now: Instant },
  sections: readonly { id: number }[],
  held: readonly { id: number }[] = []
): Promise<void> {
  if (!sections.length) return
  if (held.length)
    await tx
      .update(t.section)
      .set({ offered: sql`${t.section.offered} - 1` })
      .where(inArray(t.section.id, idsOf(held)))
  await tx
    .update(t.section)
    .set({ taken: sql`${t.section.taken} + 1` })
    .where(inArray(t.section.id, idsOf(sections)))
  const registeredAt = new Date(now)
  await tx
    .insert(t.registration)
    .values(idsOf(sections).map((sectionId) => ({ studentId: student, sectionId, registeredAt, byId: by })))
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
