/** The catalog with the sections of the terms to which courses can still be added. */
import type { Section } from '#core/week'
import { shelve, termsOnOffer, type Shelf } from '#shared/catalog/shelf'
import type { Reader } from '#server/db/connect'
import { campusNow } from '#server/gateways/clock'
import { offerOf } from '#server/features/sections/sections'
import { readCatalog } from './catalog'

export async function readShelf(db: Reader): Promise<Shelf> {
  const catalog = await readCatalog(db)
  const onOffer = termsOnOffer(catalog.terms, await campusNow(db), catalog.institution.timeZone)
  const offers = new Map<string, Section[]>()
  for (const { code } of onOffer) offers.set(code, await offerOf(db, code))
  return shelve(catalog, offers)
}
