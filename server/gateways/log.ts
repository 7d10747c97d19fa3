/**
 * What a server tells whoever runs it: a line of JSON each on standard error, without personal data. Requests are told at
 * `info`, by the pattern of their address.
 */
import pino from 'pino'
import { withoutParameters } from '#server/db/connect'
import { theSettings } from '#server/settings'

let log: pino.Logger | undefined

export function theLog(): pino.Logger {
  return (log ??= pino(
    {
      level: theSettings().log,
      base: { pid: process.pid },
      messageKey: 'said',
      timestamp: pino.stdTimeFunctions.isoTime,
      formatters: { level: (level) => ({ level }) }
    },
    pino.destination({ fd: 2, sync: true })
  ))
}

/** Something failed that nobody waits for, or that is answered as a failure; `more` says where. */
export function sayFailed(what: string, error: unknown, more: Readonly<Record<string, unknown>> = {}): void {
  const known = withoutParameters(error)
  theLog().error(
    known instanceof Error ? { ...more, error: known.name, why: known.message, stack: known.stack } : more,
    what
  )
}
