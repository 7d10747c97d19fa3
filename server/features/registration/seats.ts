/** What one group of lines comes to: the decision as of now, the seats or a place in line, the log. The student's row is locked. */
import type { CourseCode, SectionCode, StudentId, TermCode } from '#core/ids'
import {
  decide,
  choiceOf,
  decideLine,
  givenUpFor,
  pickedOptions,
  seatRefusal,
  type LineDecision,
  type Placing,
  type RegistrationFacts
} from '#core/registration'
import type { Instant } from '#core/time'
import { sectionsOf, type Option, type Section } from '#core/week'
import { all, type Transaction } from '#server/db/connect'
import type { ChargesSoFar } from '#server/features/charges/ledger'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { bringUpToDate, type KnownRecord } from '#server/features/record/knownRecord'
import { asLocked, coursesOf, familiesOf, lockSections } from '#server/features/sections/sections'
import type { Who } from '#shared/accounts/responses'
import { termOf, type Shelf } from '#shared/catalog/shelf'
import { withChosenCredits } from '#shared/week/termWeek'
import type { HeldWithParts, StudentRecord } from '#shared/record/responses'
import { fallbacksOf } from '#shared/registration/fallbacks'
import { waitingIn } from '#shared/registration/registering'
import type { ReceiptLine } from '#shared/registration/responses'
import { dropSeats } from './drops'
import { factsWith } from './facts'
import { joinLine, leaveLines } from './lines'
import { giveBack, idsOf, takeSections } from './heldSeats'
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
  // What goes through only together has no fallbacks: another section of one would not bring the other.
  if (!(await bringUpToDate(tx, known))) known.charges.assessed = undefined
  known.charges.next = known.charges.assessed
  known.taken = undefined
  const { step, offer, fallbacks } = await lockFor({ tx, clock, who }, of, known, group, shelf)
  const fresh = (options: readonly Option[]) => {
    const found = pickedOptions(offer, options.flatMap(codesOf))
    return options.map((option) => found.get(option.course) ?? option)
  }
  const options = fresh(group)
  const decisions = decide(step.facts, options)
  if (decisions.every((decision) => !decision.refusals.length)) {
    const lines = await register(step, options)
    if (isPlain(step, lines)) known.taken = { options, logged: step.logged }
    return lines
  }
  const refused = options.map((option, i) => refusedLine(option, decisions[i]!.refusals))
  for (const [i, one] of fallbacks.entries()) {
    const line =
      one.kind === 'sections'
        ? await registerInstead(step, choiceOf(offer, one.sections), group[0]!.course)
        : await waitInstead(step, options[0]!, decisions[0]!)
    // What stood in the way of the first choice stays told.
    if (line) return [{ ...line[0]!, fallback: i + 1, refusals: decisions[0]!.refusals }, ...line.slice(1)]
  }
  return refused
}

