import { deskViewParams } from '#shared/advising/requests'
import { endpoint } from '#server/http/endpoint'
import { dropDeskView } from '#server/features/advising/deskViews'

/** Takes a kept view of the own desk away. */
export default endpoint('DELETE /api/desk/views/:view', { params: deskViewParams }, ({ db, who, params }) =>
  dropDeskView(db, who.id, params.view)
)
