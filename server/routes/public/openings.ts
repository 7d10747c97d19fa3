import { publicPage } from '#server/features/publicPages/endpoint'
import { openingsPage } from '#server/features/publicPages/year'

export default publicPage('GET /public/openings', {}, openingsPage)
