import { permissionBody } from '#shared/advising/requests'
import { studentParams } from '#shared/requests'
import { changeEndpoint, currentShelf } from '#server/http/endpoint'
import { askPermission } from '#server/features/advising/permissions'

export default changeEndpoint(
  'POST /api/students/:id/permissions',
  { params: studentParams, body: permissionBody },
  async (tx, doing, { body }) => askPermission(tx, doing, body, await currentShelf())
)
