/** Options of the command line, by Node's own parser, and its failures as one sentence. */
import { parseArgs, type ParseArgsConfig } from 'node:util'

/** Exit codes of a command that was carried out: as asked, or the answer is no. */
export const DONE = 0
export const NOT_ALL = 3

/** Ends a command with a sentence. */
export class CallError extends Error {
  constructor(
    message: string,
    readonly exitCode: 1 | 2 = 2
  ) {
    super(message)
  }
}

/** @throws CallError for an option that is unknown or lacks its value. */
export function options<T extends NonNullable<ParseArgsConfig['options']>>(
  args: readonly string[],
  wanted: T,
  positionals = false
) {
  try {
    return parseArgs({ args: [...args], options: wanted, allowPositionals: positionals, strict: true })
  } catch (error) {
    throw new CallError(`${(error as Error).message.split('. ')[0]}. "ridgeway --help" shows how to call it.`)
  }
}
