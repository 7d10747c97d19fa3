/** Requests at the desks of those who decide them: answered one or several at once, and handed on. */
import { asc, eq, inArray, ne } from 'drizzle-orm'
import { courseCode, studentId } from '#core/ids'
import type { Instant } from '#core/time'
import { all, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { grantException, takeBackException } from '#server/features/degree/exceptions'
import { settleProgram } from '#server/features/degree/programChange'
import { lockStudents } from '#server/features/record/lock'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import {
  DECIDER_WORDS,
  firstAsked,
  isPermission,
  mayDecide,
  type Decider,
  type RequestPolicy
} from '#shared/advising/asking'
import type { RequestAnswer, RequestHandedOn } from '#shared/advising/requests'
import type { CatalogContext } from '#shared/catalog/context'
import { standsUntil } from './days'
import { accountsOf, deciderFor, decidersFor, readPolicy, type RequestRow } from './deciders'
import { needOf, requestsAbout } from './deskRequests'

interface Answering {
  who: Who
  now: Instant
  catalogContext: CatalogContext
}

/**
 * Decides requests, all of them or none. What was given can be declined later, and the other way round.
 *
 * @throws Refused where one of them is not theirs to decide, or was withdrawn
 */
export async function answerRequests(
  tx: Transaction,
  { who, now, catalogContext }: Answering,
  { requests: ids, answer, until, version, words }: RequestAnswer
): Promise<void> {
  const policy = await readPolicy(tx)
  const ends = answer === 'given' ? standsUntil(until, { now, zone: catalogContext.zone }) : null
  for (const row of await lockRequests(tx, ids)) {
    const as = await mustDecide(tx, who, row, policy)
    if (row.state === 'withdrawn') throw new Refused(409, 'withdrawn', 'It was withdrawn by the student.')
    if (ends && !isPermission(row.kind))
      throw new Refused(422, 'standsForGood', 'A waiver or a substitution has no last day.', [
        { field: 'until', message: 'has to be left out: only a permission ends' }
      ])
    if (row.state === answer) throw new Refused(409, 'answeredAlready', `It is ${answer} already.`)
    if (row.kind === 'program') {
      if (answer === 'given' && version === null)
        throw new Refused(422, 'noProgram', 'Choose the program that is right.', [
          { field: 'version', message: 'has to be the version of a program' }
        ])
      await settleProgram(tx, { who, now }, row, answer === 'given' ? version : null)
    } else if (!isPermission(row.kind))
      await settleException(tx, { who, now, catalogContext }, row, answer, words)
    const values = { state: answer, waitsFor: as, byId: who.id, decidedAt: new Date(now), words, until: ends }
    await tx.update(t.request).set(values).where(eq(t.request.id, row.id))
    await logEvent(tx, {
      at: now,
      account: who.id,
      student: row.studentId,
      action: 'request.answered',
      before: { state: row.state },
      after: { ...(await aboutOf(tx, row)), answer, words, until: ends?.getTime() ?? null }
    })
  }
}

/** An exception that was asked for is granted, or taken back where it was. */
async function settleException(
  tx: Transaction,
  { who, now, catalogContext }: Answering,
  row: RequestRow,
  answer: 'given' | 'declined',
  words: string | null
): Promise<void> {
  if (row.kind === 'waiver') return
  const student = studentId(row.studentId)
  const { program, need, course } = await aboutOf(tx, row)
  const reason = words ?? row.reason
  const body =
    row.kind === 'substitution'
      ? { kind: 'substitution' as const, program: program!, need: need!, course: courseCode(course!), reason }
      : { kind: 'waiver' as const, program: program!, need: need!, reason }
  if (answer === 'given') await grantException(tx, who, student, body, { now, catalogContext })
  else if (row.state === 'given') await takeBackException(tx, who, student, body, now)
}

/** Hands a request on to somebody else who has to do with it. */
export async function handOn(
  tx: Transaction,
  { who, now }: Pick<Answering, 'who' | 'now'>,
  id: number,
  { to, words }: RequestHandedOn
): Promise<void> {
  const [row] = await lockRequests(tx, [id])
  const as = await deciderFor(tx, who, row!)
  if (!as) throw notYours()
  if (row!.state !== 'asked' || row!.waitsFor !== as)
    throw new Refused(409, 'notWaiting', 'It does not wait for you: it is answered or handed on already.')
  const isThere = to !== as && (await decidersFor(tx, row!)).has(to)
  if (!isThere || !mayDecide(await readPolicy(tx), to, row!.kind))
    throw new Refused(422, 'nobodyThere', `It cannot be handed on to ${DECIDER_WORDS[to]}.`, [
      { field: 'to', message: 'has to be somebody else who may decide it' }
    ])
  await putTo(tx, { who, now }, row!, to, words)
}

/** Hands on what nobody is there to decide any more, as when an account was ended or somebody else teaches now. */
export async function handOnOrphans(tx: Transaction, by: Pick<Answering, 'who' | 'now'>): Promise<void> {
  const asked = await tx
    .select()
    .from(t.request)
    .where(all(eq(t.request.state, 'asked'), ne(t.request.waitsFor, 'registrar')))
  const orphans: number[] = []
  for (const row of asked) if (!(await accountsOf(tx, row, row.waitsFor)).length) orphans.push(row.id)
  if (!orphans.length) return
  const policy = await readPolicy(tx)
  for (const row of await lockRequests(tx, orphans)) {
    if (row.state !== 'asked') continue
    const there = await decidersFor(tx, row)
    if (there.has(row.waitsFor)) continue
    const words = `Nobody is there any more for whom it waited: ${DECIDER_WORDS[row.waitsFor]}.`
    await putTo(tx, by, row, firstAsked(policy, row.kind, there), words)
  }
}

async function putTo(
  tx: Transaction,
  { who, now }: Pick<Answering, 'who' | 'now'>,
  row: RequestRow,
  to: Decider,
  words: string | null
): Promise<void> {
  await tx.update(t.request).set({ waitsFor: to }).where(eq(t.request.id, row.id))
  await tx
    .insert(t.requestHandedOn)
    .values({ requestId: row.id, byId: who.id, at: new Date(now), handedTo: to, words })
  await logEvent(tx, {
    at: now,
    account: who.id,
    student: row.studentId,
    action: 'request.handedOn',
    also: await accountsOf(tx, row, to),
    after: { ...(await aboutOf(tx, row)), to, words, by: who.name }
  })
}

const notYours = () => new Refused(403, 'notYours', 'This request is for others to decide.')

async function mustDecide(
  tx: Transaction,
  who: Who,
  row: RequestRow,
  policy: RequestPolicy
): Promise<Decider> {
  const as = await deciderFor(tx, who, row)
  if (!as) throw notYours()
  if (mayDecide(policy, as, row.kind)) return as
  const others = policy[row.kind].length ? policy[row.kind] : (['registrar'] as const)
  const named = others.map((one) => DECIDER_WORDS[one]).join(' or ')
  throw new Refused(422, 'othersDecide', `This is decided by ${named}. Hand it on.`, [
    { field: 'requests', message: `have to be decided by ${named}` }
  ])
}

/** The rows of requests, locked in the order of all locks: their students' rows are locked before. */
async function lockRequests(tx: Transaction, ids: readonly number[]): Promise<RequestRow[]> {
  const which = inArray(t.request.id, [...ids])
  const students = await tx.select({ id: t.request.studentId }).from(t.request).where(which)
  await lockStudents(
    tx,
    students.map((row) => studentId(row.id))
  )
  const rows = await tx.select().from(t.request).where(which).orderBy(asc(t.request.id)).for('update')
  if (rows.length < ids.length) throw new Refused(404, 'noRequest', 'There is no such request.')
  return rows
}

/** What the log says of a request. */
async function aboutOf(tx: Transaction, row: RequestRow) {
  const [found] = await requestsAbout(tx, eq(t.request.id, row.id))
  return {
    request: row.id,
    kind: row.kind,
    term: found!.term,
    section: found!.section?.code ?? null,
    course: found!.sectionCourse ?? found!.course,
    program: found!.program?.code ?? null,
    need: row.needId,
    title: needOf(found!)?.title ?? null
  }
}
