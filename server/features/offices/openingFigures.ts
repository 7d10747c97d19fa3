/** Openings as the registrar sees them: for how many each is, who of them is not ready and why, and a word to those. */
import { asc, eq, gt, gte, inArray, isNull } from 'drizzle-orm'
import { studentId, termCode, type StudentId, type TermCode } from '#core/ids'
import type { Instant } from '#core/time'
import { all, type Reader, type Transaction } from '#server/db/connect'
import { groupBy } from '#server/db/groupBy'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { programAdvisorNames } from '#server/features/advising/advisedBy'
import { standingSignOffs } from '#server/features/advising/signOff'
import { termRow } from '#server/features/catalog/catalog'
import { programRows, readPolicies } from '#server/features/record/queries'
import { opensFor } from '#server/features/registration/openings'
import { heldIn, plannedIn } from '#server/features/sections/demand'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import { signOffPolicyOf } from '#shared/advising/review'
import { termOf, type CatalogContext } from '#shared/catalog/context'
import { LACKS, type Lack, type OpeningFigures, type Unready } from '#shared/offices/openings'
import { hoursOf } from './openingHours'

/** Everybody, by their numbers. */
export const everybodyOf = async (db: Reader): Promise<StudentId[]> =>
  (await db.select({ id: t.student.id }).from(t.student)).map((row) => studentId(row.id))

/** Openings of terms that take additions yet, each with those for whom it is the first. */
export async function readOpeningFigures(
  db: Reader,
  catalogContext: CatalogContext,
  now: Instant
): Promise<OpeningFigures[]> {
  const rows = await db
    .select({ id: t.opening.id, title: t.opening.title, opensAt: t.opening.opensAt, term: t.term.code })
    .from(t.opening)
    .innerJoin(t.term, eq(t.term.id, t.opening.termId))
    .where(gt(t.term.addEndsAt, new Date(now)))
    .orderBy(asc(t.opening.opensAt), asc(t.opening.id))
  const everybody = await everybodyOf(db)
  const found: OpeningFigures[] = []
  for (const [code, own] of groupBy(rows, (row) => row.term)) {
    const term = termCode(code)
    const lacks = await lacksOf(db, catalogContext, term, { students: everybody, now })
    const openings = byOpening(await opensFor(db, term, everybody), own)
    const hours = await hoursOf(db, openings, { term, now })
    for (const { people, of } of openings) {
      const with_ = (lack: Lack) => people.filter((one) => lacks.get(one)?.includes(lack)).length
      found.push({
        ...{ id: of.id, term, title: of.title, opens: of.opensAt.getTime(), students: people.length },
        unready: people.filter((one) => lacks.has(one)).length,
        lacks: Object.fromEntries(LACKS.map((lack) => [lack, with_(lack)])) as Record<Lack, number>,
        hour: hours.get(of.id) ?? null
      })
    }
  }
  return found
}

/** Each opening with those for whom it is the first; of several at the same instant the first stands for all. */
export function byOpening<T extends { opensAt: Date }>(
  opens: ReadonlyMap<StudentId, Instant>,
  openings: readonly T[]
): { of: T; people: StudentId[] }[] {
  const firsts = groupBy([...opens], ([, at]) => at)
  const told = new Set<number>()
  return openings.map((of) => {
    const at = of.opensAt.getTime()
    const people = told.has(at) ? [] : (firsts.get(at) ?? []).map(([student]) => student)
    told.add(at)
    return { of, people }
  })
}

/** Who of an opening is not ready, with what they lack, by name. @throws Refused where it is gone, or adding has ended */
export async function readUnready(
  db: Reader,
  id: number,
  { catalogContext, now }: { catalogContext: CatalogContext; now: Instant }
): Promise<Unready[]> {
  const [opening] = await db.select().from(t.opening).where(eq(t.opening.id, id))
  const { lacks } = await lacksOfOpening(db, opening, { catalogContext, now })
  if (!lacks.size) return []
  const people = await db
    .select({ student: t.student.id, number: t.student.number, name: t.account.name })
    .from(t.student)
    .innerJoin(t.account, eq(t.account.id, t.student.accountId))
    .where(inArray(t.student.id, [...lacks.keys()]))
    .orderBy(asc(t.account.name), asc(t.student.id))
  const advisors = await programAdvisorNames(db, [...lacks.keys()])
  return people.map(({ student, ...is }) => ({
    ...{ student: studentId(student), ...is, advisor: advisors.get(student) ?? null },
    lacks: lacks.get(student)!
  }))
}

