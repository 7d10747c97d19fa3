/** The commands and their help. ridgeway fill --catalog C.json --program P.json [--program …] --record R.json [--lists L.json]
    [--route ROUTE.json] [--limits LIMITS.json] [--from AU27] [--terms N] [--summers] [--prefer SUBJ] [--json]
  Fills the rest of the degree in: courses for what is needed and terms for them, with the earliest finish
  there is and whether that is proved. What the route (or the record) plans stays where it is.

ridgeway checkroute …the same files… [--json]
  Checks a route and says what is wrong with it, each with its ways out.

Exit codes: 0 done, 1 faults in what was read, 2 called in a wrong way. */
import { audit } from './audit'
import { check } from './check'
import { checkroute } from './checkroute'
import { fill } from './fill'
import { CallError } from './options'
import { weeks } from './weeks'

const HELP = `ridgeway check FILES…
  Reads catalogs, programs, course lists and records and says what is wrong with them. Programs are
  checked against the catalogs among the files.

ridgeway audit --catalog C.json --program P.json [--program …] --record R.json [--lists L.json] [--json]
  Reads a record against programs, the first of them the degree, and prints the result; with --json
  as "ridgeway audit 1".

ridgeway audit --catalog C.json --program P.json [--program …] --batch DIR [--workers N] [--json]
  The same for every record in a folder: a line each, with --json a JSON line each.

ridgeway fill --catalog C.json --program P.json [--program …] --record R.json [--lists L.json]
    [--route ROUTE.json] [--limits LIMITS.json] [--from AU27] [--terms N] [--summers] [--prefer SUBJ] [--json]
  Fills the rest of the degree in: courses for what is needed and terms for them, with the earliest finish
  there is and whether that is proved. What the route (or the record) plans stays where it is.

ridgeway checkroute …the same files… [--json]
  Checks a route and says what is wrong with it, each with its ways out.

ridgeway weeks --sections S.json --want W.json [--top 50] [--json]
  Finds the weeks in which nothing clashes, the best of them first as the wishes are ordered, and says how
  many there are; or what cannot hold together, and what letting go of one thing would give.

Exit codes: 0 done, 1 something is wrong with a file, 2 called in a wrong way.
The formats are described in docs/formats.md.`

const COMMANDS: Record<string, (args: readonly string[]) => Promise<number> | number> = {
  audit,
  check,
  checkroute,
  fill,
  weeks
}

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
