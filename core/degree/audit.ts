/**
 * The degree audit: what is met, by what and how firmly, and what is still needed.
 *
 * Amounts are credits. A need in courses counts the full credits of its courses. Beyond its amount a
 * need in credits counts no further, so that areas add up to the program.
 */
import { subjectOf, type Catalog, type Term } from '../catalog'
import { judgeConditions, NOTHING_BESIDE, type BesideCourses, type ConditionResult } from './conditions'
import { withExceptions, type ExceptionGrant } from './exceptions'
import { gradedAttempts } from './forecast'
import { fit, takersOf } from './fit'
import { place, type Placement, type Refused } from './place'
import type { Pin } from './question'
import {
  areaCredits,
  isChoice,
  isLimited,
  type AreaSpec,
  type ChoiceSpec,
  type Need,
  type Program,
  type RequirementSpec
} from './program'
import {
  FIRMNESS,
  settled,
  attemptsOf,
  type AttemptStatus,
  type IdleAttempt,
  type Attempt,
  type AttemptInput,
  type Attempts
} from './attempt'

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

export interface AreaResult {
  area: AreaSpec
  credits: number
  amounts: Amounts
  /** The needs that count: those of branches not taken are left out. */
  needs: NeedResult[]
  /** The choices of the area that are reached, each with the branches taken. */
  choices: { choice: ChoiceSpec; taken: string[] }[]
  state: NeedState
}

export interface OutsideCourse {
  attempt: Attempt
  why: Refused
  /** The needs that would take it, were they not full. */
  full: readonly Need[]
}

/** How much of what a limit allows is used. */
export interface LimitResult {
  title: string
  credits: number
  used: number
}

export interface Audit {
  program: Program
  /** How the search for the best reading ended; `limit` means that a better one may exist. */
  ended: Placement['ended']
  areas: AreaResult[]
  amounts: Amounts
  conditions: ConditionResult[]
  limits: LimitResult[]
  /** What has to be met before the program may be declared, audited alike. */
  entry: Audit | undefined
  outside: OutsideCourse[]
  idle: readonly IdleAttempt[]
  /** Over all graded attempts that count, and over those the program uses; undefined without grades. */
  gpa: { overall: number | undefined; program: number | undefined }
  /** The need each course counts toward, by the attempt's key. */
  whereItCounts: ReadonlyMap<string, NeedResult>
}

export const NO_AMOUNTS: Readonly<Amounts> = {
  earned: 0,
  gradesDue: 0,
  underWay: 0,
  registered: 0,
  planned: 0,
  needed: 0
}

export interface AuditOptions {
  /** Waivers and substitutions that hold. */
  exceptions?: readonly ExceptionGrant[]
  beside?: BesideCourses
  /** Makes a course count toward a need: the best reading in which it does. */
  pin?: Pin
}

/** One program by itself; `auditAll` reads several together. */
export function auditProgram(
  program: Program,
  attempts: Attempts,
  catalog: Catalog,
  options: AuditOptions = {}
): Audit {
  return auditAll([program], attempts, catalog, options)[0]!
}

/** The audits of all programs of a student, read together: what they may share is one question. */
export function auditAll(
  given: readonly Program[],
  attempts: Attempts,
  catalog: Catalog,
  options: AuditOptions = {}
): Audit[] {
  return readAll(given, attempts, catalog, options).audits
}

/** The audits, and the attempts as the reading has them. */
function readAll(
  given: readonly Program[],
  attempts: Attempts,
  catalog: Catalog,
  options: AuditOptions
): { audits: Audit[]; attempts: Attempts } {
  const programs = given.map((program) => withExceptions(program, options.exceptions ?? []))
  const placement = place({ programs, attempts, catalog, pin: options.pin, beside: options.beside })
  const used = placement.byNeed.flatMap((needs) => [...needs.values()].flat().map((one) => one.key))
  const asRead = settled(attempts, new Set(used))
  const audits = programs.map((_, i) => auditOf(programs, i, placement, asRead, catalog, options))
  return { audits, attempts: asRead }
}

/**
 * Attempts and audits at once, the best there are: which attempt of a course counts, and which of courses that
 * exclude each other, is part of the reading.
 */
export function auditRecord(
  programs: readonly Program[],
  input: AttemptInput,
  terms: readonly Pick<Term, 'code'>[],
  options: AuditOptions = {}
): { attempts: Attempts; audits: Audit[] } {
  return readAll(programs, attemptsOf(input, terms), input.catalog, options)
}