/** Locks what a group and its fallbacks are about, and reads how it stands then. `offer` is as the student finds it. */
async function lockFor(
  { tx, clock, who }: { tx: Transaction; clock: () => Promise<Instant>; who: Who },
  { student, term }: RunUnderWay,
  { record: picture, placing, offer: known }: KnownForRun,
  group: readonly Option[],
  shelf: Shelf
) {
  const courses = group.map((option) => option.course)
  const fallbacks =
    group.length === 1 && !placing ? fallbacksOf(picture.fallbacks, term, courses[0]!).list : []
  const named = fallbacks.flatMap((one) => (one.kind === 'sections' ? one.sections : []))
  const offered = picture.offers.some((one) => one.term === term)
    ? await openOffers(tx, student, term, [...courses, ...(await coursesOf(tx, named))])
    : []
  const wanted = [...group.flatMap(codesOf), ...named]
  const givenUp = picture.fallbacks.flatMap((one) =>
    one.term === term && one.givingUp && !placing && courses.includes(one.course) ? [one.givingUp] : []
  )
  const heldOf = new Map(
    picture.held
      .filter((seat) => seat.term === term && [...courses, ...givenUp].includes(seat.course))
      .flatMap((seat) => [seat.section, ...seat.components].map((code) => [code, seat]))
  )
  const read = wanted.every((code) => known.some((one) => one.code === code))
    ? known
    : withChosenCredits(await familiesOf(tx, wanted as SectionCode[]), picture.fallbacks, term)
  const locked = await lockSections(tx, [...wanted, ...heldOf.keys()])
  const now = await clock()
  const sections = await asLocked(tx, read, locked)
  const facts = factsWith(picture, shelf, { term, now, offer: sections, placing })
  const seats = locked.flatMap(({ id, code }) => {
    const seat = heldOf.get(code as SectionCode)
    return seat ? [{ id, code, course: seat.course, credits: seat.credits }] : []
  })
  // The seat that an offer holds is theirs.
  const theirs = new Set(offered.flatMap((one) => one.seats.map((seat) => seat.code)))
  const offer = sections.map((one) => (theirs.has(one.code) ? { ...one, taken: one.taken - 1 } : one))
  const step: Step = {
    tx,
    shelf,
    who,
    student,
    term,
    now,
    picture,
    facts,
    seats,
    locked,
    offered,
    logged: []
  }
  return { step, offer, fallbacks }
}

/** What was read of a student for a run, before anything was locked for it; it follows what the run does. */
export interface KnownForRun extends KnownRecord {
  /** The sections that are picked or named, with their components. */
  offer: readonly Section[]
  charges: ChargesSoFar
  /** What the last group took, where it did nothing else. */
  taken: { options: readonly Option[]; logged: readonly number[] } | undefined
  /** Where an office places the student, with what it sets aside. */
  placing: Placing | undefined
}

/** Whether seats were taken and nothing else of the record is another one by it. */
const isPlain = ({ picture, offered }: Step, lines: readonly ReceiptLine[]): boolean =>
  lines.every((line) => line.outcome === 'registered') &&
  !offered.length &&
  !picture.waiting.length &&
  !picture.drafts.some((week) => week.exchanges.length)

/** Takes into the record what the last group took, once that is through. */
export function takeIn(known: KnownForRun, term: TermCode): void {
  if (!known.taken) return
  const { options, logged } = known.taken
  const seats = options.map(({ course, main, components }): HeldWithParts => ({
    course,
    term,
    section: main.code,
    credits: main.credits,
    placedByOffice: known.placing !== undefined,
    campus: main.campus,
    mode: main.mode,
    categories: main.categories,
    components: components.map((one) => one.code)
  }))
  known.record = { ...known.record, held: [...known.record.held, ...seats] }
  known.own.push(...logged)
  known.taken = undefined
}

/** What a group is decided and registered with. */
interface Step {
  tx: Transaction
  shelf: Shelf
  who: Who
  student: StudentId
  term: TermCode
  now: Instant
  picture: StudentRecord
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
async function registerInstead(
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

async function waitInstead(
  { tx, shelf, who, student, term, now, picture, locked }: Step,
  option: Option,
  decision: LineDecision
): Promise<ReceiptLine[] | undefined> {
  const policy = termOf(shelf, term).line
  const { refusals, lines } = decideLine({ now, policy, waiting: waitingIn(picture, term) }, option, decision)
  if (refusals.length) return undefined
  const joined = locked.filter((row) => (lines as string[]).includes(row.code))
  return [await joinLine(tx, who, { student, term, now }, option, joined)]
}

/**
 * Takes the seats of options that the decision lets in, gives back those exchanged, and logs both. What is given up for
 * one has a line of its own.
 */
async function register(step: Step, options: readonly Option[]): Promise<ReceiptLine[]> {
  const { tx, shelf, who, student, term, now, picture, facts, seats, locked, offered } = step
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
  if (picture.drafts.some((week) => week.exchanges.length)) await settlePicks(tx, student, taken)
  if (picture.waiting.length) await leaveLines(tx, student, idsOf(taken))
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
  return [...lines, ...(await dropSeats(tx, who, { student, term }, givenUp, shelf, { givenUpAt: now }))]
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
