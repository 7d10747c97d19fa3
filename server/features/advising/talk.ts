/** The talk: remarks about a matter each, some among advisors only. */
import type { StudentId } from '#core/ids'
import { all, type Reader, type Transaction } from '#server/db/connect'
import { groupBy } from '#server/db/groupBy'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { nextNumber } from './numbers'
import { lockStudent } from '#server/features/record/lock'
import type { ActorContext } from '#server/features/route/route'
import { isTalker, type Relation } from '#server/http/access'
import { Refused } from '#server/http/problem'
import type { RemarkSaid, ThreadSaid } from '#shared/advising/requests'
import type { Thread } from '#shared/advising/talk'
import { and, asc, eq, inArray, ne, sql } from 'drizzle-orm'

type Doing = Omit<ActorContext, 'zone'> & { relation: Relation }

/** Whether somebody may read what advisors say among each other. */
const isAdvisor = (relation: Relation) => relation === 'programAdvisor' || relation === 'supportAdvisor'

/** Threads about a student as one person reads them, in the order in which they began; none for who has no part in it. */
export async function readTalk(
  db: Reader,
  student: StudentId,
  reader: { account: number; relation: Relation }
): Promise<Thread[]> {
  if (!isTalker(reader.relation)) return []
  const settler = t.account
  const threads = await db
    .select({ thread: t.thread, settledBy: settler.name, read: t.threadRead.remarkId })
    .from(t.thread)
    .leftJoin(settler, eq(settler.id, t.thread.settledById))
    .leftJoin(
      t.threadRead,
      and(eq(t.threadRead.threadId, t.thread.id), eq(t.threadRead.accountId, reader.account))
    )
    .where(
      isAdvisor(reader.relation)
        ? eq(t.thread.studentId, student)
        : all(eq(t.thread.studentId, student), eq(t.thread.advisorsOnly, false))
    )
    .orderBy(asc(t.thread.id))
  if (!threads.length) return []
  const remarks = await remarksOf(db, student)
  const named = await namedIn(db, student)
  return threads.map(
    ({ thread: { id, number, about, aboutKey, advisorsOnly, settledAt }, settledBy, read }): Thread => {
      const own = remarks.get(id) ?? []
      return {
        id,
        number,
        about: { is: about, key: aboutKey },
        advisorsOnly,
        settled: settledBy && settledAt ? { by: settledBy, at: settledAt.getTime() } : null,
        remarks: own.map(({ remark, by }) => ({
          id: remark.id,
          by,
          own: remark.authorId === reader.account,
          text: remark.text,
          at: remark.at.getTime(),
          to: (named.get(remark.id) ?? []).map((one) => ({
            name: one.name,
            you: one.account === reader.account
          }))
        })),
        unread: own.filter(({ remark }) => remark.authorId !== reader.account && remark.id > (read ?? 0))
          .length
      }
    }
  )
}

/** What was said about a student, by thread. */
async function remarksOf(db: Reader, student: StudentId) {
  const rows = await db
    .select({ remark: t.remark, by: t.account.name })
    .from(t.remark)
    .innerJoin(t.thread, eq(t.thread.id, t.remark.threadId))
    .innerJoin(t.account, eq(t.account.id, t.remark.authorId))
    .where(eq(t.thread.studentId, student))
    .orderBy(asc(t.remark.id))
  return groupBy(rows, (row) => row.remark.threadId)
}

/** Whom each remark is to. */
async function namedIn(db: Reader, student: StudentId) {
  const rows = await db
    .select({ remark: t.remarkNamed.remarkId, account: t.account.id, name: t.account.name })
    .from(t.remarkNamed)
    .innerJoin(t.remark, eq(t.remark.id, t.remarkNamed.remarkId))
    .innerJoin(t.thread, eq(t.thread.id, t.remark.threadId))
    .innerJoin(t.account, eq(t.account.id, t.remarkNamed.accountId))
    .where(eq(t.thread.studentId, student))
    .orderBy(asc(t.account.name))
  return groupBy(rows, (row) => row.remark)
}

