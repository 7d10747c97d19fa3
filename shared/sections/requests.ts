/** What is asked of the sections of a term. */
import { course } from '#shared/requests'
import { z } from 'zod'

export const offerQuery = z.object({
  /** Without it, everything. */
  courses: z
    .string()
    .min(1, 'has to name at least one course')
    .transform((text) => text.split(','))
    .pipe(z.array(course).max(40, 'has to name 40 courses or less'))
    .optional()
})
