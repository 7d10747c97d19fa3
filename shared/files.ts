/**
 * The files Ridgeway reads and writes: catalogs, programs, course lists, records. What each holds is
 * said here once, in Zod; the published JSON Schemas are made from it. Unknown fields are faults.
 */
import { MODES } from '#core/week'
import { byStart, Catalog, type Course, type Term } from '#core/catalog'
import type { ExceptionGrant, PlannedCourse, ProgramSpec, RecordEntry } from '#core/degree'
import { COMMON_SCALE, GradeScale } from '#core/grades'
import { courseCode, termCode } from '#core/ids'
import type { Carry } from '#shared/route/responses'
import { z } from 'zod'

export const course = z
  .string()
  .regex(/^[A-Z]{2,5} \d{1,4}[A-Z]{0,2}$/, 'has to be a course code such as ENVI 310')

export const term = z.string().regex(/^(AU|SP|SU)\d{2}$/, 'has to be a term code such as AU27')

export const date = z.iso.date('has to be a date such as 2027-08-30')

const id = z.string().regex(/^[a-z][a-z0-9-]{0,39}$/, 'has to be lower-case letters, digits and hyphens')

const title = z.string().min(1, 'is needed').max(160, 'has to be 160 characters or less')

const note = z.string().max(400, 'has to be 400 characters or less').optional()

const rule = z.string().max(500, 'has to be 500 characters or less')

const set = rule.min(1, 'has to name courses')

const year = z.string().regex(/^\d{4}-\d{2}$/, 'has to be a catalog year such as 2025-26')

export const credits = z.number().min(0, 'has to be zero or more').max(400, 'has to be 400 or less')

const grade = z.string().min(1, 'is needed').max(3, 'has to be three characters or less')

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
      seasons: z.array(z.enum(['autumn', 'spring', 'summer'])).max(3),
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
  season: z.enum(['autumn', 'spring', 'summer']),
  year: z.int().min(1900).max(2200),
  start: date,
  end: date
})

const listShape = z.strictObject({ name: id, catalogYear: year, title: title.optional(), from: set })

