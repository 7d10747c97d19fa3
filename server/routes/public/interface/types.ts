import { interfaceTypesPage } from '#server/features/publicPages/description'
import { publicPage } from '#server/features/publicPages/endpoint'

export default publicPage('GET /public/interface/types', {}, interfaceTypesPage)
