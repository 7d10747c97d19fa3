import type { Problem } from '#shared/responses'

/** An expected refusal of a request, with the sentence the person is shown. */
export class Refused extends Error {
  constructor(
    readonly status: 400 | 401 | 403 | 404 | 405 | 409 | 413 | 415 | 422 | 429,
    readonly code: string,
    message: string,
    readonly fields?: Problem['fields'],
    /** Seconds after which it may be tried again. */
    readonly retryAfter?: number
  ) {
    super(message)
    this.name = 'Refused'
  }
}
