import { studentId } from '#core/ids'
import { studentParams } from '#wire/bodies'
import type { StudentView } from '#wire/picture'
import { endpoint } from '../../../endpoint'
import { ANYBODY, mustBe } from '../../../services/accounts/accounts'
import { readMarks } from '../../../services/catalog/marks'
import { logEvent } from '../../../services/log'
import { readTermNotes } from '../../../services/route/load'
import { markSeen, readRoutes } from '../../../services/route/route'
import { readCalendarKey, readHabits } from '../../../services/week/habits'
import { readPictures } from '../../../services/students/pictures'
import { campusNow } from '../../../standins/clock'

/** A student's record, route, draft weeks and openings. Reading somebody else's is logged. */
export default endpoint({ params: studentParams }, async ({ db, who, params }) => {
  const id = studentId(params.id)
  const relation = await mustBe(db, who, id, ...ANYBODY)
  const [picture] = await readPictures(db, [id], relation)
  const routes = await readRoutes(db, id)
  if (relation !== 'self') {
    const now = await campusNow(db)
    await logEvent(db, { at: now, account: who.id, student: id, action: 'record.read' })
    if (relation === 'programAdvisor') await markSeen(db, { who, student: id, now })
  }
  return {
    ...picture!,
    route: routes.find((route) => route.chosen) ?? picture!.route,
    routes,
    marks: relation === 'self' ? await readMarks(db, id, who.id) : [],
    termNotes: await readTermNotes(db, id),
    habits: await readHabits(db, id),
    calendarKey: relation === 'self' ? await readCalendarKey(db, id) : null
  } satisfies StudentView
})
