import { defineEventHandler, getRequestURL, setResponseHeader } from 'h3'
import { fail } from '#server/http/endpoint'
import { Refused } from '#server/http/problem'
import { theSettings } from '#server/settings'

const READS = ['GET', 'HEAD']
/** Two years, as browsers' lists ask for (RFC 6797). */
const HSTS = 'max-age=63072000; includeSubDomains'

/** Pages are read and nothing else; behind https browsers are held to it. */
export default defineEventHandler((event) => {
  if (theSettings().isHttps) setResponseHeader(event, 'strict-transport-security', HSTS)
  if (getRequestURL(event).pathname.startsWith('/api/') || READS.includes(event.method)) return
  setResponseHeader(event, 'allow', READS.join(', '))
  return fail(event, new Refused(405, 'noSuchMethod', 'Pages answer GET and HEAD only.'))
})
