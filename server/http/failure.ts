/**
 * What is answered when something fails. A refusal says its sentence; anything else is logged without personal data and
 * says only what is known: whether the database was reached, whether somebody else held what was wanted, or neither.
 */
import type { Problem } from '#shared/responses'
import { DatabaseError, withoutParameters } from '#server/db/connect'
import { sayFailed } from '#server/gateways/log'
import { Refused } from './problem'

/** The database was not reached, or went away on the way. */
const LOST = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  'PROTOCOL_CONNECTION_LOST',
  'ER_SERVER_SHUTDOWN',
  'ER_CONNECTION_KILLED',
  'ER_CON_COUNT_ERROR'
])
/** Somebody else held it for too long. */
const HELD = new Set(['ER_LOCK_WAIT_TIMEOUT', 'ER_LOCK_DEADLOCK'])

/** @param request its number, for the log */
export function answerFor(error: unknown, request?: string): { status: number; problem: Problem } {
  if (error instanceof Refused) {
    const { status, code, message, fields } = error
    return { status, problem: { code, message, ...(fields ? { fields } : {}) } }
  }
  const known = withoutParameters(error)
  sayFailed('A request failed', known, { request })
  const code =
    known instanceof DatabaseError ? known.code : ((known as { code?: string } | undefined)?.code ?? '')
  if (LOST.has(code)) return unsettled(503, 'database', 'The record cannot be reached at the moment.')
  if (HELD.has(code))
    return unsettled(503, 'busy', 'Somebody else is working on the same thing at this moment.')
  return unsettled(500, 'failed', 'This failed for a reason of ours, which is noted.')
}

/** Whether something was changed before it failed is not known here. */
function unsettled(status: number, code: string, what: string): { status: number; problem: Problem } {
  return {
    status,
    problem: { code, message: `${what} Try again in a minute, and look first at what is there.` }
  }
}
