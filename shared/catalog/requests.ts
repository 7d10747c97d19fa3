/** What is sent about single courses. */
import { noteText, course } from '#shared/requests'
import { z } from 'zod'

export const markBody = z.object({
  starred: z.boolean().optional(),
  looked: z.literal(true, 'has to be true, or left out').optional(),
  note: noteText.optional()
})

export const courseParams = z.object({ code: course })