/** Threads of each student with something that somebody has not read; `account` is that of an advisor. */
export async function countUnread(
  db: Reader,
  students: readonly number[],
  account: number
): Promise<Map<number, number>> {
  if (!students.length) return new Map()
  const rows = await db
    .select({ student: t.thread.studentId, n: sql<number>`count(distinct ${t.thread.id})` })
    .from(t.thread)
    .innerJoin(t.remark, eq(t.remark.threadId, t.thread.id))
    .leftJoin(t.threadRead, and(eq(t.threadRead.threadId, t.thread.id), eq(t.threadRead.accountId, account)))
    .where(
      all(
        inArray(t.thread.studentId, [...students]),
        ne(t.remark.authorId, account),
        sql`${t.remark.id} > coalesce(${t.threadRead.remarkId}, 0)`
      )
    )
    .groupBy(t.thread.studentId)
  return new Map(rows.map((row) => [row.student, Number(row.n)]))
}

/** Of students, those who have written with an advisor, or spoken as far as it was noted. */
export async function spokenWith(db: Reader, students: readonly number[]): Promise<ReadonlySet<number>> {
  if (!students.length) return new Set()
  const written = await db
    .selectDistinct({ id: t.thread.studentId })
    .from(t.thread)
    .where(all(inArray(t.thread.studentId, [...students]), eq(t.thread.advisorsOnly, false)))
  const noted = await db
    .selectDistinct({ id: t.talkRecord.studentId })
    .from(t.talkRecord)
    .where(inArray(t.talkRecord.studentId, [...students]))
  return new Set([...written, ...noted].map((row) => row.id))
}

/** Says something: in a thread, or of a matter that nobody has spoken of. What is said in a settled thread opens it again. */
export async function addRemark(
  tx: Transaction,
  { who, student, now, relation }: Doing,
  said: RemarkSaid
): Promise<{ thread: number }> {
  await lockStudent(tx, student)
  const isPrivate = said.to === 'matter' && said.advisorsOnly
  if (isPrivate && !isAdvisor(relation))
    throw new Refused(422, 'notAmongAdvisors', 'Only advisors speak among advisors.', [
      { field: 'advisorsOnly', message: 'has to be false' }
    ])
  const thread =
    said.to === 'thread'
      ? await lockThread(tx, student, said.thread, relation)
      : await beginThread(tx, student, said)
  if (thread.settledAt)
    await tx.update(t.thread).set({ settledAt: null, settledById: null }).where(eq(t.thread.id, thread.id))
  const [made] = await tx
    .insert(t.remark)
    .values({ threadId: thread.id, authorId: who.id, text: said.text, at: new Date(now) })
    .$returningId()
  const named = await accountsOf(tx, student, said.named, thread.advisorsOnly)
  if (named.length)
    await tx.insert(t.remarkNamed).values(named.map((accountId) => ({ remarkId: made!.id, accountId })))
  const also = [...new Set([...named, ...(await othersIn(tx, thread.id))])]
  await markRead(tx, who.id, thread.id, made!.id)
  await logEvent(tx, {
    at: now,
    account: who.id,
    student,
    action: thread.advisorsOnly ? 'remark.amongAdvisors' : 'remark.made',
    also,
    after: { thread: thread.id, remark: made!.id, by: who.name, about: thread.about, key: thread.aboutKey }
  })
  return { thread: thread.id }
}

