/** Answers on their way out: compressed where that is worth it, and not sent again to whoever has them (RFC 9110). */
import { createHash } from 'node:crypto'
import { promisify } from 'node:util'
import { brotliCompress, constants, gzip } from 'node:zlib'
import {
  appendResponseHeader,
  getRequestHeader,
  setResponseHeader,
  setResponseStatus,
  type H3Event
} from 'h3'

/** Codings of content, the smaller one first. */
const CODINGS = ['br', 'gzip'] as const
type Coding = (typeof CODINGS)[number]
const [brotli, zip] = [promisify(brotliCompress), promisify(gzip)]
/** With little work for what is sent once, with much for what is kept. */
const compress = (text: string, coding: Coding, isKept: boolean): Promise<Buffer> =>
  coding === 'gzip'
    ? zip(text, isKept ? { level: 9 } : {})
    : brotli(text, { params: { [constants.BROTLI_PARAM_QUALITY]: isKept ? 9 : 4 } })
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
  readonly #packed = new Map<Coding, Promise<Buffer>>()

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

  packed(coding: Coding): Promise<Buffer> {
    let known = this.#packed.get(coding)
    if (!known) this.#packed.set(coding, (known = compress(this.text, coding, true)))
    return known
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
  return packedText(event, text)
}

/** A text that is sent once, compressed where that is worth it and understood. */
export async function packedText(event: H3Event, text: string): Promise<string | Buffer> {
  appendResponseHeader(event, 'vary', 'accept-encoding')
  const coding = codingFor(event, text)
  return coding ? packed(event, coding, await compress(text, coding, false)) : text
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
  const coding = codingFor(event, answer.text)
  return coding ? packed(event, coding, await answer.packed(coding)) : answer.text
}

function packed(event: H3Event, coding: Coding, bytes: Buffer): Buffer {
  setResponseHeader(event, 'content-encoding', coding)
  return bytes
}

function has(event: H3Event, etag: string): boolean {
  const known = getRequestHeader(event, 'if-none-match') ?? ''
  return known.split(',').some((one) => one.trim() === etag)
}

/** How a text is written for whoever asks; undefined where it is sent as it is. A coding is refused by a weight of nought. */
function codingFor(event: H3Event, text: string): Coding | undefined {
  if (text.length <= WORTH_BYTES) return undefined
  const said = (getRequestHeader(event, 'accept-encoding') ?? '').split(',').map((one) => {
    const [coding, weight] = one.trim().split(/\s*;\s*q=/)
    return { coding, isTaken: weight === undefined || Number(weight) > 0 }
  })
  return CODINGS.find((coding) => said.some((one) => one.coding === coding && one.isTaken))
}
