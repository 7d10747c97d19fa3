/** The rest of a degree filled in: a proposal of planned courses, checked by the audit itself. */
import type { Catalog, Term } from '#core/catalog'
import { FULL_TIME, takes, type Audit, type Need, type NeedResult, type PlannedCourse } from '#core/degree'
import {
  fill,
  fillQuestion,
  plannedOf,
  type FillAnswer,
  type FillQuestion,
  type FillWish,
  type NoneBetter,
  type Solve
} from '#core/fill'
import type { CourseCode, TermCode } from '#core/ids'
import { blockers, routeFinish, termLoad, type RouteContext } from '#core/route'
import type { Instant } from '#core/time'
import type { Section } from '#core/week'
import { ownLoad } from './load'
import type { CatalogView } from '#shared/catalog/responses'
import type { StudentView } from '#shared/record/responses'
import { readStudent } from '#shared/reading'
import { catalogContextOf } from '#shared/catalog/context'
import { endedText } from './fillingTexts'
import { faultsOf, indexOf, reasonsOf } from './fillingFaults'
import { withoutIdle, openNeeds } from './fillingIdle'

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
  /**
   * Why not earlier: it may not stand there; the earlier terms are full; the program suggests it here; the terms are
   * more even like this; or for no reason but that others came first.
   */
  because: 'first' | 'full' | 'suggested' | 'even' | 'later'
}

export interface Proposal {
  courses: Proposed[]
  /** Needs for which a course is to be chosen in a term. */
  open: { result: NeedResult; term: TermCode }[]
}

/** What filling has come to, as the audit says it once everything proposed is taken. */
export interface Filled extends Proposal {
  /** The finish of the whole route; undefined while anything stays open. */
  finish: Term | undefined
  /** No way finishes earlier, whatever is chosen and however it is read. */
  proved: boolean
  /** What else is proved of the filling; undefined where not everything was met. */
  better: NoneBetter | undefined
  /** No finish is earlier than this. */
  bound: Term | undefined
  /** What stays open. */
  left: NeedResult[]
  /** Needs that cannot be met together, by title; empty when all could be met, or where that is not shown. */
  conflict: string[]
  /** Open needs, by title, that only courses taken again can meet: filling adds each once. */
  again: string[]
}

/** What is read anew with other planned courses. */
export type Reread = (planned: readonly PlannedCourse[]) => { audits: Audit[]; context: RouteContext }

export interface FillRun {
  solve: Solve
  told?: (models: number, finish?: Term) => void
  /** Looks for nothing less than everything. */
  wholeOnly?: boolean
}

/** Fills a question and reads the route anew with what was found. */
export function filledOf(
  question: FillQuestion,
  placed: readonly PlannedCourse[],
  reread: Reread,
  { solve, told, wholeOnly = false }: FillRun
): { answer: FillAnswer; proposal: Filled | undefined } {
  const answer = fill(question.problem, {
    solve,
    wholeOnly,
    inspect: (filling) => faultsOf(question, filling, placed, reread),
    ...(told && {
      told: (models, last) => told(models, last === undefined ? undefined : question.terms[last])
    })
  })
  if (answer.kind === 'unknown' || answer.kind === 'impossible') return { answer, proposal: undefined }
  const planned = withoutIdle(plannedOf(question, answer.filling), placed, reread)
  const route = [...placed, ...planned]
  const { audits, context } = reread(route)
  const left = openNeeds(audits)
  const finish = left.length ? undefined : routeFinish(audits, context.terms)
  const at = question.terms.findIndex((term) => term.code === finish?.code)
  const again = [
    ...new Set(left.filter(({ need }) => isOfRepeats(need, context.catalog)).map((one) => one.need.title))
  ]
  return {
    answer,
    proposal: {
      courses: planned.map((one) => ({
        ...reasonsOf(one, route, audits, context),
        because: becauseOf(one, question, context)
      })),
      open: [],
      finish,
      proved: answer.kind === 'filled' && answer.proved && finish !== undefined && at <= answer.bound,
      better: answer.kind === 'filled' ? answer.better : undefined,
      bound: answer.kind === 'filled' ? question.terms[answer.bound] : undefined,
      left,
      conflict: answer.kind === 'partly' && !again.length ? titlesOf(question, answer.conflict) : [],
      again
    }
  }
}

