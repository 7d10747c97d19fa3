/** The catalog with the sections of the terms to which courses can still be added. */
import type { Section } from '#core/week'
import { catalogContextOf, termsOnOffer, type CatalogContext } from '#shared/catalog/context'
import type { Reader } from '#server/db/connect'
import { campusNow } from '#server/gateways/clock'
import { offerOf } from '#server/features/sections/sections'
import { readCatalog } from './catalog'

export async function readCatalogContext(db: Reader): Promise<CatalogContext> {
  const catalog = await readCatalog(db)
  const onOffer = termsOnOffer(catalog.terms, await campusNow(db), catalog.institution.timeZone)
  const offers = new Map<string, Section[]>()
  for (const { code } of onOffer) offers.set(code, await offerOf(db, code))
  return catalogContextOf(catalog, offers)
}
