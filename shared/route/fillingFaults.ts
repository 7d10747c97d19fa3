/** What is wrong with a filling as the checks of the route read it, and why a course was chosen. */
import type { Audit, NeedResult, PlannedCourse } from '#core/degree'
import { plannedOf, type Faults, type Filling, type FillQuestion } from '#core/fill'
import type { Finding } from '#core/findings'
import type { CourseCode, TermCode } from '#core/ids'
import { coursesIn, ruleOf } from '#core/requisites'
import { checkRoute, type Aligned, type RouteContext } from '#core/route'
import type { Proposed, Proposal, Reread } from './filling'
import { withoutIdle } from './fillingIdle'

/** What the route checks, the weeks and the audit say against a filling. */
export function faultsOf(
  question: FillQuestion,
  filling: Filling,
  placed: readonly PlannedCourse[],
  reread: Reread
): Faults {
  const planned = plannedOf(question, filling)
  const { audits, context } = reread([...placed, ...planned])
  const numberOf = new Map(
    question.courses.flatMap((course, c) => (course ? [[course.code, c] as const] : []))
  )
  const added = new Set(planned.map((one) => `${one.course}@${one.term}`))
  const barred = checkRoute(context).flatMap((finding) => {
    if (!('course' in finding) || !isHard(finding) || !added.has(`${finding.course}@${finding.term}`))
      return []
    return [{ term: indexOf(question, finding.term), courses: [numberOf.get(finding.course)!] }]
  })
  const notTogether = question.terms.flatMap((term, t) => {
    const here = context.attempts.counted.filter((one) => one.term === term.code).map((one) => one.course)
    const news = planned.filter((one) => one.term === term.code)
    if (!news.length) return []
    const found = context.offered?.noWeek(here, term.code)
    const courses = (found?.courses ?? []).filter((code) => added.has(`${code}@${term.code}`))
    return courses.length ? [{ term: t, courses: courses.map((code) => numberOf.get(code)!) }] : []
  })
  const more = new Map<number, number>()
  question.wants.forEach(({ program, need }, w) => {
    const result = audits[program]!.areas.flatMap((area) => area.needs).find(
      (one) => one.need.id === need.id && one.state === 'needed'
    )
    const want = question.problem.reading.wants[w]!
    if (result && result.missing > 0)
      more.set(w, Math.ceil((result.missing * want.amount) / Math.max(need.amount, 1)))
  })
  return { barred, notTogether, more }
}
/** Whether a finding makes its course impossible where it stands. */
export const isHard = ({ code }: Pick<Finding, 'code'>): boolean => HARD.has(code)
const HARD = new Set<string>([
  'prerequisite',
  'corequisite',
  'notOffered',
  'notForYou',
  'permissionFirst',
  'alreadyThere',
  'away'
])

export function indexOf({ terms }: FillQuestion, code: TermCode): number {
  return terms.findIndex((term) => term.code === code)
}

export function reasonsOf(
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
