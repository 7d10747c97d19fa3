/** What may be sent to the server, checked there. Every message says what to do instead. */
import { z } from 'zod'
import { maybeCourseCode, type CourseCode, type SectionCode, type TermCode } from '#core/ids'
import { parseSectionCode } from '#core/formats'

const course = z.string().transform((text, context): CourseCode => {
  const code = maybeCourseCode(text)
  if (!code) context.addIssue({ code: 'custom', message: 'has to be a course code such as ENVI 310' })
  return code as CourseCode
})

const termCode = z
  .string()
  .regex(/^(AU|SP|SU)\d{2}$/, 'has to be a term code such as AU27')
  .transform((text) => text as TermCode)

const section = z.string().transform((text, context): SectionCode => {
  const read = parseSectionCode(text)
  if (!read.ok) context.addIssue({ code: 'custom', message: 'has to be a section code of five characters' })
  return (read.ok ? read.code : text) as SectionCode
})

const planned = z.object({
  course,
  term: termCode,
  credits: z
    .number()
    .positive('has to be above zero')
    .max(30, 'has to be 30 or less')
    .multipleOf(0.5, 'has to be a multiple of 0.5'),
  note: z.string().max(400, 'has to be 400 characters or less').nullable().default(null),
  locked: z.boolean().default(false)
})

export const signInBody = z.object({
  name: z.string().trim().min(1, 'is needed').max(60, 'has to be 60 characters or less'),
  password: z.string().min(1, 'is needed').max(200, 'has to be 200 characters or less')
})

export const routeChangeBody = z.object({
  version: z.int('has to be the version of the route that you saw'),
  change: z.discriminatedUnion('kind', [
    z.object({ kind: z.literal('add'), planned }),
    z.object({ kind: z.literal('remove'), planned }),
    z.object({ kind: z.literal('move'), course, from: termCode, to: termCode })
  ])
})

export const pickBody = z.object({
  term: termCode,
  course,
  /** The section with its components; empty to unpick. */
  sections: z.array(section).max(6, 'has to name six sections or less')
})

export const termBody = z.object({ term: termCode })

export const runBody = z.object({
  term: termCode,
  courses: z.array(course).min(1, 'has to name at least one course').max(20, 'has to name 20 courses or less')
})

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

const reason = z
  .string()
  .trim()
  .min(5, 'has to say why, in five characters or more')
  .max(400, 'has to be 400 characters or less')
const named = {
  program: z.string().min(1, 'is needed').max(8),
  need: z.string().min(1, 'is needed').max(40),
  reason
}

export const exceptionBody = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('waiver'), ...named }),
  z.object({ kind: z.literal('substitution'), course, ...named })
])

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

export const studentParams = z.object({
  id: z.coerce.number('has to be a number').int('has to be a whole number').positive('has to be above zero')
})
export const exceptionParams = studentParams.extend({
  exception: z.coerce
    .number('has to be a number')
    .int('has to be a whole number')
    .positive('has to be above zero')
})
export const termQuery = z.object({ term: termCode })
export const offerQuery = z.object({
  courses: z
    .string()
    .min(1, 'has to name at least one course')
    .transform((text) => text.split(','))
    .pipe(z.array(course).max(40, 'has to name 40 courses or less'))
})
export const termParams = z.object({ code: termCode })
export const courseParams = z.object({ code: course })
