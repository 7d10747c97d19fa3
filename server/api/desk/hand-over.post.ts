import { handOverBody } from '#shared/advising/requests'
import { handOver } from '#server/features/advising/handOver'
import { officeEndpoint } from '#server/http/endpoint'

/** Hands students over to another advisor. */
export default officeEndpoint(
  'POST /api/desk/hand-over',
  { body: handOverBody },
  async (tx, at, { body }) => {
    await handOver(tx, at, body)
    return {}
  }
)
