/** A record from a file, read against programs, without a student behind it. */
import type { Catalog, Term } from '#core/catalog'
import {
  auditRecord,
  gradedAttempts,
  type PlannedCourse,
  type Audit,
  type Program,
  type Attempts
} from '#core/degree'
import type { CourseCode } from '#core/ids'
import type { RouteContext } from '#core/route'
import type { RecordContent } from '#shared/files'
import type { Carry } from '#shared/route/responses'
import { limitsOf } from '#shared/reading'

export interface Trial {
  attempts: Attempts
  audits: Audit[]
  /** Courses of the record that the catalog does not have; they count nowhere. */
  unknown: CourseCode[]
}

export function readTrial(
  content: RecordContent,
  programs: readonly Program[],
  catalog: Catalog,
  terms: readonly Pick<Term, 'code'>[]
): Trial {
  const { record, held, planned, tests, milestones, exceptions } = content
  const repeats = programs[0]?.spec.repeats ?? 'best'
  const { attempts, audits } = auditRecord(programs, { catalog, record, held, planned, repeats }, terms, {
    exceptions,
    beside: { tests, milestones: new Set(milestones) }
  })
  const unknown = [...record, ...held, ...planned]
    .map((one) => one.course)
    .filter((code) => !catalog.maybeCourse(code))
  return { attempts, audits, unknown: [...new Set(unknown)] }
}

/** The route of a record without a student behind it; `planned` stands for what the record plans. */
export function trialContext(
  content: RecordContent,
  question: { programs: readonly Program[]; catalog: Catalog; terms: readonly Term[] },
  {
    planned,
    earlier = [],
    carry,
    plannable,
    running = new Map()
  }: {
    planned: readonly PlannedCourse[]
    /** Planned in terms before those that are planned now: there by then, and not looked into. */
    earlier?: readonly PlannedCourse[]
    carry: Carry
    plannable: ReadonlySet<string>
    running?: RouteContext['running']
  }
): RouteContext {
  const { programs, catalog, terms } = question
  const { attempts, audits } = readTrial(
    { ...content, planned: [...earlier, ...planned] },
    programs,
    catalog,
    terms
  )
  return {
    catalog,
    terms,
    plannable,
    student: {
      standing: content.standing,
      programs: programs.map((program) => program.spec.code),
      tests: content.tests,
      graded: gradedAttempts(attempts)
    },
    attempts,
    planned,
    running,
    ...limitsOf(carry, () => LOAD_MOST),
    audits
  }
}

/** Nothing is said about what can be carried. */
export const NO_LIMITS: Carry = {
  credits: null,
  least: null,
  hours: null,
  outside: null,
  target: null,
  terms: []
}

/** Credits of a term at most, where no institution says otherwise (common practice). */
const LOAD_MOST = 18

/** Terms that a record names, in order, for a catalog that brings none. Years of two digits are this century's. */
export function termsNamed(content: RecordContent): Pick<Term, 'code'>[] {
  const order = { SP: 0, SU: 1, AU: 2 }
  const rank = (code: string) => Number(code.slice(2)) * 3 + order[code.slice(0, 2) as keyof typeof order]
  const codes = [...content.record, ...content.held, ...content.planned].flatMap((one) => one.term ?? [])
  return [...new Set(codes)].sort((a, b) => rank(a) - rank(b)).map((code) => ({ code }))
}
