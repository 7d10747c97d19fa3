import { peopleQuery } from '#shared/offices/requests'
import { endpoint } from '#server/http/endpoint'
import { logAlone } from '#server/db/log'
import { findStudents } from '#server/features/offices/people'

/** Any student, by number, name or program. */
export default endpoint('GET /api/people', { query: peopleQuery }, async ({ db, who, query }) => {
  const found = await findStudents(db, query.find)
  await logAlone(db, { account: who.id, student: null, action: 'people.read', after: { found: found.all } })
  return found
})
