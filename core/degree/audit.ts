/**
 * The degree audit: what is met, by what and how firmly, and what is still needed.
 *
 * Amounts are credits. A need in courses counts the full credits of its courses. Beyond its amount a
 * need in credits counts no further, so that areas add up to the program.
 */
import type { Catalog } from '../catalog'
import { assign, type Assignment, type Refused } from './assign'
import { gradePointAverage } from './grades'
import type { AreaSpec, Need, Program } from './program'
import { FIRMNESS, type Firmness, type IdleAttempt, type Taking, type Takings } from './taking'

export type Amounts = Record<Firmness | 'needed', number>

export type NeedState = 'met' | 'underWay' | 'registered' | 'mapped' | 'needed'

export interface NeedResult {
  need: Need
  evidence: readonly Taking[]
  amounts: Amounts
  /** Courses or credits that nothing meets yet, in the need's own measure. */
  missing: number
  state: NeedState
}

export interface AreaResult {
  area: AreaSpec
  credits: number
  amounts: Amounts
  needs: NeedResult[]
  state: NeedState
}

export interface OutsideCourse {
  taking: Taking
  why: Refused
  /** The needs that would take it, were they not full. */
  full: readonly Need[]
}

export interface Audit {
  program: Program
  areas: AreaResult[]
  amounts: Amounts
  outside: OutsideCourse[]
  idle: readonly IdleAttempt[]
  /** Over all graded attempts that count, and over those the program uses; undefined without grades. */
  gpa: { overall: number | undefined; program: number | undefined }
  /** The need each course counts toward, by the taking's key. */
  whereItCounts: ReadonlyMap<string, NeedResult>
}

export const NO_AMOUNTS: Readonly<Amounts> = { earned: 0, underWay: 0, registered: 0, planned: 0, needed: 0 }

export function auditProgram(program: Program, takings: Takings, catalog: Catalog): Audit {
  const assignment = assign(program.needs, takings.counted, catalog)
  const results = new Map(program.needs.map((need) => [need.id, needResult(need, assignment, catalog)]))
  const areas = program.spec.areas.map((area): AreaResult => {
    const needs = area.needs.map((need) => results.get(need.id)!)
    return {
      area,
      credits: area.needs.reduce((sum, need) => sum + need.credits, 0),
      amounts: addAmounts(needs.map((need) => need.amounts)),
      needs,
      state: weakest(needs.map((need) => need.state))
    }
  })
  const whereItCounts = new Map<string, NeedResult>()
  for (const result of results.values())
    for (const taking of result.evidence) whereItCounts.set(taking.key, result)
  const graded = takings.counted.filter((t) => t.grade !== null) as (Taking & { grade: string })[]
  const failed = takings.idle.filter(
    (i) => i.why === 'failed' && !takings.counted.some((t) => t.course === i.entry.course)
  )
  const attempts = [...graded, ...failed.map((i) => ({ grade: i.entry.grade!, credits: i.entry.credits }))]
  return {
    program,
    areas,
    amounts: addAmounts(areas.map((area) => area.amounts)),
    outside: assignment.outside.map(({ taking, why, full }) => ({ taking, why, full })),
    idle: takings.idle,
    gpa: {
      overall: gradePointAverage(attempts),
      program: gradePointAverage(graded.filter((t) => whereItCounts.has(t.key)))
    },
    whereItCounts
  }
}

function needResult(need: Need, assignment: Assignment, catalog: Catalog): NeedResult {
  const evidence = assignment.byNeed.get(need.id)!
  const amounts = { ...NO_AMOUNTS }
  let left = need.amount
  for (const firmness of FIRMNESS) {
    for (const taking of evidence) {
      if (taking.firmness !== firmness) continue
      amounts[firmness] += need.measure === 'credits' ? Math.min(taking.credits, left) : taking.credits
      left = Math.max(0, left - (need.measure === 'credits' ? taking.credits : 1))
    }
  }
  amounts.needed = need.measure === 'credits' ? left : creditsOfMissing(need, evidence, left, catalog)
  return { need, evidence, amounts, missing: left, state: stateOf(evidence, left) }
}

/**
 * Credits of the courses still missing. Where every course of a list is asked for, these are the
 * credits of those not there; else the need's credits shared evenly over its courses.
 */
function creditsOfMissing(
  need: Need,
  evidence: readonly Taking[],
  missing: number,
  catalog: Catalog
): number {
  const { listed } = need.set
  if (listed?.length !== need.amount) return (missing * need.credits) / need.amount
  const there = new Set<string>(evidence.flatMap((taking) => catalog.sameAs(taking.course)))
  return listed.reduce(
    (sum, code) => sum + (there.has(code) ? 0 : (catalog.maybeCourse(code)?.credits ?? 0)),
    0
  )
}

function stateOf(evidence: readonly Taking[], left: number): NeedState {
  if (left > 0) return 'needed'
  const softest = Math.max(...evidence.map((taking) => FIRMNESS.indexOf(taking.firmness)))
  return (['met', 'underWay', 'registered', 'mapped'] as const)[softest]!
}

const STATES: readonly NeedState[] = ['met', 'underWay', 'registered', 'mapped', 'needed']

function weakest(states: readonly NeedState[]): NeedState {
  return STATES[Math.max(0, ...states.map((state) => STATES.indexOf(state)))]!
}

export function addAmounts(all: readonly Amounts[]): Amounts {
  const sum = { ...NO_AMOUNTS }
  for (const amounts of all) {
    for (const key of Object.keys(sum) as (keyof Amounts)[]) sum[key] += amounts[key]
  }
  return sum
}
