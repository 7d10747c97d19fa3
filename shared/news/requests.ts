/** What is asked of the stream of news. */
import { z } from 'zod'

export const newsQuery = z.object({
  /** The mark that the session's answer named. */
  after: z.coerce
    .number()
    .int('has to be a whole number')
    .min(0, 'has to be 0 or more')
    .max(Number.MAX_SAFE_INTEGER)
    .optional()
})
