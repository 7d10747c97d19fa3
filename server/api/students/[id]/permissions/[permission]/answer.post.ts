import { permissionAnswerBody, permissionParams } from '#shared/advising/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { answerPermission } from '#server/features/advising/permissions'

export default changeEndpoint(
  'POST /api/students/:id/permissions/:permission/answer',
  { params: permissionParams, body: permissionAnswerBody },
  (tx, doing, { params, body, relation }) =>
    answerPermission(tx, { ...doing, relation }, params.permission, body)
)
