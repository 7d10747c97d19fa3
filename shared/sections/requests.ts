/** What is sent to change a section. */
import { course, idInAddress, minute, termCode, weekday } from '#shared/requests'
import { z } from 'zod'

export const sectionParams = z.object({
  section: z.string().regex(/^[0-9A-Z]{5}$/, 'has to be a section code such as L9SQG')
})

const seats = z
  .number('has to be a number')
  .int('has to be a whole number')
  .min(1, 'has to be 1 or more')
  .max(2000, 'has to be 2000 or less')

export const seatsBody = z.object({ seats })

const hoursOfPart = z.object({
  /** The section or component it is like. */
  of: sectionParams.shape.section,
  days: z.array(weekday).min(1, 'has to name a day').max(7, 'has to name 7 days or less'),
  start: minute,
  end: minute,
  seats,
  /** The number of a room; null for none yet. */
  room: idInAddress.nullable().default(null)
})

export const addSectionBody = z.object({
  parts: z
    .array(
      hoursOfPart.refine(({ start, end }) => start < end, {
        path: ['end'],
        error: 'has to be later than the start'
      }),
      'has to be a list of parts'
    )
    .min(1, 'has to name the section')
    .max(8, 'has to be 8 parts or less'),
  /** The number of an instructor; null for none yet. */
  instructor: idInAddress.nullable().default(null)
})
export type SectionAdded = z.output<typeof addSectionBody>

export const offeredParams = z.object({ code: termCode, course })

export const cancelBody = z.object({
  reason: z.string('is needed').trim().min(1, 'is needed').max(300, 'has to be 300 characters or less')
})

export const moveBody = z
  .object({
    days: z.array(weekday).min(1, 'has to name a day').max(7, 'has to name 7 days or less'),
    start: minute,
    end: minute,
    /** Whether it stays in its room; without it has none until one is named. */
    keepsRoom: z.boolean('has to be true or false').default(true)
  })
  .refine(({ start, end }) => start < end, { path: ['end'], error: 'has to be later than the start' })
