import { weekParams } from '#wire/bodies'
import { routeEndpoint } from '../../../../../routeEndpoint'
import { dropDraft } from '../../../../../services/week/drafts'

export default routeEndpoint({ params: weekParams }, (tx, at, { params }) => dropDraft(tx, at, params.week), {
  quiet: true
})
