/** The rest of a degree filled in: a proposal of planned courses, checked by the audit itself. */
import type { Term } from '#core/catalog'
import type { Audit, NeedResult, PlannedCourse } from '#core/degree'
import {
  fillMending,
  fillQuestion,
  plannedOf,
  type FillAnswer,
  type FillEffort,
  type FillQuestion,
  type FillWish
} from '#core/fill'
import type { CourseCode, TermCode } from '#core/ids'
import { coursesIn, ruleOf } from '#core/requisites'
import { obstacles, type Aligned, type RouteContext } from '#core/route'
import type { Instant } from '#core/time'
import type { Section } from '#core/week'
import type { CatalogPicture, StudentView } from './picture'
import { readStudent, shelve } from './reading'
import { endedText } from './words'

/** What a student says that a filling should be like. */
export interface FillChoice {
  summers: boolean
  /** Starred courses rather than others. */
  starred: boolean
  subjects: readonly string[]
  how: 'any' | 'online' | 'evening' | 'either'
  campus: string | null
  until: TermCode | null
}

export interface Proposed {
  planned: PlannedCourse
  /** The titles of the needs it counts toward; empty when it is there for others. */
  needs: string[]
  /** Courses of the route or the proposal that ask for it. */
  before: CourseCode[]
  /** Why not earlier: it may not stand there, or the terms are more even like this; or the program suggests it. */
  because: 'first' | 'even' | 'suggested'
}

export interface Proposal {
  courses: Proposed[]
  /** Needs for which a course is to be chosen in a term. */
  open: { result: NeedResult; term: TermCode }[]
}

/** What filling has come to. */
export interface Filled extends Proposal {
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
): Filled | undefined {
  if (answer.kind !== 'filled') return undefined
  const planned = withoutIdle(plannedOf(question, answer.best), placed, reread)
  const { audits, context } = reread([...placed, ...planned])
  const courses = planned.map((one) => ({
    ...reasonsOf(one, [...placed, ...planned], audits, context),
    because: isFirst(context, question.terms, one) ? ('first' as const) : ('even' as const)
  }))
  const last = Math.max(0, ...planned.map((one) => question.terms.findIndex((t) => t.code === one.term)))
  return {
    courses,
    open: [],
    finish: question.terms[last]!,
    proved: answer.proved,
    bound: question.terms[Math.min(Math.max(answer.bound, 0), question.terms.length - 1)]!,
    left: openNeeds(audits)
  }
}

function reasonsOf(
  planned: PlannedCourse,
  route: readonly PlannedCourse[],
  audits: readonly Audit[],
  { catalog }: RouteContext
): Omit<Proposed, 'because'> {
  const key = `${planned.course}@${planned.term}`
  const asks = (code: CourseCode) =>
    coursesIn(ruleOf(catalog.maybeCourse(code)?.prerequisite ?? '')).includes(planned.course)
  return {
    planned,
    needs: audits.flatMap((audit) => audit.whereItCounts.get(key)?.need.title ?? []),
    before: route.map((one) => one.course).filter(asks)
  }
}

/** What is left of a program's suggested sequence, as a proposal. */
export function suggestionOf(
  { placed, open }: Aligned,
  there: readonly PlannedCourse[],
  reread: Reread
): Proposal {
  const useful = withoutIdle(
    placed.map((one) => one.planned),
    there,
    reread
  )
  const route = [...there, ...useful]
  const { audits, context } = reread(route)
  return {
    courses: useful.map((planned) => ({
      ...reasonsOf(planned, route, audits, context),
      because: 'suggested'
    })),
    open: open.map(({ result, term }) => ({ result, term: term.code }))
  }
}

/** A course chosen for a need of a proposal, with its reasons. */
export function chosenFor(planned: PlannedCourse, result: NeedResult): Proposed {
  return { planned, needs: [result.need.title], before: [], because: 'suggested' }
}

/** What is filled and by whom: plain data, so that a worker can be told. */
export interface FillCall {
  catalog: CatalogPicture
  /** The sections of published terms, by their code. */
  offers: Readonly<Record<string, readonly Section[]>>
  student: StudentView
  choice: FillChoice
  now: Instant
}

/** Fills the student's route, and says how that ended. */
export function fillRoute(
  { catalog, offers, student, choice, now }: FillCall,
  { stopped, found }: { stopped?: FillEffort['stopped']; found?: (finish: Term | undefined) => void } = {}
): { proposal: Filled | undefined; ended: string } {
  const shelf = shelve(catalog, new Map(Object.entries(offers)))
  const reread = (courses: readonly PlannedCourse[]) =>
    readStudent({ ...student, route: { ...student.route, courses: [...courses] } }, shelf, now)
  const { courses: placed } = student.route
  const { context } = reread(placed)
  const question = fillQuestion(context, wishOf(choice, student, catalog))
  if (!question.demands.length)
    return { proposal: undefined, ended: 'Nothing is needed any more; there is nothing to fill in.' }
  const answer = fillMending(question.problem, {
    ...(stopped && { stopped }),
    ...(found && { found: ({ finish }) => found(question.terms[finish]) })
  })
  const proposal = proposalOf(question, answer, placed, reread)
  const conflict = conflictOf(question, answer).map((result) => result.need.title)
  return { proposal, ended: endedText(answer.kind, proposal, conflict, answer.steps) }
}

function wishOf(choice: FillChoice, student: StudentView, { heldAs }: CatalogPicture): FillWish {
  const { summers, starred, subjects, how, campus, until } = choice
  return {
    summers,
    subjects: new Set(subjects),
    courses: new Set(starred ? student.marks.filter((one) => one.starred).map((one) => one.course) : []),
    suits: (code) => {
      const seen = heldAs[code]
      const asHeld =
        how === 'any' ||
        (how !== 'evening' && seen?.online === true) ||
        (how !== 'online' && seen?.evening === true)
      return asHeld && (!campus || seen?.campuses.includes(campus) === true)
    },
    ...(until && { until }),
    level: student.student.standing === 'graduate' ? 'graduate' : 'undergraduate'
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
