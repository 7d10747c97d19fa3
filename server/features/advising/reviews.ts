/** Reviews of a term: asked for by the student, withdrawn, and answered by the program advisor. */
import { takesPlans } from '#core/calendar'
import type { StudentId, TermCode } from '#core/ids'
import type { Instant } from '#core/time'
import { all, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { datesOfTerm, termRow } from '#server/features/catalog/catalog'
import { lockStudent } from '#server/features/record/lock'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { lockRoute, plannedOn, type ActorContext } from '#server/features/route/route'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import type { ReviewAsked } from '#shared/advising/requests'
import { reviewRulesOf, type ReviewAnswer } from '#shared/advising/review'
import { routeFigures, unplacedText } from '#shared/degree/figures'
import { readStudent } from '#shared/reading'
import type { StudentRecord } from '#shared/record/responses'
import { momentOf, type CatalogContext } from '#shared/catalog/context'
import { eq, isNull } from 'drizzle-orm'

/**
 * Asks for a review of a term of the chosen route; asked again, the note is that of the last time.
 *
 * @throws Refused where nothing is planned, or what the student's programs ask for before is not there
 */
export async function askForReview(
  tx: Transaction,
  { who, student, now, zone }: ActorContext,
  catalogContext: CatalogContext,
  said: ReviewAsked
): Promise<void> {
  const term = await termRow(tx, said.term)
  if (!takesPlans(datesOfTerm(term), momentOf(now, zone)))
    throw new Refused(
      422,
      'termClosed',
      `Adding to ${term.name} has ended; there is nothing left to review.`,
      [{ field: 'term', message: 'has to be a term to which courses can still be added' }]
    )
  await lockStudent(tx, student)
  const route = await lockRoute(tx, student, who, now)
  if (!(await plannedOn(tx, route.id)).some((planned) => planned.term === said.term))
    throw new Refused(422, 'nothingPlanned', `Nothing is planned for ${term.name} on the chosen route.`, [
      { field: 'term', message: 'has to be a term with a planned course' }
    ])
  const [record] = await readStudentRecords(tx, [student], 'self')
  const answers = mustBeReady(record!, catalogContext, said, now)
  await tx
    .update(t.review)
    .set({ withdrawnAt: new Date(now) })
    .where(openOf(student, term.id))
  await tx
    .insert(t.review)
    .values({ studentId: student, termId: term.id, note: said.note, answers, askedAt: new Date(now) })
  await logEvent(tx, {
    at: now,
    account: who.id,
    student,
    action: 'review.asked',
    after: { term: said.term, note: said.note, version: route.version }
  })
}

/** What the programs ask for before a review; the answers in the order in which they ask. @throws Refused */
function mustBeReady(
  record: StudentRecord,
  catalogContext: CatalogContext,
  { answers }: ReviewAsked,
  now: Instant
): ReviewAnswer[] {
  const { covers, questions } = reviewRulesOf(record.programs)
  const answered = questions.map((question) => answers.find((one) => one.question === question))
  const without = answered.findIndex((one) => !one)
  if (without >= 0)
    throw new Refused(422, 'unanswered', `Your program asks: “${questions[without]}” Answer it first.`, [
      { field: 'answers', message: `has to answer: ${questions[without]}` }
    ])
  if (covers === 'degree') {
    const unplaced = unplacedText(routeFigures(readStudent(record, catalogContext, now)))
    if (unplaced)
      throw new Refused(
        422,
        'notMapped',
        `Your program is reviewed with the whole way to the degree. Without a place on the route yet: ${unplaced}.`,
        [{ field: 'term', message: 'has to be asked about when all that is needed has a place on the route' }]
      )
  }
  return answered.flatMap((one) => one ?? [])
}

export async function withdrawReview(
  tx: Transaction,
  { who, student, now }: Omit<ActorContext, 'zone'>,
  code: TermCode
): Promise<void> {
  const term = await termRow(tx, code)
  await lockStudent(tx, student)
  const [done] = await tx
    .update(t.review)
    .set({ withdrawnAt: new Date(now) })
    .where(openOf(student, term.id))
  if (!done.affectedRows) throw notAsked(term.name)
  await logEvent(tx, {
    at: now,
    account: who.id,
    student,
    action: 'review.withdrawn',
    before: { term: code }
  })
}

/** Answers that it is not to be signed off yet, and what is missing. */
export async function answerNotYet(
  tx: Transaction,
  { who, student, now }: Omit<ActorContext, 'zone'>,
  { term: code, missing }: { term: TermCode; missing: string }
): Promise<void> {
  const term = await termRow(tx, code)
  await lockStudent(tx, student)
  const isAnswered = await answerReview(
    tx,
    who,
    { student, termId: term.id, now },
    { answer: 'notYet', missing }
  )
  if (!isAnswered) throw notAsked(term.name)
  await logEvent(tx, {
    at: now,
    account: who.id,
    student,
    action: 'review.answered',
    after: { term: code, missing }
  })
}

const notAsked = (name: string) => new Refused(409, 'notAsked', `No review of ${name} waits for an answer.`)

const openOf = (student: StudentId, termId: number) =>
  all(
    eq(t.review.studentId, student),
    eq(t.review.termId, termId),
    isNull(t.review.withdrawnAt),
    isNull(t.review.answer)
  )

/** Answers the review of a term that waits. @returns whether one did */
export async function answerReview(
  tx: Transaction,
  who: Who,
  { student, termId, now }: { student: StudentId; termId: number; now: Instant },
  answer: { answer: 'signedOff' | 'notYet'; missing: string | null }
): Promise<boolean> {
  const [done] = await tx
    .update(t.review)
    .set({ ...answer, answeredById: who.id, answeredAt: new Date(now) })
    .where(openOf(student, termId))
  return done.affectedRows > 0
}
