/**
 * What a server does without being asked, once when it starts and every minute from then on. Servers on one database do
 * it side by side: each piece of work is done once, or is the same done twice.
 */
import type { Database } from '#server/db/connect'
import { forgetMadeChanges } from '#server/db/madeChange'
import { endCutOffRuns } from '#server/features/registration/run'
import { serveAllLines } from '#server/features/registration/serving'
import type { Shelf } from '#shared/catalog/shelf'

const MINUTE_MS = 60_000

export async function everyMinute(db: Database, shelf: Shelf): Promise<void> {
  await endCutOffRuns(db)
  await serveAllLines(db, shelf)
  await forgetMadeChanges(db, Date.now())
}

/** Begins the work, until the returned function is called. What fails is said, and tried again with the next turn. */
export function begin(db: () => Database, shelf: () => Promise<Shelf>): () => void {
  const work = async () => everyMinute(db(), await shelf())
  const turn = () =>
    void work().catch((error: unknown) =>
      console.error(`The work of the minute failed: ${error instanceof Error ? error.message : 'unknown'}`)
    )
  turn()
  const timer = setInterval(turn, MINUTE_MS).unref()
  return () => clearInterval(timer)
}
