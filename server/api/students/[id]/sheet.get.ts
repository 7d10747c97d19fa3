import { studentParams, termQuery } from '#shared/requests'
import { studentEndpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'
import { termRow } from '#server/features/catalog/catalog'
import { readSheet } from '#server/features/registration/sheet'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { campusNow } from '#server/gateways/clock'

/** The run sheet of a term, every line judged as of the opening. */
export default studentEndpoint(
  'GET /api/students/:id/sheet',
  { params: studentParams, query: termQuery },
  async ({ db, student, relation, query }) => {
    await termRow(db, query.term)
    const [studentRecord] = await readStudentRecords(db, [student], relation)
    return readSheet(db, studentRecord!, await currentCatalogContext(), query.term, await campusNow(db))
  }
)
