import { studentTermParams } from '#shared/requests'
import { termNoteBody } from '#shared/route/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { writeTermNote } from '#server/features/route/load'

/** Notes something on a term of the plan. */
export default changeEndpoint(
  'POST /api/students/:id/terms/:term',
  { params: studentTermParams, body: termNoteBody },
  async (tx, at, { params, body }) => {
    await writeTermNote(tx, at, params.term, body.text)
    return {}
  }
)
