/**
 * What a course would do for a student's programs, were it taken: the one answer for every list, search and
 * panel.
 *
 * The needs of a program compete for a course: it counts for one of them. An area that shares lies beside them,
 * and so does each further program, as far as what may be shared goes. So a course meets two needs at once only
 * where the programs say so; where it could merely serve either, it serves one.
 */
import type { Catalog, Course } from '../catalog'
import type { AreaResult, Audit } from './audit'
import type { NeedResult } from './needResult'
import type { HeldAs } from './courseSet'
import { fit, raises } from './fit'
import { takes } from './program'
import type { Attempt, Attempts } from './attempt'

export type Serving =
  /** It would count, at once in every one of these places; of each place for one of its needs. */
  | { kind: 'counts'; places: NeedResult[][] }
  /** It is there already, and counts for these. */
  | { kind: 'counted'; by: Attempt; needs: NeedResult[] }
  /** A course that counts as it, or beside which it gives no credit, is there. */
  | { kind: 'repeats'; by: Attempt; needs: NeedResult[] }
  /** What accepts it is full, but for a course of it that could count elsewhere. */
  | { kind: 'ifMoved'; need: NeedResult; moves: Attempt; to: NeedResult }
  /** Everything that accepts it is full. */
  | { kind: 'full'; needs: NeedResult[] }
  /** Nothing accepts it. */
  | { kind: 'nothing' }

export interface ServingQuestion {
  audits: readonly Audit[]
  attempts: Pick<Attempts, 'counted'>
  catalog: Catalog
}

/** Needs that compete for a course: those of a program without its sharing areas, or of one sharing area. */
interface Layer {
  program: number
  /** Credits that the program may share with the first one; all of them where it does not say. */
  mayShare: number
  /** The area that shares; undefined for the rest of the program. */
  shares: AreaResult | undefined
  needs: readonly { area: AreaResult; result: NeedResult }[]
}

/** `as` is how its section is held, where one is looked at. */
export function servingOf(
  course: Course,
  { audits, attempts, catalog }: ServingQuestion,
  as?: HeldAs
): Serving {
  const there = course.repeatable ? undefined : takenInstead(course, attempts, catalog)
  const all = audits.flatMap((audit) => audit.areas.flatMap((area) => area.needs))
  const raised = there
    ? all.filter((result) => result.state === 'needed' && raises(result.need, course, attempts, catalog))
    : []
  if (raised.length) return { kind: 'counts', places: placesOf(course, layersOf(audits), new Set(raised)) }
  if (there) {
    const needs = all.filter((result) => result.evidence.some((one) => one.key === there.key))
    return { kind: there.course === course.code ? 'counted' : 'repeats', by: there, needs }
  }
  const accepting = all.filter((result) => takes(result.need, course, as))
  if (!accepting.length) return { kind: 'nothing' }
  const open = new Set(accepting.filter((result) => result.state === 'needed'))
  if (open.size) return { kind: 'counts', places: placesOf(course, layersOf(audits), open) }
  for (const need of accepting)
    for (const moves of need.evidence) {
      const to = all.find(
        (other) => other !== need && other.state === 'needed' && fit(other.need, moves, catalog) === 'fits'
      )
      if (to) return { kind: 'ifMoved', need, moves, to }
    }
  return { kind: 'full', needs: accepting }
}

/** Of what is there: the course itself, one that counts as it, or one that excludes it. */
function takenInstead(
  course: Course,
  { counted }: Pick<Attempts, 'counted'>,
  catalog: Catalog
): Attempt | undefined {
  const group = catalog.groupOf(course.code)
  const excluded = catalog.exclusiveWith(course.code)
  return (
    counted.find((one) => one.course === course.code) ??
    counted.find((one) => catalog.groupOf(one.course) === group || excluded.has(one.course))
  )
}

function layersOf(audits: readonly Audit[]): Layer[] {
  return audits.flatMap((audit, program) => {
    const inArea = (area: AreaResult) => area.needs.map((result) => ({ area, result }))
    const base = audit.areas.filter((area) => !area.area.shares)
    const sharing = audit.areas.filter((area) => area.area.shares)
    const mayShare = audit.program.spec.mayShare ?? Infinity
    return [
      { program, mayShare, shares: undefined, needs: base.flatMap(inArea) },
      ...sharing.map((shares): Layer => ({ program, mayShare, shares, needs: inArea(shares) }))
    ]
  })
}

/** Layers in which it would count at once, the first program first; needs of others may take it instead. */
function placesOf(course: Course, layers: readonly Layer[], open: ReadonlySet<NeedResult>): NeedResult[][] {
  const found: { layer: Layer; needs: { area: AreaResult; result: NeedResult }[] }[] = []
  const instead: NeedResult[] = []
  for (const layer of layers) {
    const all = layer.needs.filter(({ result }) => open.has(result))
    // Nearly everything may be chosen freely; that is worth saying only where nothing else is.
    const particular = all.filter(({ area }) => !area.area.free)
    const needs = particular.length ? particular : all
    if (!needs.length) continue
    if (found.every((other) => mayShare(course, { layer, needs }, other, layers)))
      found.push({ layer, needs })
    else instead.push(...needs.map((one) => one.result))
  }
  return found.map(({ needs }, i) => [...needs.map((one) => one.result), ...(i === 0 ? instead : [])])
}

type Place = { layer: Layer; needs: readonly { area: AreaResult; result: NeedResult }[] }

/** Whether a course may count in two layers at once, as far as what they may still share goes. */
function mayShare(course: Course, one: Place, other: Place, layers: readonly Layer[]): boolean {
  const limit = limitBetween(one, other, layers) ?? limitBetween(other, one, layers)
  if (!limit) return one.layer.program !== other.layer.program
  return sharedCredits(limit.one, limit.other) + course.credits <= limit.most
}

interface SharingLimit {
  /** Credits in all. */
  most: number
  one: readonly NeedResult[]
  other: readonly NeedResult[]
}

/** What the first place may share, as it says itself; undefined where it says nothing of the other. */
function limitBetween(one: Place, other: Place, layers: readonly Layer[]): SharingLimit | undefined {
  const needsOf = (program: number, holds: (area: AreaResult) => boolean = () => true) =>
    layers
      .filter((layer) => layer.program === program)
      .flatMap((layer) => layer.needs.filter(({ area }) => holds(area)).map(({ result }) => result))
  const { program, mayShare: most, shares } = one.layer
  if (program === other.layer.program) {
    const named = shares?.area.shares
    if (!named || !other.needs.some(({ area }) => named.with.includes(area.area.id))) return undefined
    const own = one.layer.needs.map(({ result }) => result)
    return {
      most: named.credits,
      one: own,
      other: needsOf(program, ({ area }) => named.with.includes(area.id))
    }
  }
  // Beside the first program only; two further ones do not ask each other.
  if (program === 0 || other.layer.program !== 0) return undefined
  return { most, one: needsOf(program), other: needsOf(0) }
}

function sharedCredits(one: readonly NeedResult[], other: readonly NeedResult[]): number {
  const there = new Set(other.flatMap((result) => result.evidence.map((attempt) => attempt.key)))
  const both = new Map(
    one
      .flatMap((result) => result.evidence)
      .filter((attempt) => there.has(attempt.key))
      .map((attempt) => [attempt.key, attempt.credits])
  )
  return [...both.values()].reduce((sum, credits) => sum + credits, 0)
}
