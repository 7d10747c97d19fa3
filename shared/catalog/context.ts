/** The catalog with its terms, programs and offers, made ready to be read by the core: once for all students. */
import { takesPlans, type Moment } from '#core/calendar'
import { byStart, Catalog } from '#core/catalog'
import { scaleOf } from '#core/grades'
import { factorsOf, graphOf, type Factors } from '#core/chain'
import { compileProgram, type CourseLists, type Program, type ProgramSpec } from '#core/degree'
import type { CourseCode } from '#core/ids'
import type { TermOffer } from '#core/route'
import { dayNumber, type Instant } from '#core/time'
import type { Section } from '#core/week'
import type { CatalogView, TermView } from '#shared/catalog/responses'
import { campusDate } from '#shared/when'

export interface CatalogContext {
  catalog: Catalog
  terms: TermView[]
  running: ReadonlyMap<string, ReadonlySet<string>>
  lists: CatalogView['lists']
  campuses: CatalogView['campuses']
  travel: CatalogView['travel']
  /** Campuses at which a course has been held or is offered. */
  heldAt: ReadonlyMap<string, readonly string[]>
  /** All sections of published terms to which courses can still be added, by term. */
  offers: ReadonlyMap<string, TermOffer>
  zone: string
}

/** The catalog as it came over the wire, made ready once; with the sections of terms, by their code. */
export function catalogContextOf(
  studentRecord: CatalogView,
  offers: ReadonlyMap<string, readonly Section[]> = new Map()
): CatalogContext {
  return withOffers(
    {
      catalog: new Catalog(studentRecord.courses, scaleOf(studentRecord.institution.grades)),
      terms: [...studentRecord.terms].sort(byStart),
      heldAt: new Map(Object.entries(studentRecord.heldAs).map(([course, as]) => [course, as.campuses])),
      offers: new Map(),
      running: new Map(Object.entries(studentRecord.running).map(([term, codes]) => [term, new Set(codes)])),
      lists: studentRecord.lists,
      campuses: studentRecord.campuses,
      travel: studentRecord.travel,
      zone: studentRecord.institution.timeZone
    },
    offers
  )
}

/** The same catalog with the sections of terms as they were read later. */
export function withOffers(
  catalogContext: CatalogContext,
  offers: ReadonlyMap<string, readonly Section[]>
): CatalogContext {
  const ready = [...offers].flatMap(([code, sections]): [string, TermOffer][] => {
    const term = catalogContext.terms.find((one) => one.code === code)
    if (!term) return []
    return [[code, { sections, holidays: new Set(term.holidays.map((one) => dayNumber(one.date))) }]]
  })
  return { ...catalogContext, offers: new Map(ready) }
}

/** Published terms to which courses can still be added: those of which the sections have to be known. */
export function termsOnOffer<T extends TermView>(terms: readonly T[], now: Instant, zone: string): T[] {
  const at = momentOf(now, zone)
  return terms.filter((term) => term.published && takesPlans(term, at))
}

/** An instant with the day that it is on campus. */
export function momentOf(now: Instant, zone: string): Moment {
  return { now, today: campusDate(now, zone) }
}

const compiled = new WeakMap<Catalog, Map<string, Program>>()
/** Programs that are not published: the same name may stand for another program a moment later. */
const drafts = new WeakMap<ProgramSpec, Program>()

/** A program that is not published, ready to be audited under this very object. @throws ProgramError */
export function withDraft(spec: ProgramSpec, catalogContext: CatalogContext): ProgramSpec {
  drafts.set(spec, compileIn(spec, catalogContext))
  return spec
}

const compileIn = (spec: ProgramSpec, { lists, catalog }: CatalogContext): Program =>
  compileProgram(spec, { lists: listsFor(lists, spec.catalogYear), scale: catalog.scale })

/** A program ready to be audited, compiled once for each catalog. @throws ProgramError */
export function programOf(spec: ProgramSpec, catalogContext: CatalogContext): Program {
  const draft = drafts.get(spec)
  if (draft) return draft
  const known = compiled.get(catalogContext.catalog) ?? new Map<string, Program>()
  compiled.set(catalogContext.catalog, known)
  const key = `${spec.code} ${spec.catalogYear}`
  let program = known.get(key)
  if (!program) known.set(key, (program = compileIn(spec, catalogContext)))
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

const factors = new WeakMap<Catalog, ReadonlyMap<CourseCode, Factors>>()

/** How many courses wait for each course of the catalog, and how long its chain is. */
export function factorsIn(catalogContext: CatalogContext): ReadonlyMap<CourseCode, Factors> {
  let found = factors.get(catalogContext.catalog)
  if (!found) {
    const codes = catalogContext.catalog.courses.map((course) => course.code)
    factors.set(catalogContext.catalog, (found = factorsOf(graphOf(codes, catalogContext.catalog))))
  }
  return found
}

/** @throws RangeError for a term the institution does not have. */
export function termOf(catalogContext: CatalogContext, code: string): TermView {
  const term = catalogContext.terms.find((t) => t.code === code)
  if (!term) throw new RangeError(`there is no term ${code}`)
  return term
}
