import { studentParams } from '#wire/bodies'
import { studentEndpoint } from '../../../endpoint'
import { readMarks } from '../../../services/catalog/marks'
import { readTermNotes } from '../../../services/route/load'
import { markSeen, readRoutes } from '../../../services/route/route'
import { readPictures } from '../../../services/students/pictures'
import { seenBy } from '../../../services/students/seen'
import { readCalendarKey, readHabits } from '../../../services/week/habits'
import { campusNow } from '../../../standins/clock'

/** A student's record, routes, draft weeks and openings, as far as they are for whoever asks. */
export default studentEndpoint(
  'GET /api/students/:id',
  { params: studentParams },
  async ({ db, who, student, relation }) => {
    const [picture] = await readPictures(db, [student], relation)
    const routes = await readRoutes(db, student)
    if (relation === 'programAdvisor') await markSeen(db, { who, student, now: await campusNow(db) })
    return seenBy(relation, {
      ...picture!,
      route: routes.find((route) => route.chosen) ?? picture!.route,
      routes,
      marks: relation === 'self' ? await readMarks(db, student, who.id) : [],
      termNotes: await readTermNotes(db, student),
      habits: await readHabits(db, student),
      calendarKey: relation === 'self' ? await readCalendarKey(db, student) : null
    })
  }
)
