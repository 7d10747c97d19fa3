/** What may be sent to the server, checked there. Every message says what to do instead. */
import { z } from 'zod'
import { maybeCourseCode, type CourseCode, type SectionCode, type TermCode } from '#core/ids'
import { parseSectionCode } from '#core/formats'
import type { Weekday } from '#core/time'

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
  name: z.string().min(1, 'is needed').max(60, 'has to be 60 characters or less'),
  password: z.string().min(1, 'is needed').max(200, 'has to be 200 characters or less')
})

/** Long enough without rules on what it is made of (NIST SP 800-63B). */
export const passwordBody = z.object({
  present: z.string().min(1, 'is needed').max(200, 'has to be 200 characters or less'),
  next: z.string().min(12, 'has to be 12 characters or more').max(200, 'has to be 200 characters or less')
})

const detail = planned.omit({ course: true, term: true })
const single = [
  z.object({ kind: z.literal('add'), planned }),
  z.object({ kind: z.literal('remove'), planned }),
  z.object({ kind: z.literal('move'), course, from: termCode, to: termCode }),
  z.object({ kind: z.literal('edit'), course, term: termCode, from: detail, to: detail })
] as const
const routeId = z.int('has to be the number of a route').positive('has to be above zero').nullable()
const seenVersion = z.int('has to be the version of the route that you saw')

export const routeChangeBody = z.object({
  /** Null for the chosen one. */
  route: routeId.default(null),
  version: seenVersion,
  change: z.discriminatedUnion('kind', [
    ...single,
    z.object({
      kind: z.literal('several'),
      changes: z
        .array(z.discriminatedUnion('kind', single))
        .min(1, 'has to hold at least one change')
        .max(120, 'has to hold 120 changes or less')
    })
  ])
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

const noteText = z.string().trim().max(400, 'has to be 400 characters or less').nullable()
export const markBody = z.object({
  starred: z.boolean().optional(),
  looked: z.literal(true, 'has to be true, or left out').optional(),
  note: noteText.optional()
})
export const termNoteBody = z.object({ text: noteText })

export const pickBody = z.object({
  term: termCode,
  picks: z
    .array(
      z.object({
        course,
        /** The section with its components; empty to unpick. */
        sections: z.array(section).max(6, 'has to name six sections or less')
      })
    )
    .min(1, 'has to name a course')
    .max(20, 'has to name 20 courses or less')
    .refine((picks) => new Set(picks.map((one) => one.course)).size === picks.length, {
      error: 'has to name each course once'
    }),
  /** The draft week; null for the one gone with. */
  week: z.int('has to be the number of a draft week').positive('has to be above zero').nullish()
})

const weekName = z.string().trim().min(1, 'is needed').max(60, 'has to be 60 characters or less')
export const newWeekBody = z.object({
  term: termCode,
  name: weekName,
  sections: z.array(section).max(60, 'has to name 60 sections or less').default([]),
  copyOf: z
    .int('has to be the number of a draft week')
    .positive('has to be above zero')
    .nullable()
    .default(null),
  goingWith: z.boolean().default(false)
})
export const changeWeekBody = z.object({
  name: weekName.optional(),
  goingWith: z.literal(true, 'has to be true: another draft week is gone with instead').optional(),
  shared: z.boolean().optional()
})

const minute = z
  .int('has to be whole minutes after midnight')
  .min(0, 'has to be 0 or more')
  .max(1440, 'has to be 1440 or less')
const weekday = z
  .int('has to be a day from 1, Monday, to 7, Sunday')
  .min(1, 'has to be a day from 1, Monday, to 7, Sunday')
  .max(7, 'has to be a day from 1, Monday, to 7, Sunday')
  .transform((day) => day as Weekday)
const fromTo = { path: ['end'], error: 'has to be later than the start' }

export const keepFreeBody = z.object({
  hours: z
    .array(
      z
        .object({
          name: z.string().trim().min(1, 'is needed').max(60, 'has to be 60 characters or less'),
          days: z
            .array(weekday)
            .min(1, 'has to name a day')
            .transform((days) => [...new Set(days)].sort((a, b) => a - b)),
          start: minute,
          end: minute,
          hard: z.boolean()
        })
        .refine(({ start, end }) => start < end, fromTo)
    )
    .max(40, 'has to hold 40 or less')
})

const MODES = ['inPerson', 'onlineHours', 'online', 'mixed'] as const
const wish = z.discriminatedUnion('kind', [
  z.object({
    kind: z.enum([
      'fewestDays',
      'fewestHoursBetween',
      'evenDays',
      'oneCampusADay',
      'seatsSafe',
      'keptIfPossible'
    ])
  }),
  z.object({ kind: z.literal('dayOff'), day: weekday }),
  z.object({ kind: z.enum(['startsAfter', 'endsBefore']), time: minute }),
  z
    .object({ kind: z.literal('lunchFree'), from: minute, to: minute, minutes: minute })
    .refine((one) => one.from + one.minutes <= one.to, {
      path: ['minutes'],
      error: 'has to fit between from and to'
    }),
  z.object({ kind: z.literal('mode'), modes: z.array(z.enum(MODES)).min(1, 'has to name a mode').max(4) }),
  z.object({
    kind: z.literal('instructors'),
    names: z.array(z.string().min(1, 'is needed').max(80)).min(1, 'has to name somebody').max(40)
  }),
  z.object({
    kind: z.literal('together'),
    sections: z.array(section).max(60, 'has to name 60 sections or less')
  })
])
export const habitsBody = z.object({
  wishes: z.array(wish).max(16, 'has to hold 16 wishes or less'),
  travelHolds: z.boolean()
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

export const waiverBody = z.object({ reason })
export const waiverAnswerBody = z.object({ answer: z.enum(['granted', 'declined']) })

/** The same seed gives the same grades. */
export const gradesBody = z.object({
  seed: z
    .int('has to be a whole number')
    .min(0, 'has to be 0 or more')
    .max(999_999, 'has to be 999999 or less')
    .default(1)
})
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
export const weekParams = studentParams.extend({
  week: z.coerce.number('has to be a number').int('has to be a whole number').positive('has to be above zero')
})
export const sessionParams = z.object({
  session: z.coerce
    .number('has to be a number')
    .int('has to be a whole number')
    .positive('has to be above zero')
})
export const keyParams = z.object({
  key: z.string().regex(/^[0-9a-f]{32}(\.ics)?$/, 'has to be the key of a link, as it was sent')
})
export const routeParams = studentParams.extend({
  route: z.coerce
    .number('has to be a number')
    .int('has to be a whole number')
    .positive('has to be above zero')
})
export const termQuery = z.object({ term: termCode })
export const weekQuery = z.object({
  term: termCode,
  week: z.coerce
    .number('has to be a number')
    .int('has to be a whole number')
    .positive('has to be above zero')
    .optional()
})
export const offerQuery = z.object({
  /** Without it, everything. */
  courses: z
    .string()
    .min(1, 'has to name at least one course')
    .transform((text) => text.split(','))
    .pipe(z.array(course).max(40, 'has to name 40 courses or less'))
    .optional()
})
export const termParams = z.object({ code: termCode })
export const courseParams = z.object({ code: course })
export const studentCourseParams = studentParams.extend({ course })
export const studentTermParams = studentParams.extend({ term: termCode })
