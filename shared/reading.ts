/**
 * A student's record and route, read by the core: attempts, audits, findings, loads. The one place
 * that puts the parts together, for the student's screens and the advisor's desk alike.
 */
import { isAlive, termStandings, workingTerm, type TermStanding } from '#core/calendar'
import { phaseOf, type Term, type TermPhase } from '#core/catalog'
import {
  auditRecord,
  type Audit,
  type OutsideCourse,
  type PlannedCourse,
  type ProgramSpec,
  gradedAttempts,
  type Attempts
} from '#core/degree'
import type { Finding } from '#core/findings'
import type { CourseCode, SectionCode, TermCode } from '#core/ids'
import type { Standing } from '#core/requisites'
import { checkRoute, climbOf, Offered, routeFinish, type Climb, type RouteContext } from '#core/route'
import type { Instant, IsoDate } from '#core/time'
import type { PermissionKind, Permissions, Section, SectionTaker } from '#core/week'
import { studentFacts } from '#shared/record/studentFacts'
import type { TermView } from '#shared/catalog/responses'
import { type CatalogContext, momentOf, programOf, termOf } from '#shared/catalog/context'
import type { StudentRecord } from '#shared/record/responses'
import type { Carry } from '#shared/route/responses'
import type { DraftWeek } from '#shared/week/responses'

/** What of a record is read. */
export const READ_KEYS = [
  'student',
  'programs',
  'tests',
  'milestones',
  'exceptions',
  'requests',
  'record',
  'held',
  'waiting',
  'route',
  'carry',
  'drafts',
  'sections',
  'openings',
  'permitted',
  'keepFree'
] as const satisfies (keyof StudentRecord)[]

export type ReadableStudent = Pick<StudentRecord, (typeof READ_KEYS)[number]>

export interface Reading {
  now: Instant
  today: IsoDate
  /** How every term stands for the student, in order. */
  standings: TermStanding<TermView>[]
  standing: Standing
  attempts: Attempts
  audits: Audit[]
  /** Counts in none of the student's programs; the reason is that of the first. */
  outside: OutsideCourse[]
  context: RouteContext
  findings: Finding[]
  /** Of the first program. */
  climb: Climb
  /** The term at whose end all programs are complete; undefined while anything is needed. */
  finish: TermView | undefined
}

/** The draft week that is made when something is picked and there is none. */
export const FIRST_DRAFT = 'First draft'

/** The draft week of a term that the student is going with. */
export function goingWith(
  { drafts }: Pick<StudentRecord, 'drafts'>,
  term: string | undefined
): DraftWeek | undefined {
  return drafts.find((draft) => draft.term === term && draft.goingWith)
}

export function readStudent(student: ReadableStudent, catalogContext: CatalogContext, now: Instant): Reading {
  const at = momentOf(now, catalogContext.zone)
  const { today } = at
  const standings = termStandings(
    {
      openings: student.openings,
      planned: student.route.courses,
      held: student.held,
      record: student.record
    },
    catalogContext.terms,
    at
  )
  const plannable = new Set<string>(standings.flatMap((one) => (one.planning ? [one.term.code] : [])))
  const isAhead = (p: { term: string }) => plannable.has(p.term)
  const planned = student.route.courses.filter(isAhead)
  const { attempts, audits } = auditOf(student, catalogContext, today, planned)
  const context: RouteContext = {
    catalog: catalogContext.catalog,
    terms: catalogContext.terms,
    plannable,
    student: studentFacts(student, gradedAttempts(attempts)),
    attempts,
    planned,
    running: catalogContext.running,
    offered: offeredTo(student, catalogContext, now),
    // What was planned for a term that takes no plans any more and was taken is no matter any more.
    stale: student.route.courses.filter((p) => !isAhead(p) && !wasTaken(student, p)),
    ...limitsOf(student.carry, ({ code }) => termOf(catalogContext, code).loadMost),
    audits
  }
  const main = audits[0]
  const counts = (key: string) => audits.some((audit) => audit.whereItCounts.has(key))
  return {
    now,
    today,
    standings,
    standing: student.student.standing,
    attempts,
    audits,
    outside: (main?.outside ?? []).filter((o) => !counts(o.attempt.key)),
    context,
    findings: checkRoute(context),
    climb: climbOf(main, catalogContext.terms),
    finish: routeFinish(audits, catalogContext.terms)
  }
}

