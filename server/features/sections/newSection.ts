/** A section that is like no other: a first one of a course in a term, or one of another make. */
import { asc, eq } from 'drizzle-orm'
import type { CourseCode, TermCode } from '#core/ids'
import { all, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { termRow } from '#server/features/catalog/catalog'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import type { CatalogContext } from '#shared/catalog/context'
import type { NewSection } from '#shared/sections/requests'
import { insertFamily, mustFit } from './family'
import { mustNotBeOver, mustPlan } from './planning'
import { putRules } from './rules'

/**
 * Adds a section with its components, over the whole of a session.
 *
 * @throws Refused where there is no such session or campus, or a room or an instructor is taken
 * @returns the code of the new section
 */
export async function makeSection(
  tx: Transaction,
  who: Who,
  { term: code, course }: { term: TermCode; course: CourseCode },
  said: NewSection,
  { catalogContext, now }: { catalogContext: CatalogContext; now: number }
): Promise<string> {
  await mustPlan(tx, who, course)
  const term = await termRow(tx, code)
  mustNotBeOver(term, now, catalogContext)
  const [own] = await tx.select().from(t.course).where(eq(t.course.code, course))
  const [session] = await tx
    .select()
    .from(t.session)
    .where(all(eq(t.session.termId, term.id), eq(t.session.code, said.session)))
  if (!session) throw unknown('session', `${term.name} has no session ${said.session}.`)
  const [campus] = await tx
    .select()
    .from(t.campus)
    .where(eq(t.campus.code, said.campus))
    .orderBy(asc(t.campus.id))
  if (!campus) throw unknown('campus', `There is no campus ${said.campus}.`)
  const parts = said.parts.map((part) => ({ ...part, from: session.startsOn, to: session.endsOn }))
  const { instructors } = said.rules
  await mustFit(tx, term, parts, { instructors, catalogContext })
  const made = await insertFamily(
    tx,
    parts.map((part, i) => ({
      part,
      values: {
        ...{ courseId: own!.id, termId: term.id, sessionId: session.id, campusId: campus.id },
        ...{ kind: part.kind, mode: said.mode, fee: 0, waitCapacity: said.rules.line },
        credits: i ? 0 : own!.credits,
        creditsMost: !i && own!.creditsMost > own!.credits ? own!.creditsMost : null
      }
    })),
    instructors
  )
  await putRules(tx, made[0]!, said.rules)
  const { code: section, capacity } = made[0]!
  await logEvent(tx, {
    ...{ at: now, account: who.id, student: null, action: 'section.added' },
    after: { term: term.code, course, section, capacity, parts: made.length }
  })
  return section
}

const unknown = (field: string, text: string) =>
  new Refused(422, `no${field[0]!.toUpperCase()}${field.slice(1)}`, text, [
    { field, message: `has to be one that there is` }
  ])
