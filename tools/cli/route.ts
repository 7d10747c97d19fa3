/** A record with a route, read from files: what filling and checking start from. */
import type { TermCode } from '#core/ids'
import type { Term } from '#core/catalog'
import { TERM_CODE, termCode } from '#core/ids'
import type { RouteContext } from '#core/route'
import type { PlannedCourse } from '#core/degree'
import { NO_LIMITS, trialContext } from '#shared/degree/trial'
import { Complaints, readLimits, readRecord, readRoute, textOf } from './files'
import { CallError, options } from './options'
import { loadQuestion } from './question'

const TERMS = 8

export interface RouteCall {
  values: {
    json: boolean
    summers: boolean
    prefer: string[]
  }
  planned: readonly PlannedCourse[]
  contextWith: (planned: readonly PlannedCourse[]) => RouteContext
}

const ASKED = {
  catalog: { type: 'string', multiple: true },
  program: { type: 'string', multiple: true },
  lists: { type: 'string', multiple: true },
  record: { type: 'string' },
  route: { type: 'string' },
  limits: { type: 'string' },
  from: { type: 'string' },
  terms: { type: 'string' },
  summers: { type: 'boolean' },
  prefer: { type: 'string', multiple: true },
  json: { type: 'boolean' }
} as const

/** The files of the call; or what is wrong with them, a line each. With `wholeRoute` every term of the route is looked at. */
export function readCall(
  args: readonly string[],
  { wholeRoute = false }: { wholeRoute?: boolean } = {}
): RouteCall | string[] {
  const { values } = options(args, ASKED)
  const { catalog = [], program = [], lists = [], record, route, limits, from } = values
  if (!catalog.length) throw new CallError('Name a catalog with --catalog.')
  if (!program.length) throw new CallError('Name a program with --program.')
  if (record === undefined) throw new CallError('Name a record with --record.')
  if (from !== undefined && !TERM_CODE.test(from))
    throw new CallError(`--from has to be a term such as AU27, not ${from}.`)
  const count = termsAsked(values.terms)
  const complaints = new Complaints()
  const question = loadQuestion({ catalogs: catalog, programs: program, lists }, complaints)
  const content = question && readRecord(record, textOf(record), question.catalog, complaints)
  const given = route === undefined ? undefined : readRoute(route, textOf(route), complaints)
  const carry = limits === undefined ? NO_LIMITS : readLimits(limits, textOf(limits), complaints)
  if (!question || !content || !carry || complaints.lines.length) return complaints.lines
  const planned = given ?? content.planned
  const named = [...content.record, ...content.held, ...content.planned, ...planned].flatMap(
    (one) => one.term ?? []
  )
  const strange = [...named, ...(from === undefined ? [] : [from])].find(
    (code) => !USUAL.test(code) && !question.terms.some((term) => term.code === code)
  )
  if (strange !== undefined)
    return [
      `${catalog[0]!}: terms: has to bring the dates of ${strange}, which is not named as AU27, SP28 or SU28 are.`
    ]
  const { terms, plannable } = termsOf(question.terms, {
    taken: content.record.flatMap((one) => one.term ?? []),
    used: planned.map((one) => one.term),
    named,
    from,
    count,
    wholeRoute
  })
  const contextWith = (all: readonly PlannedCourse[]) =>
    trialContext(
      content,
      { programs: question.programs, catalog: question.catalog, terms },
      {
        planned: all.filter((one) => plannable.has(one.term)),
        earlier: all.filter((one) => !plannable.has(one.term)),
        carry,
        plannable
      }
    )
  const { json = false, summers = false, prefer = [] } = values
  return { values: { json, summers, prefer }, planned, contextWith }
}

function termsAsked(said: string | undefined): number {
  const count = said === undefined ? TERMS : Number(said)
  if (Number.isInteger(count) && count >= 1 && count <= 24) return count
  throw new CallError('--terms has to be a whole number from 1 to 24.')
}

