import { setResponseHeader } from 'h3'
import { COLOURS_CSS } from '#server/features/publicPages/colours'
import { openEndpoint } from '#server/http/endpoint'

/** The colours of the public pages. */
export default openEndpoint('GET /public/colours.css', { type: 'text/css; charset=utf-8' }, ({ event }) => {
  setResponseHeader(event, 'cache-control', 'public, max-age=3600')
  return Promise.resolve(COLOURS_CSS)
})
