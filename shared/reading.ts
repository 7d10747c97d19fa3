/**
 * A student's record and route, read by the core: takings, audits, findings, loads. The one place
 * that puts the parts together, for the student's screens and the advisor's desk alike.
 */
import { byStart, Catalog, phaseOf, type Term } from '#core/catalog'
import { earliestFinish, factorsOf, graphOf, type Factors, type Finish } from '#core/chain'
import {
  auditRecord,
  compileProgram,
  type CourseLists,
  type Audit,
  type CandidateQuestion,
  type OutsideCourse,
  type Program,
  type ProgramSpec,
  type Takings
} from '#core/degree'
import type { Finding } from '#core/findings'
import type { CourseCode, TermCode } from '#core/ids'
import { asOfTerm, checkRoute, climbOf, type Climb, type RouteContext } from '#core/route'
import { evaluateRule, leavesOf, missingPart, ruleOf, type AsOf, type Standing } from '#core/requisites'
import type { Instant, IsoDate } from '#core/time'
import type { Carry, CatalogPicture, DraftWeek, StudentPicture, TermPicture } from './picture'
import { campusDate } from './when'

export interface Shelf {
  catalog: Catalog
  terms: TermPicture[]
  running: ReadonlyMap<string, ReadonlySet<string>>
  lists: CatalogPicture['lists']
  campuses: CatalogPicture['campuses']
  travel: CatalogPicture['travel']
  zone: string
}

/** The catalog as it came over the wire, made ready once. */
export function shelve(picture: CatalogPicture): Shelf {
  return {
    catalog: new Catalog(picture.courses),
    terms: [...picture.terms].sort(byStart),
    running: new Map(Object.entries(picture.running).map(([term, codes]) => [term, new Set(codes)])),
    lists: picture.lists,
    campuses: picture.campuses,
    travel: picture.travel,
    zone: picture.institution.timeZone
  }
}

export type ReadableStudent = Pick<
  StudentPicture,
  | 'student'
  | 'programs'
  | 'tests'
  | 'milestones'
  | 'exceptions'
  | 'waivers'
  | 'record'
  | 'held'
  | 'waiting'
  | 'route'
  | 'carry'
  | 'drafts'
  | 'sections'
>

export interface Reading {
  today: IsoDate
  standing: Standing
  takings: Takings
  audits: Audit[]
  /** Counts in none of the student's programs; the reason is that of the first. */
  outside: OutsideCourse[]
  context: RouteContext
  findings: Finding[]
  climb: Climb
}

const compiled = new WeakMap<Shelf, Map<string, Program>>()

/** A program ready to be audited, compiled once for each catalog. @throws ProgramError */
export function programOf(spec: ProgramSpec, shelf: Shelf): Program {
  const known = compiled.get(shelf) ?? new Map<string, Program>()
  compiled.set(shelf, known)
  const key = `${spec.code} ${spec.catalogYear}`
  let program = known.get(key)
  if (!program) {
    const options = { lists: listsFor(shelf.lists, spec.catalogYear), scale: shelf.catalog.scale }
    known.set(key, (program = compileProgram(spec, options)))
  }
  return program
}

/** The named lists as of a catalog year: of each the newest that is not later. */
export function listsFor(
  lists: readonly { name: string; catalogYear: string; from: string }[],
  catalogYear: string
): CourseLists {
  const inForce = lists
    .filter((list) => list.catalogYear <= catalogYear)
    .sort((a, b) => (a.catalogYear < b.catalogYear ? -1 : 1))
  return new Map(inForce.map((list) => [list.name, list.from]))
}

/** The draft week that is made when something is picked and there is none. */
export const FIRST_DRAFT = 'First draft'

/** The draft week of a term that the student is going with. */
export function goingWith(
  { drafts }: Pick<StudentPicture, 'drafts'>,
  term: string | undefined
): DraftWeek | undefined {
  return drafts.find((draft) => draft.term === term && draft.goingWith)
}

export function readStudent(student: ReadableStudent, shelf: Shelf, now: Instant): Reading {
  const today = campusDate(now, shelf.zone)
  const isAhead = (p: { term: string }) => phaseOf(termOf(shelf, p.term), today) === 'future'
  const planned = student.route.courses.filter(isAhead)
  const picked = new Set<string>()
  for (const draft of student.drafts.filter((one) => one.goingWith)) {
    for (const code of draft.sections) {
      const section = student.sections.find((s) => s.code === code)
      if (section) picked.add(`${draft.term} ${section.course}`)
    }
  }
  const waitlisted = new Set(student.waiting.map((w) => `${w.term} ${w.course}`))
  const { record, held } = student
  // A course under way is in the record already; a seat in a term to come is not.
  const ahead = held.filter((seat) => !record.some((r) => r.course === seat.course && r.term === seat.term))
  const { takings, audits } = auditRecord(
    student.programs.map((p) => programOf(p.spec, shelf)),
    {
      catalog: shelf.catalog,
      record,
      held: ahead,
      planned,
      picked,
      waitlisted,
      repeats: student.programs[0]?.spec.repeats ?? 'best'
    },
    shelf.terms,
    {
      exceptions: student.exceptions,
      beside: { tests: student.tests, milestones: new Set(student.milestones) }
    }
  )
  const context: RouteContext = {
    catalog: shelf.catalog,
    terms: shelf.terms,
    today,
    student: {
      standing: student.student.standing,
      programs: student.programs.map((p) => p.spec.code),
      tests: student.tests,
      waived: waivedOf(student)
    },
    takings,
    planned,
    running: shelf.running,
    // What was planned for a term that has begun and was taken is no matter any more.
    stale: student.route.courses.filter((p) => !isAhead(p) && !wasTaken(student, p)),
    ...limitsOf(student.carry, ({ code }) => termOf(shelf, code).loadMost),
    audits
  }
  const main = audits[0]
  const counts = (key: string) => audits.some((audit) => audit.whereItCounts.has(key))
  const counting = takings.counted.filter((t) => counts(t.key))
  return {
    today,
    standing: student.student.standing,
    takings,
    audits,
    outside: (main?.outside ?? []).filter((o) => !counts(o.taking.key)),
    context,
    findings: checkRoute(context),
    climb: climbOf(counting, shelf.terms, main?.program.spec.credits ?? 0)
  }
}

