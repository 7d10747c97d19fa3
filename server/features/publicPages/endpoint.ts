/** A page for anybody: the same for everybody, kept by browsers for a while, and not asked for without end by one address. */
import { setResponseHeader } from 'h3'
import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible'
import type { z } from 'zod'
import type { OpenLine } from '#server/http/access'
import { fail, openEndpoint, type Endpoint } from '#server/http/endpoint'
import { Refused } from '#server/http/problem'
import { addressOf } from '#server/http/session'
import { PUBLIC_PAGE, Versioned } from '#server/http/versioned'
import type { Database } from '#server/db/connect'
import { writtenPage, type PageParts } from './parts'
import { h } from 'vue'

/** So many pages in a minute from one address, of each server. */
const limiter = new RateLimiterMemory({ points: 240, duration: 60 })

export function publicPage<P = unknown, Q = unknown>(
  line: OpenLine,
  shape: { params?: z.ZodType<P>; query?: z.ZodType<Q> },
  make: (db: Database, asked: { params: P; query: Q }) => Promise<PageParts>
): Endpoint<unknown> {
  return openEndpoint<P, Q, unknown, unknown>(line, shape, async ({ event, db, params, query }) => {
    try {
      await mayAsk(addressOf(event))
      return new Versioned(await writtenPage(await make(db, { params, query })), PUBLIC_PAGE)
    } catch (error) {
      const { message } = fail(event, error)
      setResponseHeader(event, 'content-type', PUBLIC_PAGE.type)
      const body = [h('p', message), h('p', h('a', { href: '/public' }, 'To the year'))]
      return writtenPage({ institution: '', zone: '', title: 'Not shown', body })
    }
  })
}

/** @throws Refused while one has to wait. */
async function mayAsk(address: string): Promise<void> {
  try {
    await limiter.consume(address)
  } catch (ended) {
    if (!(ended instanceof RateLimiterRes)) throw ended
    const wait = Math.ceil(ended.msBeforeNext / 1000)
    throw new Refused(
      429,
      'tooMany',
      `Many pages have been asked for from here. They are there again in ${wait} seconds.`,
      undefined,
      wait
    )
  }
}
