/** What is sent to change a section. */
import { course, idInAddress, minute, termCode, weekday } from '#shared/requests'
import { STANDINGS } from '#core/requisites'
import { MODES, type Section } from '#core/week'
import { z } from 'zod'

export const sectionParams = z.object({
  section: z.string().regex(/^[0-9A-Z]{5}$/, 'has to be a section code such as L9SQG')
})

const seats = z
  .number('has to be a number')
  .int('has to be a whole number')
  .min(1, 'has to be 1 or more')
  .max(2000, 'has to be 2000 or less')

export const seatsBody = z.object({ seats })

const hoursOfPart = z.object({
  /** The section or component it is like. */
  of: sectionParams.shape.section,
  days: z.array(weekday).min(1, 'has to name a day').max(7, 'has to name 7 days or less'),
  start: minute,
  end: minute,
  seats,
  /** The number of a room; null for none yet. */
  room: idInAddress.nullable().default(null)
})

export const addSectionBody = z.object({
  parts: z
    .array(
      hoursOfPart.refine(({ start, end }) => start < end, {
        path: ['end'],
        error: 'has to be later than the start'
      }),
      'has to be a list of parts'
    )
    .min(1, 'has to name the section')
    .max(8, 'has to be 8 parts or less'),
  /** The number of an instructor; null for none yet. */
  instructor: idInAddress.nullable().default(null)
})
export type SectionAdded = z.output<typeof addSectionBody>

const times = { days: z.array(weekday).max(7, 'has to name 7 days or less'), start: minute, end: minute }
const KINDS = ['lecture', 'lab', 'tutorial', 'seminar', 'studio'] as const satisfies Section['kind'][]
const shortText = (most: number) =>
  z
    .string('has to be a text')
    .trim()
    .max(most, `has to be ${most} characters or less`)
    .nullable()
    .default(null)
    .transform((text) => text || null)
const codesOf = z.array(z.string().min(1).max(16)).max(40, 'has to name 40 or less')

/** What holds of a section beside its hours and its seats. */
export const rulesBody = z.object({
  topic: shortText(120),
  instructors: z.array(idInAddress).max(8, 'has to name 8 or less').default([]),
  /** The number of a room, for all its meetings; null for none yet. */
  room: idInAddress.nullable().default(null),
  /** How many may stand in line. */
  line: z.int('has to be a whole number').min(0, 'has to be 0 or more').max(500, 'has to be 500 or less'),
  /** Beside what its course costs. */
  fee: z
    .number('has to be a number')
    .min(0, 'has to be 0 or more')
    .max(99_999, 'has to be 99999 or less')
    .multipleOf(0.01, 'has to be in whole cents'),
  permissionNeeded: z.boolean('has to be true or false').default(false),
  officeOnly: z.boolean('has to be true or false').default(false),
  /** The code of a block. */
  block: z.string().max(16).nullable().default(null),
  /** Whom it is for; null for anybody. Of each list one has to apply; an empty one asks nothing. */
  onlyFor: z
    .object({ programs: codesOf, standings: z.array(z.enum(STANDINGS)).max(5) })
    .refine(({ programs, standings }) => programs.length + standings.length > 0, {
      error: 'has to name a program or a year, or be left out'
    })
    .nullable()
    .default(null),
  /** Seats kept for a program or a block. */
  reserved: z
    .array(
      z
        .object({
          program: z.string().max(8).nullable().default(null),
          block: z.string().max(16).nullable().default(null),
          seats
        })
        .refine(({ program, block }) => (program === null) !== (block === null), {
          path: ['program'],
          error: 'has to be a program, or else a block'
        })
    )
    .max(12, 'has to be 12 or less')
    .default([])
})
export type SectionRules = z.output<typeof rulesBody>

export const newSectionBody = z
  .object({
    session: z.string().min(1, 'is needed').max(8, 'has to be 8 characters or less'),
    campus: z.string().min(1, 'is needed').max(12, 'has to be 12 characters or less'),
    mode: z.enum(MODES, 'has to be one of the ways in which sections are held'),
    /** The section first, then its components, of which a student takes one of each kind. */
    parts: z
      .array(
        z.object({
          kind: z.enum(KINDS, 'has to be one of the kinds of sections'),
          ...times,
          seats,
          room: idInAddress.nullable().default(null)
        })
      )
      .min(1, 'has to name the section')
      .max(12, 'has to be 12 parts or less'),
    rules: rulesBody.omit({ room: true })
  })
  .check(({ value, issues }) => {
    for (const [i, { days, start, end }] of value.parts.entries()) {
      const say = (field: string, message: string) =>
        issues.push({ code: 'custom', message, input: value, path: ['parts', i, field] })
      if (value.mode === 'online' && days.length)
        say('days', 'has to name no day where it is online at any time')
      if (value.mode !== 'online' && !days.length) say('days', 'has to name a day')
      if (days.length && start >= end) say('end', 'has to be later than the start')
    }
  })
export type NewSection = z.output<typeof newSectionBody>

export const offeredParams = z.object({ code: termCode, course })

export const cancelBody = z.object({
  reason: z.string('is needed').trim().min(1, 'is needed').max(300, 'has to be 300 characters or less')
})

export const moveBody = z
  .object({
    days: z.array(weekday).min(1, 'has to name a day').max(7, 'has to name 7 days or less'),
    start: minute,
    end: minute,
    /** Whether it stays in its room; without it has none until one is named. */
    keepsRoom: z.boolean('has to be true or false').default(true)
  })
  .refine(({ start, end }) => start < end, { path: ['end'], error: 'has to be later than the start' })
