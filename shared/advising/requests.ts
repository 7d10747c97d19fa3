/** What is sent for reviews and sign-offs, the talk, what was agreed, and waivers. */
import type { CourseCode } from '#core/ids'
import { STANDINGS } from '#core/requisites'
import { PERMISSION_KINDS } from '#core/week'
import { course, dayOfCentury, fewWords, idInAddress, reason, termCode } from '#shared/requests'
import { sectionCode } from '#shared/registration/requests'
import { routeChange, routeId, seenVersion } from '#shared/route/requests'
import { z } from 'zod'
import { DECIDERS } from './asking'
import { DESK_REASONS } from './desk'
import { AGREED_BY, THREAD_SUBJECTS } from './talk'

const note = z.string().trim().max(1000, 'has to be 1,000 characters or less')

export const reviewBody = z.object({
  term: termCode,
  note: note
    .nullable()
    .default(null)
    .transform((text) => text || null),
  /** To what the programs ask before a review. */
  answers: z
    .array(
      z.object({
        question: z.string('has to be a question').trim().max(300, 'has to be 300 characters or less'),
        answer: z
          .string('has to be an answer')
          .trim()
          .min(1, 'has to say something')
          .max(500, 'has to be 500 characters or less')
      }),
      'has to be a list of answers'
    )
    .max(12, 'has to be twelve or fewer')
    .default([])
})
export type ReviewAsked = z.output<typeof reviewBody>

export const notYetBody = z.object({
  term: termCode,
  missing: note.min(5, 'has to say what is missing, in five characters or more')
})

const creditsOfTerm = z
  .number('has to be a number')
  .min(0, 'has to be 0 or more')
  .max(60, 'has to be 60 or less')
  .multipleOf(0.5, 'has to be in whole or half credits')
const pair = { course, other: course }

const conditionBody = z
  .discriminatedUnion('is', [
    z.object({
      is: z.literal('leastGrade'),
      course,
      of: course,
      grade: z.string().min(1, 'is needed').max(4, 'has to be a grade with points such as C')
    }),
    z.object({ is: z.literal('notBoth'), ...pair }),
    z.object({ is: z.literal('onlyWith'), ...pair })
  ])
  .refine((one) => one.course !== otherCourse(one), {
    error: 'has to name two courses',
    path: ['course']
  })
const otherCourse = (one: { of: CourseCode } | { other: CourseCode }) => ('of' in one ? one.of : one.other)

export const signOffBody = z
  .object({
    term: termCode,
    creditsLeast: creditsOfTerm.optional(),
    creditsMost: creditsOfTerm.optional(),
    /** Courses that may be taken in place of a planned one. */
    alternatives: z.array(course, 'has to be a list of courses').max(20, 'has to be 20 or fewer').default([]),
    conditions: z.array(conditionBody).max(10, 'has to be ten or fewer').default([]),
    /** The last day on which it stands. */
    until: dayOfCentury.nullable().default(null),
    /** The same for each of those that are signed off together. */
    together: z
      .string()
      .regex(/^[\w-]{8,36}$/, 'has to be 8 to 36 letters, digits, hyphens or underscores')
      .nullable()
      .default(null)
  })
  .refine(({ creditsLeast: least, creditsMost: most }) => (least ?? 0) <= (most ?? Infinity), {
    error: 'has to be at most as much as the other end of the range',
    path: ['creditsLeast']
  })
export type SignOffAsked = z.output<typeof signOffBody>

const remarkText = z
  .string()
  .trim()
  .min(1, 'has to say something')
  .max(2000, 'has to be 2,000 characters or less')

/** Who is asked to read a remark: the student, or advisors by their numbers. */
const named = z
  .array(z.union([z.literal('student'), idInAddress], 'has to be student, or the number of an advisor'))
  .max(8, 'has to name eight people or fewer')
  .refine((all) => new Set(all).size === all.length, { error: 'has to name each person once' })
  .default([])
export const remarkBody = z.discriminatedUnion('to', [
  z.object({ to: z.literal('thread'), thread: idInAddress, text: remarkText, named }),
  z.object({
    to: z.literal('matter'),
    about: z
      .object({
        is: z.enum(THREAD_SUBJECTS),
        key: z.string().trim().min(1, 'has to name it').max(80, 'has to be 80 characters or less').nullable()
      })
      .refine(({ is, key }) => (is === 'route') === (key === null), {
        error: 'has to name what it is about; nothing of the whole route',
        path: ['key']
      }),
    advisorsOnly: z.boolean().default(false),
    text: remarkText,
    named
  })
])
export type RemarkSaid = z.output<typeof remarkBody>

export const threadParams = z.object({ id: idInAddress, thread: idInAddress })
export const threadBody = z
  .object({ settled: z.boolean().optional(), readUpTo: idInAddress.optional() })
  .refine((one) => one.settled !== undefined || one.readUpTo !== undefined, {
    error: 'has to say whether it is settled, or up to which remark it is read',
    path: ['settled']
  })
export type ThreadSaid = z.output<typeof threadBody>

export const agreedBody = z.object({
  what: z
    .string()
    .trim()
    .min(3, 'has to say what, in three characters or more')
    .max(200, 'has to be 200 characters or less'),
  who: z.enum(AGREED_BY),
  due: dayOfCentury.nullable().default(null)
})
export type AgreedSaid = z.output<typeof agreedBody>
export const agreedParams = z.object({ id: idInAddress, line: idInAddress })
export const agreedDoneBody = z.object({ done: z.boolean('has to be true or false') })

