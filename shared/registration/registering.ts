/** What the registration decision asks, put together from what is known of a student: here and nowhere else. */
import type { CourseCode, TermCode } from '#core/ids'
import { attemptsOf, gradedAttempts, type CourseAttempt } from '#core/degree'
import type { RegistrationFacts } from '#core/registration'
import { dayNumber, type Instant } from '#core/time'
import type { Section } from '#core/week'
import type { TermView } from '#shared/catalog/responses'
import type { StudentRecord } from '#shared/record/responses'
import { permissionsAt } from '#shared/reading'
import { studentFacts } from '#shared/record/studentFacts'
import { signOffPolicyOf } from '#shared/advising/review'
import { hasChanged, sinceSignOff } from '#shared/advising/signOff'
import { holdsFor } from '#shared/charges/balance'
import { momentOf, termOf, type CatalogContext } from '#shared/catalog/context'

export interface ActorContext {
  term: TermCode
  now: Instant
  /** Sections held in the term, with their components. */
  heldSections: readonly Section[]
  /** Courses of which the seat held is given back for another. */
  exchanging?: ReadonlySet<CourseCode>
  /** Sections among which is chosen, with all their components. */
  offer: readonly Section[]
}

export function registrationFacts(
  studentRecord: StudentRecord,
  catalogContext: CatalogContext,
  { term: code, now, heldSections, offer, exchanging = new Set() }: ActorContext
): RegistrationFacts {
  const term = termOf(catalogContext, code)
  const signOff = studentRecord.signOffs.find((one) => one.term === code)
  const parts = new Map<string, Set<Section['kind']>>()
  for (const { parent, kind, cancelled } of offer) {
    if (parent === null || cancelled) continue
    parts.set(parent, (parts.get(parent) ?? new Set()).add(kind))
  }
  return {
    now,
    catalog: catalogContext.catalog,
    terms: catalogContext.terms,
    term,
    opens: studentRecord.openings.find((o) => o.term === code)?.opens ?? null,
    closes: term.addEndsAt,
    drop: { freeUntil: term.dropFreeEndsAt, ends: term.dropEndsAt },
    sessions: new Map(term.sessions.flatMap(({ code, dates }) => (dates ? [[code, dates] as const] : []))),
    student: studentFacts(studentRecord, gradedOf(studentRecord, catalogContext)),
    holds: holdsFor(studentRecord, catalogContext.terms, term, momentOf(now, catalogContext.zone).today),
    record: studentRecord.record,
    held: studentRecord.held,
    heldSections,
    exchanging,
    block: studentRecord.student.block,
    holidays: new Set(term.holidays.map((h) => dayNumber(h.date))),
    loadMost: term.loadMost,
    repeatBelow: term.repeatBelow,
    signOff: {
      policy: signOffPolicyOf(studentRecord, term),
      given: signOff ?? null,
      changed: hasChanged(sinceSignOff(studentRecord, code, now))
    },
    agreed: hasAgreed(studentRecord, term),
    onlyWith: new Map(
      studentRecord.fallbacks.flatMap((one) =>
        one.term === code && one.onlyWith ? [[one.course, one.onlyWith] as const] : []
      )
    ),
    givingUp: new Map(
      studentRecord.fallbacks.flatMap((one) =>
        one.term === code && one.givingUp ? [[one.course, one.givingUp] as const] : []
      )
    ),
    permissions: permissionsAt(studentRecord, now),
    componentsOf: (main) => [...(parts.get(main) ?? [])]
  }
}

/** Whether a term's terms of registration are accepted as they read; so they are where it has none. */
export function hasAgreed(
  { agreements }: Pick<StudentRecord, 'agreements'>,
  { code, agreement }: Pick<TermView, 'code' | 'agreement'>
): boolean {
  return agreement === null || agreements.some((one) => one.term === code)
}

/** Courses for which somebody stands in line in a term, or is offered a seat. */
export function waitingIn(
  { waiting, offers }: Pick<StudentRecord, 'waiting' | 'offers'>,
  term: TermCode
): Set<CourseCode> {
  return new Set([...waiting, ...offers].filter((one) => one.term === term).map((one) => one.course))
}

/** What of the record enters an average, as the student's first program has it. */
function gradedOf(
  { record, programs }: Pick<StudentRecord, 'record' | 'programs'>,
  { catalog, terms }: Pick<CatalogContext, 'catalog' | 'terms'>
): CourseAttempt[] {
  const repeats = programs[0]?.spec.repeats
  return gradedAttempts(
    attemptsOf({ catalog, record, held: [], planned: [], ...(repeats && { repeats }) }, terms)
  )
}
