import { setResponseHeader } from 'h3'
import { keyParams } from '#wire/bodies'
import { currentShelf, openEndpoint } from '../../endpoint'
import { Refused } from '../../services/problem'
import { readPictures } from '../../services/students/pictures'
import { calendarOfClasses } from '../../services/week/classes'
import { studentAtAddress } from '../../services/week/habits'
import { campusNow } from '../../standins/clock'

/** A student's classes for a calendar program, at a private address that can be withdrawn. */
export default openEndpoint(
  'GET /api/calendars/:key',
  { params: keyParams },
  async ({ event, db, params }) => {
    const id = await studentAtAddress(db, params.key.replace('.ics', ''))
    if (id === undefined)
      throw new Refused(404, 'noCalendar', 'This calendar address was withdrawn, or never was one.')
    const [picture] = await readPictures(db, [id], 'self')
    const [shelf, now] = [await currentShelf(), await campusNow(db)]
    setResponseHeader(event, 'content-type', 'text/calendar; charset=utf-8')
    return calendarOfClasses(picture!, shelf, { now })
  }
)
