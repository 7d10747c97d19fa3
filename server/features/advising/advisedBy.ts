/** Who advises whom: the advisors of a student, and on days on which one is away, who stands in. */
import { asc, eq, inArray } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import type { StudentId } from '#core/ids'
import { all, type Reader } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { campusNow } from '#server/gateways/clock'
import type { AdvisorCard } from '#shared/advising/responses'
import { campusDate } from '#shared/when'

export interface Advised {
  student: number
  purpose: AdvisorCard['purpose']
  /** The advisor who is away, where somebody stands in. */
  standsInFor: string | null
}

/** Students whom somebody advises today, of their own or standing in; of one who is both, their own purpose counts. */
export async function advisedBy(db: Reader, account: number, only?: StudentId): Promise<Advised[]> {
  const [own] = await db.select({ id: t.advisor.id }).from(t.advisor).where(eq(t.advisor.accountId, account))
  if (!own) return []
  const away = await awayFor(db, own.id)
  const names = new Map(away.map((one) => [one.advisor, one.name]))
  const advisors = inArray(t.advising.advisorId, [own.id, ...names.keys()])
  const rows = await db
    .select({ student: t.advising.studentId, purpose: t.advising.purpose, advisor: t.advising.advisorId })
    .from(t.advising)
    .where(only === undefined ? advisors : all(advisors, eq(t.advising.studentId, only)))
    .orderBy(asc(t.advising.studentId))
  const found = new Map<number, Advised>()
  for (const { student, purpose, advisor } of rows) {
    const standsInFor = names.get(advisor) ?? null
    const known = found.get(student)
    const isCloser = standsInFor === null || purpose === 'program'
    if (!known || (known.standsInFor !== null && isCloser))
      found.set(student, { student, purpose, standsInFor })
  }
  return [...found.values()]
}

/** Advisors for whom one stands in today. */
async function awayFor(db: Reader, standIn: number): Promise<{ advisor: number; name: string }[]> {
  const rows = await db
    .select({
      advisor: t.advisorAway.advisorId,
      from: t.advisorAway.fromDate,
      to: t.advisorAway.toDate,
      name: t.account.name
    })
    .from(t.advisorAway)
    .innerJoin(t.advisor, eq(t.advisor.id, t.advisorAway.advisorId))
    .innerJoin(t.account, eq(t.account.id, t.advisor.accountId))
    .where(eq(t.advisorAway.standInId, standIn))
  if (!rows.length) return []
  const today = await campusToday(db)
  return rows.filter(({ from, to }) => from <= today && today <= to)
}

/** Accounts of those who advise a student on the program, and of who stands in for them today. */
export async function programAdvisorsOf(db: Reader, student: number): Promise<{ id: number }[]> {
  const standIn = alias(t.advisor, 'stand_in')
  const rows = await db
    .select({
      own: t.advisor.accountId,
      other: standIn.accountId,
      from: t.advisorAway.fromDate,
      to: t.advisorAway.toDate
    })
    .from(t.advising)
    .innerJoin(t.advisor, eq(t.advisor.id, t.advising.advisorId))
    .leftJoin(t.advisorAway, eq(t.advisorAway.advisorId, t.advisor.id))
    .leftJoin(standIn, eq(standIn.id, t.advisorAway.standInId))
    .where(all(eq(t.advising.studentId, student), eq(t.advising.purpose, 'program')))
  const found = new Set(rows.map((row) => row.own))
  const standIns = rows.filter((row) => row.other !== null)
  if (standIns.length) {
    const today = await campusToday(db)
    for (const { other, from, to } of standIns) if (from! <= today && today <= to!) found.add(other!)
  }
  return [...found].map((id) => ({ id }))
}

/** Who advises students on their program, by name; of several the first. */
export async function programAdvisorNames(
  db: Reader,
  students: readonly number[]
): Promise<Map<number, string>> {
  if (!students.length) return new Map()
  const rows = await db
    .select({ student: t.advising.studentId, name: t.account.name })
    .from(t.advising)
    .innerJoin(t.advisor, eq(t.advisor.id, t.advising.advisorId))
    .innerJoin(t.account, eq(t.account.id, t.advisor.accountId))
    .where(all(inArray(t.advising.studentId, [...students]), eq(t.advising.purpose, 'program')))
    .orderBy(asc(t.advising.studentId), asc(t.advisor.id))
  return new Map(rows.toReversed().map((row) => [row.student, row.name]))
}

async function campusToday(db: Reader): Promise<string> {
  const [place] = await db.select({ zone: t.institution.timeZone }).from(t.institution)
  return campusDate(await campusNow(db), place!.zone)
}
