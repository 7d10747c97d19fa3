import { setResponseHeader } from 'h3'
import { yearCalendar } from '#server/features/publicPages/year'
import { openEndpoint } from '#server/http/endpoint'

/** The dates of published terms, for a calendar program. */
export default openEndpoint('GET /public/calendar.ics', {}, async ({ event, db }) => {
  setResponseHeader(event, 'content-type', 'text/calendar; charset=utf-8')
  setResponseHeader(event, 'cache-control', 'public, max-age=300')
  return yearCalendar(db)
})
