/** What the registrar enters on a record, one thing at a time, with a reason. */
import { z } from 'zod'
import { STANDINGS } from '#core/requisites'
import { course, dayOfCentury, idInAddress, reason, termCode } from '#shared/requests'

export const ATTENDANCES = ['fullTime', 'partTime', 'evening', 'distance'] as const
export const RESIDENCIES = ['resident', 'nonResident'] as const
export const ATTENDANCE_WORDS = {
  fullTime: 'full time',
  partTime: 'part time',
  evening: 'in the evening',
  distance: 'at a distance'
}
export const RESIDENCY_WORDS = { resident: 'resident', nonResident: 'not resident' }

/** Whether it is one of the institution's is seen where its scale is. */
const grade = z.string().trim().toUpperCase().min(1, 'is needed').max(4, 'has to be a grade such as B+')
const creditsOf = z
  .number('has to be a number')
  .min(0.5, 'has to be 0.5 or more')
  .max(30, 'has to be 30 or less')
  .multipleOf(0.5, 'has to be in half credits')

export const entryBody = z.object({
  reason,
  entry: z.discriminatedUnion('kind', [
    /** Posted, or put right, for a course of a term. */
    z.object({ kind: z.literal('grade'), course, term: termCode, grade }),
    /** Brought in from elsewhere, or given for a test. */
    z.object({
      kind: z.literal('credit'),
      course,
      credits: creditsOf,
      /** As the scale has it for such credit, where nothing else is said. */
      grade: grade.optional(),
      origin: z.enum(['transfer', 'test'], 'has to be transfer or test')
    }),
    z.object({ kind: z.literal('dropCredit'), course }),
    z.object({
      kind: z.literal('test'),
      test: z.string().trim().min(1, 'is needed').max(24, 'has to be 24 characters or less'),
      score: z
        .number('has to be a number')
        .int('has to be a whole number')
        .min(0, 'has to be 0 or more')
        .max(9999, 'has to be 9,999 or less'),
      takenOn: dayOfCentury
    }),
    z.object({
      kind: z.literal('status'),
      standing: z.enum(STANDINGS),
      attendance: z.enum(ATTENDANCES),
      residency: z.enum(RESIDENCIES),
      /** The code of a block; null for none. */
      block: z.string().trim().min(1).max(16).nullable()
    }),
    z.object({ kind: z.literal('addProgram'), version: idInAddress }),
    z.object({ kind: z.literal('dropProgram'), program: z.string().trim().min(1).max(8) }),
    z.object({
      kind: z.literal('advisor'),
      purpose: z.enum(['program', 'support']),
      /** Null for nobody. */
      advisor: idInAddress.nullable()
    })
  ])
})
export type EntrySaid = z.output<typeof entryBody>
export type Entry = EntrySaid['entry']
