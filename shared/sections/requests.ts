/** What is sent to change a section. */
import { minute, weekday } from '#shared/requests'
import { z } from 'zod'

export const sectionParams = z.object({
  section: z.string().regex(/^[0-9A-Z]{5}$/, 'has to be a section code such as L9SQG')
})

export const cancelBody = z.object({
  reason: z.string('is needed').trim().min(1, 'is needed').max(300, 'has to be 300 characters or less')
})

export const moveBody = z
  .object({
    days: z.array(weekday).min(1, 'has to name a day').max(7, 'has to name 7 days or less'),
    start: minute,
    end: minute
  })
  .refine(({ start, end }) => start < end, { path: ['end'], error: 'has to be later than the start' })
