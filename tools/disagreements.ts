/** What a database has written in several places and does not agree on. */
import { connect } from '#server/db/connect'
import { disagreements } from '#server/features/registration/reconcile'

export async function disagreementsIn(url: string): Promise<string[]> {
  const { db, close } = connect(url, { connections: 1 })
  try {
    // One reading of everything: what changes meanwhile would seem not to agree.
    return await db.transaction((tx) => disagreements(tx), { isolationLevel: 'repeatable read' })
  } finally {
    await close()
  }
}
