import { permissionParams } from '#shared/advising/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { forwardPermission } from '#server/features/advising/permissions'

export default changeEndpoint(
  'POST /api/students/:id/permissions/:permission/forward',
  { params: permissionParams },
  (tx, doing, { params }) => forwardPermission(tx, doing, params.permission)
)
