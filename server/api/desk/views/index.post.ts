import { deskViewBody } from '#shared/advising/requests'
import { endpoint } from '#server/http/endpoint'
import { keepDeskView } from '#server/features/advising/deskViews'

/** Keeps a view of the own desk by a name. */
export default endpoint('POST /api/desk/views', { body: deskViewBody }, ({ db, who, body }) =>
  keepDeskView(db, who.id, body)
)
