import { paymentBody } from '#shared/charges/requests'
import { studentParams } from '#shared/requests'
import { pay } from '#server/features/charges/payments'
import { theCashier } from '#server/gateways/cashier'
import { studentEndpoint } from '#server/http/endpoint'
import { mustHaveKey } from '#server/http/request'

/** Pays for a term, and answers with what became of it: with the same key, of the same payment. */
export default studentEndpoint(
  'POST /api/students/:id/payments',
  { params: studentParams, body: paymentBody },
  ({ event, db, who, student, body }) =>
    pay(db, who, student, { ...body, key: mustHaveKey(event) }, theCashier())
)
