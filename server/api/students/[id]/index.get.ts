import { studentId } from '#core/ids'
import { studentParams } from '#wire/bodies'
import { endpoint } from '../../../endpoint'
import { ANYBODY, mustBe } from '../../../services/accounts/accounts'
import { logEvent } from '../../../services/log'
import { readPictures } from '../../../services/students/pictures'
import { campusNow } from '../../../standins/clock'

/** A student's record, route, draft weeks and openings. Reading somebody else's is logged. */
export default endpoint({ params: studentParams }, async ({ db, who, params }) => {
  const id = studentId(params.id)
  const relation = await mustBe(db, who, id, ...ANYBODY)
  const [picture] = await readPictures(db, [id], relation)
  if (relation !== 'self') {
    await logEvent(db, { at: await campusNow(db), account: who.id, student: id, action: 'record.read' })
  }
  return picture
})
