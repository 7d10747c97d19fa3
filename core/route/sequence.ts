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
  const steps = new StepsLeft(context, suggested, index).list()
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

interface StepLeft {
  slots: Slot[]
  /** How many of all its slots are taken or under way. */
  taken: number
  all: number
  /** As suggested. */
  credits: number
}

/** What is left to do of each step of a suggested sequence. */
class StepsLeft {
  /** Groups of courses that are on the route, and on the record. */
  private readonly onRoute: ReadonlySet<string>
  private readonly onRecord: ReadonlySet<string>
  private readonly needs: readonly NeedResult[]
  private readonly isFree: ReadonlySet<string>
  /** What of each need is left for slots to come. */
  private readonly missing: Map<NeedResult, number>

  constructor(
    private readonly context: RouteContext,
    private readonly suggested: readonly (readonly SlotSpec[])[],
    index: number
  ) {
    const { attempts, planned, audits, catalog } = context
    const groups = (list: readonly { course: CourseCode }[]) =>
      new Set(list.map((one) => catalog.groupOf(one.course)))
    this.onRoute = groups([...attempts.counted, ...planned])
    this.onRecord = groups(attempts.counted.filter((attempt) => attempt.status !== 'planned'))
    const areas = audits[index]?.areas ?? []
    this.needs = areas.flatMap((area) => area.needs)
    this.isFree = new Set(areas.filter((area) => area.area.free).map((area) => area.area.id))
    this.missing = new Map(this.needs.map((result) => [result, result.missing]))
  }

  list(): StepLeft[] {
    return this.suggested.map((slots, step) => {
      const left: StepLeft = { slots: [], taken: 0, all: slots.length, credits: 0 }
      for (const slot of slots) {
        if (typeof slot === 'string') this.course(left, step, slot)
        else this.need(left, step, slot.need)
      }
      return left
    })
  }

  private need(left: StepLeft, step: number, id: string): void {
    const result = this.needs.find((one) => one.need.id === id)
    if (!result) return
    const credits = leastCredits(result, this.context.catalog.courses)
    left.credits += credits
    if (this.missing.get(result)! > 0) {
      this.spend(result, credits)
      left.slots.push({ step, what: result, credits })
    } else if (result.state === 'met' || result.state === 'underWay') left.taken++
  }

  private course(left: StepLeft, step: number, code: string): void {
    const course = this.context.catalog.maybeCourse(code)
    if (!course) return
    const { credits } = course
    left.credits += credits
    if (this.isIn(this.onRecord, course.code)) left.taken++
    if (this.isIn(this.onRoute, course.code)) return
    const open = this.needs.filter((one) => this.missing.get(one)! > 0 && takes(one.need, course))
    const result = open.find((one) => !this.isFree.has(one.need.area)) ?? open[0]
    if (result) this.spend(result, credits)
    else if (!this.askedLater(step).has(course.code)) {
      left.taken++
      return
    }
    left.slots.push({ step, what: course.code, credits })
  }

  private spend(result: NeedResult, credits: number): void {
    const worth = result.need.measure === 'courses' ? 1 : credits
    this.missing.set(result, this.missing.get(result)! - worth)
  }

  private isIn(some: ReadonlySet<string>, code: CourseCode): boolean {
    const { catalog } = this.context
    return [code, ...catalog.exclusiveWith(code)].some((one) => some.has(catalog.groupOf(one)))
  }

  /** Courses that those of a step and of later ones ask for. */
  private askedLater(step: number): ReadonlySet<CourseCode> {
    const { catalog } = this.context
    const later = this.suggested.slice(step).flat()
    return new Set(
      later.flatMap((slot) =>
        typeof slot === 'string' ? coursesIn(ruleOf(catalog.maybeCourse(slot)?.prerequisite ?? '')) : []
      )
    )
  }
}

/** The credits of the smallest course that the need takes. */
function leastCredits({ need }: NeedResult, courses: RouteContext['catalog']['courses']): number {
  const fitting = courses.filter((course) => takes(need, course)).map((course) => course.credits)
  return fitting.length ? Math.min(...fitting) : 0
}

function canServe({ catalog, running }: RouteContext, { need }: NeedResult, term: Term): boolean {
  return catalog.courses.some((course) => takes(need, course) && runsIn(course, term, running))
}
