import { logAlone } from '#server/db/log'
import { keptOf } from '#server/features/accounts/kept'
import { sessionEndpoint } from '#server/http/endpoint'
import type { KeptOfPerson } from '#shared/accounts/kept'

/** All that is kept of whoever is signed in. */
export default sessionEndpoint('GET /api/account/kept', {}, async ({ db, who }): Promise<KeptOfPerson> => {
  const tables = await keptOf(db, who)
  await logAlone(db, { account: who.id, student: who.student, action: 'kept.taken' })
  return { format: 'ridgeway person 1', name: who.name, tables }
})
