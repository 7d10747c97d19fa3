/** Openings as the registrar sees them: for how many, who of them is not ready; and moved, with everybody told. */
import { asc, eq, gt, isNull } from 'drizzle-orm'
import { studentId, termCode, type StudentId, type TermCode } from '#core/ids'
import type { Instant } from '#core/time'
import { all, type Reader, type Transaction } from '#server/db/connect'
import { groupBy } from '#server/db/groupBy'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { standingSignOffs } from '#server/features/advising/signOff'
import { termRow } from '#server/features/catalog/catalog'
import { programRows, readPolicies } from '#server/features/record/queries'
import { opensFor } from '#server/features/registration/openings'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import { signOffPolicyOf } from '#shared/advising/review'
import { termOf, type Shelf } from '#shared/catalog/shelf'
import type { OpeningFigures } from '#shared/offices/openings'
import { deadlineText } from '#shared/when'

/** Openings of published terms that take additions yet, each with those for whom it is the first. */
export async function readOpeningFigures(db: Reader, shelf: Shelf, now: Instant): Promise<OpeningFigures[]> {
  const rows = await db
    .select({ id: t.opening.id, title: t.opening.title, opensAt: t.opening.opensAt, term: t.term.code })
    .from(t.opening)
    .innerJoin(t.term, eq(t.term.id, t.opening.termId))
    .where(all(eq(t.term.published, true), gt(t.term.addEndsAt, new Date(now))))
    .orderBy(asc(t.opening.opensAt), asc(t.opening.id))
  const everybody = await everybodyOf(db)
  const held = new Set(
    (
      await db
        .selectDistinct({ id: t.hold.studentId })
        .from(t.hold)
        .where(all(isNull(t.hold.liftedAt), eq(t.hold.stopsRegistration, true)))
    ).map((row) => row.id)
  )
  const found: OpeningFigures[] = []
  for (const [code, own] of groupBy(rows, (row) => row.term)) {
    const term = termCode(code)
    const opens = await opensFor(db, term, everybody)
    const unsigned = await withoutSignOff(db, shelf, term, { students: everybody, now })
    const firsts = groupBy([...opens], ([, at]) => at)
    // Of several at the same instant the first row stands for all.
    const told = new Set<number>()
    for (const { id, title, opensAt } of own) {
      const at = opensAt.getTime()
      const people = told.has(at) ? [] : (firsts.get(at) ?? []).map(([student]) => student)
      told.add(at)
      found.push({
        ...{ id, term, title, opens: at, students: people.length },
        unsigned: people.filter((one) => unsigned.has(one)).length,
        held: people.filter((one) => held.has(one)).length
      })
    }
  }
  return found
}

/** Of students, those whose registration of a term waits for a sign-off that they do not have. */
async function withoutSignOff(
  db: Reader,
  shelf: Shelf,
  code: TermCode,
  { students, now }: { students: readonly StudentId[]; now: Instant }
): Promise<ReadonlySet<number>> {
  const term = termOf(shelf, code)
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

/** Everybody, by their numbers. */
const everybodyOf = async (db: Reader): Promise<StudentId[]> =>
  (await db.select({ id: t.student.id }).from(t.student)).map((row) => studentId(row.id))

/**
 * Moves an opening that is to come; whoever may register from another instant by it is told.
 *
 * @returns how many were told
 * @throws Refused where it has passed, or would be after adding ends
 */
export async function moveOpening(
  tx: Transaction,
  who: Who,
  id: number,
  opens: Instant,
  { now, zone }: { now: Instant; zone: string }
): Promise<{ told: number }> {
  const [opening] = await tx.select().from(t.opening).where(eq(t.opening.id, id)).for('update')
  if (!opening) throw new Refused(404, 'noOpening', 'There is no such opening any more.')
  const [term] = await tx.select().from(t.term).where(eq(t.term.id, opening.termId))
  if (!term) throw new Error(`opening ${id} is of no term`)
  const before = opening.opensAt.getTime()
  if (before <= now)
    throw new Refused(
      409,
      'open',
      `It opened on ${deadlineText(before, zone)}; who may register cannot be told otherwise.`
    )
  if (opens <= now || opens >= term.addEndsAt.getTime())
    throw new Refused(422, 'outside', `It has to be from now on, and before adding to ${term.name} ends.`, [
      {
        field: 'opens',
        message: `has to be before ${deadlineText(term.addEndsAt.getTime(), zone)}, and to come`
      }
    ])
  const code = termCode(term.code)
  const everybody = await everybodyOf(tx)
  const first = await opensFor(tx, code, everybody)
  await tx
    .update(t.opening)
    .set({ opensAt: new Date(opens) })
    .where(eq(t.opening.id, id))
  const then = await opensFor(tx, code, everybody)
  const concerned = everybody.filter((one) => first.get(one) !== then.get(one))
  for (const student of concerned)
    await logEvent(tx, {
      ...{ at: now, account: who.id, student, action: 'opening.moved' },
      before: { opens: first.get(student) ?? null },
      after: { term: term.code, opening: id, title: opening.title, opens: then.get(student) ?? null }
    })
  return { told: concerned.length }
}
