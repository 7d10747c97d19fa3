import { studentParams } from '#shared/requests'
import { studentEndpoint } from '#server/http/endpoint'
import { readSectionSuggestions } from '#server/features/advising/sectionSuggestions'
import { readSuggestions } from '#server/features/advising/suggestions'
import { readTalkRecords } from '#server/features/advising/talkRecords'
import { readAppointments } from '#server/features/appointments/queries'
import { readTalk } from '#server/features/advising/talk'
import { readBookmarks } from '#server/features/catalog/bookmarks'
import { readTermNotes } from '#server/features/route/load'
import { markSeen, readRoutes } from '#server/features/route/routes'
import { readTranscriptOrders } from '#server/features/record/transcripts'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { seenBy } from '#server/features/record/seen'
import { readCalendarKey, readHabits } from '#server/features/week/habits'
import { campusNow } from '#server/gateways/clock'

/** A student's record, routes, draft weeks and openings, as far as they are for whoever asks. */
export default studentEndpoint(
  'GET /api/students/:id',
  { params: studentParams },
  async ({ db, who, student, relation }) => {
    const [studentRecord] = await readStudentRecords(db, [student], relation)
    const routes = await readRoutes(db, student)
    if (relation === 'programAdvisor') await markSeen(db, { who, student, now: await campusNow(db) })
    return seenBy(relation, {
      ...studentRecord!,
      route: routes.find((route) => route.chosen) ?? studentRecord!.route,
      routes,
      marks: relation === 'self' ? await readBookmarks(db, student, who.id) : [],
      talk: await readTalk(db, student, { account: who.id, relation }),
      suggestions: await readSuggestions(db, student, { account: who.id, relation }),
      sectionSuggestions: await readSectionSuggestions(db, student, { account: who.id, relation }),
      appointments: await readAppointments(db, student, { account: who.id, relation }),
      talkRecords: await readTalkRecords(db, student),
      termNotes: await readTermNotes(db, student),
      habits: await readHabits(db, student),
      transcripts: relation === 'self' ? await readTranscriptOrders(db, student) : [],
      calendarKey: relation === 'self' ? await readCalendarKey(db, student) : null
    })
  }
)