/** The terms of a call, and those in which courses may be planned. @throws CallError where there are none */
function termsOf(
  known: readonly Term[],
  {
    taken,
    used,
    named,
    from,
    count,
    wholeRoute
  }: {
    taken: readonly TermCode[]
    used: readonly TermCode[]
    named: readonly TermCode[]
    from: string | undefined
    count: number
    wholeRoute: boolean
  }
): { terms: readonly Term[]; plannable: ReadonlySet<string> } {
  const order = known.length ? orderOf(known) : USUAL_ORDER
  const next = order.after(taken) ?? known[0]?.code ?? (used.length ? order.earliest(used) : FIRST)
  const begin = from ?? (wholeRoute ? order.earliest([next, ...used]) : next)
  const terms = known.length ? known : termsAround(named, begin, count)
  const first = terms.find((term) => term.code === begin) ?? (from === undefined ? terms[0] : undefined)
  if (!first) throw new CallError('There is no term to plan in. Name the first one with --from.', 1)
  return { terms, plannable: new Set<string>(terms.slice(terms.indexOf(first)).map((term) => term.code)) }
}

/** Codes of which the dates are known without a catalog. */
const USUAL = /^(AU|SP|SU)\d{2}$/
const SEASONS = ['SP', 'SU', 'AU'] as const
const DATES = { SP: ['01-15', '05-10'], SU: ['06-01', '07-31'], AU: ['08-28', '12-17'] } as const
const NAMES = { SP: 'Spring', SU: 'Summer', AU: 'Autumn' } as const
const KINDS = { SP: 'spring', SU: 'summer', AU: 'autumn' } as const

function rankOf(code: string): number {
  return Number(code.slice(2)) * 3 + SEASONS.findIndex((one) => code.startsWith(one))
}

/** The first term for an empty record, where neither a catalog nor a route names one. */
const FIRST = 'AU27'

/** How terms follow one another. */
interface TermOrder {
  earliest: (codes: readonly string[]) => string
  /** The term after the last one of the record, summers left out. */
  after: (taken: readonly string[]) => string | undefined
}

const earliestBy = (rank: (code: string) => number) => (codes: readonly string[]) =>
  codes.reduce((first, code) => (rank(code) < rank(first) ? code : first))

/** By their codes: the season and the year. */
const USUAL_ORDER: TermOrder = {
  earliest: earliestBy(rankOf),
  after: (taken) => {
    if (!taken.length) return undefined
    const last = Math.max(...taken.map(rankOf))
    const next = [last + 1, last + 2].find((rank) => rank % 3 !== 1)!
    return codeOf(next)
  }
}

/** By the dates that a catalog brings; a term that it does not name is over. */
function orderOf(terms: readonly Term[]): TermOrder {
  const rank = (code: string) => terms.findIndex((one) => one.code === code)
  return {
    earliest: earliestBy(rank),
    after: (taken) => {
      if (!taken.length) return undefined
      const last = Math.max(...taken.map(rank))
      return terms.find((term, i) => i > last && term.season !== 'summer')?.code
    }
  }
}

function codeOf(rank: number): string {
  return `${SEASONS[rank % 3]!}${String(Math.floor(rank / 3)).padStart(2, '0')}`
}

/** Terms with the usual dates (common practice), where a catalog brings none: those named, and so many from one on. */
function termsAround(named: readonly string[], first: string, count: number): Term[] {
  const ranks = new Set(named.map(rankOf))
  let regular = 0
  for (let rank = rankOf(first); regular < count; rank++) {
    ranks.add(rank)
    if (rank % 3 !== 1) regular++
  }
  return [...ranks]
    .sort((a, b) => a - b)
    .map((rank): Term => {
      const code = codeOf(rank)
      const season = SEASONS[rank % 3]!
      const year = 2000 + Math.floor(rank / 3)
      const [start, end] = DATES[season]
      return {
        code: termCode(code),
        name: `${NAMES[season]} ${year}`,
        season: KINDS[season],
        year,
        start: `${year}-${start}`,
        end: `${year}-${end}`,
        published: false
      }
    })
}
