import { publicPage } from '#server/features/publicPages/endpoint'
import { programsPage } from '#server/features/publicPages/programs'

export default publicPage('GET /public/programs', {}, programsPage)
