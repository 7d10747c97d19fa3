/** The answer to a review: a term of the chosen route signed off, on conditions or without, or not yet. */
import { takesPlans } from '#core/calendar'
import type { SignOffCondition } from '#core/findings'
import type { CourseCode, StudentId, TermCode } from '#core/ids'
import { isStanding } from '#core/registration'
import type { Instant } from '#core/time'
import { all, type Reader, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { courseIds, datesOfTerm, termRow } from '#server/features/catalog/catalog'
import { mustBeGrade } from '#server/features/catalog/scale'
import { lockStudent } from '#server/features/record/lock'
import { lockRoute, plannedOn } from '#server/features/route/route'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import type { SignOffAsked } from '#shared/advising/requests'
import { rangeOf } from '#shared/advising/signOff'
import { momentOf } from '#shared/catalog/context'
import { standsUntil } from './days'
import { answerReview } from './reviews'
import { eq, isNull } from 'drizzle-orm'

/** Approves a term of the chosen route: its courses, a range of credits, conditions. Replaces an earlier approval. */
export async function signOffTerm(
  tx: Transaction,
  who: Who,
  student: StudentId,
  said: SignOffAsked,
  at: { now: Instant; zone: string }
): Promise<void> {
  const { term: code, conditions, together } = said
  const term = await termRow(tx, code)
  mustTakePlans(term, at)
  await lockStudent(tx, student)
  const route = await lockRoute(tx, student, who, at.now)
  const planned = (await plannedOn(tx, route.id)).filter((p) => p.term === code)
  if (!planned.length) {
    throw new Refused(
      422,
      'nothingPlanned',
      `Nothing is planned for ${term.name}, so there is nothing to sign off.`,
      [{ field: 'term', message: 'has to be a term with a planned course' }]
    )
  }
  for (const [i, one] of conditions.entries())
    if (one.is === 'leastGrade') await mustBeGrade(tx, one.grade, `conditions.${i}.grade`, { points: true })
  await courseIds(tx, [...new Set([...conditions.flatMap(coursesOf), ...said.alternatives])])
  const range = rangeSaid(said, rangeOf(planned, term.loadMost), term)
  const until = standsUntil(said.until, at)
  await withdraw(tx, student, term.id, at.now)
  const courses = planned.map((p) => p.course).sort()
  const alternatives = [...new Set(said.alternatives)].filter((one) => !courses.includes(one)).sort()
  const given = { courses, alternatives, ...range, conditions }
  await tx.insert(t.signOff).values({
    studentId: student,
    routeId: route.id,
    termId: term.id,
    byId: who.id,
    at: new Date(at.now),
    ...given,
    until,
    together
  })
  await answerReview(
    tx,
    who,
    { student, termId: term.id, now: at.now },
    { answer: 'signedOff', missing: null }
  )
  await logEvent(tx, {
    at: at.now,
    account: who.id,
    student,
    action: 'signOff.given',
    after: { term: code, ...given, until: until?.getTime() ?? null }
  })
}

/** @throws Refused where nothing can be added to the term any more */
function mustTakePlans(
  term: Awaited<ReturnType<typeof termRow>>,
  { now, zone }: { now: Instant; zone: string }
): void {
  if (takesPlans(datesOfTerm(term), momentOf(now, zone))) return
  throw new Refused(
    422,
    'termClosed',
    `Adding to ${term.name} has ended; it cannot be signed off any more.`,
    [{ field: 'term', message: 'has to be a term to which courses can still be added' }]
  )
}

/** The credits that are approved; the usual ones where nothing is said. @throws Refused for a range that cannot be */
function rangeSaid(
  said: Pick<SignOffAsked, 'creditsLeast' | 'creditsMost'>,
  usual: ReturnType<typeof rangeOf>,
  { name, loadMost }: { name: string; loadMost: number }
): { creditsLeast: number; creditsMost: number } {
  const { creditsLeast = usual.least, creditsMost = usual.most } = said
  if (creditsMost > loadMost)
    throw new Refused(422, 'aboveLoad', `${name} takes ${loadMost} credits at most.`, [
      { field: 'creditsMost', message: `has to be ${loadMost} or less` }
    ])
  if (creditsLeast > creditsMost)
    throw new Refused(422, 'emptyRange', 'The range of credits ends below where it begins.', [
      { field: 'creditsLeast', message: `has to be ${creditsMost} or less` }
    ])
  return { creditsLeast, creditsMost }
}

/** Of every student whose sign-off of a term stands at an instant, its courses. */
export async function standingSignOffs(
  db: Reader,
  termId: number,
  now: Instant
): Promise<{ student: number; courses: string[] }[]> {
  const rows = await db
    .select({ student: t.signOff.studentId, courses: t.signOff.courses, until: t.signOff.until })
    .from(t.signOff)
    .where(all(eq(t.signOff.termId, termId), isNull(t.signOff.withdrawnAt)))
  return rows.filter(({ until }) => isStanding({ until: until?.getTime() ?? null }, now))
}

const coursesOf = (one: SignOffCondition): CourseCode[] => [
  one.course,
  one.is === 'leastGrade' ? one.of : one.other
]

export async function withdrawSignOff(
  tx: Transaction,
  who: Who,
  student: StudentId,
  code: TermCode,
  now: Instant
): Promise<void> {
  const term = await termRow(tx, code)
  const withdrawn = await withdraw(tx, student, term.id, now)
  if (!withdrawn) throw new Refused(409, 'noSignOff', `${term.name} is not signed off.`)
  await logEvent(tx, {
    at: now,
    account: who.id,
    student,
    action: 'signOff.withdrawn',
    before: { term: code }
  })
}

async function withdraw(tx: Transaction, student: StudentId, termId: number, now: Instant): Promise<boolean> {
  const standing = all(
    eq(t.signOff.studentId, student),
    eq(t.signOff.termId, termId),
    isNull(t.signOff.withdrawnAt)
  )
  const [result] = await tx
    .update(t.signOff)
    .set({ withdrawnAt: new Date(now) })
    .where(standing)
  return result.affectedRows > 0
}
