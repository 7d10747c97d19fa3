import { readImports } from '#server/features/files/imports'
import { endpoint } from '#server/http/endpoint'

/** Sets that were brought, the last first. */
export default endpoint('GET /api/imports', {}, ({ db }) => readImports(db))
