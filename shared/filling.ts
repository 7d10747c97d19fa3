/** The rest of a degree filled in: a proposal of planned courses, checked by the audit itself. */
import type { Term } from '#core/catalog'
import type { Audit, NeedResult, PlannedCourse } from '#core/degree'
import { plannedOf, type FillAnswer, type FillQuestion } from '#core/fill'
import type { CourseCode } from '#core/ids'
import { coursesIn, ruleOf } from '#core/requisites'
import { obstacles, type RouteContext } from '#core/route'

export interface Proposed {
  planned: PlannedCourse
  /** The titles of the needs it counts toward; empty when it is there for others. */
  needs: string[]
  /** Courses of the route or the proposal that ask for it. */
  before: CourseCode[]
  /** Why not earlier: it may not stand there, or it may and the terms are more even like this. */
  because: 'first' | 'even'
}

export interface Proposal {
  courses: Proposed[]
  finish: Term
  /** The earliest finish there is, where that is proved; else no finish is earlier than this. */
  proved: boolean
  bound: Term
  /** Needs that stay open although they were asked for; the audit knows more rules than the filling does. */
  left: string[]
}

/** What is read anew with other planned courses. */
export type Reread = (planned: readonly PlannedCourse[]) => { audits: Audit[]; context: RouteContext }

/** Undefined when nothing was found. */
export function proposalOf(
  question: FillQuestion,
  answer: FillAnswer,
  placed: readonly PlannedCourse[],
  reread: Reread
): Proposal | undefined {
  if (answer.kind !== 'filled') return undefined
  const planned = withoutIdle(plannedOf(question, answer.best), placed, reread)
  const { audits, context } = reread([...placed, ...planned])
  const codes = [...placed, ...planned].map((one) => one.course)
  const courses = planned.map((one): Proposed => {
    const key = `${one.course}@${one.term}`
    const needs = audits.flatMap((audit) => audit.whereItCounts.get(key)?.need.title ?? [])
    const before = codes.filter((code) => {
      const rule = ruleOf(context.catalog.maybeCourse(code)?.prerequisite ?? '')
      return coursesIn(rule).includes(one.course)
    })
    return { planned: one, needs, before, because: isFirst(context, question.terms, one) ? 'first' : 'even' }
  })
  const last = Math.max(0, ...planned.map((one) => question.terms.findIndex((t) => t.code === one.term)))
  return {
    courses,
    finish: question.terms[last]!,
    proved: answer.proved,
    bound: question.terms[Math.min(Math.max(answer.bound, 0), question.terms.length - 1)]!,
    left: openNeeds(audits)
  }
}

/** Leaves out what counts nowhere, or as free choice that is filled without it, and is asked for by nothing. */
function withoutIdle(
  planned: readonly PlannedCourse[],
  placed: readonly PlannedCourse[],
  reread: Reread
): PlannedCourse[] {
  let kept = [...planned]
  const worth = (some: readonly PlannedCourse[]) => {
    const { audits, context } = reread([...placed, ...some])
    const blocked = context.planned.filter((one) => {
      const term = context.terms.find((t) => t.code === one.term)!
      return obstacles(context, one.course, term).length > 0
    })
    return { audits, open: openNeeds(audits).length, blocked: blocked.length }
  }
  let now = worth(kept)
  for (const one of planned) {
    if (now.audits.some((audit) => countsAsAsked(audit, `${one.course}@${one.term}`))) continue
    const fewer = kept.filter((other) => other !== one)
    const then = worth(fewer)
    if (then.open > now.open || then.blocked > now.blocked) continue
    kept = fewer
    now = then
  }
  return kept
}

/** Whether a course counts toward something else than free choice. */
function countsAsAsked(audit: Audit, key: string): boolean {
  const need = audit.whereItCounts.get(key)?.need
  const area = audit.areas.find((one) => one.area.id === need?.area)
  return area !== undefined && !area.area.free
}

function isFirst(context: RouteContext, terms: readonly Term[], planned: PlannedCourse): boolean {
  const at = terms.findIndex((term) => term.code === planned.term)
  return terms.slice(0, at).every((term) => obstacles(context, planned.course, term).length > 0)
}

function openNeeds(audits: readonly Audit[]): string[] {
  return audits.flatMap((audit) =>
    audit.areas.flatMap((area) =>
      area.needs.filter((need) => need.state === 'needed').map((n) => n.need.title)
    )
  )
}

/** The needs that cannot be met together, by title. */
export function conflictOf(question: FillQuestion, answer: FillAnswer): NeedResult[] {
  if (answer.kind !== 'impossible') return []
  return [...new Set(answer.demands.map((d) => question.demands[d]!.result))]
}
