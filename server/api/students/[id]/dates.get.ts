import { setResponseHeader } from 'h3'
import { studentParams } from '#shared/requests'
import { termDates } from '#shared/route/termDates'
import { campusDate } from '#shared/when'
import { currentShelf, studentEndpoint } from '#server/http/endpoint'
import { calendarOf } from '#server/features/route/calendar'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { campusNow } from '#server/gateways/clock'

/** Dates and deadlines of the terms ahead, as iCalendar. */
export default studentEndpoint(
  'GET /api/students/:id/dates',
  { params: studentParams },
  async ({ event, db, student, relation }) => {
    const [picture] = await readStudentRecords(db, [student], relation)
    const [shelf, now] = [await currentShelf(), await campusNow(db)]
    setResponseHeader(event, 'content-type', 'text/calendar; charset=utf-8')
    return calendarOf('Term dates', termDates(picture!, shelf, campusDate(now, shelf.zone)), now)
  }
)