function auditOf(
  programs: readonly Program[],
  index: number,
  placement: Placement,
  attempts: Attempts,
  catalog: Catalog,
  options: AuditOptions
): Audit {
  const program = programs[index]!
  const byNeed = placement.byNeed[index]!
  const active = placement.active[index]!
  const results = new Map(
    program.needs
      .filter((need) => active.has(need.id))
      .map((need) => [
        need.id,
        needResult(need, byNeed.get(need.id)!, catalog, placement.beyond[index]!.has(need.id))
      ])
  )
  const areas = program.spec.areas.map((area): AreaResult => {
    const { needs, choices } = reached(area.needs, results)
    return {
      area,
      credits: areaCredits(area),
      amounts: addAmounts(needs.map((need) => need.amounts)),
      needs,
      choices,
      state: weakest(needs.map((need) => need.state))
    }
  })
  const whereItCounts = new Map<string, NeedResult>()
  const counting = areas.toSorted((a, b) => Number(!!a.area.shares) - Number(!!b.area.shares))
  for (const result of counting.flatMap((area) => area.needs))
    for (const attempt of result.evidence)
      if (!whereItCounts.has(attempt.key)) whereItCounts.set(attempt.key, result)
  const graded = gradedAttempts(attempts)
  const counts = (attempt: Attempt) => whereItCounts.has(attempt.key)
  const elsewhere = new Set(
    placement.byNeed.flatMap((needs, i) => (i === index ? [] : [...needs.values()].flat().map((t) => t.key)))
  )
  const conditions = judgeConditions(program, attempts, counts, options.beside ?? NOTHING_BESIDE, catalog)
  return {
    program,
    ended: conditions.some(mayBeOtherwise) ? 'limit' : placement.ended,
    areas,
    amounts: addAmounts(areas.filter((area) => !area.area.shares).map((area) => area.amounts)),
    conditions,
    limits: program.limits.map((limit) => ({
      title: limit.title,
      credits: limit.credits,
      used: limit.areas
        .flatMap((id) => areas.find((one) => one.area.id === id)?.needs ?? [])
        .flatMap((need) => need.evidence)
        .filter((attempt) => isLimited(limit, catalog.course(attempt.course), attempt))
        .reduce((sum, attempt) => sum + attempt.credits, 0)
    })),
    entry: program.entry && auditProgram(program.entry, attempts, catalog, options),
    outside: attempts.counted
      .filter((attempt) => !counts(attempt))
      .map((attempt) => outsideOf(attempt, [...results.values()], elsewhere.has(attempt.key), catalog)),
    idle: attempts.idle,
    gpa: {
      overall: catalog.scale.average(graded),
      program: catalog.scale.average(
        gradedAttempts({ ...attempts, counted: attempts.counted.filter(counts), idle: [] })
      )
    },
    whereItCounts
  }
}

/** Which of what counts is among the last credits is not part of the search: not met, it might be in another reading. */
function mayBeOtherwise({ spec, status }: ConditionResult): boolean {
  return spec.asks === 'credits' && !!spec.counting && spec.amongLast !== undefined && !status
}

/** The needs and choices of a list of requirements, down the branches that are taken. */
function reached(
  requirements: readonly RequirementSpec[],
  results: ReadonlyMap<string, NeedResult>
): Pick<AreaResult, 'needs' | 'choices'> {
  const needs: NeedResult[] = []
  const choices: AreaResult['choices'] = []
  for (const one of requirements) {
    if (!isChoice(one)) {
      const result = results.get(one.id)
      if (result) needs.push(result)
      continue
    }
    const inside = one.of.map((branch) => ({ id: branch.id, ...reached(branch.needs, results) }))
    const taken = inside.filter((branch) => branch.needs.length)
    choices.push({ choice: one, taken: taken.map((branch) => branch.id) }, ...taken.flatMap((b) => b.choices))
    needs.push(...taken.flatMap((branch) => branch.needs))
  }
  return { needs, choices }
}

function outsideOf(
  attempt: Attempt,
  results: readonly NeedResult[],
  countsElsewhere: boolean,
  catalog: Catalog
): OutsideCourse {
  const fits = results.map((result) => ({ result, fit: fit(result.need, attempt, catalog) }))
  const takers = fits.filter((one) => one.fit === 'fits').map((one) => one.result)
  const why = (): Refused => {
    if (attempt.again) return 'again'
    if (!takers.length) return fits.some((one) => one.fit === 'gradeTooLow') ? 'gradeTooLow' : 'notAccepted'
    const open = takers.filter((result) => result.missing > 0)
    if (!open.length) return 'full'
    if (open.every(hasOtherKind)) return 'otherKind'
    return countsElsewhere ? 'sharing' : 'limited'
  }
  return { attempt, why: why(), full: takers.map((result) => result.need) }
}

/** What is missing has to come from other subjects, or from narrower sets. */
const hasOtherKind = ({ lacks }: NeedResult) => lacks.subjects > 0 || lacks.parts.length > 0

function needResult(need: Need, evidence: readonly Attempt[], catalog: Catalog, beyond: boolean): NeedResult {
  const amounts = { ...NO_AMOUNTS }
  const given: Record<string, number> = {}
  if (need.waived)
    return { need, evidence, given, amounts, missing: 0, lacks: NO_LACKS, state: 'met', beyond: false }
  const lacks = lacksOf(need, evidence, catalog)
  // Of credits, what a narrower set still has to give is kept for it.
  const kept = need.measure === 'credits' ? keptFor(need, lacks, catalog) : 0
  let left = need.amount - kept
  for (const status of FIRMNESS) {
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
  const softest = Math.max(...evidence.map((attempt) => FIRMNESS.indexOf(attempt.status)))
  const state = (['met', 'underWay', 'registered', 'mapped'] as const)[softest]!
  const due = evidence.every((attempt) => attempt.status === 'earned' || attempt.detail === 'gradeDue')
  return state === 'underWay' && due ? 'gradesDue' : state
}

const STATES: readonly NeedState[] = ['met', 'gradesDue', 'underWay', 'registered', 'mapped', 'needed']

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
