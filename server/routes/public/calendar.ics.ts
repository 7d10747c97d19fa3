import { setResponseHeader } from 'h3'
import { yearCalendar } from '#server/features/publicPages/year'
import { openEndpoint } from '#server/http/endpoint'
import { CALENDAR } from '#server/http/versioned'

/** The dates of published terms, for a calendar program. */
export default openEndpoint('GET /public/calendar.ics', { type: CALENDAR }, async ({ event, db }) => {
  setResponseHeader(event, 'cache-control', 'public, max-age=300')
  return yearCalendar(db)
})
