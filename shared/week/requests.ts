/** What is sent about draft weeks, picks and hours kept free. */
import { MODES } from '#core/week'
import { parseSectionCode } from '#core/formats'
import type { SectionCode } from '#core/ids'
import { course, idInAddress, minute, studentParams, termCode, weekday } from '#shared/requests'
import { z } from 'zod'

const section = z.string().transform((text, context): SectionCode => {
  const read = parseSectionCode(text)
  if (!read.ok) context.addIssue({ code: 'custom', message: 'has to be a section code of five characters' })
  return (read.ok ? read.code : text) as SectionCode
})

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
  shared: z.boolean().optional(),
  note: z
    .string()
    .trim()
    .max(500, 'has to be 500 characters or less')
    .transform((text) => text || null)
    .nullable()
    .optional()
})

const fromTo = { path: ['end'], error: 'has to be later than the start' }

const keepFreeHours = z
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
/** `before` is what whoever sends it saw: where it has changed meanwhile, nothing of that is lost. */
export const keepFreeBody = z.object({ hours: keepFreeHours, before: keepFreeHours.optional() })

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

export const weekParams = studentParams.extend({
  week: idInAddress
})

export const weekQuery = z.object({
  term: termCode,
  week: idInAddress.optional()
})
