/**
 * The degree audit: what is met, by what and how firmly, and what is still needed.
 *
 * Amounts are credits. A need in courses counts the full credits of its courses. Beyond its amount a
 * need in credits counts no further, so that areas add up to the program.
 */
import type { Catalog, Term } from '../catalog'
import { settled, type IdleAttempt, type Attempt, type AttemptInput, type Attempts } from './attempt'
import { attemptsOf } from './attemptList'
import { judgeConditions, NOTHING_BESIDE, type BesideCourses, type ConditionResult } from './conditions'
import { withExceptions, type ExceptionGrant } from './exceptions'
import { fit } from './fit'
import { gradedAttempts } from './forecast'
import { type Amounts, type NeedResult, type NeedState, needResult, addAmounts, weakest } from './needResult'
import { place, type Placement, type Refused } from './place'
import {
  areaCredits,
  isChoice,
  isLimited,
  type AreaSpec,
  type ChoiceSpec,
  type Limit,
  type MostSpec,
  type Need,
  type Program,
  type RequirementSpec
} from './program'
import type { Pin } from './question'

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
export interface LimitResult extends MostSpec {
  title: string
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
  const areas = program.spec.areas.map((area) => areaResult(area, results))
  const whereItCounts = placesIn(areas)
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
    limits: program.limits.map((limit) => limitResult(limit, areas, catalog)),
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

function areaResult(area: AreaSpec, results: ReadonlyMap<string, NeedResult>): AreaResult {
  const { needs, choices } = reached(area.needs, results)
  return {
    area,
    credits: areaCredits(area),
    amounts: addAmounts(needs.map((need) => need.amounts)),
    needs,
    choices,
    state: weakest(needs.map((need) => need.state))
  }
}

/** By attempt, the need where it counts; of several that of the area which shares nothing. */
function placesIn(areas: readonly AreaResult[]): Map<string, NeedResult> {
  const found = new Map<string, NeedResult>()
  const inOrder = areas.toSorted((a, b) => Number(!!a.area.shares) - Number(!!b.area.shares))
  for (const result of inOrder.flatMap((area) => area.needs))
    for (const attempt of result.evidence) if (!found.has(attempt.key)) found.set(attempt.key, result)
  return found
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

function limitResult(limit: Limit, areas: readonly AreaResult[], catalog: Catalog): LimitResult {
  const { title, credits, courses } = limit
  const under = limit.areas
    .flatMap((id) => areas.find((one) => one.area.id === id)?.needs ?? [])
    .flatMap((need) => need.evidence)
    .filter((attempt) => isLimited(limit, catalog.course(attempt.course), attempt))
  if (courses !== undefined) return { title, courses, used: under.length }
  return { title, credits, used: under.reduce((sum, attempt) => sum + attempt.credits, 0) }
}
