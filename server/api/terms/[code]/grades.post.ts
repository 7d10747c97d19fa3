import { gradesBody } from '#shared/record/requests'
import { termParams } from '#shared/requests'
import { inTransaction } from '#server/db/connect'
import { currentShelf, endpoint } from '#server/http/endpoint'
import { mustBeDemo } from '#server/features/accounts/demo'
import { postGrades } from '#server/features/record/grades'
import { campusNow } from '#server/gateways/clock'

/** Posts the grades of a term as the stand-in for gradebooks gives them; in the demo only. */
export default endpoint(
  'POST /api/terms/:code/grades',
  { params: termParams, body: gradesBody },
  async ({ db, who, params, body }) => {
    mustBeDemo()
    const { zone } = await currentShelf()
    return inTransaction(db, async (tx) =>
      postGrades(tx, who, { term: params.code, seed: body.seed }, { now: await campusNow(tx), zone })
    )
  }
)
