import { permissionParams } from '#shared/advising/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { withdrawPermission } from '#server/features/advising/permissions'

export default changeEndpoint(
  'DELETE /api/students/:id/permissions/:permission',
  { params: permissionParams },
  (tx, doing, { params }) => withdrawPermission(tx, doing, params.permission)
)
