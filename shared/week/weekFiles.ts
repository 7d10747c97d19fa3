/** The files of a term's sections and of what is wanted of a week: what they hold, and what is made of them. */
import { z } from 'zod'
import type { Want } from '#core/find'
import { parseDayLetters } from '#core/formats'
import { courseCode, termCode, type SectionCode } from '#core/ids'
import { dayNumber, minutes, type Weekday } from '#core/time'
import { MODES, type Holidays, type Section } from '#core/week'
import { course, credits, date, term } from '#shared/fileShapes'

const days = z
  .string()
  .refine(
    (text) => (parseDayLetters(text)?.length ?? 0) > 0,
    'has to be day letters such as MWF; R is Thursday'
  )
const time = z.string().regex(/^([01]?\d|2[0-3]):[0-5]\d$/, 'has to be a time such as 9:30 or 16:45')
/** Of two times as they are written, right or wrong. */
const isBefore = (a: string, b: string) => a.padStart(5, '0') < b.padStart(5, '0')
const name = z.string().min(1, 'is needed').max(80, 'has to be 80 characters or less')
const code = z.string().min(1, 'is needed').max(12, 'has to be 12 characters or less')
const seats = z.int().min(0, 'has to be 0 or more').max(5000)

const meetingShape = z
  .strictObject({
    days,
    start: time,
    end: time,
    from: date,
    to: date,
    campus: name.optional(),
    room: name.optional()
  })
  .refine((one) => isBefore(one.start, one.end), {
    path: ['end'],
    error: 'has to be later than the start'
  })
  .refine((one) => one.from <= one.to, { path: ['to'], error: 'has to be no earlier than from' })

export const sectionsFile = z.strictObject({
  format: z.literal('ridgeway sections 1'),
  term,
  holidays: z.array(date).max(200).optional(),
  sections: z
    .array(
      z.strictObject({
        code,
        course,
        number: code,
        kind: z.enum(['lecture', 'lab', 'tutorial', 'seminar', 'studio']).optional(),
        /** The code of the section that this one is a component of. */
        parent: code.nullable().optional(),
        half: z.enum(['full', 'first', 'second', 'other']).optional(),
        campus: name.optional(),
        mode: z.enum(MODES).optional(),
        credits: credits.optional(),
        topic: name.nullable().optional(),
        /** The block it is of, taken whole. */
        block: name.nullable().optional(),
        instructors: z.array(name).max(20).optional(),
        capacity: seats.optional(),
        taken: seats.optional(),
        officeOnly: z.boolean().optional(),
        cancelled: z.boolean().optional(),
        meetings: z.array(meetingShape).max(60)
      })
    )
    .max(20_000)
    .superRefine((sections, { addIssue }) => {
      const byCode = new Map<string, number>()
      sections.forEach(({ code: own }, i) => {
        const first = byCode.get(own)
        if (first === undefined) byCode.set(own, i)
        else
          addIssue({
            code: 'custom',
            path: [i, 'code'],
            message: `${own} is the code of section ${first + 1} already; each section has one of its own`
          })
      })
      sections.forEach(({ parent, course: own }, i) => {
        if (!parent) return
        const main = sections[byCode.get(parent) ?? -1]
        const problem = !main
          ? `there is no section ${parent} in this file`
          : main.parent
            ? `${parent} is itself a component; it has to be a section without a parent`
            : courseCode(main.course) !== courseCode(own) &&
              `${parent} is a section of ${main.course}, not of ${own}`
        if (problem) addIssue({ code: 'custom', path: [i, 'parent'], message: problem })
      })
    })
})

const wish = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.enum([
      'fewestDays',
      'fewestHoursBetween',
      'evenDays',
      'oneCampusADay',
      'seatsSafe',
      'keptIfPossible'
    ])
  }),
  z.strictObject({ kind: z.literal('dayOff'), day: days }),
  z.strictObject({ kind: z.enum(['startsAfter', 'endsBefore']), time }),
  z.strictObject({
    kind: z.literal('lunchFree'),
    from: time,
    to: time,
    minutes: z.int().min(5).max(240)
  }),
  z.strictObject({ kind: z.literal('mode'), modes: z.array(z.enum(MODES)).min(1).max(4) }),
  z.strictObject({ kind: z.literal('instructors'), names: z.array(name).min(1).max(40) }),
  /** Sections that a friend takes. */
  z.strictObject({ kind: z.literal('together'), sections: z.array(code).min(1).max(60) })
])

