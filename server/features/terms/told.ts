/** Who holds a seat is told what has changed of the term. */
import { eq } from 'drizzle-orm'
import { studentId, type TermCode } from '#core/ids'
import type { Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import type { Who } from '#shared/accounts/responses'
import type { TermSaid } from '#shared/offices/terms'
import { changesOfTerm } from '#shared/offices/termTexts'

/** @returns how many were told; nobody where nothing has changed that a student acts on */
export async function tellChanges(
  tx: Transaction,
  who: Who,
  { id, code, before, after }: { id: number; code: TermCode; before: TermSaid; after: TermSaid },
  now: number
): Promise<number> {
  const changes = changesOfTerm(before, after)
  if (!changes.length) return 0
  const rows = await tx
    .selectDistinct({ student: t.registration.studentId })
    .from(t.registration)
    .innerJoin(t.section, eq(t.section.id, t.registration.sectionId))
    .where(eq(t.section.termId, id))
  for (const { student } of rows)
    await logEvent(tx, {
      ...{ at: now, account: who.id, student: studentId(student), action: 'term.datesChanged' },
      after: { term: code, changes }
    })
  return rows.length
}
