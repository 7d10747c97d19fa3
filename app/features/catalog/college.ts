import { deadlines, takesPlans } from '#core/calendar'
import type { Section } from '#core/week'
import type { CatalogView } from '#shared/catalog/responses'
import {
  momentOf,
  catalogContextOf,
  termsOnOffer,
  withOffers,
  type CatalogContext
} from '#shared/catalog/context'
import { campusDate } from '#shared/when'

/** What terms, places and categories are called. */
function useNames(view: Ref<CatalogView | undefined>, catalogContext: Ref<CatalogContext | undefined>) {
  const termName = (code: string) =>
    catalogContext.value?.terms.find((term) => term.code === code)?.name ?? code
  /** `Autumn 27`: a term where space is short. */
  const shortTerm = (code: string) => termName(code).replace(/ \d\d(\d\d)$/, ' $1')
  const campusName = (code: string) =>
    view.value?.campuses.find((campus) => campus.code === code)?.name ?? code
  /** Where a section is held: on its campus, or at a place away from all of them. */
  const placeName = ({ campus, offSite }: Pick<Section, 'campus' | 'offSite'>) =>
    offSite ?? campusName(campus)
  const categoryTitles = (codes: readonly string[]) =>
    codes.map((code) => view.value?.categories.find((one) => one.code === code)?.title ?? code).join(', ')
  return { termName, shortTerm, campusName, placeName, categoryTitles }
}

/** How far the calendar has come: what may be done changes at its midnights and deadlines. */
function useStages(catalog: Ref<CatalogContext | undefined>, zone: Ref<string>, today: Ref<string>) {
  const clock = useClock()
  /** Every instant at which what may be done in a term changes. */
  const deadlinesOf = computed(() => deadlines(catalog.value?.terms ?? [], []))
  /**
   * An instant that stands still between midnights and deadlines, of which `more` may be some: what rests on the
   * calendar is worked out anew only when one of them has passed.
   */
  function stageFor(more: () => readonly number[]) {
    return computed<{ key: string; at: number }>((before) => {
      const passed = [...deadlinesOf.value, ...more()].filter((one) => one <= clock.now).length
      const key = `${today.value} ${passed}`
      return before?.key === key ? before : { key, at: clock.now }
    })
  }
  const stage = stageFor(() => [])
  /** Terms into which courses can still be put. */
  const termsAhead = computed(() => {
    const at = momentOf(stage.value.at, zone.value)
    return (catalog.value?.terms ?? []).filter((t) => takesPlans(t, at))
  })
  const openTerms = computed(() => termsAhead.value.filter((t) => t.published))
  return { stage, stageFor, termsAhead, openTerms }
}

/** The institution's catalog and terms. */
export const useCollege = defineStore('college', () => {
  const view = shallowRef<CatalogView>()
  /** The catalog made ready once; the sections of its terms come and go. */
  const catalog = shallowRef<CatalogContext>()
  const clock = useClock()
  const offers = useOffers()
  const catalogContext = computed(() => {
    const known = [...offers.byTerm].map(([term, one]) => [term, one.sections] as const)
    return catalog.value && withOffers(catalog.value, new Map(known))
  })
  let asking: Promise<void> | undefined

  function load(): Promise<void> {
    asking ??= read().catch((error) => {
      asking = undefined
      throw error
    })
    return asking
  }
  // Terms are made, changed and published while people look.
  const follow = persistently(async () => {
    await asking?.catch(() => undefined)
    await read()
  })
  useNews().onNews(({ kind }) => kind === 'term' && asking && follow())
  useNews().onMissed(() => asking && follow())
  async function read(): Promise<void> {
    const [found] = await Promise.all([api<CatalogView>('/api/catalog'), clock.sync()])
    const { timeZone } = found.institution
    const ready = catalogContextOf(found)
    await Promise.all(
      termsOnOffer(ready.terms, clock.now, timeZone).map((term) => offers.load(term, timeZone))
    )
    view.value = found
    catalog.value = ready
  }

  const zone = computed(() => view.value?.institution.timeZone ?? 'UTC')
  const name = computed(() => view.value?.institution.name ?? '')
  const today = computed(() => campusDate(clock.minute, zone.value))
  return {
    ...{ view, catalogContext, load, zone, name, today },
    ...useStages(catalog, zone, today),
    ...useNames(view, catalogContext)
  }
})
