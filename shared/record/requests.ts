/** What is sent to post grades. */
import { z } from 'zod'

/** The same seed gives the same grades. */
export const gradesBody = z.object({
  seed: z
    .int('has to be a whole number')
    .min(0, 'has to be 0 or more')
    .max(999_999, 'has to be 999999 or less')
    .default(1)
})
