import { setResponseHeader } from 'h3'
import { studentParams } from '#wire/bodies'
import { termDates } from '#wire/termDates'
import { campusDate } from '#wire/when'
import { currentShelf, studentEndpoint } from '../../../endpoint'
import { calendarOf } from '../../../services/route/calendar'
import { readPictures } from '../../../services/students/pictures'
import { campusNow } from '../../../standins/clock'

/** Dates and deadlines of the terms ahead, as iCalendar. */
export default studentEndpoint(
  'GET /api/students/:id/dates',
  { params: studentParams },
  async ({ event, db, student, relation }) => {
    const [picture] = await readPictures(db, [student], relation)
    const [shelf, now] = [await currentShelf(), await campusNow(db)]
    setResponseHeader(event, 'content-type', 'text/calendar; charset=utf-8')
    return calendarOf('Term dates', termDates(picture!, shelf, campusDate(now, shelf.zone)), now)
  }
)
