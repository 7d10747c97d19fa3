import { runBody } from '#shared/registration/requests'
import { studentParams } from '#shared/requests'
import { currentShelf, studentEndpoint } from '#server/http/endpoint'
import { changeKeyOf } from '#server/http/request'
import { run } from '#server/features/registration/run'
import { freesSeats } from '#shared/registration/outcomes'
import { serveAfter } from '#server/features/registration/serving'

/** Registers, drops and leaves lines as asked, and answers with the receipt: with the same key, of the same run. */
export default studentEndpoint(
  'POST /api/students/:id/runs',
  { params: studentParams, body: runBody },
  async ({ event, db, who, student, body }) => {
    const shelf = await currentShelf()
    const receipt = await run(db, who, student, { ...body, key: changeKeyOf(event) }, shelf)
    if (receipt.lines.some((line) => freesSeats(line.outcome))) await serveAfter(db, shelf)
    return receipt
  }
)
