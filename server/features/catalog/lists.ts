/** Course lists, one version for each catalog year, of which those that published programs rest on stay as they are. */
import { asc, eq } from 'drizzle-orm'
import type { Instant } from '#core/time'
import type { Reader, Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import { listedCourses, type WrittenList } from '#shared/catalog/writing'
import { lockCatalog } from './writing'

/**
 * Makes a list of a year, of a name that is new or has earlier years.
 *
 * @throws Refused where its text is wrong, the year is not after the last, or a published program would be another by it
 */
export async function makeList(
  tx: Transaction,
  { who, now }: { who: Who; now: Instant },
  said: WrittenList
): Promise<{ courses: number }> {
  const { catalog, lists } = await lockCatalog(tx)
  const newest = lists.filter((one) => one.name === said.name).at(-1)
  if (newest && newest.catalogYear >= said.catalogYear)
    throw wrong('catalogYear', `has to come after ${newest.catalogYear}, the last year of ${said.name}`)
  const program = await lastAskingFor(tx, 'list', said.name, said.catalogYear)
  if (program)
    throw wrong(
      'catalogYear',
      `has to come after ${program.catalogYear}: ${program.code} of that year is published and asks for ${said.name}`
    )
  const listed = listedCourses(said, catalog, lists)
  if ('fault' in listed) throw wrong('from', `has a fault at position ${listed.at + 1}: ${listed.fault}`)
  if (!listed.courses.length) throw wrong('from', 'has to hold a course of the catalog')
  const { from: fromText, name, catalogYear, title } = said
  await tx.insert(t.courseList).values({ name, catalogYear, title, fromText })
  await logEvent(tx, {
    ...{ at: now, account: who.id, student: null, action: 'list.written' },
    after: { name, catalogYear, from: fromText }
  })
  return { courses: listed.courses.length }
}

const wrong = (field: string, message: string) =>
  new Refused(422, 'faults', `The list cannot be so: ${field} ${message}.`, [{ field, message }])

/** The last published version of a program, of a catalog year or after it, whose rules ask for a list, a category or a campus. */
export async function lastAskingFor(
  db: Reader,
  kind: 'list' | 'category' | 'campus',
  name: string,
  fromYear = ''
) {
  const named = new RegExp(String.raw`\b${kind} ${name}(?![\w-])`)
  const rows = await db
    .select({
      code: t.program.code,
      catalogYear: t.programVersion.catalogYear,
      areas: t.programVersion.areas,
      rules: t.programVersion.rules
    })
    .from(t.programVersion)
    .innerJoin(t.program, eq(t.program.id, t.programVersion.programId))
    .orderBy(asc(t.programVersion.catalogYear))
  return rows.findLast(
    ({ catalogYear, areas, rules }) => catalogYear >= fromYear && named.test(JSON.stringify([areas, rules]))
  )
}
