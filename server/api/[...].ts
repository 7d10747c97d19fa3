import { defineEventHandler, getRequestURL, setResponseHeader } from 'h3'
import { methodsAt } from '#server/http/access'
import { fail } from '#server/http/endpoint'
import { Refused } from '#server/http/problem'

/** Whatever no other endpoint answers. */
export default defineEventHandler((event) => {
  setResponseHeader(event, 'cache-control', 'no-store')
  const methods = methodsAt(getRequestURL(event).pathname)
  if (!methods.length)
    return fail(event, new Refused(404, 'noSuchAddress', 'There is nothing at this address.'))
  setResponseHeader(event, 'allow', methods.join(', '))
  const message = `This address answers ${methods.join(' and ')} only.`
  return fail(event, new Refused(405, 'noSuchMethod', message))
})
