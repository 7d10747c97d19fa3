import { studentParams } from '#shared/requests'
import { weekQuery } from '#shared/week/requests'
import { goingWith } from '#shared/reading'
import { studentEndpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'
import { CALENDAR } from '#server/http/versioned'
import { Refused } from '#server/http/problem'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { seenBy } from '#server/features/record/seen'
import { calendarOfClasses } from '#server/features/week/classes'
import { campusNow } from '#server/gateways/clock'

/** The classes of a term as iCalendar, with those of one draft week or of the one gone with. */
export default studentEndpoint(
  'GET /api/students/:id/classes',
  { params: studentParams, query: weekQuery, type: CALENDAR },
  async ({ db, student, relation, query }) => {
    const [whole] = await readStudentRecords(db, [student], relation)
    const studentRecord = seenBy(relation, whole!)
    const [catalogContext, now] = [await currentCatalogContext(), await campusNow(db)]
    const term = catalogContext.terms.find((one) => one.code === query.term)
    const week = studentRecord.drafts.find((one) => one.id === query.week && one.term === query.term)
    if (!term || (query.week !== undefined && !week))
      throw new Refused(404, 'noWeek', 'There is no such draft week any more. Reload to see those there are.')
    return calendarOfClasses(studentRecord, catalogContext, {
      term,
      week: week ?? goingWith(studentRecord, query.term),
      now
    })
  }
)
