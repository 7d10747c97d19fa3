/** The commands of `ridgeway`, and what each of them says of itself. */
import { audit } from './audit'
import { check } from './check'
import { checkroute } from './checkroute'
import { fill } from './fill'
import { CallError } from './options'
import { weeks } from './weeks'

interface Command {
  run: (args: readonly string[]) => Promise<number> | number
  help: string
}

const COMMANDS: Record<string, Command> = {
  check: {
    run: check,
    help: `ridgeway check FILES…
  Reads catalogs, programs, course lists and records and says what is wrong with them. Programs are
  checked against the catalogs among the files.`
  },
  audit: {
    run: audit,
    help: `ridgeway audit --catalog C.json --program P.json [--program …] --record R.json [--lists L.json] [--json | --csv]
  Reads a record (R.json, or a table R.csv) against programs, the first of them the degree, and prints the result;
  with --json as "ridgeway audit 1", with --csv as a table.

ridgeway audit --catalog C.json --program P.json [--program …] --batch DIR [--workers N] [--json]
  The same for every record in a folder: a line each, with --json a JSON line each.`
  },
  fill: {
    run: fill,
    help: `ridgeway fill --catalog C.json --program P.json [--program …] --record R.json [--lists L.json]
    [--route ROUTE.json] [--limits LIMITS.json] [--from AU27] [--terms N] [--summers] [--prefer SUBJ] [--json]
  Fills the rest of the degree in: courses for what is needed and terms for them, with the earliest finish
  there is and what of it is proved. What the route (or the record) plans stays where it is.`
  },
  checkroute: {
    run: checkroute,
    help: `ridgeway checkroute --catalog C.json --program P.json [--program …] --record R.json [--lists L.json]
    [--route ROUTE.json] [--limits LIMITS.json] [--from AU27] [--terms N] [--json]
  Checks a route and says what is wrong with it, each with its ways out.`
  },
  weeks: {
    run: weeks,
    help: `ridgeway weeks --sections S.json --want W.json [--top 50] [--json | --csv]
  Finds the weeks in which nothing clashes, the best of them first as the wishes are ordered, and says how
  many there are; or what cannot hold together, and what letting go of one thing would give. The sections may be a
  table, S.csv; with --csv the weeks are one.`
  }
}

const CODES = `Exit codes: 0 done, 1 something is wrong with a file, 2 called in a wrong way, 3 the answer is no: not
everything can be filled in, a route has findings that make a course impossible, or no week fits.
The formats are described in docs/formats.md.`

function helpOn(commands: readonly Command[]): string {
  return [...commands.map(({ help }) => help), CODES].join('\n\n')
}

export async function main(args: readonly string[]): Promise<number> {
  const [name, ...rest] = args
  if (name === undefined || name === '--help' || name === 'help') {
    console.log(helpOn(Object.values(COMMANDS)))
    return name === undefined ? 2 : 0
  }
  const command = Object.hasOwn(COMMANDS, name) ? COMMANDS[name] : undefined
  if (!command) {
    console.error(`There is no command "${name}". "ridgeway --help" lists them.`)
    return 2
  }
  if (rest.includes('--help')) {
    console.log(helpOn([command]))
    return 0
  }
  try {
    return await command.run(rest)
  } catch (error) {
    if (!(error instanceof CallError)) throw error
    console.error(error.message)
    return error.exitCode
  }
}
