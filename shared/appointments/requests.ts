/** What is sent for hours, appointments and records of talks. */
import type { OfferedTime } from '#core/appointments'
import { WEEKDAYS } from '#core/time'
import { date } from '#shared/fileShapes'
import { idInAddress } from '#shared/requests'
import { z } from 'zod'
import { TALKED_HOW } from './appointments'

const DAY_MIN = 24 * 60
const minute = z
  .int('has to be whole minutes of the day')
  .min(0, 'has to be 0 or more')
  .max(DAY_MIN, 'has to be within the day')
const day = date.refine((one) => one >= '2000-01-01' && one < '2100-01-01', {
  error: 'has to be a day of this century'
})
const length = z
  .int('has to be whole minutes')
  .min(5, 'has to be 5 minutes or more')
  .max(240, 'has to be 240 minutes or less')
const place = z
  .string()
  .trim()
  .min(2, 'has to say a room, or a link')
  .max(160, 'has to be 160 characters or less')
const words = z
  .string()
  .trim()
  .max(400, 'has to be 400 characters or less')
  .nullable()
  .default(null)
  .transform((text) => text || null)

const offered = z
  .object({
    weekday: z
      .int('has to be a day of the week, 1 to 7, or nothing')
      .min(1, 'has to be 1 or more')
      .max(7, 'has to be 7 or less')
      .nullable()
      .default(null),
    on: day.nullable().default(null),
    start: minute,
    end: minute,
    length,
    place,
    from: day.nullable().default(null),
    until: day.nullable().default(null)
  })
  .refine((one) => (one.weekday === null) !== (one.on === null), {
    error: 'has to be a day of the week or a date, one of the two',
    path: ['weekday']
  })
  .refine((one) => one.start + one.length <= one.end, {
    error: 'has to leave room for one appointment at least',
    path: ['end']
  })
  .refine((one) => one.on === null || (one.from === null && one.until === null), {
    error: 'is of what is offered every week only',
    path: ['from']
  })
  .refine((one) => one.from === null || one.until === null || one.from <= one.until, {
    error: 'has to be the first date or later',
    path: ['until']
  })
  .transform(({ weekday, on, from, until, ...rest }): OfferedTime => {
    if (on !== null) return { ...rest, weekday: null, on, from: null, until: null }
    return { ...rest, weekday: WEEKDAYS[weekday! - 1]!, on: null, from, until }
  })

export const hoursBody = z.object({
  times: z.array(offered, 'has to be a list of times').max(40, 'has to be 40 times or less'),
  away: z
    .array(
      z.object({ from: day, to: day }).refine((one) => one.from <= one.to, {
        error: 'has to be the first date or later',
        path: ['to']
      }),
      'has to be a list of dates away'
    )
    .max(40, 'has to be 40 times away or less')
})
export type HoursSaid = z.output<typeof hoursBody>

export const freeTimesParams = z.object({ id: idInAddress, advisor: idInAddress })

export const appointmentBody = z.object({
  /** Whom the student books; of an advisor who invites it is themselves. */
  advisor: idInAddress.nullable().default(null),
  date: day,
  start: minute,
  /** Said by an advisor who invites; a booked slot has its own. */
  length: length.nullable().default(null),
  place: place.nullable().default(null),
  about: words,
  bring: words
})
export type AppointmentSaid = z.output<typeof appointmentBody>

export const appointmentParams = z.object({ id: idInAddress, appointment: idInAddress })
export const appointmentActBody = z.discriminatedUnion(
  'act',
  [
    z.object({ act: z.literal('accept') }),
    z.object({ act: z.literal('decline'), words }),
    z.object({ act: z.literal('move'), date: day, start: minute, place: place.nullable().default(null) }),
    z.object({ act: z.literal('cancel'), words }),
    z.object({ act: z.literal('prepare'), bring: words })
  ],
  'has to be accept, decline, move, cancel or prepare'
)
export type AppointmentAct = z.output<typeof appointmentActBody>

export const talkRecordBody = z.object({
  on: day,
  how: z.enum(TALKED_HOW, 'has to be inPerson, byPhone, byVideo or byMail'),
  summary: z
    .string()
    .trim()
    .min(3, 'has to say what was spoken about, in three characters or more')
    .max(2000, 'has to be 2,000 characters or less')
})
export type TalkRecordSaid = z.output<typeof talkRecordBody>
