/** What an advisor sees and decides: the desk, and the sign-off of a term. */
import { asc, eq, isNull } from 'drizzle-orm'
import { phaseOf } from '#core/catalog'
import type { StudentId, TermCode } from '#core/ids'
import type { Instant } from '#core/time'
import type { Desk, DeskRow, StudentPicture, Who } from '#wire/picture'
import { readStudent, type Shelf } from '#wire/reading'
import { campusDate } from '#wire/when'
import { all, type Reader, type Transaction } from '../../db/connect'
import * as t from '../../db/schema'
import { termRow } from '../catalog/catalog'
import { logEvent } from '../log'
import { Refused } from '../problem'
import { lockRoute, plannedOn } from '../route/route'
import { readPictures } from '../students/pictures'

/** Students of an advisor, those who need one first: by asked review, then findings, then name. */
export async function readDesk(db: Reader, who: Who, shelf: Shelf, now: Instant): Promise<Desk> {
  const rows = await db
    .select({ student: t.advising.studentId, purpose: t.advising.purpose })
    .from(t.advising)
    .innerJoin(t.advisor, eq(t.advisor.id, t.advising.advisorId))
    .where(eq(t.advisor.accountId, who.id))
    .orderBy(asc(t.advising.studentId))
  const term = nextToOpen(shelf, campusDate(now, shelf.zone))
  const purposes = new Map(rows.map((row) => [row.student, row.purpose]))
  const pictures = await readPictures(db, [...purposes.keys()], 'programAdvisor')
  const desk = pictures.map((picture) =>
    deskRow(picture, purposes.get(picture.student.id)!, term, shelf, now)
  )
  desk.sort(
    (a, b) =>
      (a.reviewAskedAt ?? Infinity) - (b.reviewAskedAt ?? Infinity) ||
      b.findings - a.findings ||
      (a.name < b.name ? -1 : 1)
  )
  return { term, rows: desk }
}

/** The last published term to come: the one that students register in next. */
function nextToOpen(shelf: Shelf, today: string): TermCode {
  const ahead = shelf.terms.filter((term) => term.published && phaseOf(term, today) === 'future')
  return (ahead.at(-1) ?? shelf.terms.at(-1)!).code
}

function deskRow(
  picture: StudentPicture,
  purpose: DeskRow['purpose'],
  term: TermCode,
  shelf: Shelf,
  now: Instant
): DeskRow {
  const reading = readStudent(picture, shelf, now)
  const signOff = picture.signOffs.find((s) => s.term === term)
  const coming = picture.route.courses.filter((p) => p.term === term).map((p) => p.course)
  const main = reading.audits[0]
  return {
    id: picture.student.id,
    name: picture.student.name,
    programs: picture.programs.map((p) => p.spec.shortTitle).join(', '),
    standing: picture.student.standing,
    attendance: picture.student.attendance,
    purpose,
    reviewAskedAt: signOff ? null : picture.route.reviewAskedAt,
    waiversAsked: picture.waivers.filter((one) => one.state === 'asked').length,
    signedOffAt: signOff?.at ?? null,
    changedSince: signOff !== undefined && !sameCourses(signOff.courses, coming),
    planned: coming.length,
    findings: reading.findings.length,
    outside: reading.outside.reduce((sum, o) => sum + o.taking.credits, 0),
    needed: main?.amounts.needed ?? 0,
    holds: picture.holds.filter((hold) => hold.stopsRegistration).length,
    opens: picture.openings.find((o) => o.term === term)?.opens ?? null,
    climb: {
      goal: main?.program.spec.credits ?? 0,
      points: reading.climb.points.map((p) => ({ reached: p.reached, ahead: p.firmness === 'ahead' }))
    }
  }
}

function sameCourses(a: readonly string[], b: readonly string[]): boolean {
  return a.length === b.length && a.every((course) => b.includes(course))
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
  if (phaseOf({ start: term.startsOn, end: term.endsOn }, campusDate(at.now, at.zone)) !== 'future') {
    throw new Refused(
      422,
      'termClosed',
      `${term.name} has begun or is over; it cannot be signed off any more.`,
      [{ field: 'term', message: 'has to be a term that has not begun' }]
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
