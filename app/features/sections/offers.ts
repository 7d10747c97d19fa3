import { phaseOf } from '#core/catalog'
import type { Section } from '#core/week'
import type { TermView } from '#shared/catalog/responses'
import { campusDate } from '#shared/when'

/** The sections of whole terms, read when first asked for; those of a term that is over do not change any more. */
export const useOffers = defineStore('offers', () => {
  const clock = useClock()
  const byTerm = shallowRef<ReadonlyMap<string, { sections: readonly Section[]; readAt: number }>>(new Map())
  const asking = new Map<string, Promise<void>>()

  /** `anew` reads a term again that is known already. @throws Failure */
  function load({ code, end }: TermView, zone: string, anew = false): Promise<void> {
    const isOver = phaseOf({ start: end, end }, campusDate(clock.now, zone)) === 'past'
    if (byTerm.value.has(code) && (!anew || isOver)) return Promise.resolve()
    let reading = asking.get(code)
    if (!reading) {
      reading = api<Section[]>(`/api/terms/${code}/offer`)
        .then((sections) => {
          byTerm.value = new Map(byTerm.value).set(code, { sections, readAt: clock.now })
        })
        .finally(() => asking.delete(code))
      asking.set(code, reading)
    }
    return reading
  }
  return { byTerm, load }
})
