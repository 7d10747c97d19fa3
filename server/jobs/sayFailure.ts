import { sayFailed } from '#server/gateways/log'
import { Refused } from '#server/http/problem'

/** What fails in work that nobody waits for is said, and left for the next turn. */
export function sayFailure(error: unknown): void {
  // Before there is an institution there is no work.
  if (error instanceof Refused && error.code === 'notSetUp') return
  sayFailed('The work of the minute failed', error)
}
