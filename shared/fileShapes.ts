/**
 * The files Ridgeway reads and writes: catalogs, programs, course lists, records. What each holds is
 * said here once, in Zod; the published JSON Schemas are made from it.
 */
import { SEASONS } from '#core/catalog'
import { GRADE_RESULTS } from '#core/grades'
import { COURSE_CODE, TERM_CODE } from '#core/ids'
import { z } from 'zod'

export const course = z.string().regex(COURSE_CODE, 'has to be a course code such as ENVI 310')

export const term = z.string().regex(TERM_CODE, 'has to be a term code such as AU27')

export const date = z.iso.date('has to be a date such as 2027-08-30')

export const id = z
  .string()
  .regex(/^[a-z][a-z0-9-]{0,39}$/, 'has to be lower-case letters, digits and hyphens')

const title = z.string().min(1, 'is needed').max(160, 'has to be 160 characters or less')

const note = z.string().max(400, 'has to be 400 characters or less').optional()

const rule = z.string().max(500, 'has to be 500 characters or less')

const set = rule.min(1, 'has to name courses')

const year = z.string().regex(/^\d{4}-\d{2}$/, 'has to be a catalog year such as 2025-26')

export const credits = z.number().min(0, 'has to be zero or more').max(400, 'has to be 400 or less')

export const grade = z.string().min(1, 'is needed').max(3, 'has to be three characters or less')

const many = 20_000

const courseShape = z.strictObject({
  code: course,
  title,
  credits,
  creditsMost: credits.optional(),
  level: z.enum(['undergraduate', 'graduate']).optional(),
  yearLevel: z.int().min(0).max(9).optional(),
  offered: z
    .strictObject({
      seasons: z.array(z.enum(SEASONS)).max(SEASONS.length),
      years: z.enum(['every', 'odd', 'even']).optional()
    })
    .optional(),
  prerequisite: rule.optional(),
  categories: z.array(z.string().min(1).max(24)).max(20).optional(),
  equivalents: z.array(course).max(40).optional(),
  exclusive: z.array(course).max(40).optional(),
  repeatable: z.boolean().optional()
})

const termShape = z.strictObject({
  code: term,
  name: title,
  season: z.enum(SEASONS),
  year: z.int().min(1900).max(2200),
  start: date,
  end: date
})

export const listShape = z.strictObject({ name: id, catalogYear: year, title: title.optional(), from: set })

const gradeShape = z.strictObject({
  grade,
  points: z.number().min(0).max(20).nullable(),
  result: z.enum(GRADE_RESULTS),
  rank: z.number().min(0).max(20)
})

export const catalogFile = z.strictObject({
  format: z.literal('ridgeway catalog 1'),
  courses: z.array(courseShape).min(1, 'has to hold a course').max(many),
  terms: z.array(termShape).max(200).optional(),
  lists: z.array(listShape).max(500).optional(),
  grades: z.array(gradeShape).min(1).max(60).optional()
})

const condition = z.discriminatedUnion('asks', [
  z.strictObject({
    id,
    title,
    note,
    asks: z.literal('credits'),
    least: credits,
    from: set.optional(),
    counting: z.boolean().optional(),
    here: z.boolean().optional(),
    amongLast: credits.optional()
  }),
  z.strictObject({
    id,
    title,
    note,
    asks: z.literal('average'),
    least: z.number(),
    from: set.optional(),
    best: z.int().min(1).max(200).optional(),
    attempts: z.literal('all').optional()
  }),
  z.strictObject({
    id,
    title,
    note,
    asks: z.literal('test'),
    test: z.string().min(1).max(24),
    least: z.number()
  }),
  z.strictObject({ id, title, note, asks: z.literal('milestone') })
])

const part = z.strictObject({ from: set, amount: z.number() })

/** In credits or in courses: that it is one of them is a rule of the program. */
const most = { credits: credits.optional(), courses: z.int().optional() }

const need = z.strictObject({
  id,
  title,
  measure: z.enum(['courses', 'credits']),
  amount: z.number(),
  credits: z.number(),
  from: set,
  leastGrade: grade.optional(),
  subjects: z.int().optional(),
  including: z.array(part).max(10).optional(),
  atMost: z
    .array(z.strictObject({ from: set, ...most }))
    .max(10)
    .optional(),
  perSubject: z.int().optional(),
  note
})

const choice = z.strictObject({
  id,
  title,
  choose: z.number(),
  get of() {
    return z.array(z.strictObject({ id, title, needs: z.array(z.union([need, choice])).max(60) })).max(40)
  },
  note
})

const requirements = z.array(z.union([need, choice])).max(200)

/** A program as of a catalog year. */
export const programShape = z.strictObject({
  code: z.string().regex(/^[A-Z]{2,8}$/, 'has to be two to eight capital letters'),
  title,
  shortTitle: z.string().min(1).max(40, 'has to be 40 characters or less'),
  kind: z.enum(['degree', 'minor', 'certificate']),
  catalogYear: year,
  credits,
  areas: z
    .array(
      z.strictObject({
        id,
        title,
        free: z.boolean().optional(),
        shares: z.strictObject({ with: z.array(id).min(1), credits }).optional(),
        needs: requirements,
        note
      })
    )
    .min(1, 'has to hold an area')
    .max(40),
  limits: z
    .array(
      z.strictObject({
        title,
        from: set,
        ...most,
        areas: z.array(id).min(1).optional(),
        grades: z.array(grade).min(1).optional()
      })
    )
    .max(40)
    .optional(),
  mayShare: credits.optional(),
  conditions: z.array(condition).max(60).optional(),
  entry: z
    .strictObject({ title, needs: requirements, conditions: z.array(condition).max(60).optional(), note })
    .optional(),
  repeats: z.enum(['best', 'last', 'all']).optional(),
  suggested: z
    .array(z.array(z.union([course, z.strictObject({ need: id })])).max(20))
    .max(40)
    .optional(),
  obliges: z.array(z.string()).max(10).optional(),
  note
})

export const programFile = z.strictObject({
  format: z.literal('ridgeway program 1'),
  program: programShape
})

export const listsFile = z.strictObject({
  format: z.literal('ridgeway lists 1'),
  lists: z.array(listShape).max(500)
})

export const routeFile = z.strictObject({
  format: z.literal('ridgeway route 1'),
  name: z.string().max(60).optional(),
  note: z.string().max(400).nullable().optional(),
  planned: z
    .array(
      z.strictObject({
        course,
        term,
        credits,
        note: z.string().max(400).nullable().optional(),
        locked: z.boolean().optional()
      })
    )
    .max(400)
})

export const limitsFile = z.strictObject({
  format: z.literal('ridgeway limits 1'),
  credits: credits.nullable().optional(),
  least: credits.nullable().optional(),
  hours: z.int().min(0).max(168).nullable().optional(),
  outside: z.int().min(0).max(168).nullable().optional(),
  target: term.nullable().optional(),
  terms: z
    .array(
      z.strictObject({
        term,
        credits: credits.nullable().optional(),
        hours: z.int().min(0).max(168).nullable().optional(),
        away: z.enum(['exchange', 'leave']).nullable().optional()
      })
    )
    .max(60)
    .optional()
})
