/**
 * From programs and attempts to the question of the best reading, and back.
 *
 * The needs of a program lie in one layer, where a course counts once; an area that shares lies in a
 * layer of its own, and each further program in others. A course is a piece in every layer that
 * takes it. Credits become whole numbers of the smallest unit that occurs.
 */
import type { Catalog } from '../catalog'
import { allAttempts, STATUS_ORDER, type Attempt, type Attempts } from './attempt'
import {
  demandLabels,
  firmestDemands,
  isMet,
  membersOf,
  NOWHERE,
  POSSIBLE,
  scoreOf,
  solve,
  type Demand,
  type Problem,
  type Reading
} from './best'
import type { BesideCourses } from './conditions'
import { deadEnds, type DeadEnds } from './deadEnds'
import type { Program } from './program'
import { questionOf, type Pin, type Question } from './question'

/**
 * Why a course counts nowhere: no need accepts it; those that would ask for a better grade; all that
 * accept it are met without it; what is missing there has to be of another kind; a cap of the program keeps it
 * out; it counts in another program, and no more may be shared; it repeats one that counts, or one that counts
 * excludes it.
 */
export type Refused = 'notAccepted' | 'gradeTooLow' | 'full' | 'otherKind' | 'limited' | 'sharing' | 'again'

export interface Placement {
  /** Attempts of each need, firmest first; by program, then by the need's id. */
  byNeed: readonly ReadonlyMap<string, readonly Attempt[]>[]
  /** Needs of branches not chosen are not in here; by program. */
  active: readonly ReadonlySet<string>[]
  /** Needs that stay open whatever is still taken, as this reading counts; by program. */
  beyond: readonly ReadonlySet<string>[]
  /** `limit` means that a better reading may exist. */
  ended: Reading['ended']
}

/** What a reading is made of. */
export interface ReadingInput {
  programs: readonly Program[]
  attempts: Attempts
  catalog: Catalog
  pin?: Pin | undefined
  /** Tests and so on, as far as they are known: they tell what could still be taken. */
  beside?: BesideCourses | undefined
}

/**
 * The best reading. It is looked for among what is taken first; where a need that is open in it could not be completed
 * by what is left, and where a condition on what counts is not met, anew with what could still be taken and with
 * the conditions: both come to the same where neither is so.
 */
export function place(input: ReadingInput): Placement {
  const { programs, attempts, catalog, pin } = input
  const all = allAttempts(attempts)
  const plain = questionOf(programs, all, catalog, { attempts, pin })
  const looking = ({ possible, apart, scarce }: DeadEnds) =>
    questionOf(programs, [...all, ...possible], catalog, {
      attempts: { spare: attempts.spare, apart: [...attempts.apart, ...apart] },
      pin,
      scarce
    })
  let question = plain
  let reading = solve(plain.problem, plain.root)
  const dead = deadEnds(input, plain, reading)
  if (dead) {
    question = looking(dead)
    reading = solve(question.problem, question.root)
  }
  const demands = question.demands()
  if (isShort(demands, question.problem, reading)) {
    reading = withDemands(question, demands)
    // What a condition is met by may leave a need no way to be completed, which comes before it.
    const deadNow = dead ? undefined : deadEnds(input, plain, reading)
    if (deadNow) {
      question = looking(deadNow)
      reading = withDemands(question, question.demands())
    }
  }
  return placementOf(question, reading, programs, all)
}

/** The best reading, the conditions on what counts among what is compared. */
function withDemands({ problem, root }: Question, demands: readonly Demand[]): Reading {
  const asked = { ...problem, demands }
  return withoutIdle(asked, solve(asked, root))
}

/** Whether a condition on what counts could be met more firmly, were everything that it could count counted. */
function isShort(demands: readonly Demand[], problem: Problem, { place: now }: Reading): boolean {
  if (!demands.length) return false
  const asked = { ...problem, demands }
  const [is, could] = [demandLabels(asked, now), firmestDemands(asked)]
  return is.some((label, d) => label > could[d]!)
}

/**
 * A reading that meets a condition by a course which its need does not ask for is not one; it may hide a better one. Courses
 * that are only possible go first: without them it is the same reading.
 */
function withoutIdle(problem: Problem, reading: Reading): Reading {
  const members = membersOf(problem, reading.place)
  const isPossiblePiece = (p: number) => problem.pieces[p]!.status === POSSIBLE
  const idle = members.flatMap((own, w) => {
    const want = problem.wants[w]!
    if (want.byCourse || want.leftover || !isMet(problem, w, own)) return []
    const needless = own.filter((p) =>
      isMet(
        problem,
        w,
        own.filter((q) => q !== p)
      )
    )
    return (needless.some(isPossiblePiece) ? needless.filter(isPossiblePiece) : needless).slice(0, 1)
  })
  if (!idle.length) return reading
  const fewer = reading.place.map((w, p) => (idle.includes(p) ? NOWHERE : w))
  const ended = idle.every(isPossiblePiece) ? reading.ended : 'limit'
  return withoutIdle(problem, { ...reading, ...scoreOf(problem, fewer), place: fewer, ended })
}

function placementOf(
  { problem, all: wants }: Question,
  reading: Reading,
  programs: readonly Program[],
  attempts: readonly Attempt[]
): Placement {
  const byNeed = programs.map(
    (program) => new Map<string, Attempt[]>(program.needs.map((need) => [need.id, []]))
  )
  reading.place.forEach((w, p) => {
    const attempt = attempts[problem.pieces[p]!.course]
    if (w < 0 || !attempt) return
    const { need, program } = wants[w]!
    byNeed[program]!.get(need.id)!.push(attempt)
  })
  for (const needs of byNeed)
    for (const evidence of needs.values())
      evidence.sort((a, b) => STATUS_ORDER.indexOf(a.status) - STATUS_ORDER.indexOf(b.status))
  const members = membersOf(problem, reading.place)
  const where = (holds: (w: number) => boolean) =>
    programs.map(
      (_, i) => new Set(wants.flatMap(({ need, program }, w) => (program === i && holds(w) ? [need.id] : [])))
    )
  return {
    byNeed,
    active: where((w) => reading.active[w]!),
    beyond: where(
      (w) =>
        reading.active[w]! &&
        !problem.wants[w]!.endless &&
        !problem.wants[w]!.leftover &&
        !isMet(problem, w, members[w]!)
    ),
    ended: reading.ended
  }
}
