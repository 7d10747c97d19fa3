/** Answers on their way out: compressed where that is worth it, and not sent again to whoever has them (RFC 9110). */
import { createHash } from 'node:crypto'
import { promisify } from 'node:util'
import { gzip } from 'node:zlib'
import {
  appendResponseHeader,
  getRequestHeader,
  setResponseHeader,
  setResponseStatus,
  type H3Event
} from 'h3'

const compress = promisify(gzip)
/** Shorter ones fit into a packet or two as they are. */
const WORTH_BYTES = 1024

interface Kind {
  type: string
  cache: string
}
const JSON_OF_ONE: Kind = { type: 'application/json', cache: 'private, no-cache' }
/** Of pages that are the same for everybody, signed in or not. */
export const PUBLIC_PAGE: Kind = { type: 'text/html; charset=utf-8', cache: 'public, max-age=30' }

/** iCalendar (RFC 5545). */
export const CALENDAR = 'text/calendar; charset=utf-8'

/** An answer with a version by which a browser that has it knows it; of what, its type says. */
export class Versioned<T = unknown> {
  declare readonly of?: T
  readonly etag: string
  #gzipped: Promise<Buffer> | undefined

  constructor(
    readonly text: string,
    readonly kind: Kind = JSON_OF_ONE
  ) {
    // Weak: the same for all ways to write it down.
    this.etag = `W/"${createHash('sha256').update(this.text).digest('base64url').slice(0, 22)}"`
  }

  static of<T>(value: T): Versioned<T> {
    return new Versioned<T>(JSON.stringify(value))
  }

  /** This one, where the value is written the same; it is compressed already. */
  renewedWith(value: T): Versioned<T> {
    const next = Versioned.of(value)
    return next.etag === this.etag ? this : next
  }

  gzipped(): Promise<Buffer> {
    return (this.#gzipped ??= compress(this.text, { level: 9 }))
  }
}

/** What is to be sent for what an endpoint answers. */
export async function written(event: H3Event, answer: unknown): Promise<unknown> {
  if (answer instanceof Versioned) return versioned(event, answer)
  // Files and streams are sent as they are.
  if (typeof answer !== 'object' || answer === null) return answer
  if (event.handled) return answer
  const text = JSON.stringify(answer)
  setResponseHeader(event, 'content-type', 'application/json')
  return takesGzip(event) && text.length > WORTH_BYTES ? packed(event, await compress(text)) : text
}

async function versioned(event: H3Event, answer: Versioned): Promise<unknown> {
  setResponseHeader(event, 'cache-control', answer.kind.cache)
  setResponseHeader(event, 'etag', answer.etag)
  appendResponseHeader(event, 'vary', 'accept-encoding')
  if (has(event, answer.etag)) {
    setResponseStatus(event, 304)
    return ''
  }
  setResponseHeader(event, 'content-type', answer.kind.type)
  if (!takesGzip(event) || answer.text.length <= WORTH_BYTES) return answer.text
  return packed(event, await answer.gzipped())
}

function packed(event: H3Event, bytes: Buffer): Buffer {
  setResponseHeader(event, 'content-encoding', 'gzip')
  return bytes
}

function has(event: H3Event, etag: string): boolean {
  const known = getRequestHeader(event, 'if-none-match') ?? ''
  return known.split(',').some((one) => one.trim() === etag)
}

/** A coding is refused by a weight of nought. */
function takesGzip(event: H3Event): boolean {
  const said = (getRequestHeader(event, 'accept-encoding') ?? '').split(',')
  return said.some((one) => {
    const [coding, weight] = one.trim().split(/\s*;\s*q=/)
    return coding === 'gzip' && (weight === undefined || Number(weight) > 0)
  })
}