const inProgram = {
  program: z.string().trim().min(1, 'has to name a program').max(8, 'has to be the code of a program'),
  need: z.string().trim().min(1, 'has to name a requirement').max(40, 'has to be the id of a requirement')
}
export const requestBody = z.discriminatedUnion('kind', [
  z.object({
    kind: z.enum(PERMISSION_KINDS),
    section: z
      .string()
      .trim()
      .min(1, 'has to be the code of a section')
      .max(12, 'has to be the code of a section'),
    reason
  }),
  z.object({ kind: z.literal('waiver'), course, reason }),
  z.object({ kind: z.literal('need'), ...inProgram, reason }),
  z.object({ kind: z.literal('substitution'), ...inProgram, course, reason })
])
export type RequestAsked = z.output<typeof requestBody>
export const requestParams = z.object({ id: idInAddress, request: idInAddress })

export const requestAnswerBody = z.object({
  requests: z
    .array(idInAddress, 'has to be a list of numbers of requests')
    .min(1, 'has to name at least one request')
    .max(60, 'has to name 60 requests or less')
    .refine((all) => new Set(all).size === all.length, { error: 'has to name each request once' }),
  answer: z.enum(['given', 'declined'], 'has to be given or declined'),
  /** The last day on which it holds. */
  until: dayOfCentury.nullable().default(null),
  /** The version of a program that is right, where that was asked about. */
  version: idInAddress.nullable().default(null),
  words: fewWords
})
export type RequestAnswer = z.output<typeof requestAnswerBody>

export const effectParams = z.object({ request: idInAddress })
export const effectQuery = z.object({ version: idInAddress })

export const handOnParams = z.object({ request: idInAddress })
export const handOnBody = z.object({
  to: z.enum(DECIDERS, 'has to be programAdvisor, instructor, department or registrar'),
  words: fewWords
})
export type RequestHandedOn = z.output<typeof handOnBody>

export const suggestionBody = z.object({
  /** Null for the chosen one. */
  route: routeId.default(null),
  version: seenVersion,
  change: routeChange,
  why: fewWords
})
export const suggestionParams = z.object({ id: idInAddress, suggestion: idInAddress })
export const suggestionWhyBody = z.object({ why: fewWords })
export const suggestionAnswersBody = z.object({
  route: routeId.default(null),
  version: seenVersion,
  suggestions: z
    .array(idInAddress, 'has to be a list of numbers of suggestions')
    .min(1, 'has to name at least one suggestion')
    .max(60, 'has to name 60 suggestions or less')
    .refine((all) => new Set(all).size === all.length, { error: 'has to name each suggestion once' }),
  answer: z.enum(['accepted', 'declined'], 'has to be accepted or declined'),
  words: fewWords
})
export type SuggestionAnswers = z.output<typeof suggestionAnswersBody>

export const sectionsBody = z.object({
  term: termCode,
  course,
  sections: z
    .array(sectionCode, 'has to be a list of section codes')
    .min(1, 'has to name a section')
    .max(6, 'has to name six sections or fewer')
})
export type SectionsSuggested = z.output<typeof sectionsBody>
export const sectionsAnswerBody = z.object({
  answer: z.enum(['accepted', 'declined'], 'has to be accepted or declined')
})

export const deskViewBody = z.object({
  name: z
    .string()
    .trim()
    .min(2, 'has to be two characters or more')
    .max(40, 'has to be 40 characters or less'),
  reason: z.enum(DESK_REASONS, 'has to be a reason of the desk').nullable().default(null),
  program: z
    .string()
    .trim()
    .min(1, 'has to name a program')
    .max(160, 'has to be 160 characters or less')
    .nullable()
    .default(null),
  standing: z.enum(STANDINGS, 'has to be a standing').nullable().default(null)
})
export type DeskViewSaid = z.output<typeof deskViewBody>
export const deskViewParams = z.object({ view: idInAddress })

export const handOverBody = z.object({
  students: z
    .array(idInAddress, 'has to be a list of numbers of students')
    .min(1, 'has to name at least one student')
    .max(400, 'has to name 400 students or less')
    .refine((all) => new Set(all).size === all.length, { error: 'has to name each student once' }),
  /** The advisor who takes them on. */
  to: idInAddress,
  note: fewWords
})
export type HandOverSaid = z.output<typeof handOverBody>

export const groupBody = z
  .object({
    title: z
      .string()
      .trim()
      .min(3, 'has to be three characters or more')
      .max(80, 'has to be 80 characters or less'),
    term: termCode,
    students: z
      .array(idInAddress, 'has to be a list of numbers of students')
      .min(1, 'has to name at least one student')
      .max(120, 'has to name 120 students or less')
      .refine((all) => new Set(all).size === all.length, { error: 'has to name each student once' }),
    courses: z
      .array(course, 'has to be a list of courses')
      .max(12, 'has to be 12 courses or fewer')
      .refine((all) => new Set(all).size === all.length, { error: 'has to name each course once' })
      .default([]),
    sequence: z.boolean('has to be true or false').default(false),
    task: z
      .object({ what: agreedBody.shape.what, due: dayOfCentury.nullable().default(null) })
      .nullable()
      .default(null)
  })
  .refine(({ courses, sequence, task }) => courses.length > 0 || sequence || task !== null, {
    error: 'has to name a course, or there has to be a task',
    path: ['courses']
  })
export type GroupSaid = z.output<typeof groupBody>
