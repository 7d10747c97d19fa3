import { studentParams } from '#shared/requests'
import { termDates } from '#shared/route/termDates'
import { campusDate } from '#shared/when'
import { studentEndpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'
import { CALENDAR } from '#server/http/versioned'
import { calendarOf } from '#server/features/route/calendar'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { campusNow } from '#server/gateways/clock'

/** Dates and deadlines of the terms ahead, as iCalendar. */
export default studentEndpoint(
  'GET /api/students/:id/dates',
  { params: studentParams, type: CALENDAR },
  async ({ db, student, relation }) => {
    const [studentRecord] = await readStudentRecords(db, [student], relation)
    const [catalogContext, now] = [await currentCatalogContext(), await campusNow(db)]
    return calendarOf(
      'Term dates',
      termDates(studentRecord!, catalogContext, campusDate(now, catalogContext.zone)),
      now
    )
  }
)
