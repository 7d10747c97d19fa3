/** What is sent to register, to drop, to wait, and to answer an offer. */
import type { SectionCode } from '#core/ids'
import { course, idInAddress, studentParams, termCode } from '#shared/requests'
import { MOST_FALLBACKS } from './fallbacks'
import { z } from 'zod'

const courses = z.array(course).max(20, 'has to name 20 courses or less')

export const runBody = z
  .object({
    term: termCode,
    courses: courses.default([]),
    drop: courses.default([]),
    leave: courses.default([]),
    /** Whether the courses to register go through all together or not at all. */
    whole: z.boolean('has to be true or false').default(false),
    /** How the student agreed to it, where somebody else registers. */
    consent: z
      .string()
      .trim()
      .min(5, 'has to say how the student agreed, in five characters or more')
      .max(400, 'has to be 400 characters or less')
      .optional()
  })
  .refine((run) => run.courses.length + run.drop.length + run.leave.length > 0, {
    path: ['courses'],
    message: 'has to name at least one course, or one to drop or to leave the line of'
  })

export const offerParams = studentParams.extend({ offer: idInAddress })

export const offerBody = z.object({
  answer: z.enum(['accept', 'decline'], 'has to be accept or decline'),
  givingUp: courses.default([])
})

export const agreementBody = z.object({
  term: termCode,
  /** What was read and is accepted, word for word. */
  text: z
    .string('has to be the text that is accepted')
    .min(1, 'is needed')
    .max(10_000, 'has to be 10,000 characters or less')
})

export const preparedBody = z.object({
  term: termCode,
  order: courses.default([]),
  leftOut: courses.default([]),
  drops: courses.default([]),
  whole: z.boolean('has to be true or false').default(false),
  armed: z.boolean('has to be true or false').default(false)
})

export const sectionCode = z
  .string()
  .regex(/^[0-9A-Z]{5}$/, 'has to be a section code such as L9SQG')
  .transform((code) => code as SectionCode)

const fallback = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('sections'),
    sections: z.array(sectionCode).min(1, 'has to name a section').max(5, 'has to name 5 sections or less')
  }),
  z.object({ kind: z.literal('line') })
])

const lineNote = z
  .string()
  .trim()
  .max(300, 'has to be 300 characters or less')
  .transform((text) => text || null)

export const fallbacksBody = z.object({
  term: termCode,
  course,
  list: z.array(fallback).max(MOST_FALLBACKS, `has to name ${MOST_FALLBACKS} fallbacks or less`),
  onlyWith: course.nullable().default(null),
  givingUp: course.nullable().default(null),
  credits: z
    .int('has to be whole credits')
    .min(0, 'has to be zero or more')
    .max(30, 'has to be 30 or less')
    .nullable()
    .default(null),
  note: lineNote.nullable().default(null)
})
