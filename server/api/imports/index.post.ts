import { importBody, SET_MOST } from '#shared/oneRoster/requests'
import { planImport } from '#server/features/files/imports'
import { campusNow } from '#server/gateways/clock'
import { endpoint } from '#server/http/endpoint'

/** Reads a set and says what it would change; nothing is taken over. */
export default endpoint(
  'POST /api/imports',
  { body: importBody, most: SET_MOST },
  async ({ db, who, body }) => planImport(db, { who, now: await campusNow(db) }, body)
)
