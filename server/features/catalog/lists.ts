/** Course lists, one version for each catalog year, of which those that published programs rest on stay as they are. */
import { asc, eq } from 'drizzle-orm'
import { scaleOf } from '#core/grades'
import { Catalog } from '#core/catalog'
import type { Instant } from '#core/time'
import type { Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import { listedCourses, type WrittenList } from '#shared/catalog/writing'
import { readCatalog } from './catalog'

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
  await tx.select({ id: t.institution.id }).from(t.institution).for('update')
  const { courses, lists, institution } = await readCatalog(tx)
  const newest = lists.filter((one) => one.name === said.name).at(-1)
  if (newest && newest.catalogYear >= said.catalogYear)
    throw wrong('catalogYear', `has to come after ${newest.catalogYear}, the last year of ${said.name}`)
  const program = await resting(tx, said)
  if (program)
    throw wrong(
      'catalogYear',
      `has to come after ${program.catalogYear}: ${program.code} of that year is published and asks for ${said.name}`
    )
  const listed = listedCourses(said, new Catalog(courses, scaleOf(institution.grades)), lists)
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

/** The last published version of a program, of the year or after it, that asks for the list. */
async function resting(tx: Transaction, { name, catalogYear }: WrittenList) {
  const named = new RegExp(String.raw`\blist ${name}(?![\w-])`)
  const rows = await tx
    .select({
      code: t.program.code,
      catalogYear: t.programVersion.catalogYear,
      areas: t.programVersion.areas,
      rules: t.programVersion.rules
    })
    .from(t.programVersion)
    .innerJoin(t.program, eq(t.program.id, t.programVersion.programId))
    .orderBy(asc(t.programVersion.catalogYear))
  return rows
    .filter((one) => one.catalogYear >= catalogYear && named.test(JSON.stringify([one.areas, one.rules])))
    .at(-1)
}
