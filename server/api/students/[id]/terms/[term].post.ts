import { studentTermParams, termNoteBody } from '#wire/bodies'
import { routeEndpoint } from '../../../../routeEndpoint'
import { writeTermNote } from '../../../../services/route/load'

/** Notes something on a term of the plan. */
export default routeEndpoint(
  { params: studentTermParams, body: termNoteBody },
  async (tx, at, { params, body }) => {
    await writeTermNote(tx, at, params.term, body.text)
    return {}
  }
)
