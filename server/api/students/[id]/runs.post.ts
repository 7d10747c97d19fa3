import { runBody } from '#shared/registration/requests'
import { studentParams } from '#shared/requests'
import { currentShelf, studentEndpoint } from '#server/http/endpoint'
import { run } from '#server/features/registration/run'

/** Registers the chosen lines of the run sheet, and answers with the receipt. */
export default studentEndpoint(
  'POST /api/students/:id/runs',
  { params: studentParams, body: runBody },
  async ({ db, who, student, body }) => run(db, who, student, body, await currentShelf())
)
