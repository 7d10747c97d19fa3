import { studentParams } from '#wire/bodies'
import { routeEndpoint } from '../../../routeEndpoint'
import { withdrawCalendarAddress } from '../../../services/week/habits'

export default routeEndpoint({ params: studentParams }, (tx, at) => withdrawCalendarAddress(tx, at), {
  quiet: true
})
