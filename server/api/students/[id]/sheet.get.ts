import { studentId } from '#core/ids'
import { studentParams, termQuery } from '#wire/bodies'
import { currentShelf, endpoint } from '../../../endpoint'
import { ANYBODY, mustBe } from '../../../services/accounts/accounts'
import { termRow } from '../../../services/catalog/catalog'
import { readSheet } from '../../../services/registration/sheet'
import { readPictures } from '../../../services/students/pictures'
import { campusNow } from '../../../standins/clock'

/** The run sheet of a term, every line judged as of the opening. */
export default endpoint({ params: studentParams, query: termQuery }, async ({ db, who, params, query }) => {
  const id = studentId(params.id)
  const relation = await mustBe(db, who, id, ...ANYBODY)
  await termRow(db, query.term)
  const [picture] = await readPictures(db, [id], relation)
  return readSheet(db, picture!, await currentShelf(), query.term, await campusNow(db))
})
