/**
 * Reading the files that people bring: catalogs, programs, course lists, records, routes, limits. Their shapes are said in
 * `fileShapes.ts`; unknown fields are faults.
 */
import { byStart, Catalog, usualYearLevel, type Course, type Term } from '#core/catalog'
import type { ExceptionGrant, HeldSeat, PlannedCourse, ProgramSpec, RecordEntry } from '#core/degree'
import { COMMON_SCALE, GradeScale } from '#core/grades'
import { courseCode, termCode, type SectionCode } from '#core/ids'
import type { Carry } from '#shared/route/responses'
import type { catalogFile, limitsFile, listShape, programFile, routeFile } from './fileShapes'
import type { recordFile } from './record/recordShape'
import type { z } from 'zod'

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
  return { ok: false, faults: shapeFaults(read.error, value) }
}

/** What is wrong with a value's shape, each with its place. */
export const shapeFaults = (error: z.ZodError, value: unknown): ShapeFault[] =>
  error.issues.flatMap((issue) => told(issue, value))

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
    const code = courseCode(one.code)
    return {
      code,
      title: one.title,
      credits: one.credits,
      creditsMost: one.creditsMost ?? one.credits,
      level: one.level ?? 'undergraduate',
      yearLevel: one.yearLevel ?? usualYearLevel(code),
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
  /** Seats held; a term of theirs has not begun. */
  held: HeldSeat[]
  planned: PlannedCourse[]
  tests: Record<string, number>
  milestones: string[]
  exceptions: ExceptionGrant[]
}

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
    held: (file.registered ?? []).map((one) => ({
      ...one,
      course: courseCode(one.course),
      term: termCode(one.term),
      section: (one.section ?? '') as SectionCode,
      placedByOffice: false
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
      amount: one.kind === 'waiver' ? (one.amount ?? null) : null,
      course: one.kind === 'substitution' ? courseCode(one.course) : null,
      reason: one.reason,
      by: '',
      at: 0
    }))
  }
}

export function programFrom(file: Pick<z.infer<typeof programFile>, 'program'>): ProgramSpec {
  const { obliges: _, ...spec } = file.program
  return spec
}
