import { studentId } from '#core/ids'
import { runBody, studentParams } from '#wire/bodies'
import { currentShelf, endpoint } from '../../../endpoint'
import { mustBe } from '../../../services/accounts/accounts'
import { run } from '../../../services/registration/run'

/** Registers the chosen lines of the run sheet, and answers with the receipt. */
export default endpoint({ params: studentParams, body: runBody }, async ({ db, who, params, body }) => {
  const id = studentId(params.id)
  await mustBe(db, who, id, 'self')
  return run(db, who, id, body, await currentShelf())
})
