import { gradesBody } from '#shared/record/requests'
import { termParams } from '#shared/requests'
import { officeEndpoint } from '#server/http/endpoint'
import { mustBeDemo } from '#server/features/accounts/demo'
import { postGrades } from '#server/features/record/grades'

/** Posts the grades of a term as the stand-in for gradebooks gives them; in the demo only. */
export default officeEndpoint(
  'POST /api/terms/:code/grades',
  { params: termParams, body: gradesBody },
  (tx, { who, ...at }, { params, body }) => {
    mustBeDemo()
    return postGrades(tx, who, { term: params.code, seed: body.seed }, at)
  }
)
