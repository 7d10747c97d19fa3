import { setResponseHeader } from 'h3'
import { keyParams } from '#shared/requests'
import { currentShelf, openEndpoint } from '#server/http/endpoint'
import { Refused } from '#server/http/problem'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { calendarOfClasses } from '#server/features/week/classes'
import { studentAtAddress } from '#server/features/week/habits'
import { campusNow } from '#server/gateways/clock'

/** A student's classes for a calendar program, at a private address that can be withdrawn. */
export default openEndpoint(
  'GET /api/calendars/:key',
  { params: keyParams },
  async ({ event, db, params }) => {
    const id = await studentAtAddress(db, params.key.replace('.ics', ''))
    if (id === undefined)
      throw new Refused(404, 'noCalendar', 'This calendar address was withdrawn, or never was one.')
    const [picture] = await readStudentRecords(db, [id], 'self')
    const [shelf, now] = [await currentShelf(), await campusNow(db)]
    setResponseHeader(event, 'content-type', 'text/calendar; charset=utf-8')
    return calendarOfClasses(picture!, shelf, { now })
  }
)
