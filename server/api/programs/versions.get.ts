import { readVersions } from '#server/features/degree/programChange'
import { endpoint } from '#server/http/endpoint'

/** All versions of all programs, to which a student could be moved. */
export default endpoint('GET /api/programs/versions', {}, ({ db }) => readVersions(db))
