/** A program's suggested sequence, aligned to what a student has: what is left of it, in the terms to come. */
import { runsIn, type Term } from '../catalog'
import { takes, type NeedResult, type PlannedCourse, type SlotSpec } from '../degree'
import type { CourseCode } from '../ids'
import { coursesIn, ruleOf } from '../requisites'
import {
  contextAfter,
  blockers,
  plan,
  termLoad,
  termsToPlan,
  type Blocker,
  type RouteContext
} from './context'

export interface Aligned {
  /** The step of the sequence, from 0, for which the next regular term stands; as many as there are when all are done. */
  from: number
  placed: { planned: PlannedCourse; step: number }[]
  /** Needs to be filled in a term, by a course that is not chosen yet. */
  open: { result: NeedResult; term: Term; step: number }[]
  /** Courses for which no term was found: what speaks against the last one, or that there was no room. */
  left: { course: CourseCode; step: number; why: { blocker: Blocker; term: Term } | undefined }[]
}

interface Slot {
  step: number
  what: CourseCode | NeedResult
  credits: number
}

/**
 * The student stands where fewer than half of a step is taken or under way. What is missing of earlier steps comes first; a
 * later step comes as many regular terms later. A term takes no more credits than its limit, nor than the
 * fullest step. What is there already, or is for a need that others meet, is left out.
 */
export function alignSequence(
  context: RouteContext,
  suggested: readonly (readonly SlotSpec[])[],
  index = 0
): Aligned {
  const steps = slotsOf(context, suggested, index)
  const first = steps.findIndex(({ taken, all }) => taken < all / 2)
  const from = first < 0 ? steps.length : first
  const most = Math.max(0, ...steps.map((step) => step.credits))
  const result: Aligned = { from, placed: [], open: [], left: [] }
  let now = context
  let waiting = steps.flatMap((step) => step.slots)
  const terms = termsToPlan(context).filter(
    (term) => term.season !== 'summer' && !context.away?.has(term.code)
  )
  terms.forEach((term, at) => {
    const limit = Math.min(context.loadMost(term), most)
    let load = termLoad(now.attempts, term.code)
    const place = ({ step, what, credits }: Slot): boolean => {
      if (step - from > at || load + credits > limit) return false
      if (typeof what !== 'string') {
        if (!canServe(context, what, term)) return false
        result.open.push({ result: what, term, step })
      } else {
        if (blockers(now, what, term).length) return false
        const planned = plan(context.catalog.course(what), term.code)
        now = contextAfter(now, { kind: 'add', planned }) ?? now
        result.placed.push({ planned, step })
      }
      load += credits
      return true
    }
    // A course may wait for one that comes into the same term after it.
    for (let before = Infinity; waiting.length < before;) {
      before = waiting.length
      waiting = waiting.filter((slot) => !place(slot))
    }
  })
  const last = terms.at(-1)
  result.left = waiting.flatMap(({ step, what }) => {
    if (typeof what !== 'string') return []
    const blocker = last && blockers(now, what, last)[0]
    return [{ course: what, step, why: blocker && { blocker, term: last } }]
  })
  return result
}

/** What is left to do of each step, how many of all its slots are taken, and its credits as suggested. */
function slotsOf(
  { catalog, attempts, planned, audits }: RouteContext,
  suggested: readonly (readonly SlotSpec[])[],
  index: number
) {
  const groups = (list: readonly { course: CourseCode }[]) =>
    new Set(list.map((one) => catalog.groupOf(one.course)))
  const [onRoute, onRecord] = [
    groups([...attempts.counted, ...planned]),
    groups(attempts.counted.filter((attempt) => attempt.status !== 'planned'))
  ]
  const isIn = (some: ReadonlySet<string>, code: CourseCode) =>
    [code, ...catalog.exclusiveWith(code)].some((one) => some.has(catalog.groupOf(one)))
  const areas = audits[index]?.areas ?? []
  const needs = areas.flatMap((area) => area.needs)
  const isFree = new Set(areas.filter((area) => area.area.free).map((area) => area.area.id))
  const missing = new Map(needs.map((result) => [result, result.missing]))
  const later = (step: number) =>
    new Set(
      suggested
        .slice(step)
        .flat()
        .flatMap((slot) =>
          typeof slot === 'string' ? coursesIn(ruleOf(catalog.maybeCourse(slot)?.prerequisite ?? '')) : []
        )
    )
  return suggested.map((list, step) => {
    const slots: Slot[] = []
    let taken = 0
    let credits = 0
    for (const slot of list) {
      if (typeof slot !== 'string') {
        const result = needs.find((one) => one.need.id === slot.need)
        if (!result) continue
        const worth = leastCredits(result, catalog.courses)
        credits += worth
        if (missing.get(result)! <= 0) {
          if (result.state === 'met' || result.state === 'underWay') taken++
        } else {
          spend(missing, result, worth)
          slots.push({ step, what: result, credits: worth })
        }
        continue
      }
      const course = catalog.maybeCourse(slot)
      if (!course) continue
      credits += course.credits
      if (isIn(onRecord, course.code)) taken++
      if (isIn(onRoute, course.code)) continue
      const open = needs.filter((one) => missing.get(one)! > 0 && takes(one.need, course))
      const result = open.find((one) => !isFree.has(one.need.area)) ?? open[0]
      if (result) spend(missing, result, course.credits)
      else if (!later(step).has(course.code)) {
        taken++
        continue
      }
      slots.push({ step, what: course.code, credits: course.credits })
    }
    return { slots, taken, all: list.length, credits }
  })
}

function spend(missing: Map<NeedResult, number>, result: NeedResult, credits: number): void {
  missing.set(result, missing.get(result)! - (result.need.measure === 'courses' ? 1 : credits))
}

/** The credits of the smallest course that the need takes. */
function leastCredits({ need }: NeedResult, courses: RouteContext['catalog']['courses']): number {
  const fitting = courses.filter((course) => takes(need, course)).map((course) => course.credits)
  return fitting.length ? Math.min(...fitting) : 0
}

function canServe({ catalog, running }: RouteContext, { need }: NeedResult, term: Term): boolean {
  return catalog.courses.some((course) => takes(need, course) && runsIn(course, term, running))
}
