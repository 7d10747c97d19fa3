import { publicPage } from '#server/features/publicPages/endpoint'
import { yearPage } from '#server/features/publicPages/year'

export default publicPage('GET /public', {}, yearPage)
