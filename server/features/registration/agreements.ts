/** Terms of registration, accepted once for a term; what was accepted is kept word for word, with the time. */
import type { TermCode } from '#core/ids'
import type { Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { termRow } from '#server/features/catalog/catalog'
import { lockStudent } from '#server/features/record/lock'
import type { ActorContext } from '#server/features/route/route'
import { Refused } from '#server/http/problem'

/** @throws Refused where the text is not what the term asks to accept now */
export async function acceptAgreement(
  tx: Transaction,
  { who, student, now }: ActorContext,
  { term: code, text }: { term: TermCode; text: string }
): Promise<void> {
  const term = await termRow(tx, code)
  if (term.agreement !== text)
    throw new Refused(
      409,
      'otherTerms',
      term.agreement === null
        ? `${term.name} has no terms of registration to accept.`
        : `The terms of registration of ${term.name} have changed. Read them anew and accept them then.`,
      [{ field: 'text', message: 'has to be the terms of registration as they read now' }]
    )
  await lockStudent(tx, student)
  await tx
    .insert(t.agreement)
    .values({ studentId: student, termId: term.id, text, acceptedAt: new Date(now), byId: who.id })
  await logEvent(tx, {
    at: now,
    account: who.id,
    student,
    action: 'agreement.accepted',
    after: { term: code }
  })
}
