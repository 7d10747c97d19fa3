import { carryBody, studentParams } from '#wire/bodies'
import { routeEndpoint } from '../../../routeEndpoint'
import { writeCarry } from '../../../services/route/load'

export default routeEndpoint({ params: studentParams, body: carryBody }, async (tx, at, { body }) => {
  await writeCarry(tx, at, body)
  return {}
})
