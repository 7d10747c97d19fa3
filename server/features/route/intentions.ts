/** What students mean to take in a term: handed in before there are sections, for those who plan and place them. */
import { eq } from 'drizzle-orm'
import type { TermCode } from '#core/ids'
import { all, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { courseIds, termRow } from '#server/features/catalog/catalog'
import { lockStudent } from '#server/features/record/lock'
import { Refused } from '#server/http/problem'
import { takesIntentions } from '#shared/route/intentions'
import { deadlineText } from '#shared/when'
import { lockRoute, plannedOn, type ActorContext } from './route'

/** Hands in what is planned for a term on the chosen route, in place of what was handed in before. @throws Refused */
export async function handIn(tx: Transaction, at: ActorContext, code: TermCode): Promise<void> {
  const { who, student, now } = at
  const term = await mustTake(tx, at, code)
  await lockStudent(tx, student)
  const route = await lockRoute(tx, student, who, now)
  const courses = (await plannedOn(tx, route.id)).filter((one) => one.term === code).map((one) => one.course)
  if (!courses.length)
    throw new Refused(422, 'nothingPlanned', `Nothing is planned for ${term.name} on the chosen route.`, [
      { field: 'term', message: 'has to be a term with a planned course' }
    ])
  const ids = await courseIds(tx, courses)
  await tx.delete(t.intention).where(ofTerm(student, term.id))
  await tx.insert(t.intention).values(
    courses.map((course) => ({
      studentId: student,
      termId: term.id,
      courseId: ids.get(course)!,
      at: new Date(now)
    }))
  )
  const after = { term: code, courses }
  await logEvent(tx, { at: now, account: who.id, student, action: 'intentions.handedIn', after })
}

/** @throws Refused where nothing was handed in, or it is too late */
export async function takeBack(tx: Transaction, at: ActorContext, code: TermCode): Promise<void> {
  const { who, student, now } = at
  const term = await mustTake(tx, at, code)
  await lockStudent(tx, student)
  const [done] = await tx.delete(t.intention).where(ofTerm(student, term.id))
  if (!done.affectedRows) throw new Refused(409, 'nothingHandedIn', `Nothing was handed in for ${term.name}.`)
  const before = { term: code }
  await logEvent(tx, { at: now, account: who.id, student, action: 'intentions.takenBack', before })
}

const ofTerm = (student: number, term: number) =>
  all(eq(t.intention.studentId, student), eq(t.intention.termId, term))

async function mustTake(tx: Transaction, { now, zone }: ActorContext, code: TermCode) {
  const term = await termRow(tx, code)
  const due = term.intentionsDueAt?.getTime() ?? null
  if (takesIntentions({ intentionsDueAt: due, published: term.published }, now)) return term
  const why =
    due === null
      ? `Nothing is handed in for ${term.name}.`
      : term.published
        ? `The sections of ${term.name} are published; pick them on Week.`
        : `What is meant for ${term.name} could be handed in until ${deadlineText(due, zone)}.`
  throw new Refused(422, 'notHandedIn', why, [
    { field: 'term', message: 'has to be a term for which courses are handed in now' }
  ])
}
