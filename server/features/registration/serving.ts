/** The lines of all terms, served as the campus time and the seats stand. Whoever calls it at the same time does no harm. */
import { sayFailed } from '#server/gateways/log'
import { eq } from 'drizzle-orm'
import type { Database } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { whoIs } from '#server/features/accounts/accounts'
import type { CatalogContext } from '#shared/catalog/context'
import { answerOffer } from './answer'
import { serveLines } from './offers'
import { lapseOffers } from './openOffers'

/** Ends offers that are over and offers what is kept, in this order. */
export async function serveAllLines(db: Database, catalogContext: CatalogContext): Promise<void> {
  await lapseOffers(db)
  await serveLines(db, catalogContext, async (offer, student) => {
    const [row] = await db
      .select({ account: t.student.accountId })
      .from(t.student)
      .where(eq(t.student.id, student))
    const who = await whoIs(db, row!.account)
    // Refused at the last moment, it stays an offer that its student may answer.
    await answerOffer(db, who, student, offer, { answer: 'accept', givingUp: [] }, catalogContext)
  })
}

/** The same after a change that may have freed a seat. It is done already, so what fails here is said and left for the next turn. */
export async function serveAfter(db: Database, catalogContext: CatalogContext): Promise<void> {
  try {
    await serveAllLines(db, catalogContext)
  } catch (error) {
    sayFailed('Serving the lines failed', error)
  }
}
