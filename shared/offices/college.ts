/** What the college itself is, as the registrar says it: its places, departments, categories and grades. */
import { GRADE_RESULTS, type GradeSpec } from '#core/grades'
import { GRADE } from '#shared/oneRoster/tables'
import { z } from 'zod'

export interface Campus {
  /** Null of one that is new. */
  id: number | null
  code: string
  name: string
}
export interface Building {
  id: number | null
  /** By its code. */
  campus: string
  name: string
  rooms: { id: number | null; name: string; seats: number }[]
}
export interface Department {
  id: number | null
  name: string
}
export interface Subject {
  code: string
  name: string
  /** Of several colleges, the one that it belongs to. */
  college: string
  /** By its name; null where it is nobody's. */
  department: string | null
}
export interface Category {
  id: number | null
  family: string
  code: string
  title: string
}

export interface CollegePage {
  /** 0 before there is anything. */
  version: number
  name: string
  timeZone: string
  /** Whether there are terms, whose instants are in its time. */
  hasTerms: boolean
  campuses: Campus[]
  travel: { from: string; to: string; minutes: number }[]
  buildings: Building[]
  departments: Department[]
  subjects: Subject[]
  categories: Category[]
  grades: GradeSpec[]
  /** Grades that somebody has. */
  given: string[]
}

const text = (most: number) =>
  z.string('has to be a text').trim().min(1, 'is needed').max(most, `has to be ${most} characters or less`)
const known = z.int('has to be a number').positive('has to be above zero').nullable()
const whole = (least: number, most: number) =>
  z
    .int('has to be a whole number')
    .min(least, `has to be ${least} or more`)
    .max(most, `has to be ${most} or less`)

/** Refuses what is there twice, at its second place. */
function onceEach<T>(keyOf: (one: T) => string, field: string) {
  return (all: readonly T[], context: z.RefinementCtx): void => {
    const seen = new Set<string>()
    all.forEach((one, i) => {
      const key = keyOf(one).toLowerCase()
      if (seen.has(key))
        context.addIssue({ code: 'custom', path: [i, field], message: 'has to be there once' })
      seen.add(key)
    })
  }
}

const isZone = (name: string): boolean => {
  try {
    return Boolean(new Intl.DateTimeFormat('en', { timeZone: name }))
  } catch {
    return false
  }
}
const campusCode = z.string().regex(/^[A-Z][A-Z0-9-]{0,11}$/, 'has to be capitals and digits, such as HILL')
const version = whole(0, 1_000_000)

export const frameBody = z.object({
  part: z.literal('frame'),
  version,
  name: text(120),
  timeZone: text(64).refine(isZone, {
    error: 'has to be a zone of the time zone database, such as America/Halifax'
  }),
  campuses: z
    .array(z.object({ id: known, code: campusCode, name: text(80) }))
    .min(1, 'has to have a campus')
    .max(40, 'has to have 40 campuses or less')
    .superRefine(onceEach((one) => one.code, 'code')),
  travel: z
    .array(z.object({ from: campusCode, to: campusCode, minutes: whole(0, 600) }))
    .max(1600, 'has to have 1,600 ways or less')
})

export const roomsBody = z.object({
  part: z.literal('rooms'),
  version,
  buildings: z
    .array(
      z.object({
        id: known,
        campus: campusCode,
        name: text(80),
        rooms: z
          .array(z.object({ id: known, name: text(40), seats: whole(1, 5000) }))
          .max(500, 'has to have 500 rooms or less')
          .superRefine(onceEach((one) => one.name, 'name'))
      })
    )
    .max(300, 'has to have 300 buildings or less')
    .superRefine(onceEach((one) => `${one.campus} ${one.name}`, 'name'))
})

export const subjectsBody = z.object({
  part: z.literal('subjects'),
  version,
  departments: z
    .array(z.object({ id: known, name: text(80) }))
    .max(200, 'has to have 200 departments or less')
    .superRefine(onceEach((one) => one.name, 'name')),
  subjects: z
    .array(
      z.object({
        code: z.string().regex(/^[A-Z]{2,5}$/, 'has to be two to five capitals'),
        name: text(80),
        college: z.string('has to be a text').trim().max(80, 'has to be 80 characters or less'),
        department: text(80).nullable()
      })
    )
    .max(500, 'has to have 500 subjects or less')
    .superRefine(onceEach((one) => one.code, 'code'))
})

export const categoriesBody = z.object({
  part: z.literal('categories'),
  version,
  categories: z
    .array(
      z.object({
        id: known,
        family: text(40),
        code: z.string().regex(/^[a-z][a-z0-9-]{0,23}$/, 'has to be lower-case letters, digits and hyphens'),
        title: text(80)
      })
    )
    .max(200, 'has to have 200 categories or less')
    .superRefine(onceEach((one) => one.code, 'code'))
})

const points = z.number('has to be a number').min(0, 'has to be 0 or more').max(20, 'has to be 20 or less')
export const gradesBody = z.object({
  part: z.literal('grades'),
  version,
  grades: z
    .array(
      z.object({
        grade: z.string('has to be a text').regex(GRADE, 'has to be capital letters, such as A, B+ or WF'),
        points: points.nullable(),
        result: z.enum(GRADE_RESULTS),
        rank: points
      })
    )
    .min(1, 'has to have a grade')
    .max(60, 'has to have 60 grades or less')
    .superRefine(onceEach((one) => one.grade, 'grade'))
})

export const collegeBody = z.discriminatedUnion('part', [
  frameBody,
  roomsBody,
  subjectsBody,
  categoriesBody,
  gradesBody
])
export type CollegeSaid = z.output<typeof collegeBody>
