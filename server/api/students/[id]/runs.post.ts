import { runBody } from '#shared/registration/requests'
import { studentParams } from '#shared/requests'
import { currentShelf, studentEndpoint } from '#server/http/endpoint'
import { changeKeyOf } from '#server/http/request'
import { run } from '#server/features/registration/run'

/** Registers the chosen lines of the run sheet, and answers with the receipt: with the same key, of the same run. */
export default studentEndpoint(
  'POST /api/students/:id/runs',
  { params: studentParams, body: runBody },
  async ({ event, db, who, student, body }) =>
    run(db, who, student, { ...body, key: changeKeyOf(event) }, await currentShelf())
)
