/** What an audit says of one need: its state, its amounts, what it lacks. */
import { subjectOf, type Catalog } from '../catalog'
import { STATUS_ORDER, type AttemptStatus, type Attempt } from './attempt'
import { takersOf } from './fit'
import type { Need } from './program'

/** Of credits: how firmly they are there. `gradesDue` are those of courses that are over and have no grade yet. */
export type Amounts = Record<AttemptStatus | 'gradesDue' | 'needed', number>

export type NeedState = 'met' | 'gradesDue' | 'underWay' | 'registered' | 'mapped' | 'needed'

export interface NeedResult {
  need: Need
  evidence: readonly Attempt[]
  /** The credits that each course of the evidence gives it, by the attempt's key. */
  given: Readonly<Record<string, number>>
  amounts: Amounts
  /** Courses or credits that nothing meets yet, in the need's own measure. */
  missing: number
  /** What keeps it open although the amount is there: more subjects, or parts from narrower sets. */
  lacks: { subjects: number; parts: { from: string; amount: number }[] }
  state: NeedState
  /** It stays open whatever is still taken: with the others it cannot be completed any more. */
  beyond: boolean
}

export const NO_AMOUNTS: Readonly<Amounts> = {
  earned: 0,
  gradesDue: 0,
  underWay: 0,
  registered: 0,
  planned: 0,
  needed: 0
}

export function needResult(
  need: Need,
  evidence: readonly Attempt[],
  catalog: Catalog,
  beyond: boolean
): NeedResult {
  const amounts = { ...NO_AMOUNTS }
  const given: Record<string, number> = {}
  if (need.waived)
    return { need, evidence, given, amounts, missing: 0, lacks: NO_LACKS, state: 'met', beyond: false }
  const lacks = lacksOf(need, evidence, catalog)
  // Of credits, what a narrower set still has to give is kept for it.
  const kept = need.measure === 'credits' ? keptFor(need, lacks, catalog) : 0
  let left = need.amount - kept
  for (const status of STATUS_ORDER) {
    for (const attempt of evidence) {
      if (attempt.status !== status) continue
      const gives = need.measure === 'credits' ? Math.min(attempt.credits, left) : attempt.credits
      amounts[attempt.detail === 'gradeDue' ? 'gradesDue' : status] += gives
      given[attempt.key] = gives
      left = Math.max(0, left - (need.measure === 'credits' ? attempt.credits : 1))
    }
  }
  left += kept
  const open = left > 0 || lacks.subjects > 0 || lacks.parts.length > 0
  const missing = need.measure === 'courses' && open ? Math.max(left, lackingCourses(lacks)) : left
  amounts.needed = need.measure === 'credits' ? left : creditsOfMissing(need, evidence, missing, catalog)
  return {
    need,
    evidence,
    given,
    amounts,
    missing,
    lacks,
    state: open ? 'needed' : stateOf(evidence),
    beyond: open && beyond
  }
}

const NO_LACKS: NeedResult['lacks'] = { subjects: 0, parts: [] }

/** Courses that are needed at least for what is lacking beside the amount. */
function lackingCourses({ subjects, parts }: NeedResult['lacks']): number {
  return Math.max(subjects, ...parts.map((part) => part.amount))
}

/** Credits that what is lacking needs at least: the most that one part does, or the smallest courses of new subjects. */
function keptFor(need: Need, { subjects, parts }: NeedResult['lacks'], catalog: Catalog): number {
  if (!subjects && !parts.length) return 0
  const smallest = () => Math.min(need.amount, ...takersOf(catalog, need).map((course) => course.credits))
  const bySubject = subjects ? subjects * smallest() : 0
  return Math.min(need.amount, Math.max(bySubject, ...parts.map((part) => part.amount)))
}

/**
 * Credits of the courses still missing. Where every course of a list is asked for, these are the
 * credits of those not there; else the need's credits shared evenly over its courses.
 */
function creditsOfMissing(
  need: Need,
  evidence: readonly Attempt[],
  missing: number,
  catalog: Catalog
): number {
  const { listed } = need.set
  if (listed?.length !== need.amount) return (missing * need.credits) / need.amount
  const there = new Set<string>(evidence.flatMap((attempt) => catalog.sameAs(attempt.course)))
  const replaced = evidence.filter(
    (attempt) => !listed.some((code) => catalog.sameAs(attempt.course).includes(code))
  )
  if (replaced.length) return (missing * need.credits) / need.amount
  return listed.reduce(
    (sum, code) => sum + (there.has(code) ? 0 : (catalog.maybeCourse(code)?.credits ?? 0)),
    0
  )
}

function lacksOf(need: Need, evidence: readonly Attempt[], catalog: Catalog): NeedResult['lacks'] {
  const subjects = new Set(evidence.map((attempt) => subjectOf(attempt.course))).size
  const parts = need.including.flatMap(({ set, amount }) => {
    const own = evidence.filter((attempt) => set.has(catalog.course(attempt.course), attempt))
    const there = own.reduce((sum, attempt) => sum + (need.measure === 'courses' ? 1 : attempt.credits), 0)
    return there < amount ? [{ from: set.text, amount: amount - there }] : []
  })
  return { subjects: Math.max(0, (need.subjects ?? 0) - subjects), parts }
}

function stateOf(evidence: readonly Attempt[]): NeedState {
  const softest = Math.max(...evidence.map((attempt) => STATUS_ORDER.indexOf(attempt.status)))
  const state = (['met', 'underWay', 'registered', 'mapped'] as const)[softest]!
  const due = evidence.every((attempt) => attempt.status === 'earned' || attempt.detail === 'gradeDue')
  return state === 'underWay' && due ? 'gradesDue' : state
}

const STATES: readonly NeedState[] = ['met', 'gradesDue', 'underWay', 'registered', 'mapped', 'needed']

export function weakest(states: readonly NeedState[]): NeedState {
  return STATES[Math.max(0, ...states.map((state) => STATES.indexOf(state)))]!
}

export function addAmounts(all: readonly Amounts[]): Amounts {
  const sum = { ...NO_AMOUNTS }
  for (const amounts of all) {
    for (const key of Object.keys(sum) as (keyof Amounts)[]) sum[key] += amounts[key]
  }
  return sum
}
