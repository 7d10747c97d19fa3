/**
 * The record term by term: what was taken in each, what it came to, and the average as it stood when the term was over.
 */
import type { Catalog, Term } from '../catalog'
import type { CourseCode, TermCode } from '../ids'
import type { Attempt, AttemptInput, Attempts, IdleAttempt, RecordEntry } from './attempt'
import { attemptsOf } from './attemptList'
import { gradedAttempts } from './forecast'

/** An entry of the record in its term. */
export interface RecordLine {
  course: CourseCode
  credits: number
  grade: string | null
  origin: RecordEntry['origin']
  /** `idle`: it gives no credits, `why` says why. */
  state: 'earned' | 'idle' | 'underWay'
  why?: IdleAttempt['why']
  /** What counts in its place, or stands to: a later or better attempt of it, or a course that excludes it. */
  replacedBy?: { course: CourseCode; term: TermCode | null; grade: string | null }
  /** The key of its attempt; undefined for what gives no credits. */
  key?: string
}

export interface RecordTerm {
  /** Null for what was brought in. */
  term: TermCode | null
  lines: RecordLine[]
  /** Credits of all lines. */
  attempted: number
  /** Credits given, those that are replaced since left out. */
  earned: number
  /** Over the grades of this term that carry points, whatever became of them; undefined without any. Unrounded. */
  average: number | undefined
  /** Over everything up to the end of this term, by the rule for repeats; undefined where nothing carries points yet. */
  soFar: number | undefined
}

/**
 * What was brought in first, then each term with an entry, in order. The last `soFar` is the average of the audit.
 *
 * @param attempts of the whole record, as a reading has them
 */
export function recordTerms(
  input: Pick<AttemptInput, 'catalog' | 'record'>,
  attempts: Attempts,
  terms: readonly Pick<Term, 'code'>[]
): RecordTerm[] {
  const { catalog, record } = input
  const { scale } = catalog
  const { policy: repeats } = attempts
  const place = new Map<string, number>(terms.map((term, i) => [term.code, i]))
  // A term that is not in the calendar any more is before all that are.
  const placeOf = (term: TermCode | null) => (term === null ? -2 : (place.get(term) ?? -1))
  const entries = [...record, ...underWay(attempts, record)]
  const codes = [...new Set(entries.map((entry) => entry.term))].sort((a, b) => placeOf(a) - placeOf(b))
  const graded = codes.filter((code) => record.some((entry) => entry.term === code && entry.grade !== null))
  return codes.map((code) => {
    const own = entries.filter((entry) => entry.term === code)
    const lines = own
      .map((entry) => lineOf(entry, attempts, catalog))
      .sort((a, b) => (a.course < b.course ? -1 : 1))
    const isLast = code === graded.at(-1)
    const upToHere = record.filter((entry) => placeOf(entry.term) <= placeOf(code))
    const then = isLast
      ? attempts
      : attemptsOf({ catalog, record: upToHere, held: [], planned: [], repeats }, terms)
    return {
      term: code,
      lines,
      attempted: sum(lines.filter((line) => line.why !== 'audited')),
      earned: sum(lines.filter((line) => line.state === 'earned')),
      average: scale.average(
        own.flatMap((entry) =>
          entry.grade === null || entry.origin !== 'here' ? [] : [{ ...entry, grade: entry.grade }]
        )
      ),
      soFar: graded.includes(code) ? scale.average(gradedAttempts(then)) : undefined
    }
  })
}

/** Seats of a term that has begun, which the record has no entry of. */
function underWay({ counted }: Attempts, record: readonly RecordEntry[]): RecordEntry[] {
  return counted
    .filter((one) => one.status === 'underWay')
    .filter(({ course, term }) => !record.some((entry) => entry.course === course && entry.term === term))
    .map(({ course, term, credits, origin }) => ({ course, term, credits, origin, grade: null }))
}

const sum = (lines: readonly RecordLine[]) => lines.reduce((total, line) => total + line.credits, 0)

function lineOf(entry: RecordEntry, { counted, idle }: Attempts, catalog: Catalog): RecordLine {
  const { course, credits, grade, origin, term } = entry
  const line = { course, credits, grade, origin }
  const result = grade === null ? 'open' : catalog.scale.meaning(grade).result
  const out = idle.find((one) => one.entry === entry)
  if (!out) {
    const own = counted.find((one) => one.course === course && one.term === term && one.origin === origin)
    const key = own ? { key: own.key } : {}
    return { ...line, state: result === 'earned' ? 'earned' : 'underWay', ...key }
  }
  const by = out.by === undefined ? catalog.sameAs(course) : [out.by]
  const instead = counted.find((one) => by.includes(one.course) && isInstead(one, entry))
  return {
    ...line,
    state: 'idle',
    why: out.why,
    ...(instead && { replacedBy: { course: instead.course, term: instead.term, grade: instead.grade } })
  }
}

/** Earned or under way, and not the entry itself; what is only planned replaces nothing. */
function isInstead({ course, term, status }: Attempt, entry: RecordEntry): boolean {
  return (status === 'earned' || status === 'underWay') && !(course === entry.course && term === entry.term)
}
