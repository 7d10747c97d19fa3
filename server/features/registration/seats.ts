/** What one group of lines comes to: the decision as of now, the seats or a place in line, the log. The student's row is locked. */
import type { SectionCode, TermCode } from '#core/ids'
import { decide, choiceOf, pickedOptions, type Placing } from '#core/registration'
import type { Instant } from '#core/time'
import type { Option, Section } from '#core/week'
import type { Transaction } from '#server/db/connect'
import type { ChargesSoFar } from '#server/features/charges/ledger'
import { bringUpToDate, type KnownRecord } from '#server/features/record/knownRecord'
import { asLocked, coursesOf, familiesOf, lockSections } from '#server/features/sections/sections'
import type { Who } from '#shared/accounts/responses'
import type { CatalogContext } from '#shared/catalog/context'
import { withChosenCredits } from '#shared/week/termWeek'
import type { HeldWithParts } from '#shared/record/responses'
import { fallbacksOf } from '#shared/registration/fallbacks'
import type { ReceiptLine } from '#shared/registration/responses'
import { factsWith } from './facts'
import { openOffers } from './openOffers'
import { codesOf, refusedLine, type RunUnderWay } from './receiptLines'
import { type Step, registerInstead, waitInstead, register } from './seatSteps'

/** One choice after the other, until one goes through: what is picked, then the fallbacks of a line that is alone. */
export async function takeSeats(
  { tx, clock, who }: { tx: Transaction; clock: () => Promise<Instant>; who: Who },
  of: RunUnderWay,
  known: KnownForRun,
  group: readonly Option[],
  catalogContext: CatalogContext
): Promise<ReceiptLine[]> {
  // What goes through only together has no fallbacks: another section of one would not bring the other.
  if (!(await bringUpToDate(tx, known))) known.charges.assessed = undefined
  known.charges.next = known.charges.assessed
  known.taken = undefined
  const { step, offer, fallbacks } = await lockFor({ tx, clock, who }, of, known, group, catalogContext)
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
  { record: studentRecord, placing, offer: known }: KnownForRun,
  group: readonly Option[],
  catalogContext: CatalogContext
) {
  const courses = group.map((option) => option.course)
  const fallbacks =
    group.length === 1 && !placing ? fallbacksOf(studentRecord.fallbacks, term, courses[0]!).list : []
  const named = fallbacks.flatMap((one) => (one.kind === 'sections' ? one.sections : []))
  const offered = studentRecord.offers.some((one) => one.term === term)
    ? await openOffers(tx, student, term, [...courses, ...(await coursesOf(tx, named))])
    : []
  const wanted = [...group.flatMap(codesOf), ...named]
  const givenUp = studentRecord.fallbacks.flatMap((one) =>
    one.term === term && one.givingUp && !placing && courses.includes(one.course) ? [one.givingUp] : []
  )
  const heldOf = new Map(
    studentRecord.held
      .filter((seat) => seat.term === term && [...courses, ...givenUp].includes(seat.course))
      .flatMap((seat) => [seat.section, ...seat.components].map((code) => [code, seat]))
  )
  const read = wanted.every((code) => known.some((one) => one.code === code))
    ? known
    : withChosenCredits(await familiesOf(tx, wanted as SectionCode[]), studentRecord.fallbacks, term)
  const locked = await lockSections(tx, [...wanted, ...heldOf.keys()])
  const now = await clock()
  const sections = await asLocked(tx, read, locked)
  const facts = factsWith(studentRecord, catalogContext, { term, now, offer: sections, placing })
  const seats = locked.flatMap(({ id, code }) => {
    const seat = heldOf.get(code as SectionCode)
    return seat ? [{ id, code, course: seat.course, credits: seat.credits }] : []
  })
  // The seat that an offer holds is theirs.
  const theirs = new Set(offered.flatMap((one) => one.seats.map((seat) => seat.code)))
  const offer = sections.map((one) => (theirs.has(one.code) ? { ...one, taken: one.taken - 1 } : one))
  const step: Step = {
    tx,
    catalogContext,
    who,
    student,
    term,
    now,
    studentRecord,
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
const isPlain = ({ studentRecord, offered }: Step, lines: readonly ReceiptLine[]): boolean =>
  lines.every((line) => line.outcome === 'registered') &&
  !offered.length &&
  !studentRecord.waiting.length &&
  !studentRecord.drafts.some((week) => week.exchanges.length)

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
