import { sql } from 'drizzle-orm'
import { openEndpoint } from '#server/http/endpoint'

/** For a monitor: the server answers, and so does its database. */
export default openEndpoint('GET /readyz', {}, async ({ db }) => {
  await db.execute(sql`select 1`)
  return 'ready'
})