/** What those lack for whom an opening is the first. */
async function lacksOfOpening(
  db: Reader,
  opening: typeof t.opening.$inferSelect | undefined,
  { catalogContext, now }: { catalogContext: CatalogContext; now: Instant }
): Promise<{ code: TermCode; lacks: Map<number, Lack[]> }> {
  if (!opening) throw new Refused(404, 'noOpening', 'There is no such opening any more.')
  const [term] = await db.select().from(t.term).where(eq(t.term.id, opening.termId))
  if (now >= term!.addEndsAt.getTime()) throw new Refused(409, 'closed', `Adding to ${term!.name} has ended.`)
  const code = termCode(term!.code)
  const everybody = await everybodyOf(db)
  const first = await opensFor(db, code, everybody)
  const people = everybody.filter((one) => first.get(one) === opening.opensAt.getTime())
  return { code, lacks: await lacksOf(db, catalogContext, code, { students: people, now }) }
}

/** What students lack to register in a term; who lacks nothing is left out. */
async function lacksOf(
  db: Reader,
  catalogContext: CatalogContext,
  code: TermCode,
  { students, now }: { students: readonly StudentId[]; now: Instant }
): Promise<Map<number, Lack[]>> {
  const { id } = await termRow(db, code)
  const unsigned = await withoutSignOff(db, catalogContext, code, { students, now })
  const held = await db
    .selectDistinct({ id: t.hold.studentId })
    .from(t.hold)
    .where(all(isNull(t.hold.liftedAt), eq(t.hold.stopsRegistration, true)))
  const stopped = new Set(held.map((row) => row.id))
  const [planned, seats] = [await plannedIn(db, id), await heldIn(db, id)]
  const picked = await db
    .select({ student: t.draftWeek.studentId, courseId: t.section.courseId })
    .from(t.pickedSection)
    .innerJoin(t.draftWeek, eq(t.draftWeek.id, t.pickedSection.draftWeekId))
    .innerJoin(t.section, eq(t.section.id, t.pickedSection.sectionId))
    .where(all(eq(t.draftWeek.termId, id), eq(t.draftWeek.goingWith, true)))
  const settled = new Set([...picked, ...seats].map((row) => `${row.student} ${row.courseId}`))
  const holds = new Set(seats.map((row) => row.student))
  const plans = groupBy(planned, (row) => row.student)
  const found = new Map<number, Lack[]>()
  for (const student of students) {
    const courses = plans.get(student) ?? []
    const is: Record<Lack, boolean> = {
      signOff: unsigned.has(student),
      hold: stopped.has(student),
      plan: !courses.length && !holds.has(student),
      sections: courses.some((one) => !settled.has(`${student} ${one.courseId}`))
    }
    const lacks = LACKS.filter((lack) => is[lack])
    if (lacks.length) found.set(student, lacks)
  }
  return found
}

/** Of students, those whose registration of a term waits for a sign-off that they do not have. */
async function withoutSignOff(
  db: Reader,
  catalogContext: CatalogContext,
  code: TermCode,
  { students, now }: { students: readonly StudentId[]; now: Instant }
): Promise<ReadonlySet<number>> {
  const term = termOf(catalogContext, code)
  const programs = groupBy(await programRows(db, [...students]), (row) => row.studentId)
  const policies = await readPolicies(db)
  const { id } = await termRow(db, code)
  const has = new Set((await standingSignOffs(db, id, now)).map((row) => row.student))
  const policyOf = (student: number) => {
    const own = programs.get(student) ?? []
    return signOffPolicyOf(
      { programs: own.map(({ programId }) => ({ policies: policies.get(programId) ?? [] })) },
      term
    )
  }
  return new Set(students.filter((one) => !has.has(one) && policyOf(one) !== 'none'))
}

/** Nobody is told the same twice within a day. */
const AGAIN_MS = 86_400_000

/**
 * Tells those of an opening who are not ready what they lack.
 *
 * @returns how many were told, and how many had been within a day
 * @throws Refused where adding has ended
 */
export async function nudge(
  tx: Transaction,
  who: Who,
  id: number,
  { catalogContext, now }: { catalogContext: CatalogContext; now: Instant }
): Promise<{ told: number; already: number }> {
  // Who presses at the same time waits here, and tells nobody twice.
  const [opening] = await tx.select().from(t.opening).where(eq(t.opening.id, id)).for('update')
  const { code, lacks } = await lacksOfOpening(tx, opening, { catalogContext, now })
  const lately = await tx
    .selectDistinct({ student: t.eventLog.studentId })
    .from(t.eventLog)
    .where(all(eq(t.eventLog.action, 'opening.nudged'), gte(t.eventLog.at, new Date(now - AGAIN_MS))))
  const known = new Set(lately.map((row) => row.student))
  const fresh = [...lacks].filter(([student]) => !known.has(student))
  for (const [student, list] of fresh)
    await logEvent(tx, {
      ...{ at: now, account: who.id, student: studentId(student), action: 'opening.nudged' },
      after: { term: code, opening: id, opens: opening!.opensAt.getTime(), lacks: list }
    })
  return { told: fresh.length, already: lacks.size - fresh.length }
}
