import { readGroups } from '#server/features/advising/groups'
import { endpoint } from '#server/http/endpoint'

/** Groups that somebody has planned with, and how they stand. */
export default endpoint('GET /api/groups', {}, ({ db, who }) => readGroups(db, who))
