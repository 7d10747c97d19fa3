import { keyParams } from '#shared/requests'
import { openEndpoint } from '#server/http/endpoint'
import { invited } from '#server/features/accounts/staff'

/** For whom the link is. */
export default openEndpoint('GET /api/welcome/:key', { params: keyParams }, async ({ db, params }) => {
  const { name, signIn } = await invited(db, params.key)
  return { name, signIn }
})
