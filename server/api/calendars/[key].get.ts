import { keyParams } from '#shared/requests'
import { openEndpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'
import { CALENDAR } from '#server/http/versioned'
import { Refused } from '#server/http/problem'
import { calendarAtAddress, eventsOfStudent } from '#server/features/appointments/calendars'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { calendarOfClasses } from '#server/features/week/classes'
import { studentAtAddress } from '#server/features/week/habits'
import { campusNow } from '#server/gateways/clock'

/**
 * A student's classes and appointments, or an advisor's appointments, for a calendar program, at a private address that
 * can be withdrawn.
 */
export default openEndpoint(
  'GET /api/calendars/:key',
  { params: keyParams, type: CALENDAR },
  async ({ db, params }) => {
    const key = params.key.replace('.ics', '')
    const now = await campusNow(db)
    const id = await studentAtAddress(db, key)
    const ofAdvisor = id === undefined ? await calendarAtAddress(db, key, now) : undefined
    if (id === undefined && ofAdvisor === undefined)
      throw new Refused(404, 'noCalendar', 'This calendar address was withdrawn, or never was one.')
    if (id === undefined) return ofAdvisor
    const [studentRecord] = await readStudentRecords(db, [id], 'self')
    const appointments = await eventsOfStudent(db, id)
    return calendarOfClasses(studentRecord!, await currentCatalogContext(), { now, appointments })
  }
)
