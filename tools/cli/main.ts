/** The commands and their help. Exit codes: 0 done, 1 faults in what was read, 2 called in a wrong way. */
import { audit } from './audit'
import { check } from './check'
import { CallError } from './options'

const HELP = `ridgeway check FILES…
  Reads catalogs, programs, course lists and records and says what is wrong with them. Programs are
  checked against the catalogs among the files.

ridgeway audit --catalog C.json --program P.json [--program …] --record R.json [--lists L.json] [--json]
  Reads a record against programs, the first of them the degree, and prints the result; with --json
  as "ridgeway audit 1".

ridgeway audit --catalog C.json --program P.json [--program …] --batch DIR [--workers N] [--json]
  The same for every record in a folder: a line each, with --json a JSON line each.

Exit codes: 0 done, 1 something is wrong with a file, 2 called in a wrong way.
The formats are described in docs/formats.md.`

const COMMANDS: Record<string, (args: readonly string[]) => Promise<number> | number> = { audit, check }

export async function main(args: readonly string[]): Promise<number> {
  const [name, ...rest] = args
  if (name === undefined || name === '--help' || name === 'help') {
    console.log(HELP)
    return name === undefined ? 2 : 0
  }
  const command = COMMANDS[name]
  if (!command) {
    console.error(`There is no command "${name}". "ridgeway --help" lists them.`)
    return 2
  }
  try {
    return await command(rest)
  } catch (error) {
    if (!(error instanceof CallError)) throw error
    console.error(error.message)
    return error.exitCode
  }
}