/** The accounts of those who are asked to read something. @throws Refused for somebody who has no part in it */
async function accountsOf(
  tx: Transaction,
  student: StudentId,
  named: RemarkSaid['named'],
  advisorsOnly: boolean
): Promise<number[]> {
  if (!named.length) return []
  const [own] = await tx
    .select({ account: t.student.accountId })
    .from(t.student)
    .where(eq(t.student.id, student))
  const advisors = await tx
    .select({ id: t.advisor.id, account: t.advisor.accountId })
    .from(t.advising)
    .innerJoin(t.advisor, eq(t.advisor.id, t.advising.advisorId))
    .where(eq(t.advising.studentId, student))
  return named.map((one, i) => {
    const account =
      one === 'student'
        ? advisorsOnly
          ? undefined
          : own!.account
        : advisors.find((advisor) => advisor.id === one)?.account
    if (account !== undefined) return account
    throw new Refused(422, 'noPart', 'Somebody who is asked to read it has no part in it.', [
      { field: `named.${i}`, message: 'has to be an advisor of the student, or student where they read it' }
    ])
  })
}

/** Advisors who have spoken in a thread; the student is told of everything that is said to them. */
async function othersIn(tx: Transaction, thread: number): Promise<number[]> {
  const rows = await tx
    .selectDistinct({ id: t.remark.authorId })
    .from(t.remark)
    .innerJoin(t.advisor, eq(t.advisor.accountId, t.remark.authorId))
    .where(eq(t.remark.threadId, thread))
  return rows.map((row) => row.id)
}

async function beginThread(
  tx: Transaction,
  student: StudentId,
  { about, advisorsOnly }: Extract<RemarkSaid, { to: 'matter' }>
) {
  const values = {
    studentId: student,
    number: advisorsOnly ? null : await nextNumber(tx, student),
    about: about.is,
    aboutKey: about.key,
    advisorsOnly
  }
  const [made] = await tx.insert(t.thread).values(values).$returningId()
  return { id: made!.id, settledAt: null, ...values }
}

/** @throws Refused where there is none for whoever asks */
async function lockThread(tx: Transaction, student: StudentId, id: number, relation: Relation) {
  const [found] = await tx
    .select()
    .from(t.thread)
    .where(all(eq(t.thread.id, id), eq(t.thread.studentId, student)))
    .for('update')
  if (!found || (found.advisorsOnly && !isAdvisor(relation)))
    throw new Refused(404, 'noThread', 'There is no such thread.')
  return found
}

/** Settles a thread or opens it again, and keeps up to where it was read. */
export async function changeThread(
  tx: Transaction,
  { who, student, now, relation }: Doing,
  id: number,
  { settled, readUpTo }: ThreadSaid
): Promise<void> {
  await lockStudent(tx, student)
  const thread = await lockThread(tx, student, id, relation)
  if (readUpTo !== undefined) {
    const [remark] = await tx
      .select({ id: t.remark.id })
      .from(t.remark)
      .where(all(eq(t.remark.threadId, id), eq(t.remark.id, readUpTo)))
    if (!remark)
      throw new Refused(422, 'noRemark', 'There is no such remark in the thread.', [
        { field: 'readUpTo', message: 'has to be the number of a remark of the thread' }
      ])
    await markRead(tx, who.id, id, readUpTo)
  }
  if (settled === undefined || settled === (thread.settledAt !== null)) return
  await tx
    .update(t.thread)
    .set(settled ? { settledAt: new Date(now), settledById: who.id } : { settledAt: null, settledById: null })
    .where(eq(t.thread.id, id))
  const isHidden = thread.advisorsOnly
  await logEvent(tx, {
    at: now,
    account: who.id,
    student,
    action: isHidden ? 'thread.settledAmongAdvisors' : 'thread.settled',
    after: { thread: id, settled }
  })
}

/** Nobody has read less than before. */
async function markRead(tx: Transaction, account: number, thread: number, remark: number): Promise<void> {
  await tx
    .insert(t.threadRead)
    .values({ accountId: account, threadId: thread, remarkId: remark })
    .onDuplicateKeyUpdate({ set: { remarkId: sql`greatest(${t.threadRead.remarkId}, ${remark})` } })
}
