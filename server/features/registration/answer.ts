/** The answer to an offered seat: taken with all checks as of now, also for a course that is given up for it, or declined. */
import { asc, eq, inArray } from 'drizzle-orm'
import type { CourseCode, SectionCode, StudentId, TermCode } from '#core/ids'
import { afterDrop, decide, decideDrop, pickedOptions } from '#core/registration'
import type { Refusal } from '#core/findings'
import type { Instant } from '#core/time'
import { all, inTransaction, type Database, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import { keyUsed } from '#server/db/madeChange'
import * as t from '#server/db/schema/index'
import { settleCharges } from '#server/features/charges/ledger'
import { lockStudent } from '#server/features/record/lock'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { familiesOf } from '#server/features/sections/sections'
import { campusNow } from '#server/gateways/clock'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import type { CatalogContext } from '#shared/catalog/context'
import { isSeat } from '#shared/registration/outcomes'
import type { Receipt, ReceiptLine } from '#shared/registration/responses'
import { dropSeats } from './drops'
import { factsOfOffer } from './facts'
import { endOffer, namesOf } from './openOffers'
import { insertReceipt, lineOf } from './receiptLines'
import { receiptOfKey } from './run'
import { giveBack, idsOf, seatsOf, takeSections } from './heldSeats'
import { readReceipts } from './sheet'

export interface OfferAnswer {
  answer: 'accept' | 'decline'
  /** Courses given up in the same step. */
  givingUp: CourseCode[]
  key?: string | undefined
}

/**
 * Answers an offer, once for its key, and says in a receipt what came of it. What is refused leaves the offer open for as
 * long as it stands.
 */
export function answerOffer(
  db: Database,
  who: Who,
  student: StudentId,
  id: number,
  { answer, givingUp, key }: OfferAnswer,
  catalogContext: CatalogContext
): Promise<Receipt> {
  return inTransaction(db, async (tx) => {
    await lockStudent(tx, student)
    const [found] = await tx
      .select()
      .from(t.seatOffer)
      .where(all(eq(t.seatOffer.id, id), eq(t.seatOffer.studentId, student)))
      .for('update')
    if (!found) throw new Refused(404, 'noOffer', 'There is no such offer for you.')
    const names = await namesOf(tx, found)
    const { term } = names
    const receiptOf = async (receipt: number) =>
      (await readReceipts(tx, student, term)).find((one) => one.id === receipt)!
    if (key !== undefined) {
      const before = await receiptOfKey(tx, student, key)
      if (before && !(await isAnswer(tx, before.id, found.courseId))) throw keyUsed()
      if (before) return receiptOf(before.id)
    }
    const now = await campusNow(tx)
    const offer = { ...found, ...names }
    const lines =
      answer === 'decline'
        ? await decline(tx, who, student, offer, now)
        : await accept(tx, who, student, offer, givingUp, catalogContext, now)
    if (lines.some((line) => isSeat(line.outcome)))
      await settleCharges(tx, { student, term, by: who.id, now })
    const about = { student, term: offer.termId, by: who.id, key: key ?? null, now, ended: true }
    return receiptOf(await insertReceipt(tx, about, lines))
  })
}

type Offer = typeof t.seatOffer.$inferSelect & {
  course: CourseCode
  term: TermCode
}

/** Whether a receipt is of the answer to an offer of a course. */
async function isAnswer(tx: Transaction, receipt: number, course: number): Promise<boolean> {
  const lines = await tx
    .select({ id: t.receiptLine.id })
    .from(t.receiptLine)
    .where(
      all(
        eq(t.receiptLine.receiptId, receipt),
        eq(t.receiptLine.action, 'offer'),
        eq(t.receiptLine.courseId, course)
      )
    )
  return lines.length > 0
}

/** Why an offer cannot be answered any more. */
function overFor(offer: Offer, now: Instant): Refusal[] {
  return offer.answer !== null || now >= offer.until.getTime()
    ? [{ code: 'offerEnded', until: (offer.answeredAt ?? offer.until).getTime() }]
    : []
}

async function decline(
  tx: Transaction,
  who: Who,
  student: StudentId,
  offer: Offer,
  now: Instant
): Promise<ReceiptLine[]> {
  const { course, sections } = offer
  const refusals = overFor(offer, now)
  if (refusals.length) return [lineOf(course, 'refused', { action: 'offer', sections, refusals })]
  await endOffer(tx, offer, 'declined', now)
  await log(tx, who, student, offer, { answer: 'declined' }, now)
  return [lineOf(course, 'declined', { action: 'offer', sections })]
}

async function accept(
  tx: Transaction,
  who: Who,
  student: StudentId,
  offer: Offer,
  givingUp: readonly CourseCode[],
  catalogContext: CatalogContext,
  now: Instant
): Promise<ReceiptLine[]> {
  const { course, sections, term } = offer
  const others = givingUp.filter((one) => one !== course)
  const seats = await seatsOf(tx, student, term, [course, ...others])
  const offered = await tx
    .select({ id: t.offeredSeat.sectionId })
    .from(t.offeredSeat)
    .where(eq(t.offeredSeat.offerId, offer.id))
  const wanted = inArray(t.section.code, [...sections, ...seats.map((seat) => seat.code)])
  const locked = await tx
    .select({ id: t.section.id, code: t.section.code })
    .from(t.section)
    .where(wanted)
    .orderBy(asc(t.section.id))
    .for('update')
  const [studentRecord] = await readStudentRecords(tx, [student], 'self')
  const ofOffer = new Set<number>(idsOf(offered))
  const family = (await familiesOf(tx, sections as SectionCode[])).map((one) =>
    // The seat that is kept is theirs.
    ofOffer.has(locked.find((row) => row.code === one.code)?.id ?? -1)
      ? { ...one, taken: one.taken - 1 }
      : one
  )
  const option = pickedOptions(family, sections).get(course)
  const facts = factsOfOffer(studentRecord!, catalogContext, { term, now, course, offer: family })
  const drops = decideDrop(facts, others)
  const [decision] = option ? decide(afterDrop(facts, others), [option]) : []
  const refusals = [
    ...overFor(offer, now),
    ...drops.flatMap((one) => one.refusals),
    ...(decision?.refusals ?? [{ code: 'cancelled' as const, section: sections[0] as SectionCode }])
  ]
  if (refusals.length) return [lineOf(course, 'refused', { action: 'offer', sections, refusals })]
  const dropped = others.length
    ? await dropSeats(tx, who, { student, term }, others, catalogContext, { givenUpAt: now })
    : []
  const gone = seats.filter((seat) => seat.course === course && !sections.includes(seat.code))
  const mine = new Set(seats.map((seat) => seat.id))
  const added = locked.filter((row) => sections.includes(row.code) && !mine.has(row.id))
  await endOffer(tx, offer, 'accepted', now)
  await takeSections(tx, { student, by: who.id, now }, added, offered)
  await giveBack(tx, student, gone)
  const gaveBack = gone.map((seat) => seat.code)
  await log(tx, who, student, offer, { answer: 'accepted', gaveBack, givingUp: others }, now)
  const outcome = gone.length ? 'exchanged' : 'registered'
  return [lineOf(course, outcome, { action: 'offer', sections, gaveBack }), ...dropped]
}

const log = (
  tx: Transaction,
  who: Who,
  student: StudentId,
  { id, term, course, sections }: Offer,
  after: object,
  now: Instant
) =>
  logEvent(tx, {
    at: now,
    account: who.id,
    student,
    action: 'offer.answered',
    before: { offer: id, sections },
    after: { term, course, ...after }
  })
