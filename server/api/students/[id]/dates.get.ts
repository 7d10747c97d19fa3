import { setResponseHeader } from 'h3'
import { studentId } from '#core/ids'
import { studentParams } from '#wire/bodies'
import { termDates } from '#wire/termDates'
import { campusDate } from '#wire/when'
import { currentShelf, endpoint } from '../../../endpoint'
import { ANYBODY, mustBe } from '../../../services/accounts/accounts'
import { calendarOf } from '../../../services/route/calendar'
import { readPictures } from '../../../services/students/pictures'
import { campusNow } from '../../../standins/clock'

/** Dates and deadlines of the terms ahead, as iCalendar. */
export default endpoint({ params: studentParams }, async ({ event, db, who, params }) => {
  const id = studentId(params.id)
  const relation = await mustBe(db, who, id, ...ANYBODY)
  const [picture] = await readPictures(db, [id], relation)
  const [shelf, now] = [await currentShelf(), await campusNow(db)]
  setResponseHeader(event, 'content-type', 'text/calendar; charset=utf-8')
  return calendarOf('Term dates', termDates(picture!, shelf, campusDate(now, shelf.zone)), now)
})
