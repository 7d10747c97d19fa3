import { gradesBody, termParams } from '#wire/bodies'
import { inTransaction } from '../../../db/connect'
import { currentShelf, endpoint } from '../../../endpoint'
import { mustBeDemo } from '../../../services/accounts/demo'
import { postGrades } from '../../../services/record/grades'
import { campusNow } from '../../../standins/clock'

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
