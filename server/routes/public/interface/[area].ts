import { interfaceAreaPage } from '#server/features/publicPages/description'
import { publicPage } from '#server/features/publicPages/endpoint'
import { areaParams } from '#server/features/publicPages/requests'

export default publicPage('GET /public/interface/:area', { params: areaParams }, (db, { params }) =>
  interfaceAreaPage(db, params.area)
)
