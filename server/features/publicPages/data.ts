/** What the public pages are made of: kept for all of them, read anew while nobody waits; nothing of anybody's record. */
import type { ProgramSpec } from '#core/degree'
import type { TermCode } from '#core/ids'
import type { Instant } from '#core/time'
import type { Section } from '#core/week'
import { CourseSearch } from '#shared/catalog/courseSearch'
import type { GuidanceAbout } from '#shared/catalog/guidance'
import type { CatalogView, TermView } from '#shared/catalog/responses'
import { catalogContextOf, type CatalogContext } from '#shared/catalog/context'
import { campusDate } from '#shared/when'
import type { Database } from '#server/db/connect'
import { readCatalog, readDescriptions } from '#server/features/catalog/catalog'
import { readPrograms } from '#server/features/catalog/programs'
import { readOpenings } from '#server/features/registration/openings'
import { offerOf } from '#server/features/sections/sections'
import { campusNow } from '#server/gateways/clock'
import { kept } from '#server/http/kept'
import { Refused } from '#server/http/problem'
import { guidanceNotes } from './parts'

export interface PublicData {
  catalog: CatalogView
  catalogContext: CatalogContext
  programs: ProgramSpec[]
  descriptions: Record<string, string>
  search: CourseSearch
}

export const publicData = (db: Database): Promise<PublicData> =>
  kept(db, 'public data', async () => {
    const [catalog, programs, descriptions] = await Promise.all([
      readCatalog(db),
      readPrograms(db),
      readDescriptions(db)
    ])
    const subjects = new Map(catalog.subjects.map((one) => [one.code, one.name]))
    const search = new CourseSearch(catalog.courses, ({ code }) => ({
      subject: subjects.get(code.split(' ')[0]!),
      description: descriptions[code]
    }))
    return { catalog, catalogContext: catalogContextOf(catalog), programs, descriptions, search }
  })

/** The sections of a term with their seats, and when they were counted. */
export const publicOffer = (
  db: Database,
  term: TermCode
): Promise<{ at: Instant; sections: readonly Section[] }> =>
  kept(db, `public offer ${term}`, async () => ({
    at: await campusNow(db),
    sections: (await offerOf(db, term)).filter((one) => !one.cancelled)
  }))

/** When registration opens, for whom; an opening for a single person is between the office and that person. */
export const publicOpenings = (db: Database) =>
  kept(db, 'public openings', async () => {
    const all = await readOpenings(db)
    return all.filter((one) => !one.students.length)
  })

/** Published terms that are not over, in their order. */
export async function termsShown(db: Database, { catalogContext }: PublicData): Promise<TermView[]> {
  const today = campusDate(await campusNow(db), catalogContext.zone)
  return catalogContext.terms.filter((term) => term.published && term.end >= today)
}

/** What stands on every page. */
export const frameOf = ({ catalog: { institution } }: PublicData) => ({
  institution: institution.name,
  zone: institution.timeZone
})

/** What the institution says about something of the catalog. */
export const guidanceIn = ({ catalog }: PublicData, about: GuidanceAbout, keys?: readonly string[]) =>
  guidanceNotes(catalog.guidance, catalog.institution.name, about, keys)

export const notThere = (what: string) => new Refused(404, 'notThere', what)
