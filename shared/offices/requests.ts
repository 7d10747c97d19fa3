/** What offices send: whom they look for, and holds. */
import { STANDINGS } from '#core/requisites'
import { idInAddress, termCode } from '#shared/requests'
import { z } from 'zod'

export const peopleQuery = z.object({
  find: z.string().trim().max(60, 'has to be 60 characters or less').default('')
})

/** As the institution gives them out. */
export const STUDENT_NUMBER = /^[A-Za-z0-9-]{1,10}$/

export const holdsBody = z.object({
  kind: idInAddress,
  students: z
    .array(
      z.object({
        number: z
          .string()
          .trim()
          .regex(STUDENT_NUMBER, 'has to be a student number: letters, digits and hyphens, ten at most'),
        amount: z
          .number('has to be a number')
          .positive('has to be above zero')
          .max(99_999, 'has to be 99,999 or less')
          .multipleOf(0.01, 'has to be in whole cents')
          .nullable()
          .default(null)
      }),
      'has to be a list of students'
    )
    .min(1, 'has to name at least one student')
    .max(500, 'has to name 500 students or less')
    .refine((all) => new Set(all.map((one) => one.number)).size === all.length, {
      error: 'has to name each student once'
    })
})
export type HoldsAsked = z.output<typeof holdsBody>
const someWords = (most: number) =>
  z.string().trim().min(1, 'is needed').max(most, `has to be ${most} characters or less`)
export const holdKindParams = z.object({ kind: idInAddress })
export const holdKindBody = z.object({
  title: someWords(80),
  office: someWords(80),
  /** What the student reads: what to do, and with whom. */
  howToLift: someWords(600),
  stopsRegistration: z.boolean('has to be true or false'),
  stopsTranscript: z.boolean('has to be true or false'),
  takesAmount: z.boolean('has to be true or false')
})
export type HoldKindSaid = z.output<typeof holdKindBody>

export const openingParams = z.object({ opening: idInAddress })
/** The instant, in milliseconds since 1970. */
const opens = z
  .number('has to be an instant in milliseconds')
  .int('has to be a whole number of milliseconds')
  .min(Date.UTC(2000, 0), 'has to be in this century')
  .max(Date.UTC(2100, 0), 'has to be in this century')
export const openingBody = z.object({ opens })

const groups = z.array(z.string().trim().min(1).max(16)).max(40, 'have to be 40 or less').default([])
/** A new opening: of several kinds of groups all have to hold; nothing named is everybody. */
export const newOpeningBody = z.object({
  term: termCode,
  title: z.string().trim().min(1, 'is needed').max(120, 'has to be 120 characters or less'),
  opens,
  standings: z.array(z.enum(STANDINGS)).default([]),
  programs: groups,
  blocks: groups,
  /** Credits that have to be earned; null asks for none. */
  creditsLeast: z
    .number('has to be a number')
    .int('has to be a whole number')
    .min(1, 'has to be 1 or more')
    .max(999, 'has to be 999 or less')
    .nullable()
    .default(null),
  /** The number of the only student whom it is for. */
  student: z
    .string()
    .trim()
    .regex(STUDENT_NUMBER, 'has to be a student number: letters, digits and hyphens, ten at most')
    .nullable()
    .default(null)
})
export type OpeningSaid = z.output<typeof newOpeningBody>

export const holdParams = z.object({ hold: idInAddress })
