import { paymentBody } from '#shared/charges/requests'
import { studentParams } from '#shared/requests'
import { pay } from '#server/features/charges/payments'
import { theCashier } from '#server/gateways/cashier'
import { studentEndpoint } from '#server/http/endpoint'

/** Pays for a term, and answers with what became of it: with the same key, of the same payment. */
export default studentEndpoint(
  'POST /api/students/:id/payments',
  { params: studentParams, body: paymentBody, key: 'must' },
  ({ db, who, student, body, key }) => pay(db, who, student, { ...body, key: key! }, theCashier())
)