/** The record with what is held and planned ahead, audited against the student's programs. */
function auditOf(
  student: ReadableStudent,
  catalogContext: CatalogContext,
  today: IsoDate,
  planned: readonly PlannedCourse[]
): ReturnType<typeof auditRecord> {
  const picked = pickedSections(student)
  const waitlisted = new Set(student.waiting.map((w) => `${w.term} ${w.course}`))
  const { record, held } = student
  // A course under way is in the record already; a seat in a term to come is not.
  const ahead = held.filter((seat) => !record.some((r) => r.course === seat.course && r.term === seat.term))
  return auditRecord(
    student.programs.map((p) => programOf(p.spec, catalogContext)),
    {
      catalog: catalogContext.catalog,
      record,
      held: ahead,
      planned,
      picked: new Set(picked.keys()),
      waitlisted,
      phaseIn: phaseOfCourse(student, catalogContext, today),
      heldAs: (course, term) => {
        const section = picked.get(`${term} ${course}`)
        if (!section) return { campuses: catalogContext.heldAt.get(course) }
        const { campus, mode, categories } = section
        return { campus, mode, categories }
      },
      repeats: student.programs[0]?.spec.repeats ?? 'best'
    },
    catalogContext.terms,
    {
      exceptions: student.exceptions,
      beside: { tests: student.tests, milestones: new Set(student.milestones) }
    }
  )
}

/** By term and course, the section picked in the weeks that the student is going with. */
function pickedSections({ drafts, sections }: ReadableStudent): ReadonlyMap<string, Section> {
  const picked = new Map<string, Section>()
  for (const draft of drafts.filter((one) => one.goingWith))
    for (const code of draft.sections) {
      const section = sections.find((s) => s.code === code)
      if (section?.parent === null) picked.set(`${draft.term} ${section.course}`, section)
    }
  return picked
}

/** Where the days of a student's course in a term lie today: of a seat those of its session, else of the term. */
export function phaseOfCourse(
  { held, sections }: Pick<ReadableStudent, 'held' | 'sections'>,
  catalogContext: Pick<CatalogContext, 'terms'>,
  today: IsoDate
): (course: CourseCode, term: TermCode) => TermPhase {
  const sessions = new Map<string, string>()
  for (const { course, term, section } of held) {
    const session = sections.find((one) => one.code === section)?.session
    if (session) sessions.set(`${term} ${course}`, session)
  }
  return (course, code) => {
    const term = catalogContext.terms.find((one) => one.code === code)
    if (!term) return 'past'
    const session = sessions.get(`${code} ${course}`)
    return phaseOf(term.sessions.find((one) => one.code === session) ?? term, today)
  }
}

const offeredTo = (student: ReadableStudent, catalogContext: CatalogContext, now: Instant): Offered =>
  new Offered(catalogContext.offers, {
    ...takerOf(student, now),
    kept: student.keepFree.filter((one) => one.hard),
    held: new Set(student.held.flatMap((seat) => [seat.section, ...seat.components]))
  })

/** What decides which sections are for a student, as of an instant. */
export function takerOf(
  { programs, student, permitted }: Pick<StudentRecord, 'programs' | 'student' | 'permitted'>,
  now: Instant
): SectionTaker {
  return {
    programs: programs.map((one) => one.spec.code),
    standing: student.standing,
    permissions: permissionsAt({ permitted }, now)
  }
}

/** What is set aside for a student as of an instant; a permission has ended at its instant. */
export function permissionsAt({ permitted }: Pick<StudentRecord, 'permitted'>, now: Instant): Permissions {
  const found = new Map<SectionCode, Set<PermissionKind>>()
  for (const { section, kind, until } of permitted)
    if (until === null || until > now) found.set(section, (found.get(section) ?? new Set()).add(kind))
  return found
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

/** The same student read against other programs, to compare. */
export function readAgainst(
  student: ReadableStudent,
  specs: readonly ProgramSpec[],
  catalogContext: CatalogContext,
  now: Instant
): Reading {
  const programs = specs.map((spec) => ({
    ...{ spec, confirmed: 'confirmed' as const, saidInstead: null },
    ...{ review: { covers: 'term' as const, questions: [] }, policies: [] }
  }))
  return readStudent({ ...student, programs }, catalogContext, now)
}

/** The terms a student works with, in order: those that Week and Register can show. */
export function termsAlive({ standings }: Pick<Reading, 'standings'>): TermStanding<TermView>[] {
  const working = workingTerm(standings)
  return standings.filter((one) => isAlive(one) || one === working)
}

/** The term that the work is about: the one that was chosen while it is alive, else the one that comes first. */
export function termAtWork(
  reading: Pick<Reading, 'standings'>,
  chosen: string | undefined
): TermStanding<TermView> | undefined {
  return termsAlive(reading).find((one) => one.term.code === chosen) ?? workingTerm(reading.standings)
}
