/** What may be sent to the server, checked there: what several features share. Every message says what to do instead. */
import { maybeCourseCode, TERM_CODE, type CourseCode, type TermCode } from '#core/ids'
import type { Weekday } from '#core/time'
import { date } from '#shared/fileShapes'
import { z } from 'zod'

export const course = z.string().transform((text, context): CourseCode => {
  const code = maybeCourseCode(text)
  if (!code) context.addIssue({ code: 'custom', message: 'has to be a course code such as ENVI 310' })
  return code as CourseCode
})

export const termCode = z
  .string()
  .regex(TERM_CODE, 'has to be a term code such as AU27')
  .transform((text) => text as TermCode)

/** A few words beside something; nothing is said by blanks. */
export const fewWords = z
  .string()
  .trim()
  .max(400, 'has to be 400 characters or less')
  .nullable()
  .default(null)
  .transform((text) => text || null)

/** `2027-02-31` is no day. */
const isDay = (text: string): boolean => {
  const at = new Date(`${text}T00:00:00Z`)
  return !Number.isNaN(at.getTime()) && at.toISOString().startsWith(text)
}

export const dayOfCentury = date
  .refine((one) => one >= '2000-01-01' && one < '2100-01-01', {
    error: 'has to be a day of this century',
    abort: true
  })
  // What goes on to reckon with days can rely on it.
  .refine(isDay, { error: 'has to be a day that there is', abort: true })

export const noteText = z.string().trim().max(400, 'has to be 400 characters or less').nullable()

export const reason = z
  .string()
  .trim()
  .min(5, 'has to say why, in five characters or more')
  .max(400, 'has to be 400 characters or less')

export const clockBody = z.discriminatedUnion('mode', [
  z.object({
    mode: z.literal('standing'),
    at: z.iso.datetime({ error: 'has to be an instant such as 2027-04-12T11:00:00Z' })
  }),
  z.object({
    mode: z.literal('running'),
    at: z.iso.datetime({ error: 'has to be an instant such as 2027-04-12T11:00:00Z' }).optional()
  }),
  z.object({ mode: z.literal('real') })
])

/** How many come to an opening morning of the demo, at most. */
export const morningBody = z.object({
  students: z
    .number('has to be a number')
    .int('has to be a whole number')
    .min(1, 'has to be at least 1')
    .max(1000, 'has to be 1000 or less')
})

/** The number of something, as it stands in an address. */
export const idInAddress = z.coerce
  .number('has to be a number')
  .int('has to be a whole number')
  .positive('has to be above zero')

export const studentParams = z.object({ id: idInAddress })

export const keyParams = z.object({
  key: z.string().regex(/^[0-9a-f]{32}(\.ics)?$/, 'has to be the key of a link, as it was sent')
})

export const termQuery = z.object({ term: termCode })

export const termParams = z.object({ code: termCode })

export const studentCourseParams = studentParams.extend({ course })

export const studentTermParams = studentParams.extend({ term: termCode })

export const minute = z
  .int('has to be whole minutes after midnight')
  .min(0, 'has to be 0 or more')
  .max(1440, 'has to be 1440 or less')

export const weekday = z
  .int('has to be a day from 1, Monday, to 7, Sunday')
  .min(1, 'has to be a day from 1, Monday, to 7, Sunday')
  .max(7, 'has to be a day from 1, Monday, to 7, Sunday')
  .transform((day) => day as Weekday)
