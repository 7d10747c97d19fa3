import { phaseOf } from '#core/catalog'
import type { Section } from '#core/week'
import type { CatalogPicture } from '#wire/picture'
import { shelve, type Shelf } from '#wire/reading'
import { campusDate } from '#wire/when'

/** The institution's catalog and terms. */
export const useCollege = defineStore('college', () => {
  const picture = shallowRef<CatalogPicture>()
  const shelf = shallowRef<Shelf>()
  let asking: Promise<void> | undefined

  function load(): Promise<void> {
    asking ??= api<CatalogPicture>('/api/catalog').then(
      (found) => {
        picture.value = found
        shelf.value = shelve(found)
      },
      (error) => {
        asking = undefined
        throw error
      }
    )
    return asking
  }

  const zone = computed(() => picture.value?.institution.timeZone ?? 'UTC')
  const name = computed(() => picture.value?.institution.name ?? '')
  const today = computed(() => campusDate(useClock().now, zone.value))
  const termName = (code: string) => shelf.value?.terms.find((term) => term.code === code)?.name ?? code
  /** `Autumn 27`: a term where space is short. */
  const shortTerm = (code: string) => termName(code).replace(/ \d\d(\d\d)$/, ' $1')
  const campusName = (code: string) =>
    picture.value?.campuses.find((campus) => campus.code === code)?.name ?? code
  /** Where a section is held: on its campus, or at a place away from all of them. */
  const placeName = ({ campus, offSite }: Pick<Section, 'campus' | 'offSite'>) =>
    offSite ?? campusName(campus)
  const categoryTitles = (codes: readonly string[]) =>
    codes.map((code) => picture.value?.categories.find((one) => one.code === code)?.title ?? code).join(', ')
  /** Noon of today: an instant on which everybody agrees what day it is. */
  const noon = computed(() => Date.parse(`${today.value}T12:00:00Z`))
  /** Terms to come, in which something can be placed. */
  const termsAhead = computed(() =>
    (shelf.value?.terms ?? []).filter((t) => phaseOf(t, today.value) === 'future')
  )
  const openTerms = computed(() => termsAhead.value.filter((t) => t.published))

  return {
    picture,
    shelf,
    load,
    zone,
    name,
    today,
    noon,
    termsAhead,
    termName,
    shortTerm,
    campusName,
    placeName,
    categoryTitles,
    openTerms
  }
})