/** Courses whose prerequisite is not asked of the student. */
export function waivedOf({ waivers }: Pick<StudentPicture, 'waivers'>): ReadonlySet<CourseCode> {
  return new Set(waivers.filter((one) => one.state === 'granted').map((one) => one.course))
}

function wasTaken({ record, held }: ReadableStudent, planned: { course: string; term: string }): boolean {
  return [...record, ...held].some((one) => one.course === planned.course && one.term === planned.term)
}

/** What the institution allows in a term, and what the student can carry. */
export function limitsOf(carry: Carry, allowed: (term: Term) => number) {
  const own = new Map(carry.terms.map((one) => [one.term as string, one]))
  const away = carry.terms.flatMap((one): [string, 'exchange' | 'leave'][] =>
    one.away ? [[one.term, one.away]] : []
  )
  return {
    loadMost: (term: Term) =>
      Math.min(allowed(term), own.get(term.code)?.credits ?? carry.credits ?? Infinity),
    // A summer may be light.
    loadLeast: ({ code, season }: Term) =>
      season === 'summer' ? 0 : Math.min(carry.least ?? 0, own.get(code)?.credits ?? Infinity),
    hoursMost: ({ code }: Term) => own.get(code)?.hours ?? carry.hours ?? undefined,
    away: new Map(away),
    target: carry.target ?? undefined
  }
}

const factors = new WeakMap<Shelf, ReadonlyMap<CourseCode, Factors>>()

/** How many courses wait for each course of the catalog, and how long its chain is. */
export function factorsIn(shelf: Shelf): ReadonlyMap<CourseCode, Factors> {
  let found = factors.get(shelf)
  if (!found) {
    const codes = shelf.catalog.courses.map((course) => course.code)
    factors.set(shelf, (found = factorsOf(graphOf(codes, shelf.catalog))))
  }
  return found
}

/** How many leaves of a prerequisite will be missing; permission is a matter of the section. */
function missingBefore(prerequisite: string, asOf: AsOf): number {
  const rule = ruleOf(prerequisite)
  if (!rule) return 0
  return leavesOf(missingPart(evaluateRule(rule, asOf))).filter((leaf) => leaf.kind !== 'permission').length
}

/** What to ask about the courses that could meet a need in a term. */
export function candidateQuestion(reading: Reading, shelf: Shelf, term: Term): CandidateQuestion {
  const { audits, takings, context } = reading
  const waiting = factorsIn(shelf)
  const known = new Map<CourseCode, boolean>()
  const asOf = asOfTerm(term.code, shelf.terms, takings.counted, context.student, shelf.catalog)
  return {
    audits,
    takings,
    catalog: shelf.catalog,
    term,
    running: shelf.running,
    ready: ({ code, prerequisite }) => {
      const found = known.get(code) ?? missingBefore(prerequisite, asOf) === 0
      known.set(code, found)
      return found
    },
    weight: ({ code }) => {
      const { blocking, delay } = waiting.get(code)!
      return blocking + delay
    }
  }
}

/** Credits of a term that the earliest finish reckons with, where nothing else is said. */
export const USUAL_LOAD = 16

/** The earliest finish of these audits; summers do not count as terms of study. */
export function finishOf(
  reading: Pick<Reading, 'audits' | 'takings' | 'today'> & { standing: Standing },
  shelf: Shelf,
  load = USUAL_LOAD
): Finish {
  return earliestFinish({
    audits: reading.audits,
    takings: reading.takings,
    catalog: shelf.catalog,
    ahead: shelf.terms.filter((term) => phaseOf(term, reading.today) === 'future'),
    running: shelf.running,
    standing: reading.standing,
    load: (term) => (term.season === 'summer' ? 0 : load)
  })
}

/** The same student read against other programs, to compare. */
export function readAgainst(
  student: ReadableStudent,
  specs: readonly ProgramSpec[],
  shelf: Shelf,
  now: Instant
): Reading {
  const programs = specs.map((spec) => ({ spec, confirmed: 'confirmed' as const, saidInstead: null }))
  return readStudent({ ...student, programs }, shelf, now)
}

/** @throws RangeError for a term the institution does not have. */
export function termOf(shelf: Shelf, code: string): TermPicture {
  const term = shelf.terms.find((t) => t.code === code)
  if (!term) throw new RangeError(`there is no term ${code}`)
  return term
}

/**
 * The term that the work is about: the first published one to come in which something is planned or
 * held, else the first that opens or is open for the student, else the first published one to come.
 */
export function comingTerm(
  student: Pick<StudentPicture, 'route' | 'held' | 'openings'>,
  shelf: Shelf,
  today: IsoDate
): TermPicture | undefined {
  const ahead = shelf.terms.filter((term) => term.published && phaseOf(term, today) === 'future')
  const busy = new Set<TermCode>([
    ...student.route.courses.map((p) => p.term),
    ...student.held.map((h) => h.term)
  ])
  const opening = new Set(student.openings.map((o) => o.term))
  return ahead.find((t) => busy.has(t.code)) ?? ahead.findLast((t) => opening.has(t.code)) ?? ahead[0]
}
