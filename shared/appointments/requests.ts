/** What is sent for hours, appointments and records of talks. */
import type { OfferedTime } from '#core/appointments'
import { WEEKDAYS } from '#core/time'
import { dayOfCentury, fewWords, idInAddress, minute } from '#shared/requests'
import { z } from 'zod'
import { TALKED_HOW } from './appointments'

const length = z
  .int('has to be whole minutes')
  .min(5, 'has to be 5 minutes or more')
  .max(240, 'has to be 240 minutes or less')
const place = z
  .string()
  .trim()
  .min(2, 'has to say a room, or a link')
  .max(160, 'has to be 160 characters or less')
const offered = z
  .object({
    weekday: z
      .int('has to be a day of the week, 1 to 7, or nothing')
      .min(1, 'has to be 1 or more')
      .max(7, 'has to be 7 or less')
      .nullable()
      .default(null),
    on: dayOfCentury.nullable().default(null),
    start: minute,
    end: minute,
    length,
    place,
    from: dayOfCentury.nullable().default(null),
    until: dayOfCentury.nullable().default(null)
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
      z
        .object({
          from: dayOfCentury,
          to: dayOfCentury,
          /** The advisor who stands in. */
          standIn: idInAddress.nullable().default(null)
        })
        .refine((one) => one.from <= one.to, {
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
  date: dayOfCentury,
  start: minute,
  /** Said by an advisor who invites; a booked slot has its own. */
  length: length.nullable().default(null),
  place: place.nullable().default(null),
  about: fewWords,
  bring: fewWords
})
export type AppointmentSaid = z.output<typeof appointmentBody>

export const appointmentParams = z.object({ id: idInAddress, appointment: idInAddress })
export const appointmentActBody = z.discriminatedUnion(
  'act',
  [
    z.object({ act: z.literal('accept') }),
    z.object({ act: z.literal('decline'), words: fewWords }),
    z.object({
      act: z.literal('move'),
      date: dayOfCentury,
      start: minute,
      place: place.nullable().default(null)
    }),
    z.object({ act: z.literal('cancel'), words: fewWords }),
    z.object({ act: z.literal('prepare'), bring: fewWords })
  ],
  'has to be accept, decline, move, cancel or prepare'
)
export type AppointmentAct = z.output<typeof appointmentActBody>

export const talkRecordBody = z.object({
  on: dayOfCentury,
  how: z.enum(TALKED_HOW, 'has to be inPerson, byPhone, byVideo or byMail'),
  summary: z
    .string()
    .trim()
    .min(3, 'has to say what was spoken about, in three characters or more')
    .max(2000, 'has to be 2,000 characters or less')
})
export type TalkRecordSaid = z.output<typeof talkRecordBody>
