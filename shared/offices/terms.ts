/** Terms as the registrar makes them: dates and rules, the offer copied from an earlier one, publication. */
import { z } from 'zod'
import { SEASONS, type Season } from '#core/catalog'
import { dateFaults, daysLater, inNextYear, type TermDates } from '#core/calendar'
import type { CourseCode, TermCode } from '#core/ids'
import { SIGN_OFF_POLICIES } from '#core/registration'
import type { Instant, IsoDate } from '#core/time'
import { dayOfCentury, termCode } from '#shared/requests'
import type { SaidPrices } from './prices'

const SERVES = ['offer', 'automatic'] as const
const HALVES = ['full', 'first', 'second', 'other'] as const

/** A date and an hour on campus. */
const campusHour = z
  .string()
  .regex(/^20\d\d-(0\d|1[0-2])-[0-3]\d[T ]([01]\d|2[0-3]):[0-5]\d$/, 'has to be a date and a time')
  .refine((text) => dayOfCentury.safeParse(text.slice(0, 10)).success, {
    error: 'has to be a day of this century'
  })
  .transform((text) => text.replace(' ', 'T'))

const hours = z
  .number('has to be a number')
  .int('has to be whole hours')
  .min(1, 'has to be 1 or more')
  .max(336, 'has to be 336 (two weeks) or less')
const name = (most: number) =>
  z.string().trim().min(1, 'is needed').max(most, `has to be ${most} characters or less`)

/** What can be changed of a term; `version` is the one that was seen. */
export const termBody = z
  .object({
    version: z.number().int().min(1),
    name: name(40),
    start: dayOfCentury,
    end: dayOfCentury,
    addEnds: campusHour,
    dropFreeEnds: campusHour,
    dropEnds: campusHour,
    linesClose: campusHour,
    intentionsDue: campusHour.nullable(),
    graduateBy: campusHour.nullable(),
    paymentDue: dayOfCentury,
    refunds: z
      .array(
        z.object({
          until: campusHour,
          percent: z
            .number('has to be a number')
            .min(0, 'has to be 0 or more')
            .max(100, 'has to be 100 or less')
        })
      )
      .max(12, 'have to be 12 or less'),
    sessions: z
      .array(
        z.object({
          code: z
            .string()
            .trim()
            .regex(/^[A-Z0-9]{1,8}$/, 'has to be 1 to 8 capital letters and digits'),
          name: name(60),
          half: z.enum(HALVES),
          start: dayOfCentury,
          end: dayOfCentury,
          addEnds: campusHour.nullable(),
          dropFreeEnds: campusHour.nullable(),
          dropEnds: campusHour.nullable()
        })
      )
      .max(20, 'have to be 20 or less'),
    holidays: z.array(z.object({ date: dayOfCentury, name: name(60) })).max(120, 'have to be 120 or less'),
    loadMost: z
      .number('has to be a number')
      .min(1, 'has to be 1 or more')
      .max(60, 'has to be 60 or less')
      .multipleOf(0.5, 'has to be in half credits'),
    signOffPolicy: z.enum(SIGN_OFF_POLICIES),
    waitlistPolicy: z.enum(SERVES),
    offerHours: hours,
    offerHoursNear: hours,
    arming: z.boolean(),
    agreement: z
      .string()
      .trim()
      .max(8000, 'has to be 8,000 characters or less')
      .nullable()
      .transform((text) => text || null)
  })
  .superRefine((said, context) => {
    for (const { path, message } of dateFaults(said))
      context.addIssue({ code: 'custom', message, path: path.split('.') })
    if (said.offerHoursNear > said.offerHours)
      context.addIssue({
        ...{ code: 'custom', path: ['offerHoursNear'] },
        message: 'have to be no more than those of other days'
      })
  })
export type TermSaid = z.output<typeof termBody>

export const makeTermsBody = z.object({
  /** Terms of which the same is made a year later. */
  like: z
    .array(termCode, 'has to be a list of terms')
    .min(1, 'has to name a term')
    .max(6, 'has to name 6 terms or less')
    .refine((all) => new Set(all).size === all.length, { error: 'has to name each term once' })
})
const DAY_MS = 86_400_000

/** A term by itself. */
export const newTermBody = z
  .object({ code: termCode, name: name(40), season: z.enum(SEASONS), start: dayOfCentury, end: dayOfCentury })
  // What is no day has been said to be none already.
  .refine(({ start, end }) => !(Date.parse(end) - Date.parse(start) < 6 * DAY_MS), {
    error: 'has to be a week after the first day or later',
    path: ['end']
  })
export type NewTermSaid = z.output<typeof newTermBody>

export const fromTermBody = z.object({ from: termCode })

/** A term as the registrar finds it in the list. */
export interface TermRow {
  code: TermCode
  name: string
  season: Season
  year: number
  start: IsoDate
  end: IsoDate
  published: boolean
  /** Sections that are not cancelled, without components, and of how many courses. */
  sections: number
  courses: number
  openings: number
  /** Students who have something planned in it, and who hold a seat. */
  planned: number
  held: number
}

export interface TermPlan extends TermSaid {
  code: TermCode
  season: Season
  published: boolean
  /** Seats are held: the days of classes stay. */
  held: number
  /** What it costs; null where nothing is charged in it. */
  prices: SaidPrices | null
}

/** What a copied offer comes to. */
export interface OfferCopied {
  /** Courses and sections that are made, components not counted. */
  courses: number
  sections: number
  /** Courses that are left out, and why. */
  left: { course: CourseCode; why: 'offered' | 'pattern' }[]
}

/** Whom a publication concerns. */
export interface PublicationEffect {
  sections: number
  courses: number
  /** Students who planned something for the term. */
  planned: number
  /** Courses that are planned and have no section, with how many planned them; the most first. */
  without: { course: CourseCode; students: number }[]
  openings: { title: string; opens: Instant; students: number }[]
  /** Students who planned something and for whom the term does not open. */
  unopened: number
}

/** The code of the same term a year later: with the next year in it, of four digits or of two; the same where it has none. */
export function codeNextYear(code: TermCode): TermCode {
  const years = /20\d\d|(?<!\d)\d\d(?!\d)/g
  const [last] = [...code.matchAll(years)]
    .sort((a, b) => a[0].length - b[0].length || a.index - b.index)
    .slice(-1)
  if (!last) return code
  const next = String(Number(last[0]) + 1)
    .padStart(2, '0')
    .slice(-last[0].length)
  return `${code.slice(0, last.index)}${next}${code.slice(last.index + last[0].length)}` as TermCode
}

/** The same term a year later: its dates moved by whole weeks, its name with the next year. */
export function likeNextYear<T extends TermDates & { name: string }>(plan: T): T {
  const dates = inNextYear(plan)
  const [from, to] = [Number(plan.start.slice(0, 4)), Number(dates.start.slice(0, 4))]
  return { ...plan, ...dates, name: plan.name.replace(String(from), String(to)) }
}

/** Terms of which there is no such one a year later, and which are not followed by more than a year: the newest year. */
export function lastYear<T extends { code: TermCode; start: IsoDate }>(terms: readonly T[]): T[] {
  const known = new Set(terms.map((one) => one.code))
  const latest = terms
    .map((one) => one.start)
    .sort()
    .at(-1)
  return terms
    .filter((one) => !known.has(codeNextYear(one.code)) && daysLater(one.start, 400) > latest!)
    .sort((a, b) => (a.start < b.start ? -1 : 1))
}
