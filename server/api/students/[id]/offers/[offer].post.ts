import { offerBody, offerParams } from '#shared/registration/requests'
import { studentEndpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'
import { answerOffer } from '#server/features/registration/answer'
import { serveAfter } from '#server/features/registration/serving'

/** Takes or declines an offered seat, and answers with the receipt: with the same key, of the same answer. */
export default studentEndpoint(
  'POST /api/students/:id/offers/:offer',
  { params: offerParams, body: offerBody, key: 'may' },
  async ({ db, who, student, params, body, key }) => {
    const catalogContext = await currentCatalogContext()
    const receipt = await answerOffer(db, who, student, params.offer, { ...body, key }, catalogContext)
    await serveAfter(db, catalogContext)
    return receipt
  }
)
