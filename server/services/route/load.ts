/** What a student can carry in a term, and the terms spent elsewhere. */
import { eq } from 'drizzle-orm'
import type { Carry } from '#wire/picture'
import type { Transaction } from '../../db/connect'
import * as t from '../../db/schema'
import { termRow } from '../catalog/catalog'
import { logEvent } from '../log'
import type { Occasion } from './route'

export async function writeCarry(tx: Transaction, at: Occasion, carry: Carry): Promise<void> {
  const target = carry.target === null ? null : (await termRow(tx, carry.target)).id
  await tx
    .update(t.student)
    .set({
      carryCredits: carry.credits,
      carryHours: carry.hours,
      outsideHours: carry.outside,
      aimTermId: target
    })
    .where(eq(t.student.id, at.student))
  await tx.delete(t.studentTerm).where(eq(t.studentTerm.studentId, at.student))
  for (const { term, credits, hours, away } of carry.terms) {
    if (credits === null && hours === null && away === null) continue
    const values = { carryCredits: credits, carryHours: hours, away }
    await tx
      .insert(t.studentTerm)
      .values({ studentId: at.student, termId: (await termRow(tx, term)).id, ...values })
      .onDuplicateKeyUpdate({ set: values })
  }
  await logEvent(tx, {
    at: at.now,
    account: at.who.id,
    student: at.student,
    action: 'carry.changed',
    after: carry
  })
}
