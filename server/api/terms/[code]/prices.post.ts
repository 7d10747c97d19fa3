import { pricesBody } from '#shared/offices/prices'
import { termParams } from '#shared/requests'
import { termEndpoint } from '#server/http/endpoint'
import { changePrices } from '#server/features/terms/prices'

/** Says what a term costs, as long as nobody holds a seat in it. */
export default termEndpoint(
  'POST /api/terms/:code/prices',
  { params: termParams, body: pricesBody },
  (tx, at, { params, body }) => changePrices(tx, at.who, params.code, body, at)
)
