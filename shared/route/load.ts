/** What a student takes on in a term, where nothing is said: their own pace, not the most that is allowed. */
import { FULL_TIME, type SlotSpec } from '#core/degree'
import type { CourseCode } from '#core/ids'
import type { StudentView } from '#shared/record/responses'
import type { CatalogContext } from '#shared/catalog/context'

/** Credits of a usual term of study, where a program suggests no sequence (common practice). */
const USUAL_TERM = 15

/**
 * Credits of a regular term: as the student says; else the most they took on or plan for one, where that is always
 * part-time or more than is usual; else what the program asks for over its usual terms, and one more, since courses
 * do not share evenly, or what it suggests for its fullest term.
 */
export function ownLoad(
  { carry, record, held, route, programs }: LoadBearer,
  { terms, catalog }: Pick<CatalogContext, 'terms' | 'catalog'>
): number {
  if (carry.credits !== null) return carry.credits
  const most = Math.max(0, ...loadsOf({ record, held, route }, terms).values())
  const least = carry.least ?? 0
  if (most > 0 && most < FULL_TIME) return Math.max(most, least)
  const spec = programs[0]?.spec
  const usual = spec?.suggested?.length || Math.max(1, Math.round((spec?.credits ?? 0) / USUAL_TERM))
  const asked = spec ? Math.ceil(spec.credits / usual) + 1 : USUAL_TERM
  const steps = (spec?.suggested ?? []).map((step) =>
    step.reduce((sum, slot) => sum + creditsOf(slot, catalog), 0)
  )
  return Math.max(asked, ...steps, most, FULL_TIME, least)
}
type LoadBearer = Pick<StudentView, 'carry' | 'record' | 'held' | 'route' | 'programs'>

/** Credits of a slot of a sequence; what is left to choose is taken for a usual course. */
function creditsOf(slot: SlotSpec, catalog: CatalogContext['catalog']): number {
  return (
    (typeof slot === 'string' ? catalog.maybeCourse(slot as CourseCode)?.credits : undefined) ?? USUAL_COURSE
  )
}
const USUAL_COURSE = 3

/** Credits of each regular term in which something was taken here, is held or planned; a course counts once. */
function loadsOf(
  { record, held, route }: Pick<LoadBearer, 'record' | 'held' | 'route'>,
  terms: CatalogContext['terms']
): Map<string, number> {
  const regular = new Set(terms.flatMap((term) => (term.season === 'summer' ? [] : [term.code as string])))
  const here = record.filter((one) => one.origin === 'here')
  const loads = new Map<string, Map<string, number>>()
  for (const { term, course, credits } of [...route.courses, ...held, ...here]) {
    if (term === null || !regular.has(term)) continue
    loads.set(term, (loads.get(term) ?? new Map<string, number>()).set(course, credits))
  }
  return new Map(
    [...loads].map(([term, own]) => [term, [...own.values()].reduce((sum, one) => sum + one, 0)])
  )
}
