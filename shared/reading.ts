/**
 * A student's record and route, read by the core: takings, audits, findings, loads. The one place
 * that puts the parts together, for the student's screens and the advisor's desk alike.
 */
import { byStart, Catalog, phaseOf, type Term } from '#core/catalog'
import {
  auditAll,
  compileProgram,
  takingsOf,
  type Audit,
  type OutsideCourse,
  type Program,
  type ProgramSpec,
  type Takings
} from '#core/degree'
import type { Finding } from '#core/findings'
import type { TermCode } from '#core/ids'
import { checkRoute, climbOf, type Climb, type RouteContext } from '#core/route'
import type { Instant, IsoDate } from '#core/time'
import type { CatalogPicture, StudentPicture, TermPicture } from './picture'
import { campusDate } from './when'

export interface Shelf {
  catalog: Catalog
  terms: TermPicture[]
  running: ReadonlyMap<string, ReadonlySet<string>>
  zone: string
}

/** The catalog as it came over the wire, made ready once. */
export function shelve(picture: CatalogPicture): Shelf {
  return {
    catalog: new Catalog(picture.courses),
    terms: [...picture.terms].sort(byStart),
    running: new Map(Object.entries(picture.running).map(([term, codes]) => [term, new Set(codes)])),
    zone: picture.institution.timeZone
  }
}

export type ReadableStudent = Pick<
  StudentPicture,
  'student' | 'programs' | 'tests' | 'record' | 'held' | 'waiting' | 'route' | 'drafts' | 'sections'
>

export interface Reading {
  today: IsoDate
  takings: Takings
  audits: Audit[]
  /** Counts in none of the student's programs; the reason is that of the first. */
  outside: OutsideCourse[]
  context: RouteContext
  findings: Finding[]
  climb: Climb
}

const compiled = new Map<string, Program>()

function programOf(spec: ProgramSpec): Program {
  const key = `${spec.code} ${spec.catalogYear}`
  let program = compiled.get(key)
  if (!program) compiled.set(key, (program = compileProgram(spec)))
  return program
}

export function readStudent(student: ReadableStudent, shelf: Shelf, now: Instant): Reading {
  const today = campusDate(now, shelf.zone)
  const planned = student.route.courses.filter((p) => phaseOf(termOf(shelf, p.term), today) === 'future')
  const picked = new Set<string>()
  for (const draft of student.drafts) {
    for (const code of draft.sections) {
      const section = student.sections.find((s) => s.code === code)
      if (section) picked.add(`${draft.term} ${section.course}`)
    }
  }
  const waitlisted = new Set(student.waiting.map((w) => `${w.term} ${w.course}`))
  const { record, held } = student
  // A course under way is in the record already; a seat in a term to come is not.
  const ahead = held.filter((seat) => !record.some((r) => r.course === seat.course && r.term === seat.term))
  const takings = takingsOf(
    { catalog: shelf.catalog, record, held: ahead, planned, picked, waitlisted },
    shelf.terms
  )
  const audits = auditAll(
    student.programs.map((p) => programOf(p.spec)),
    takings,
    shelf.catalog
  )
  const context: RouteContext = {
    catalog: shelf.catalog,
    terms: shelf.terms,
    today,
    student: {
      standing: student.student.standing,
      programs: student.programs.map((p) => p.spec.code),
      tests: student.tests
    },
    takings,
    planned,
    running: shelf.running,
    loadMost: (term: Term) => termOf(shelf, term.code).loadMost,
    audits
  }
  const main = audits[0]
  const counts = (key: string) => audits.some((audit) => audit.whereItCounts.has(key))
  const counting = takings.counted.filter((t) => counts(t.key))
  return {
    today,
    takings,
    audits,
    outside: (main?.outside ?? []).filter((o) => !counts(o.taking.key)),
    context,
    findings: checkRoute(context),
    climb: climbOf(counting, shelf.terms, main?.program.spec.credits ?? 0)
  }
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
