/** Suggestions: changes of a route that an advisor proposes, and the student's answer. */
import { takesPlans } from '#core/calendar'
import type { RouteChange } from '#core/findings'
import type { CourseCode, StudentId, TermCode } from '#core/ids'
import { coursesTouched, rebase } from '#core/route'
import { all, type Reader, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { datesOfTerm } from '#server/features/catalog/catalog'
import { nextNumber } from './numbers'
import { lockStudent } from '#server/features/record/lock'
import {
  lockCurrent,
  makeChange,
  plannedOn,
  tryChange,
  type ActorContext
} from '#server/features/route/route'
import { isTalker, type Relation } from '#server/http/access'
import { Refused } from '#server/http/problem'
import type { SuggestionAnswers } from '#shared/advising/requests'
import { goneText, type Suggestion, type SuggestionsAnswer } from '#shared/advising/suggestions'
import { momentOf } from '#shared/catalog/context'
import { asc, eq, inArray, ne } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'

/** Suggestions about a student in the order in which they were made, without those taken back. */
export async function readSuggestions(
  db: Reader,
  student: StudentId,
  reader: { account: number; relation: Relation }
): Promise<Suggestion[]> {
  if (!isTalker(reader.relation)) return []
  const answerer = alias(t.account, 'answerer')
  const rows = await db
    .select({
      suggestion: t.suggestion,
      by: t.account.name,
      answeredBy: answerer.name,
      chosen: t.route.chosen
    })
    .from(t.suggestion)
    .innerJoin(t.account, eq(t.account.id, t.suggestion.byId))
    .innerJoin(t.route, eq(t.route.id, t.suggestion.routeId))
    .leftJoin(answerer, eq(answerer.id, t.suggestion.answeredById))
    .where(all(eq(t.suggestion.studentId, student), ne(t.suggestion.state, 'withdrawn')))
    .orderBy(asc(t.suggestion.id))
  return rows
    .filter(({ chosen }) => chosen || reader.relation !== 'supportAdvisor')
    .map(({ suggestion: one, by, answeredBy }): Suggestion => {
      const { id, number, routeId, change, before, why, state, answeredAt, words } = one
      return {
        id,
        number,
        by,
        own: one.byId === reader.account,
        at: one.at.getTime(),
        route: routeId,
        change,
        before,
        why,
        state: state as Suggestion['state'],
        answer: answeredBy && answeredAt ? { by: answeredBy, at: answeredAt.getTime(), words } : null
      }
    })
}

/**
 * Proposes a change of a route as it is. Own suggestions that wait and are about the same courses give way to it.
 * @throws Refused when the change cannot be made
 */
export async function suggest(
  tx: Transaction,
  at: ActorContext,
  relation: Relation,
  said: { route: number | null; version: number; change: RouteChange; why: string | null },
  /** Whether the student is told of it by something else. */
  isTold?: 'told'
): Promise<{ suggestion: number; route: number; version: number }> {
  const { who, student, now } = at
  await lockStudent(tx, student)
  const route = await lockCurrent(tx, at, said)
  if (relation === 'supportAdvisor' && !route.chosen)
    throw new Refused(404, 'noRoute', 'There is no such route any more. Reload to see those there are.')
  const { before, made } = await tryChange(tx, at, route, said.change)
  const touched = new Set(coursesTouched(made))
  const { waiting, replaced } = await withdrawReplaced(tx, route.id, who.id, touched)
  const [entry] = await tx
    .insert(t.suggestion)
    .values({
      studentId: student,
      routeId: route.id,
      byId: who.id,
      at: new Date(now),
      change: made,
      number: replaced[0]?.number ?? (await nextNumber(tx, student)),
      before: before.filter((one) => touched.has(one.course)),
      why: said.why,
      state: 'waiting'
    })
    .$returningId()
  await logEvent(tx, {
    at: now,
    account: who.id,
    student,
    // Of several that wait for an answer the first is mailed.
    action: waiting.length || isTold ? 'suggestion.added' : 'suggestion.made',
    before: replaced.length ? { suggestions: replaced.map((one) => one.id) } : null,
    after: { suggestion: entry!.id, route: route.id, change: made, by: who.name }
  })
  return { suggestion: entry!.id, route: route.id, version: route.version }
}

/** Takes back the suggestions that wait and are about these courses alone; with all that waited. */
async function withdrawReplaced(
  tx: Transaction,
  route: number,
  by: number,
  touched: ReadonlySet<CourseCode>
): Promise<Record<'waiting' | 'replaced', (typeof t.suggestion.$inferSelect)[]>> {
  const waiting = await tx
    .select()
    .from(t.suggestion)
    .where(all(eq(t.suggestion.routeId, route), eq(t.suggestion.state, 'waiting'), eq(t.suggestion.byId, by)))
  const replaced = waiting.filter((one) => coursesTouched(one.change).every((course) => touched.has(course)))
  if (replaced.length)
    await tx
      .update(t.suggestion)
      .set({ state: 'withdrawn' })
      .where(
        inArray(
          t.suggestion.id,
          replaced.map((one) => one.id)
        )
      )
  return { waiting, replaced }
}

/** @throws Refused where no suggestion of whoever asks waits */
async function lockOwnWaiting(
  tx: Transaction,
  { who, student }: Pick<ActorContext, 'who' | 'student'>,
  id: number
) {
  const [found] = await tx
    .select()
    .from(t.suggestion)
    .where(all(eq(t.suggestion.id, id), eq(t.suggestion.studentId, student), eq(t.suggestion.byId, who.id)))
    .for('update')
  if (!found) throw new Refused(404, 'noSuggestion', 'There is no such suggestion of yours.')
  if (found.state === 'waiting') return found
  throw new Refused(409, 'answered', `It was ${found.state} meanwhile. Reload to see the answer.`)
}

export async function withdrawSuggestion(
  tx: Transaction,
  at: Omit<ActorContext, 'zone'>,
  id: number
): Promise<void> {
  await lockStudent(tx, at.student)
  const { change } = await lockOwnWaiting(tx, at, id)
  await tx.update(t.suggestion).set({ state: 'withdrawn' }).where(eq(t.suggestion.id, id))
  await logEvent(tx, {
    at: at.now,
    account: at.who.id,
    student: at.student,
    action: 'suggestion.withdrawn',
    before: { suggestion: id, change }
  })
}

/** Says why it is suggested. */
export async function explainSuggestion(
  tx: Transaction,
  at: Omit<ActorContext, 'zone'>,
  id: number,
  why: string | null
): Promise<void> {
  await lockStudent(tx, at.student)
  const before = await lockOwnWaiting(tx, at, id)
  await tx.update(t.suggestion).set({ why }).where(eq(t.suggestion.id, id))
  await logEvent(tx, {
    at: at.now,
    account: at.who.id,
    student: at.student,
    action: 'suggestion.explained',
    before: { suggestion: id, why: before.why },
    after: { suggestion: id, why }
  })
}

/**
 * Answers suggestions of a route, in their order: an accepted one is made of the route as it is, as a step of its own,
 * so that each can be undone. Of several, one that cannot be made stays as it is and is named.
 * @throws Refused when none of them waits, or none can be made
 */
export async function answerSuggestions(
  tx: Transaction,
  at: ActorContext,
  said: SuggestionAnswers
): Promise<SuggestionsAnswer> {
  const { student } = at
  await lockStudent(tx, student)
  const route = await lockCurrent(tx, at, said)
  const waiting = await tx
    .select()
    .from(t.suggestion)
    .where(
      all(
        inArray(t.suggestion.id, said.suggestions),
        eq(t.suggestion.studentId, student),
        eq(t.suggestion.routeId, route.id),
        eq(t.suggestion.state, 'waiting')
      )
    )
    .orderBy(asc(t.suggestion.id))
    .for('update')
  if (waiting.length < said.suggestions.length)
    throw new Refused(
      409,
      'notWaiting',
      said.suggestions.length === 1
        ? 'This suggestion was answered or taken back meanwhile.'
        : 'Some of these suggestions were answered or taken back meanwhile. You now see those that wait; try again.'
    )
  const answer: SuggestionsAnswer = { route: route.id, version: route.version, made: null, gone: [] }
  const closed = said.answer === 'accepted' ? await closedTerms(tx, at) : new Set<string>()
  for (const one of waiting) {
    const found =
      said.answer === 'accepted'
        ? rebase(one.change, one.before, await plannedOn(tx, route.id), (term) => !closed.has(term))
        : undefined
    if (found?.is === 'gone') {
      answer.gone.push({ suggestion: one.id, why: goneText(found) })
      continue
    }
    if (found?.is === 'applies') {
      answer.made = await makeChange(tx, at, { ...route, version: answer.version }, found.change)
      answer.version = answer.made.version
    }
    await writeAnswer(tx, at, one.id, said)
  }
  if (answer.gone.length === waiting.length)
    throw new Refused(409, 'suggestionGone', `It cannot be made: ${answer.gone[0]!.why}.`)
  return answer
}

/** Terms to which nothing can be added any more. */
async function closedTerms(tx: Transaction, { now, zone }: ActorContext): Promise<ReadonlySet<TermCode>> {
  const moment = momentOf(now, zone)
  const terms = await tx.select().from(t.term)
  return new Set(
    terms.filter((term) => !takesPlans(datesOfTerm(term), moment)).map((term) => term.code as TermCode)
  )
}

async function writeAnswer(
  tx: Transaction,
  { who, student, now }: ActorContext,
  id: number,
  { answer, words }: SuggestionAnswers
): Promise<void> {
  await tx
    .update(t.suggestion)
    .set({ state: answer, answeredById: who.id, answeredAt: new Date(now), words })
    .where(eq(t.suggestion.id, id))
  await logEvent(tx, {
    at: now,
    account: who.id,
    student,
    action: 'suggestion.answered',
    after: { suggestion: id, answer, words }
  })
}
