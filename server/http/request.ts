/**
 * What a request has to be before anything is made of it: from a page of this site where it changes something, JSON
 * where it brings a body, and no longer than it may be. The bytes are counted as they come; what is too long is not kept.
 */
import { getRequestHeader, setResponseHeader, type H3Event } from 'h3'
import { Refused } from './problem'
import { theSettings } from '#server/settings'

const SAFE = new Set(['GET', 'HEAD', 'OPTIONS'])
/** Bytes of a body, unless an endpoint says more. */
const BODY_MOST = 64 * 1024
/** What is too long is let run out up to here, so that the answer arrives; beyond it the connection ends. */
const DRAINED_MOST = 8 * 1024 * 1024
/** Nothing more has come for so long. */
const QUIET_MS = 200

/** Refuses what another site sends in somebody's name (Fetch Metadata, RFC 6454), and bodies that are not JSON. */
export function mustBeOwn(event: H3Event): void {
  if (SAFE.has(event.method)) return
  const site = getRequestHeader(event, 'sec-fetch-site')
  const origin = getRequestHeader(event, 'origin')
  if ((site && site !== 'same-origin') || (origin && !isOurs(origin, getRequestHeader(event, 'host'))))
    throw new Refused(
      403,
      'foreign',
      'This was sent by a page of another site. Open Ridgeway itself to do it.'
    )
  const type = getRequestHeader(event, 'content-type')?.split(';')[0]?.trim().toLowerCase()
  if (hasBody(event) && type !== 'application/json')
    throw new Refused(415, 'notJson', 'The body has to be JSON, and its content type has to say so.', [
      { field: 'content-type', message: 'has to be application/json' }
    ])
}

/** Where the address that people open is known it is that one; else whatever the request itself was sent to. */
function isOurs(origin: string, host: string | undefined): boolean {
  const own = theSettings().origin
  if (own) return origin === own.origin
  return URL.canParse(origin) && new URL(origin).host === host
}

function hasBody(event: H3Event): boolean {
  if (getRequestHeader(event, 'transfer-encoding')) return true
  return Number(getRequestHeader(event, 'content-length') ?? 0) > 0
}

/** The key that a client gives to a change, a string in quotes or bare; undefined without one. @throws Refused */
export function changeKeyOf(event: H3Event): string | undefined {
  const given = getRequestHeader(event, 'idempotency-key')
  if (given === undefined) return undefined
  const key = /^"?([A-Za-z0-9_-]{8,64})"?$/.exec(given)?.[1]
  if (key) return key
  const message = 'has to be 8 to 64 letters, digits, hyphens or underscores'
  throw new Refused(400, 'malformed', `Idempotency-Key ${message}.`, [{ field: 'Idempotency-Key', message }])
}

/** The same where it has to be given: what is asked twice must not be done twice. @throws Refused */
export function mustHaveKey(event: H3Event): string {
  const key = changeKeyOf(event)
  if (key) return key
  const message = 'has to be given, so that the same request sent again is not done again'
  throw new Refused(400, 'malformed', `Idempotency-Key ${message}.`, [{ field: 'Idempotency-Key', message }])
}

/** The token that comes with a request of another system (RFC 6750); undefined where none does. */
export function tokenIn(event: H3Event): string | undefined {
  const given = getRequestHeader(event, 'authorization')
  return given === undefined ? undefined : (/^Bearer +([\w.~+/=-]+) *$/i.exec(given)?.[1] ?? '')
}

/** The JSON of the body; undefined without one. @throws Refused */
export async function readJson(event: H3Event, most = BODY_MOST): Promise<unknown> {
  const text = await textOf(event, most)
  if (!text) return undefined
  let value: unknown
  try {
    value = JSON.parse(text)
  } catch {
    throw new Refused(400, 'malformed', 'The body has to be JSON.', [
      { field: 'body', message: 'has to be JSON' }
    ])
  }
  const broken = brokenIn(value, [])
  if (broken) {
    const field = broken.join('.') || 'body'
    const message = 'holds half of a character that takes two; write it whole or leave it out'
    throw new Refused(400, 'malformed', `${field} ${message}.`, [{ field, message }])
  }
  return value
}

function textOf(event: H3Event, most: number): Promise<string> {
  const { req } = event.node
  return new Promise((resolve, reject) => {
    const chunks: Buffer[] = []
    let size = 0
    let timer: NodeJS.Timeout | undefined
    let isTold = false
    const tooLong = () => {
      if (isTold) return
      isTold = true
      setResponseHeader(event, 'connection', 'close')
      const message = `may be ${Math.floor(most / 1024)} kB at most`
      reject(new Refused(413, 'tooLong', `The body ${message}.`, [{ field: 'body', message }]))
    }
    req.on('data', (chunk: Buffer) => {
      size += chunk.length
      if (size <= most) chunks.push(chunk)
      else {
        chunks.length = 0
        // Who still writes while the answer is sent and the connection closed does not get it: they have a moment.
        clearTimeout(timer)
        timer = setTimeout(tooLong, QUIET_MS)
      }
      if (size > Math.max(most, DRAINED_MOST)) {
        tooLong()
        req.destroy()
      }
    })
    req.on('end', () => {
      clearTimeout(timer)
      if (size > most) tooLong()
      else resolve(Buffer.concat(chunks).toString('utf8'))
    })
    req.on('error', reject)
  })
}

const HALF = /[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/

/** Where a text stands that is no sequence of characters: a half of a surrogate pair by itself. */
function brokenIn(value: unknown, path: readonly string[]): readonly string[] | undefined {
  if (typeof value === 'string') return HALF.test(value) ? path : undefined
  if (typeof value !== 'object' || value === null) return undefined
  for (const [key, inner] of Object.entries(value)) {
    if (HALF.test(key)) return path
    const found = brokenIn(inner, [...path, key])
    if (found) return found
  }
  return undefined
}
