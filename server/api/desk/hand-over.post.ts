import { handOverBody } from '#shared/advising/requests'
import { inTransaction } from '#server/db/connect'
import { handOver } from '#server/features/advising/handOver'
import { campusNow } from '#server/gateways/clock'
import { currentShelf, endpoint } from '#server/http/endpoint'

/** Hands students over to another advisor. */
export default endpoint('POST /api/desk/hand-over', { body: handOverBody }, async ({ db, who, body }) => {
  const { zone } = await currentShelf()
  await inTransaction(db, async (tx) => handOver(tx, { who, now: await campusNow(tx), zone }, body))
  return {}
})