export const wantFile = z.strictObject({
  format: z.literal('ridgeway want 1'),
  /** A course, or so many of some. */
  courses: z
    .array(
      z.union([
        course,
        z
          .strictObject({ take: z.int().min(1), of: z.array(course).min(1).max(20) })
          .refine((one) => one.take <= one.of.length, {
            path: ['take'],
            error: 'has to be no more than there are courses to take of'
          })
      ])
    )
    .min(1, 'has to name a course')
    .max(20)
    .superRefine((courses, { addIssue }) => {
      const there = new Set<string>()
      const once = (name: string, path: (string | number)[]) => {
        if (there.has(courseCode(name)))
          addIssue({ code: 'custom', path, message: `${name} is wanted already; name each course once` })
        there.add(courseCode(name))
      }
      courses.forEach((one, i) => {
        if (typeof one === 'string') once(one, [i])
        else one.of.forEach((name, n) => once(name, [i, 'of', n]))
      })
    }),
  /** Codes of sections that are to be in the week. */
  fixed: z.array(code).max(40).optional(),
  /** Only weeks in which every section has a seat left; without it full sections are in weeks too. */
  seatsLeft: z.boolean().optional(),
  keepFree: z
    .array(
      z
        .strictObject({
          name: name.optional(),
          days,
          start: time,
          end: time,
          /** Unless it says no, it must hold; otherwise the wish keptIfPossible counts it. */
          hard: z.boolean().optional()
        })
        .refine((one) => isBefore(one.start, one.end), {
          path: ['end'],
          error: 'has to be later than the start'
        })
    )
    .max(40)
    .optional(),
  /** In order of weight. */
  wishes: z.array(wish).max(12).optional()
})

/** Sections from their file, with the days on which nothing meets. */
export function sectionsFrom(file: z.infer<typeof sectionsFile>): {
  sections: Section[]
  holidays: Holidays
} {
  const sections = file.sections.map((one): Section => {
    const { half = 'full', campus = '', parent = null, topic = null } = one
    return {
      code: one.code as SectionCode,
      course: courseCode(one.course),
      term: termCode(file.term),
      number: one.number,
      kind: one.kind ?? (parent ? 'lab' : 'lecture'),
      parent: parent as SectionCode | null,
      session: half,
      half,
      campus,
      offSite: null,
      mode: one.mode ?? 'inPerson',
      credits: one.credits ?? 0,
      creditsRange: null,
      prerequisite: null,
      categories: null,
      topic,
      instructors: one.instructors ?? [],
      capacity: one.capacity ?? SEATS,
      taken: one.taken ?? 0,
      waitCapacity: 0,
      waiting: 0,
      block: one.block ?? null,
      officeOnly: one.officeOnly ?? false,
      permissionNeeded: false,
      onlyFor: null,
      cancelled: one.cancelled ?? false,
      fee: 0,
      reserved: [],
      meetings: one.meetings.map((meeting) => ({
        days: parseDayLetters(meeting.days)!,
        start: minutes(meeting.start),
        end: minutes(meeting.end),
        from: meeting.from,
        to: meeting.to,
        campus: meeting.campus ?? campus,
        building: null,
        room: meeting.room ?? null
      }))
    }
  })
  return { sections, holidays: new Set((file.holidays ?? []).map(dayNumber)) }
}
/** Where a file says nothing of seats there are enough. */
const SEATS = 1000

/** What is wanted of a week, from its file. */
export function wantFrom(file: z.infer<typeof wantFile>): Want {
  const all = file.keepFree ?? []
  const hoursOf = (asked: (one: (typeof all)[number]) => boolean) =>
    all.filter(asked).map((one) => ({
      name: one.name ?? `${one.days} ${one.start}–${one.end}`,
      days: parseDayLetters(one.days)!,
      start: minutes(one.start),
      end: minutes(one.end)
    }))
  return {
    groups: file.courses.map((one) =>
      typeof one === 'string'
        ? { courses: [courseCode(one)], take: 1 }
        : { courses: one.of.map((code) => courseCode(code)), take: one.take }
    ),
    fixed: new Set(file.fixed ?? []),
    ...(file.seatsLeft && { seatsLeft: true }),
    kept: hoursOf((one) => one.hard !== false),
    softly: hoursOf((one) => one.hard === false),
    wishes: (file.wishes ?? []).map((one) => {
      switch (one.kind) {
        case 'dayOff':
          return { kind: 'dayOff', day: parseDayLetters(one.day)![0] as Weekday }
        case 'startsAfter':
        case 'endsBefore':
          return { kind: one.kind, time: minutes(one.time) }
        case 'lunchFree':
          return { kind: 'lunchFree', from: minutes(one.from), to: minutes(one.to), minutes: one.minutes }
        default:
          return one
      }
    })
  }
}
