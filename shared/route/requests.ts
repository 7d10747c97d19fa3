/** What is sent to change routes and what a student can carry. */
import { idInAddress, course, termCode, noteText, studentParams } from '#shared/requests'
import { z } from 'zod'

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

const detail = planned.omit({ course: true, term: true })

const single = [
  z.object({ kind: z.literal('add'), planned }),
  z.object({ kind: z.literal('remove'), planned }),
  z.object({ kind: z.literal('move'), course, from: termCode, to: termCode }),
  z.object({ kind: z.literal('edit'), course, term: termCode, from: detail, to: detail })
] as const

export const routeId = z.int('has to be the number of a route').positive('has to be above zero').nullable()

export const seenVersion = z.int('has to be the version of the route that you saw')

export const routeChange = z.discriminatedUnion('kind', [
  ...single,
  z.object({
    kind: z.literal('several'),
    changes: z
      .array(z.discriminatedUnion('kind', single))
      .min(1, 'has to hold at least one change')
      .max(120, 'has to hold 120 changes or less')
  })
])

export const routeChangeBody = z.object({
  /** Null for the chosen one. */
  route: routeId.default(null),
  version: seenVersion,
  change: routeChange
})

export const routeStepBody = z.object({
  route: routeId.default(null),
  version: seenVersion,
  step: z.enum(['undo', 'redo'], 'has to be undo or redo')
})

export const returnBody = z.object({
  route: routeId.default(null),
  version: seenVersion,
  to: z.int('has to be a version of the route').min(1, 'has to be 1 or more')
})

const routeName = z.string().trim().min(1, 'is needed').max(60, 'has to be 60 characters or less')

export const newRouteBody = z.object({ name: routeName, copyOf: routeId.default(null) })

export const describeRouteBody = z.object({
  name: routeName.optional(),
  note: z.string().trim().max(400, 'has to be 400 characters or less').nullable().optional(),
  advisorMayEdit: z.boolean().optional(),
  chosen: z.literal(true, 'has to be true: another route is chosen instead').optional()
})

const hoursAWeek = z
  .int('has to be whole hours')
  .min(0, 'has to be 0 or more')
  .max(168, 'has to be 168 hours or less')
  .nullable()

const creditsATerm = z
  .number()
  .positive('has to be above zero')
  .max(60, 'has to be 60 or less')
  .multipleOf(0.5, 'has to be a multiple of 0.5')
  .nullable()

export const carryBody = z
  .object({
    credits: creditsATerm,
    least: creditsATerm,
    hours: hoursAWeek,
    outside: hoursAWeek,
    target: termCode.nullable(),
    terms: z
      .array(
        z.object({
          term: termCode,
          credits: creditsATerm,
          hours: hoursAWeek,
          away: z.enum(['exchange', 'leave'], 'has to be exchange or leave').nullable()
        })
      )
      .max(60, 'has to name 60 terms or less')
  })
  .refine(({ credits, least }) => credits === null || least === null || least <= credits, {
    path: ['least'],
    error: 'has to be no more than the credits at most'
  })

export const termNoteBody = z.object({ text: noteText })

export const routeParams = studentParams.extend({
  route: idInAddress
})