const gradeShape = z.strictObject({
  grade,
  points: z.number().min(0).max(20).nullable(),
  result: z.enum(['earned', 'failed', 'withdrawn', 'open']),
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
  z.strictObject({ id, title, note, asks: z.literal('average'), least: z.number(), from: set.optional() }),
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
    .array(z.strictObject({ from: set, credits }))
    .max(10)
    .optional(),
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

export const programFile = z.strictObject({
  format: z.literal('ridgeway program 1'),
  program: z.strictObject({
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
          credits,
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
})

export const recordFile = z.strictObject({
  format: z.literal('ridgeway record 1'),
  name: z.string().max(160).optional(),
  standing: z.enum(['freshman', 'sophomore', 'junior', 'senior', 'graduate']).optional(),
  record: z
    .array(
      z.strictObject({
        course,
        term: term.nullable(),
        credits,
        grade: grade.nullable(),
        origin: z.enum(['here', 'transfer', 'test']).optional(),
        campus: z.string().max(24).nullable().optional(),
        mode: z.enum(MODES).nullable().optional(),
        /** The categories it counts in, where they were others than its course's. */
        categories: z.array(z.string().min(1).max(24)).max(20).nullable().optional()
      })
    )
    .max(1000),
  planned: z.array(z.strictObject({ course, term, credits })).max(400).optional(),
  tests: z.record(z.string(), z.number()).optional(),
  milestones: z.array(id).max(100).optional(),
  exceptions: z
    .array(
      z.discriminatedUnion('kind', [
        z.strictObject({
          kind: z.literal('waiver'),
          program: z.string(),
          need: id,
          reason: z.string().max(400)
        }),
        z.strictObject({
          kind: z.literal('substitution'),
          program: z.string(),
          need: id,
          course,
          reason: z.string().max(400)
        })
      ])
    )
    .max(100)
    .optional()
})

export const listsFile = z.strictObject({
  format: z.literal('ridgeway lists 1'),
  lists: z.array(listShape).max(500)
})

/** A fault of a file's shape: where, and what has to be there instead. */
export interface ShapeFault {
  path: string
  message: string
}

export type ReadFile<T> = { ok: true; value: T } | { ok: false; faults: ShapeFault[] }

/** Largest file that is read, in characters. */
const LONGEST = 20_000_000

/** Reads a text as one of the files. Never throws; names every fault with its place. */
export function readFileText<T>(text: string, shape: z.ZodType<T>): ReadFile<T> {
  const fault = (message: string): ReadFile<T> => ({ ok: false, faults: [{ path: '', message }] })
  if (text.length > LONGEST) return fault(`is longer than ${LONGEST / 1e6} million characters`)
  let value: unknown
  try {
    // A mark at the front, as some editors put it, is passed over (RFC 8259, 8.1).
    value = JSON.parse(text.replace(/^\uFEFF/, ''))
  } catch (error) {
    return fault(`is not JSON: ${(error as Error).message}`)
  }
  const read = shape.safeParse(value)
  if (read.success) return { ok: true, value: read.data }
  return { ok: false, faults: read.error.issues.flatMap((issue) => told(issue, value)) }
}

function told(issue: z.core.$ZodIssue, value: unknown): ShapeFault[] {
  const path = issue.path.join('/')
  const given = issue.path.reduce(
    (inner: unknown, key) => (inner as Record<PropertyKey, unknown> | null | undefined)?.[key],
    value
  )
  if (issue.code === 'unrecognized_keys')
    return issue.keys.map((key) => ({
      path: [path, key].filter(Boolean).join('/'),
      message: 'is not a field that is known here'
    }))
  if (issue.code === 'invalid_union') {
    // A union of shapes tells most by the shape that comes nearest.
    const nearest = issue.errors.toSorted((a, b) => a.length - b.length)[0]
    if (nearest?.length)
      return nearest.flatMap((inner) =>
        told({ ...inner, path: [...issue.path, ...inner.path] } as z.core.$ZodIssue, value)
      )
    return [{ path, message: 'is not one of the values that may stand here' }]
  }
  if (given === undefined) return [{ path, message: 'is needed' }]
  if (issue.code === 'invalid_type') return [{ path, message: `has to be of type ${issue.expected}` }]
  if (issue.code === 'invalid_value')
    return [{ path, message: `has to be ${issue.values.map((one) => `"${String(one)}"`).join(' or ')}` }]
  if (issue.code === 'too_big' && !/^has/.test(issue.message))
    return [{ path, message: `has to be ${String(issue.maximum)} or less` }]
  if (issue.code === 'too_small' && !/^(has|is)/.test(issue.message))
    return [{ path, message: `has to be ${String(issue.minimum)} or more` }]
  return [{ path, message: issue.message }]
}

export interface CatalogContent {
  catalog: Catalog
  /** In order of their first day. */
  terms: Term[]
  lists: z.infer<typeof listShape>[]
}

/** A catalog from its file. Only the shape is checked; `checkCatalog` looks at the rules. */
export function catalogFrom(file: z.infer<typeof catalogFile>): CatalogContent {
  const courses = file.courses.map((one): Course => {
    const digits = Number.parseInt(one.code.split(' ')[1]!, 10)
    return {
      code: courseCode(one.code),
      title: one.title,
      credits: one.credits,
      creditsMost: one.creditsMost ?? one.credits,
      level: one.level ?? 'undergraduate',
      // The first digit of a three-digit number is its year by default (common practice).
      yearLevel: one.yearLevel ?? Math.min(9, Math.floor(digits / 100)),
      offered: {
        seasons: one.offered?.seasons ?? ['autumn', 'spring'],
        years: one.offered?.years ?? 'every'
      },
      prerequisite: one.prerequisite ?? '',
      categories: one.categories ?? [],
      equivalents: (one.equivalents ?? []).map(courseCode),
      exclusive: (one.exclusive ?? []).map(courseCode),
      repeatable: one.repeatable ?? false
    }
  })
  const terms = (file.terms ?? []).map((one): Term => ({
    ...one,
    code: termCode(one.code),
    published: false
  }))
  return {
    catalog: new Catalog(courses, file.grades ? new GradeScale(file.grades) : COMMON_SCALE),
    terms: terms.sort(byStart),
    lists: file.lists ?? []
  }
}

export interface RecordContent {
  name: string
  standing: 'freshman' | 'sophomore' | 'junior' | 'senior' | 'graduate'
  record: RecordEntry[]
  planned: PlannedCourse[]
  tests: Record<string, number>
  milestones: string[]
  exceptions: ExceptionGrant[]
}

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

/** A route from its file. */
export function routeFrom(file: z.infer<typeof routeFile>): PlannedCourse[] {
  return file.planned.map((one) => ({
    course: courseCode(one.course),
    term: termCode(one.term),
    credits: one.credits,
    note: one.note ?? null,
    locked: one.locked ?? false
  }))
}

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

/** What a student can carry, from its file. */
export function limitsFrom(file: z.infer<typeof limitsFile>): Carry {
  return {
    credits: file.credits ?? null,
    least: file.least ?? null,
    hours: file.hours ?? null,
    outside: file.outside ?? null,
    target: file.target ? termCode(file.target) : null,
    terms: (file.terms ?? []).map(({ term: code, credits: most = null, hours = null, away = null }) => ({
      term: termCode(code),
      credits: most,
      hours,
      away
    }))
  }
}

/** A record from its file. @throws RangeError naming a grade that the scale does not have. */
export function recordFrom(file: z.infer<typeof recordFile>, scale: GradeScale): RecordContent {
  for (const [i, { grade: given }] of file.record.entries())
    if (given !== null) {
      if (!scale.has(given)) throw new RangeError(`record/${i}/grade: the grade scale has no "${given}"`)
    }
  return {
    name: file.name ?? '',
    standing: file.standing ?? 'freshman',
    record: file.record.map((one) => ({
      ...one,
      course: courseCode(one.course),
      term: one.term === null ? null : termCode(one.term),
      origin: one.origin ?? 'here'
    })),
    planned: (file.planned ?? []).map((one) => ({
      course: courseCode(one.course),
      term: termCode(one.term),
      credits: one.credits,
      note: null,
      locked: false
    })),
    tests: file.tests ?? {},
    milestones: file.milestones ?? [],
    exceptions: (file.exceptions ?? []).map((one, i) => ({
      id: i + 1,
      kind: one.kind,
      program: one.program,
      need: one.need,
      course: one.kind === 'substitution' ? courseCode(one.course) : null,
      reason: one.reason,
      by: '',
      at: 0
    }))
  }
}

export function programFrom(file: z.infer<typeof programFile>): ProgramSpec {
  const { obliges: _, ...spec } = file.program
  return spec
}
