import { studentId } from '#core/ids'
import { routeParams } from '#wire/bodies'
import { endpoint } from '../../../../../endpoint'
import { ANYBODY, mustBe } from '../../../../../services/accounts/accounts'
import { readVersions } from '../../../../../services/route/route'

export default endpoint({ params: routeParams }, async ({ db, who, params }) => {
  const id = studentId(params.id)
  await mustBe(db, who, id, ...ANYBODY)
  return readVersions(db, id, params.route)
})
