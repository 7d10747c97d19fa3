/** What is sent about a student's programs and exceptions from them. */
import { idInAddress, reason, course, studentParams } from '#shared/requests'
import { z } from 'zod'

export const programAnswerBody = z.discriminatedUnion('answer', [
  z.object({ program: z.string().min(1, 'is needed'), answer: z.literal('confirmed') }),
  z.object({
    program: z.string().min(1, 'is needed'),
    answer: z.literal('wrong'),
    instead: z
      .string()
      .trim()
      .min(3, 'has to say which program and catalog year is right')
      .max(400, 'has to be 400 characters or less')
  })
])

const named = {
  program: z.string().min(1, 'is needed').max(8),
  need: z.string().min(1, 'is needed').max(40),
  reason
}

export const exceptionBody = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('waiver'),
    ...named,
    /** So many of its courses or credits; all of it without. */
    amount: z
      .number('has to be a number')
      .positive('has to be more than 0')
      .max(400, 'has to be 400 or less')
      .optional()
  }),
  z.object({ kind: z.literal('substitution'), course, ...named })
])

export const exceptionParams = studentParams.extend({
  exception: idInAddress
})
