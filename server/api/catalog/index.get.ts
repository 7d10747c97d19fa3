import { keptAnswer } from '#server/http/kept'
import { endpoint } from '#server/http/endpoint'
import { readCatalog } from '#server/features/catalog/catalog'

/** Subjects, courses, lists, terms, grades and rules of the institution. */
export default endpoint('GET /api/catalog', {}, ({ db }) => keptAnswer(db, 'catalog', () => readCatalog(db)))
