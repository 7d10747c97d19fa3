import { studentParams } from '#wire/bodies'
import { routeEndpoint } from '../../../routeEndpoint'
import { makeCalendarAddress } from '../../../services/week/habits'

/** Makes a private calendar address; one there was before leads nowhere from then on. */
export default routeEndpoint({ params: studentParams }, (tx, at) => makeCalendarAddress(tx, at), {
  quiet: true
})
