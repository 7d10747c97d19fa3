/** Gives a request a number, and once it is over tells of it and counts it: by the pattern of its address, which names nobody. */
import { randomUUID } from 'node:crypto'
import { performance } from 'node:perf_hooks'
import { getRequestHeader, setResponseHeader, type H3Event } from 'h3'
import { theLog } from '#server/gateways/log'
import { metrics } from '#server/gateways/metrics'

const NUMBER = /^[\w.:-]{8,64}$/
/** It was left before it was answered (common practice). */
const LEFT = 499

/** @param isNumbered whether a proxy in front may have numbered it already */
export function observe(event: H3Event, isNumbered: boolean): void {
  const given = isNumbered ? getRequestHeader(event, 'x-request-id') : undefined
  const request = given && NUMBER.test(given) ? given : randomUUID()
  event.context.request = request
  setResponseHeader(event, 'x-request-id', request)
  const began = performance.now()
  event.node.res.once('close', () => tell(event, request, performance.now() - began))
}

function tell(event: H3Event, request: string, took: number): void {
  const { req, res } = event.node
  const method = req.method ?? 'GET'
  const route = routeOf(event)
  const isStream = String(res.getHeader('content-type')).startsWith('text/event-stream')
  const status = res.headersSent ? res.statusCode : LEFT
  if (!isStream) metrics.request(method, route, status, took / 1000)
  theLog().info({ request, method, route, status, ms: Math.round(took * 10) / 10 }, 'answered')
}

function routeOf({ context, path }: H3Event): string {
  const pattern = (context as { matchedRoute?: { path: string } }).matchedRoute?.path
  if (pattern && pattern !== '/**') return pattern
  return path.startsWith('/_nuxt/') ? 'file' : 'page'
}
