import { runBody } from '#shared/registration/requests'
import { studentParams } from '#shared/requests'
import { studentEndpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'
import { run } from '#server/features/registration/run'
import { freesSeats } from '#shared/registration/outcomes'
import { Refused } from '#server/http/problem'
import { serveAfter } from '#server/features/registration/serving'

/**
 * Registers, drops and leaves lines as asked, and answers with the receipt: with the same key, of the same run. The
 * registrar does so for a student with their consent, by the same decision.
 */
export default studentEndpoint(
  'POST /api/students/:id/runs',
  { params: studentParams, body: runBody, key: 'may' },
  async ({ db, who, student, relation, body, key }) => {
    const { consent } = body
    if (relation !== 'self' && consent === undefined)
      throw new Refused(422, 'consent', 'Say how the student agreed to it.', [
        { field: 'consent', message: 'is needed where somebody else registers' }
      ])
    const catalogContext = await currentCatalogContext()
    const receipt = await run(
      db,
      who,
      student,
      { ...body, consent: relation === 'self' ? undefined : consent, key },
      catalogContext
    )
    if (receipt.lines.some((line) => freesSeats(line.outcome))) await serveAfter(db, catalogContext)
    return receipt
  }
)
