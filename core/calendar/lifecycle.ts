/**
 * Which terms are alive for a person at an instant, and what may be done in each of them: the one place
 * that every view and every service asks, on every day of the year.
 *
 * Days include both ends, deadlines are instants and half-open: at `addEndsAt` adding has ended. A term has
 * begun on its first day; it takes plans until adding ends, which is usually some days later.
 */
import { phaseOf, type Term, type TermPhase } from '../catalog'
import type { CourseCode, TermCode } from '../ids'
import type { Instant, IsoDate } from '../time'

/** An instant, and the day that it is then on campus. */
export interface Moment {
  now: Instant
  today: IsoDate
}

/** A term with the deadlines that decide what may be done in it. */
export interface CalendarTerm extends Term {
  addEndsAt: Instant
  dropEndsAt: Instant
}

/** What a person has to do with terms. */
export interface CalendarPerson {
  openings: readonly { term: TermCode; opens: Instant }[]
  planned: readonly { course: CourseCode; term: TermCode }[]
  held: readonly { course: CourseCode; term: TermCode }[]
  record: readonly { course: CourseCode; term: TermCode | null; grade: string | null }[]
}

/** Over with a grade missing is not over: something is still to come of it. */
export type TermState = 'ahead' | 'underWay' | 'gradesDue' | 'over'

/** Whether this person may add courses: `none` where no opening is for them. */
export type Adding = 'none' | 'notYet' | 'open' | 'ended'

export interface TermStanding<T extends CalendarTerm = CalendarTerm> {
  term: T
  state: TermState
  /** From when this person may register; null where no opening is for them. */
  opens: Instant | null
  adding: Adding
  /** Seats may still be given back. */
  dropping: boolean
  /** Courses may still be put into it on the route. */
  planning: boolean
  /** Courses planned and no seat held of them, while that can still be mended. */
  unsettled: number
  /** Courses of which a seat is held, or which are on the record. */
  taken: number
  /** Taken courses that have no grade yet. */
  ungraded: number
}

/**
 * Whether courses may be put into a term: until adding ends. A term of which only its days are known, or no section was
 * published, takes plans until it begins: after that nothing of it can be registered.
 */
export function takesPlans(
  term: Pick<Term, 'start' | 'end' | 'published'> & { addEndsAt?: Instant },
  at: Moment
): boolean {
  const { addEndsAt, published } = term
  if (addEndsAt !== undefined && at.now >= addEndsAt) return false
  return phaseOf(term, at.today) === 'future' || (published && addEndsAt !== undefined)
}

/** How each term stands for a person, in the order given. */
export function termStandings<T extends CalendarTerm>(
  person: CalendarPerson,
  terms: readonly T[],
  at: Moment
): TermStanding<T>[] {
  return terms.map((term) => {
    const inTerm = (one: { term: TermCode | null }) => one.term === term.code
    const graded = new Map(person.record.filter(inTerm).map((one) => [one.course, one.grade !== null]))
    for (const { course } of person.held.filter(inTerm)) if (!graded.has(course)) graded.set(course, false)
    const ungraded = [...graded.values()].filter((one) => !one).length
    const phase = phaseOf(term, at.today)
    const opens = person.openings.find(inTerm)?.opens ?? null
    const adding = addingOf(term, opens, at)
    return {
      term,
      state: stateOf(phase, ungraded),
      opens,
      adding,
      dropping: at.now < term.dropEndsAt,
      planning: takesPlans(term, at),
      unsettled:
        adding === 'ended'
          ? 0
          : person.planned.filter((one) => inTerm(one) && !graded.has(one.course)).length,
      taken: graded.size,
      ungraded
    }
  })
}

function stateOf(phase: TermPhase, ungraded: number): TermState {
  if (phase === 'future') return 'ahead'
  if (phase === 'current') return 'underWay'
  return ungraded ? 'gradesDue' : 'over'
}

function addingOf(term: CalendarTerm, opens: Instant | null, { now }: Moment): Adding {
  if (now >= term.addEndsAt) return 'ended'
  if (opens === null) return 'none'
  return now < opens ? 'notYet' : 'open'
}

/**
 * Whether a person still works with a term: published and to come, under way with something taken in it or
 * with adding not ended, or over with grades missing.
 */
export function isAlive({ term, state, adding, taken }: TermStanding): boolean {
  switch (state) {
    case 'ahead':
      return term.published
    case 'underWay':
      return taken > 0 || (term.published && (adding === 'open' || adding === 'notYet'))
    case 'gradesDue':
      return true
    case 'over':
      return false
  }
}

/**
 * The term that the work of a person is about, which Week and Register show first. In this order: the
 * earliest in which something planned can still be registered; the one that opens next; one open for adding in
 * which seats are held and which has begun; the last one that is open; the one under way; the next one
 * published; one whose grades are due; the next one at all, else the last. Undefined without any term.
 */
export function workingTerm<T extends CalendarTerm>(
  standings: readonly TermStanding<T>[]
): TermStanding<T> | undefined {
  const published = standings.filter((one) => one.term.published)
  const opening = published.filter((one) => one.adding === 'open' || one.adding === 'notYet')
  const next = opening.filter((one) => one.adding === 'notYet').sort((a, b) => a.opens! - b.opens!)[0]
  return (
    published.find((one) => one.unsettled > 0) ??
    next ??
    opening.find((one) => one.state === 'underWay' && one.taken > 0) ??
    opening.at(-1) ??
    standings.find((one) => one.state === 'underWay' && one.taken > 0) ??
    published.find((one) => one.state === 'ahead') ??
    published.find((one) => one.state === 'underWay') ??
    standings.findLast((one) => one.state === 'gradesDue') ??
    standings.find((one) => one.state === 'ahead') ??
    standings.at(-1)
  )
}

/**
 * The term that an institution's offices work with: the last published one to which courses can still be
 * added; else the one under way, the next one, or the last there is. Terms are in order.
 */
export function officeTerm<T extends CalendarTerm>(terms: readonly T[], at: Moment): T | undefined {
  const published = terms.filter((one) => one.published)
  return (
    published.findLast((one) => takesPlans(one, at)) ??
    published.find((one) => phaseOf(one, at.today) === 'current') ??
    published.findLast((one) => phaseOf(one, at.today) === 'past') ??
    terms.at(0)
  )
}

/** Every instant at which what may be done in these terms changes, besides midnights; in order. */
export function deadlines(
  terms: readonly CalendarTerm[],
  openings: readonly { opens: Instant }[]
): Instant[] {
  const all = [
    ...terms.flatMap((one) => [one.addEndsAt, one.dropEndsAt]),
    ...openings.map((one) => one.opens)
  ]
  return [...new Set(all)].sort((a, b) => a - b)
}