/** Whether a need can be met by courses that are taken again alone. */
function isOfRepeats(need: Need, catalog: Catalog): boolean {
  const courses = catalog.courses.filter((course) => takes(need, course))
  const once =
    need.measure === 'courses' ? courses.length : courses.reduce((sum, one) => sum + one.creditsMost, 0)
  return once < need.amount && courses.some((one) => one.repeatable)
}

function titlesOf(question: FillQuestion, wants: readonly number[]): string[] {
  return [...new Set(wants.map((w) => question.wants[w]!.need.title))]
}

/** What is filled and by whom: plain data, so that a worker can be told. */
export interface FillCall {
  catalog: CatalogView
  /** The sections of published terms, by their code. */
  offers: Readonly<Record<string, readonly Section[]>>
  student: StudentView
  choice: FillChoice
  now: Instant
}

/** Fills the student's route, and says how that ended. */
export function fillRoute(
  { catalog, offers, student, choice, now }: FillCall,
  run: FillRun
): { proposal: Filled | undefined; ended: string } {
  const catalogContext = catalogContextOf(catalog, new Map(Object.entries(offers)))
  const reread = (courses: readonly PlannedCourse[]) =>
    readStudent({ ...student, route: { ...student.route, courses: [...courses] } }, catalogContext, now)
  const { courses: placed } = student.route
  const { context, audits } = reread(placed)
  if (!openNeeds(audits).length)
    return { proposal: undefined, ended: 'Nothing is needed any more; there is nothing to fill in.' }
  const load = ownLoad(student, catalogContext)
  const full = Math.min(FULL_TIME, load)
  const wish = wishOf(choice, student, catalog)
  const own = { ...wish, load: () => load, full }
  const whole = attempt(own, true)
  if (whole.answer.kind !== 'impossible') return { ...whole, ended: endedText(whole.proposal, load) }
  // What the student's own load cannot hold may still be held by what is allowed.
  if (catalogContext.terms.some((term) => context.loadMost(term) > load)) {
    const most = attempt({ ...wish, full }, true)
    if (most.proposal?.finish) {
      const beyond = `With ${load} credits a term it cannot be completed in the terms known; this takes what is allowed.`
      return { ...most, ended: `${beyond} ${endedText(most.proposal)}` }
    }
  }
  const part = attempt(own, false)
  return { ...part, ended: endedText(part.proposal, load) }

  function attempt(asked: FillWish, wholeOnly: boolean) {
    const question = fillQuestion(context, asked)
    return filledOf(question, placed, reread, { ...run, wholeOnly })
  }
}

function wishOf(choice: FillChoice, student: StudentView, { heldAs }: CatalogView): FillWish {
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

/** Why the course stands where it does and not earlier; each answer is looked up, none is assumed. */
function becauseOf(
  planned: PlannedCourse,
  question: FillQuestion,
  context: RouteContext
): Proposed['because'] {
  const at = indexOf(question, planned.term)
  const number = question.courses.findIndex((course) => course?.code === planned.course)
  const may = question.terms
    .slice(0, at)
    .flatMap((term, t) => (blockers(context, planned.course, term).length ? [] : [{ term, t }]))
  if (!may.length) return 'first'
  const load = (t: number) => termLoad(context.attempts, question.terms[t]!.code)
  const room = may.filter(({ t }) => {
    const { room: left, standing } = question.problem.terms[t]!
    return load(t) + planned.credits <= left + standing
  })
  if (!room.length) return 'full'
  if (question.problem.courses[number]?.pull === at) return 'suggested'
  // Squares of the loads: equal shares are least.
  const isEven = room.every(({ t }) => load(t) + planned.credits > load(at))
  return isEven ? 'even' : 'later'
}
