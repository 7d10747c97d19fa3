/** What an advisor sees and decides: the desk, and the sign-off of a term. */
import { asc, eq, isNull } from 'drizzle-orm'
import { officeTerm, takesPlans } from '#core/calendar'
import type { StudentId, TermCode } from '#core/ids'
import type { Instant } from '#core/time'
import type { Desk, DeskRow } from '#shared/advising/responses'
import type { StudentRecord } from '#shared/record/responses'
import type { Who } from '#shared/accounts/responses'
import { waitsAtTheGate } from '#shared/advising/desk'
import { routeFigures } from '#shared/degree/figures'
import { holdsFor } from '#shared/charges/balance'
import { momentOf, type Shelf } from '#shared/catalog/shelf'
import { readStudent } from '#shared/reading'
import { hasChanged, sinceSignOff } from '#shared/advising/signOff'
import { all, type Reader, type Transaction } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { datesOfTerm, termRow } from '#server/features/catalog/catalog'
import { logEvent } from '#server/db/log'
import { Refused } from '#server/http/problem'
import { lockRoute, plannedOn } from '#server/features/route/route'
import { readStudentRecords } from '#server/features/record/studentRecords'

/**
 * Students of an advisor, those who need one first: whose opening has begun without a sign-off, then by asked
 * review, waivers asked, findings, name.
 */
export async function readDesk(db: Reader, who: Who, shelf: Shelf, now: Instant): Promise<Desk> {
  const rows = await db
    .select({ student: t.advising.studentId, purpose: t.advising.purpose })
    .from(t.advising)
    .innerJoin(t.advisor, eq(t.advisor.id, t.advising.advisorId))
    .where(eq(t.advisor.accountId, who.id))
    .orderBy(asc(t.advising.studentId))
  const term = officeTerm(shelf.terms, momentOf(now, shelf.zone))!.code
  const purposes = new Map(rows.map((row) => [row.student, row.purpose]))
  const pictures = await readStudentRecords(db, [...purposes.keys()], 'programAdvisor')
  const desk = pictures.map((picture) =>
    deskRow(picture, purposes.get(picture.student.id)!, term, shelf, now)
  )
  desk.sort(
    (a, b) =>
      Number(waitsAtTheGate(b)) - Number(waitsAtTheGate(a)) ||
      (a.reviewAskedAt ?? Infinity) - (b.reviewAskedAt ?? Infinity) ||
      b.waiversAsked - a.waiversAsked ||
      b.findings - a.findings ||
      (a.name < b.name ? -1 : 1)
  )
  return { term, rows: desk }
}

function deskRow(
  picture: StudentRecord,
  purpose: DeskRow['purpose'],
  term: TermCode,
  shelf: Shelf,
  now: Instant
): DeskRow {
  const reading = readStudent(picture, shelf, now)
  const since = sinceSignOff(picture, term)
  const { programs, findings, outside } = routeFigures(reading)
  const standing = reading.standings.find((one) => one.term.code === term)!
  const inTerm = [...picture.route.courses, ...picture.held].filter((one) => one.term === term)
  return {
    id: picture.student.id,
    name: picture.student.name,
    programs: picture.programs.map((p) => p.spec.shortTitle).join(', '),
    standing: picture.student.standing,
    attendance: picture.student.attendance,
    purpose,
    reviewAskedAt: since && !hasChanged(since) ? null : picture.route.reviewAskedAt,
    waiversAsked: picture.waivers.filter((one) => one.state === 'asked').length,
    signedOffAt: since?.signOff.at ?? null,
    changedSince: hasChanged(since),
    planned: new Set(inTerm.map((one) => one.course)).size,
    findings,
    outside,
    needed: programs.reduce((sum, one) => sum + one.needed, 0),
    holds: holdsFor(picture, shelf.terms, standing.term, reading.today).filter(
      (hold) => hold.stopsRegistration
    ).length,
    opens: standing.opens,
    adding: standing.adding,
    climb: {
      goal: programs[0]?.credits ?? 0,
      points: reading.climb.points.map((p) => ({ reached: p.reached, ahead: p.status === 'ahead' }))
    }
  }
}

/** How far the credits of a signed-off term may go below and above what is planned. */
const RANGE = { below: 4, above: 3 }

/** Approves a term of the chosen route: its courses and a range of credits. Replaces an earlier approval. */
export async function signOffTerm(
  tx: Transaction,
  who: Who,
  student: StudentId,
  code: TermCode,
  at: { now: Instant; zone: string }
) {
  const term = await termRow(tx, code)
  if (!takesPlans(datesOfTerm(term), momentOf(at.now, at.zone))) {
    throw new Refused(
      422,
      'termClosed',
      `Adding to ${term.name} has ended; it cannot be signed off any more.`,
      [{ field: 'term', message: 'has to be a term to which courses can still be added' }]
    )
  }
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
  await withdraw(tx, student, term.id, at.now)
  const credits = planned.reduce((sum, p) => sum + p.credits, 0)
  const courses = planned.map((p) => p.course).sort()
  await tx.insert(t.signOff).values({
    studentId: student,
    routeId: route.id,
    termId: term.id,
    byId: who.id,
    at: new Date(at.now),
    courses,
    creditsLeast: Math.max(1, credits - RANGE.below),
    creditsMost: Math.min(term.loadMost, credits + RANGE.above)
  })
  await tx.update(t.route).set({ reviewAskedAt: null }).where(eq(t.route.id, route.id))
  await logEvent(tx, {
    at: at.now,
    account: who.id,
    student,
    action: 'signOff.given',
    after: { term: code, courses }
  })
}

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
